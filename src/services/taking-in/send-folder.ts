/** A folder as it is sent: into a file of its own, as it comes, and opened there. */
import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { cut } from '../texts';
import { FULL, hold, letGo } from './held';
import { LARGEST_ARCHIVE, openArchive } from './unpack';

export type SentAnswer =
  | { readonly kind: 'sent'; readonly source: string }
  | { readonly kind: 'wrong'; readonly message: string };

/** Takes a folder as it is sent, in a ZIP archive. It is held for an hour, and read when it is looked at. */
export async function sendFolder(
  trivet: Trivet,
  administrator: Administrator,
  body: ReadableStream<Uint8Array> | null,
  name: string,
): Promise<SentAnswer> {
  requirePermission(administrator, 'everything');
  if (!body) return { kind: 'wrong', message: 'Nothing was sent.' };
  const held = await hold(trivet, administrator.id);
  if (!held) return { kind: 'wrong', message: FULL };
  const at = join(held.folder, 'archive');
  const sent = (await written(body, at)) ? await openArchive(at, oneLine(name) || 'What was sent') : null;
  if (sent && !('problem' in sent)) {
    held.source = sent;
    return { kind: 'sent', source: held.id };
  }
  await letGo(trivet, held);
  return { kind: 'wrong', message: sent?.problem ?? TOO_LARGE };
}

const TOO_LARGE = `That is larger than ${LARGEST_ARCHIVE / 1_000_000} MB, or broke off on its way. Send it in parts.`;

const oneLine = (text: string): string => cut(text.replace(/[\s\p{Cc}]+/gu, ' ').trim(), 100);

/** Writes what is sent; false where it is too much, or breaks off. */
async function written(body: ReadableStream<Uint8Array>, at: string): Promise<boolean> {
  let size = 0;
  const bounded = new Transform({
    transform(part: Buffer, _, done) {
      size += part.length;
      if (size > LARGEST_ARCHIVE) done(new Error(TOO_LARGE));
      else done(null, part);
    },
  });
  try {
    await pipeline(Readable.fromWeb(body as never), bounded, createWriteStream(at));
    return true;
  } catch {
    return false;
  }
}
