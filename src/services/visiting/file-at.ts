/** What a file holds, for those to whom it is open. */
import { LRUCache } from 'lru-cache';
import { asId, type File, type ItemId, normaliseAddress } from '@/core';
import { type FileDigest, readFileDigest, readFilePart } from '@/store';
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
  const known = await digestOf(trivet, file.id);
  if (known === null) return missing();
  return {
    kind: 'file',
    file,
    ...known,
    read: (from, count) => bytesOf(trivet, file.id, known, from, from + count),
  };
}

/** In bytes: files are read in pieces of this size. */
const PIECE = 256 * 1024;

/** Which piece of which content, and nothing else: whoever gets to read a file was let in before. */
type Pieces = LRUCache<string, Uint8Array>;

const keptBy = new WeakMap<Trivet, Pieces | null>();

/** Pieces that were read lately, in a quarter of what may be kept. */
function piecesOf(trivet: Trivet): Pieces | null {
  const known = keptBy.get(trivet);
  if (known !== undefined) return known;
  const maxSize = Math.floor(trivet.keptBytes / 4);
  const pieces: Pieces | null =
    maxSize < PIECE ? null : new LRUCache({ maxSize, sizeCalculation: ({ length }) => length + 1 });
  keptBy.set(trivet, pieces);
  return pieces;
}

/** A piece of a file, by its number; with no bytes when the file is gone, or is not what it was. */
async function pieceOf(
  trivet: Trivet,
  id: ItemId,
  { digest, size }: FileDigest,
  number: number,
): Promise<Uint8Array> {
  const pieces = piecesOf(trivet);
  const key = `${digest} ${number}`;
  const found = pieces?.get(key);
  if (found) return found;
  const read = await readFilePart(trivet.db, id, digest, number * PIECE, PIECE);
  if (read.length !== Math.min(PIECE, size - number * PIECE)) return new Uint8Array();
  pieces?.set(key, read);
  return read;
}

/** Some bytes of a file, read as they are taken. */
function bytesOf(
  trivet: Trivet,
  id: ItemId,
  file: FileDigest,
  from: number,
  end: number,
): ReadableStream<Uint8Array> {
  let at = from;
  return new ReadableStream<Uint8Array>(
    {
      async pull(controller) {
        if (at >= end) return controller.close();
        const number = Math.floor(at / PIECE);
        const piece = await pieceOf(trivet, id, file, number);
        const part = piece.subarray(at - number * PIECE, end - number * PIECE);
        if (part.length === 0) return controller.error(new Error('The file went while it was read.'));
        at += part.length;
        controller.enqueue(part);
      },
    },
    { highWaterMark: 0 },
  );
}

// By what items say: whatever changes a file makes that anew.
const digests = new WeakMap<Trivet['state']['contents'], Map<ItemId, FileDigest>>();

/** What is known of a file's bytes, asked of the database once; null when there are none. */
async function digestOf({ db, state }: Trivet, id: ItemId): Promise<FileDigest | null> {
  const known = digests.get(state.contents) ?? new Map<ItemId, FileDigest>();
  digests.set(state.contents, known);
  const found = known.get(id) ?? (await readFileDigest(db, id));
  if (found) known.set(id, found);
  return found;
}
