/** Forms with files (multipart/form-data, RFC 7578), read whole once they are known not to be too large. */
import { unkeptIn } from '@/core';
import { readBytes } from './request';
import type { SiteRequest } from './site-request';

export interface SentForm {
  /** What was typed; the last of a field that was sent twice. */
  readonly fields: Readonly<Record<string, string>>;
  readonly files: readonly { readonly name: string; readonly bytes: Uint8Array }[];
}

const MOST_PARTS = 40;

/** The fields and files of a form, or null when it is larger than so many bytes, or no such form. */
export async function readMultipart(request: SiteRequest, most: number): Promise<SentForm | null> {
  const type = request.headers.get('content-type') ?? '';
  const boundary = /^multipart\/form-data;\s*boundary=(?:"([^"]{1,70})"|([^\s;"]{1,70}))\s*$/i.exec(type);
  if (!boundary) return null;
  const bytes = await readBytes(request, most);
  if (bytes === null || partsIn(bytes, boundary[1] ?? boundary[2] ?? '') > MOST_PARTS) return null;
  let form: FormData;
  try {
    form = await new Response(new Uint8Array(bytes), { headers: { 'content-type': type } }).formData();
  } catch {
    return null;
  }
  const fields: Record<string, string> = {};
  const files: { readonly name: string; readonly bytes: Uint8Array }[] = [];
  for (const [name, value] of form) {
    if (typeof value === 'string') fields[name] = value;
    // A browser sends an empty file for a field in which none was chosen.
    else if (value.size > 0 || value.name !== '')
      files.push({ name: value.name, bytes: new Uint8Array(await value.arrayBuffer()) });
  }
  return unkeptIn([Object.entries(fields), files.map(({ name }) => name)]) === null
    ? { fields, files }
    : null;
}

/** How many parts a body has, as far as it matters: counted without reading them. */
function partsIn(bytes: Uint8Array, boundary: string): number {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let parts = 0;
  const mark = `--${boundary}`;
  for (let at = buffer.indexOf(mark); at >= 0 && parts <= MOST_PARTS; at = buffer.indexOf(mark, at + 1))
    parts += 1;
  return parts;
}
