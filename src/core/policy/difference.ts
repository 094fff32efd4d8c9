/** What differs between two policies, and how to bring two people's edits of one draft together. */
import type { Gate } from '../gate';
import { same } from '../same';
import type { Audience } from '../site';
import type { Policy } from './policy';

/** One difference of a gate. A gate that was both changed and moved is two. */
export type GateChange =
  | { readonly kind: 'added'; readonly of: 'gate'; readonly after: Gate }
  | { readonly kind: 'removed'; readonly of: 'gate'; readonly before: Gate }
  | { readonly kind: 'changed'; readonly of: 'gate'; readonly before: Gate; readonly after: Gate }
  | { readonly kind: 'moved'; readonly of: 'gate'; readonly after: Gate };

/** One difference of an audience. Their order means nothing. */
export type AudienceChange =
  | { readonly kind: 'added'; readonly of: 'audience'; readonly after: Audience }
  | { readonly kind: 'removed'; readonly of: 'audience'; readonly before: Audience }
  | {
      readonly kind: 'changed';
      readonly of: 'audience';
      readonly before: Audience;
      readonly after: Audience;
    };

export type PolicyChange = GateChange | AudienceChange;

/** The differences from one policy to another, in the order of the newer one, removals last; gates before audiences. */
export function difference(before: Policy, after: Policy): readonly PolicyChange[] {
  return [...gateChanges(before.gates, after.gates), ...audienceChanges(before.audiences, after.audiences)];
}

function gateChanges(before: readonly Gate[], after: readonly Gate[]): readonly GateChange[] {
  const old = byId(before);
  const current = byId(after);
  const stayed = longestCommonOrder(
    before.map(({ id }) => id),
    after.map(({ id }) => id),
  );
  const changes: GateChange[] = [];
  for (const gate of after) {
    const previous = old.get(gate.id);
    if (!previous) changes.push({ kind: 'added', of: 'gate', after: gate });
    else {
      if (!same(previous, gate)) changes.push({ kind: 'changed', of: 'gate', before: previous, after: gate });
      if (!stayed.has(gate.id)) changes.push({ kind: 'moved', of: 'gate', after: gate });
    }
  }
  for (const gate of before)
    if (!current.has(gate.id)) changes.push({ kind: 'removed', of: 'gate', before: gate });
  return changes;
}

function audienceChanges(before: readonly Audience[], after: readonly Audience[]): readonly AudienceChange[] {
  const old = byId(before);
  const current = byId(after);
  return [
    ...after.flatMap((audience): AudienceChange[] => {
      const previous = old.get(audience.id);
      if (!previous) return [{ kind: 'added', of: 'audience', after: audience }];
      return same(previous, audience)
        ? []
        : [{ kind: 'changed', of: 'audience', before: previous, after: audience }];
    }),
    ...before
      .filter(({ id }) => !current.has(id))
      .map((audience): AudienceChange => ({ kind: 'removed', of: 'audience', before: audience })),
  ];
}

/**
 * Puts my edits of a common base on top of theirs, gate by gate and audience by audience. Where both changed the same one,
 * mine stands; my order of gates is taken only if they left the order alone.
 */
export function rebase(base: Policy, mine: Policy, theirs: Policy): Policy {
  const changes = gateChanges(base.gates, mine.gates);
  const gates = merged(theirs.gates, changes);
  const audiences = merged(theirs.audiences, audienceChanges(base.audiences, mine.audiences));
  const iMoved = changes.some(({ kind }) => kind === 'moved');
  const theyMoved = gateChanges(base.gates, theirs.gates).some(({ kind }) => kind === 'moved');
  if (!iMoved || theyMoved) return { gates, audiences };
  const place = new Map(mine.gates.map((gate, index) => [gate.id, index]));
  const last = mine.gates.length;
  return {
    gates: gates.toSorted((a, b) => (place.get(a.id) ?? last) - (place.get(b.id) ?? last)),
    audiences,
  };
}

type Edit<T> =
  | { readonly kind: 'added' | 'changed'; readonly after: T }
  | { readonly kind: 'removed'; readonly before: T }
  | { readonly kind: 'moved' };

function merged<T extends { readonly id: string }>(list: readonly T[], changes: readonly Edit<T>[]): T[] {
  const edits = new Map<string, T | null>();
  for (const change of changes) {
    if (change.kind === 'removed') edits.set(change.before.id, null);
    else if (change.kind !== 'moved') edits.set(change.after.id, change.after);
  }
  const kept = list.flatMap((one) => {
    const edit = edits.get(one.id);
    return edit === undefined ? [one] : edit === null ? [] : [edit];
  });
  const present = new Set(list.map(({ id }) => id));
  const added = [...edits.values()].filter((edit): edit is T => edit !== null && !present.has(edit.id));
  return [...kept, ...added];
}

const byId = <T extends { readonly id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
  new Map(list.map((one) => [one.id, one]));

/**
 * The ids that kept their order: a longest increasing run of old places, read in the new order (patience sorting), so
 * that one gate moved across many counts as one move.
 */
function longestCommonOrder(before: readonly string[], after: readonly string[]): ReadonlySet<string> {
  const oldPlace = new Map(before.map((id, index) => [id, index]));
  interface Card {
    readonly id: string;
    readonly place: number;
    readonly left: Card | undefined;
  }
  const piles: Card[] = [];
  for (const id of after) {
    const place = oldPlace.get(id);
    if (place === undefined) continue;
    let at = piles.findIndex((top) => top.place >= place);
    if (at < 0) at = piles.length;
    piles[at] = { id, place, left: piles[at - 1] };
  }
  const kept = new Set<string>();
  for (let card = piles.at(-1); card; card = card.left) kept.add(card.id);
  return kept;
}
