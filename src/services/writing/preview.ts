/** A page as it will look while it is being written, to whomever one chooses. Nothing of it is on the site. */
import { z } from 'zod';
import {
  asId,
  type CompiledPolicy,
  compile,
  type ItemId,
  isAddressed,
  isShared,
  outlineOf,
  standInFacts,
} from '@/core';
import { personBehind, readStandIn } from '../people';
import type { SiteState, Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission } from '../running';
import { type PageAnswer, viewOf, viewPageInTime, type WithheldLink, withheldLinks } from '../view';
import type { DocumentProblem } from './document';
import { readWritten, type Written } from './write-document';

const asking = z.strictObject({
  standIn: z.unknown(),
  document: z.unknown(),
  /** Of a shared section: the page or post on which it is looked at; the first of its hosts, if none is named. */
  host: z.string().max(100).optional(),
});

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
  if (!parsed.success || !(isAddressed(item) || isShared(item)) || !standIn) return { kind: 'missing' };
  // What is wrong with a region keeps it from being shown; what is wrong otherwise leaves nothing to show.
  const read = readWritten(parsed.data.document, item, state, true);
  if ('problems' in read) return { kind: 'wrong', problems: read.problems };
  const { made } = read;
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
  const contents = state.contents.with([...stored.values()].map((one) => [one.item.id, one.content]));
  const shown: SiteState = { ...state, outline, contents };
  const compiled = compile(state.draft.policy, outline, state.names);
  const page = outline.items.get(pageFor(item, compiled, parsed.data.host));
  if (!isAddressed(page))
    return {
      kind: 'wrong',
      problems: [
        { path: 'on', line: null, message: 'It stands on nothing yet. Say what it is to stand on.' },
      ],
    };
  const context = viewOf({
    state: shown,
    compiled,
    facts: standInFacts(standIn.standIn),
    person: personBehind(standIn.standIn, state),
    request: plainRequest(state, now),
    base: '',
  });
  const answer = await viewPageInTime(context, encodeURI(page.address));
  return { kind: 'preview', answer, withheld: answer.kind === 'page' ? withheldLinks(context, page.id) : [] };
}

/** The page on which something is looked at: itself, or a host of a shared section. */
function pageFor(item: Written, { outline, places }: CompiledPolicy, host: string | undefined): ItemId {
  if (!isShared(item)) return item.id;
  const written = outline.items.get(item.id);
  const hosts = isShared(written) ? [...places.hosts(written)] : [];
  return hosts.find((one) => one === host) ?? hosts[0] ?? item.id;
}
