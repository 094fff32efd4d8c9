/** What a file holds, for those to whom it is open. */
import { asId, type File, type ItemId, normaliseAddress } from '@/core';
import { readFileBytes } from '@/store';
import type { Trivet } from './trivet';
import { decisionOn, frameFor, type Look, type PageAnswer, turnedAway } from './view';

export type FileAnswer =
  | { readonly kind: 'file'; readonly file: File; readonly bytes: Uint8Array }
  /** What is given in its place, as for a page. */
  | { readonly kind: 'instead'; readonly answer: PageAnswer };

/** A file by its id and name. With another name it is not there, so that a guess tells nothing. */
export async function fileAt(trivet: Trivet, look: Look, id: string, name: string): Promise<FileAnswer> {
  const file = look.state.outline.items.get(asId<ItemId>(id));
  const missing: FileAnswer = { kind: 'instead', answer: { kind: 'missing', frame: frameFor(look, null) } };
  if (file?.kind !== 'file' || normaliseAddress(`/${name}`) !== normaliseAddress(`/${file.name}`))
    return missing;
  const decision = decisionOn(look, file.id);
  if (decision.kind === 'turned away') return { kind: 'instead', answer: turnedAway(look, file, decision) };
  const bytes = await readFileBytes(trivet.db, file.id);
  return bytes === null ? missing : { kind: 'file', file, bytes };
}
