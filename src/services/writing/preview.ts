/** A page as it will look while it is being written, to whomever one chooses. Nothing of it is on the site. */
import { z } from 'zod';
import { asId, compile, factsOf, type ItemId, isAddressed, outlineOf } from '@/core';
import { personBehind, readStandIn } from '../people';
import type { SiteState, Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission } from '../running';
import { type PageAnswer, viewOf, viewPageInTime, type WithheldLink, withheldLinks } from '../view';
import { type DocumentProblem, readDocument } from './document';
import { itemsFor } from './write-document';

const asking = z.strictObject({ standIn: z.unknown(), document: z.unknown() });

export type PreviewAnswer =
  | {
      readonly kind: 'preview';
      readonly answer: PageAnswer;
      /** What of its texts the visitor does not get, because it leads to what is closed to them. */
      readonly withheld: readonly WithheldLink[];
    }
  | { readonly kind: 'wrong'; readonly problems: readonly DocumentProblem[] }
  | { readonly kind: 'missing' };

/** The page with what is written, under the draft of the policy, as a stand-in gets it; published, for the look of it. */
export async function previewWriting(
  trivet: Trivet,
  administrator: Administrator,
  id: string,
  input: unknown,
  now: Date,
): Promise<PreviewAnswer> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const parsed = asking.safeParse(input);
  const item = state.outline.items.get(asId<ItemId>(id));
  const standIn = parsed.success ? readStandIn(state, parsed.data.standIn) : null;
  if (!parsed.success || !isAddressed(item) || !standIn) return { kind: 'missing' };
  const read = readDocument(parsed.data.document, item, state);
  // What is wrong with a region keeps it from being shown; what is wrong otherwise leaves nothing to show.
  if ('problems' in read) return { kind: 'wrong', problems: read.problems };
  const made = itemsFor({ ...read.document, published: true }, read.address, item, state);
  const gone = new Set(made.gone.map((one) => one.item.id));
  const stored = new Map([...made.changed, ...made.added].map((one) => [one.item.id, one]));
  const items = [...state.outline.items.values()]
    .filter((one) => !gone.has(one.id) && !stored.has(one.id))
    .concat([...stored.values()].map((one) => one.item));
  const outline = outlineOf(items);
  if ('problems' in outline)
    return {
      kind: 'wrong',
      problems: outline.problems.map(({ message }) => ({ path: '', line: null, message })),
    };
  const contents = new Map(state.contents);
  for (const one of stored.values()) contents.set(one.item.id, one.content);
  const shown: SiteState = { ...state, outline, contents };
  const context = viewOf({
    state: shown,
    compiled: compile(state.draft.policy, outline, state.names),
    facts: factsOf(standIn.standIn),
    person: personBehind(standIn.standIn, state),
    request: plainRequest(state, now),
    base: '',
  });
  const answer = await viewPageInTime(context, encodeURI(read.address));
  return { kind: 'preview', answer, withheld: answer.kind === 'page' ? withheldLinks(context, item.id) : [] };
}
