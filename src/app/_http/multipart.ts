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

/** What was typed before the files of a form that is too large to be read. */
export interface TooLarge {
  readonly tooLarge: SentForm['fields'];
}

/**
 * The fields and files of a form; of one that says that it is larger than so many bytes what was typed at its beginning; null
 * for what is no such form.
 */
export async function readMultipart(request: SiteRequest, most: number): Promise<SentForm | TooLarge | null> {
  const type = request.headers.get('content-type') ?? '';
  const boundary = /^multipart\/form-data;\s*boundary=(?:"([^"]{1,70})"|([^\s;"]{1,70}))\s*$/i.exec(type);
  if (!boundary) return null;
  const mark = `--${boundary[1] ?? boundary[2] ?? ''}`;
  if (Number(request.headers.get('content-length') ?? 0) > most)
    return { tooLarge: typedIn(await startOf(request), mark) };
  const bytes = await readBytes(request, most);
  if (bytes === null || partsIn(bytes, mark) > MOST_PARTS) return null;
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
function partsIn(bytes: Uint8Array, mark: string): number {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let parts = 0;
  for (let at = buffer.indexOf(mark); at >= 0 && parts <= MOST_PARTS; at = buffer.indexOf(mark, at + 1))
    parts += 1;
  return parts;
}

/** In bytes: what can be typed comes before the files. */
const START = 300_000;

/** The beginning of a body; the rest is let run by. */
async function startOf({ body }: SiteRequest): Promise<string> {
  const reader = body?.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  for (let chunk = await reader?.read(); chunk && !chunk.done; chunk = await reader?.read()) {
    parts.push(chunk.value);
    size += chunk.value.byteLength;
    if (size > START) break;
  }
  await reader?.cancel();
  return Buffer.concat(parts).toString('utf8', 0, START);
}

/** The fields that are whole at the beginning of a form. */
function typedIn(start: string, mark: string): SentForm['fields'] {
  const fields: Record<string, string> = {};
  for (const part of start.split(`\r\n${mark}`).slice(0, -1)) {
    const [head = '', ...lines] = part.split('\r\n\r\n');
    const name = /;\s*name="([^"]{1,100})"/i.exec(head)?.[1];
    if (name !== undefined && !/;\s*filename/i.test(head)) fields[name] = lines.join('\r\n\r\n');
  }
  return unkeptIn(Object.entries(fields)) === null ? fields : {};
}
