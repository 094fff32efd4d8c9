/** What a file holds, for those to whom it is open. */
import { asId, type File, type ItemId, normaliseAddress } from '@/core';
import { readFileDigest, readFilePart } from '@/store';
import type { Trivet } from '../running';
import { instead, nowhere, opens, type PageAnswer, type ViewContext } from '../view';

export type FileAnswer =
  | {
      readonly kind: 'file';
      readonly file: File;
      /** In bytes. */
      readonly size: number;
      /** SHA-256 of the bytes, in base64url. */
      readonly digest: string;
      /** The bytes from a place on, so many of them, a piece at a time. */
      readonly read: (from: number, count: number) => ReadableStream<Uint8Array>;
    }
  /** What is given in its place, as for a page. */
  | { readonly kind: 'instead'; readonly answer: PageAnswer };

/** A file by its id and name. With another name it is not there, so that a guess tells nothing. */
export async function fileAt(
  trivet: Trivet,
  context: ViewContext,
  id: string,
  name: string,
): Promise<FileAnswer> {
  const file = context.state.outline.items.get(asId<ItemId>(id));
  const missing = (): FileAnswer => ({ kind: 'instead', answer: nowhere(context, `/files/${id}/${name}`) });
  if (file?.kind !== 'file' || normaliseAddress(`/${name}`) !== normaliseAddress(`/${file.name}`))
    return missing();
  if (!opens(context, file.id)) return { kind: 'instead', answer: instead(context, file) };
  const known = await readFileDigest(trivet.db, file.id);
  if (known === null) return missing();
  return {
    kind: 'file',
    file,
    ...known,
    read: (from, count) => bytesOf(trivet, file.id, from, from + count),
  };
}

/** In bytes: what is held of a file at a time, for each who is reading it. */
const AT_ONCE = 256 * 1024;

/** Some bytes of a file, read as they are taken. */
function bytesOf(trivet: Trivet, id: ItemId, from: number, end: number): ReadableStream<Uint8Array> {
  let at = from;
  return new ReadableStream<Uint8Array>(
    {
      async pull(controller) {
        const part = at >= end ? null : await readFilePart(trivet.db, id, at, Math.min(AT_ONCE, end - at));
        if (part === null) return controller.close();
        if (part.length === 0) return controller.error(new Error('The file went while it was read.'));
        at += part.length;
        controller.enqueue(part);
      },
    },
    { highWaterMark: 0 },
  );
}
