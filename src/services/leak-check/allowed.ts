/**
 * What a visitor may have of a marked site, worked out from decisions alone: none of the code that makes pages, lists or
 * feeds is used, so that a mistake there can't excuse itself.
 */
import {
  asksAbout,
  type CompiledPolicy,
  type Condition,
  type Decision,
  decide,
  decideAlong,
  type Item,
  type ItemId,
  isShared,
  pageOf,
  parseRegions,
  placeId,
  type RequestFacts,
  shownIn,
  TRUE,
  TURN_AWAYS,
  trace,
  type VisitorFacts,
} from '@/core';
import type { StoredItem, StoredTerms } from '@/store';
import { QUIZ, QUIZ_HANDED_IN } from './doors';
import type { Mark } from './marks';
import { mayRead } from './sold';

/** A visitor of the copy, as far as decisions are concerned. */
export interface Eyes {
  readonly compiled: CompiledPolicy;
  readonly facts: VisitorFacts;
  readonly request: RequestFacts;
}

/**
 * Whether a visitor may have a mark where it turned up: at an item, or where none is (`null`), by which door. For most marks
 * that makes no difference; one of a shared section may stand on one page and not on another, and what a quiz asks is at its
 * own door alone.
 */
export function mayHave(
  eyes: Eyes,
  mark: Mark,
  {
    stored,
    terms,
  }: { readonly stored: ReadonlyMap<ItemId, StoredItem>; readonly terms: readonly StoredTerms[] },
  at: Item | null,
  door: string,
): boolean {
  const { compiled, facts, request } = eyes;
  const { item: id, part } = mark;
  if (part.kind === 'own word') return part.person === facts.id;
  if (part.kind === 'product') return mayRead(eyes, part.product, terms);
  const item = id === null ? undefined : compiled.outline.items.get(id);
  if (!item) return false;
  if (part.kind === 'question' || part.kind === 'right answer')
    return (
      facts.signedIn &&
      decide(compiled, item.id, facts, request).kind === 'open' &&
      (door === QUIZ_HANDED_IN
        ? part.kind === 'question' || tellsToAll(stored.get(item.id))
        : door === QUIZ && part.kind === 'question')
    );
  const allowed = (decision: Decision, about: Item | null) =>
    mayHaveBy(decision, about, eyes, item, part, stored);
  if (!isShared(item)) return allowed(decide(compiled, item.id, facts, request), null);
  const { places } = compiled;
  return (
    (at !== null &&
      places.hosts(item).has(at.id) &&
      allowed(decide(compiled, placeId(item.id, at.id), facts, request), at)) ||
    // On the page that turns somebody away stands what stands everywhere.
    (item.shared.elsewhere && allowed(decideAlong(places.hurdlesAt(item, null), facts, request), null))
  );
}

function mayHaveBy(
  decision: Decision,
  about: Item | null,
  { compiled, facts, request }: Eyes,
  item: Item,
  part: Exclude<Mark['part'], { kind: 'own word' | 'product' | 'question' | 'right answer' }>,
  stored: ReadonlyMap<ItemId, StoredItem>,
): boolean {
  const { vocabulary } = compiled;
  const { id } = item;
  const open = decision.kind === 'open';
  const told = decision.kind === 'open' ? 'something' : TURN_AWAYS[decision.turnAway.kind].tells;
  const teaser =
    decision.kind === 'turned away' && decision.turnAway.kind === 'teaser' ? decision.turnAway : null;
  const goesWith = (needed: ItemId | 'nobody' | null) =>
    needed === null || (needed !== 'nobody' && decide(compiled, needed, facts, request).kind === 'open');
  switch (part.kind) {
    case 'title':
      return told !== 'nothing';
    case 'address':
    case 'author':
    case 'tag':
    case 'file name':
      return told === 'something';
    case 'summary':
      return open || teaser?.show.kind === 'summary';
    case 'file':
      return open;
    case 'section part':
      return open && goesWith(part.with);
    case 'coarse picture': {
      const holder = holderOf(item, compiled);
      return open || (holder !== null && teases(decide(compiled, holder, facts, request)));
    }
    case 'text': {
      const body = stored.get(id)?.content.body ?? '';
      const holds = (condition: Condition) =>
        !(about === null && asksAbout(condition, vocabulary)) &&
        trace(condition, { visitor: facts, item: about, request }, vocabulary).truth === TRUE;
      const shown = shownIn(parseRegions(body, vocabulary, isShared(item)).pieces, holds).some(
        ({ path }) => path === part.path,
      );
      return (open && shown && goesWith(part.with)) || inFirstWords(item, part, { compiled, facts, request });
    }
    default:
      return part satisfies never;
  }
}

/** Whether a quiz tells what would have been right to somebody who handed in one attempt without an answer. */
function tellsToAll(stored: StoredItem | undefined): boolean {
  const { answers = 'never', attempts, passMark } = stored?.content.quiz ?? {};
  return (
    answers === 'after the attempt' ||
    (answers === 'after the last attempt' && attempts === 1) ||
    (answers === 'after passing' && passMark === 0)
  );
}

const teases = (decision: Decision): boolean =>
  decision.kind === 'turned away' && decision.turnAway.kind === 'teaser' && decision.turnAway.preview;

/** What a picture is shown with when that is teased: the page or post it is in. */
function holderOf(item: Item, { outline }: CompiledPolicy): ItemId | null {
  const page = pageOf(outline, item);
  return page?.id ?? item.parent;
}

/** Whether a piece may be among the first words that a teaser shows: near the beginning, and withheld by nothing else. */
function inFirstWords(
  item: Item,
  { path, words }: { readonly path: string; readonly words: number },
  { compiled, facts, request }: Eyes,
): boolean {
  const page = pageOf(compiled.outline, item);
  if (!page || path.includes('.')) return false;
  const pages = (compiled.covering.get(page.id) ?? []).map(({ gate }) => gate.id);
  const own = (compiled.covering.get(item.id) ?? []).filter(
    ({ gate, setAside }) => !setAside && !pages.includes(gate.id),
  );
  return [page.id, item.id].some((id) => {
    const decision = decide(compiled, id, facts, request);
    const show =
      decision.kind === 'turned away' && decision.turnAway.kind === 'teaser' ? decision.turnAway.show : null;
    if (show?.kind !== 'words' || (id === page.id && own.length > 0)) return false;
    // Marks of Markdown count as words here and not there.
    return words <= show.count * 2 + 10;
  });
}
