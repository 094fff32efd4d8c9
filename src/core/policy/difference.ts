/** What differs between two policies. */
import type { Expectation } from '../expectation/expectation';
import type { Gate, NamedTurnAway } from '../gate';
import { same } from '../same';
import type { Audience } from '../site';
import type { Default, Landing, Policy } from './policy';

/** One difference of a gate. A gate that was both changed and moved is two. */
export type GateChange =
  | { readonly kind: 'added'; readonly of: 'gate'; readonly after: Gate }
  | { readonly kind: 'removed'; readonly of: 'gate'; readonly before: Gate }
  | { readonly kind: 'changed'; readonly of: 'gate'; readonly before: Gate; readonly after: Gate }
  | { readonly kind: 'moved'; readonly of: 'gate'; readonly after: Gate };

/** One difference of something whose order means nothing. */
type SetChange<Of extends string, T> =
  | { readonly kind: 'added'; readonly of: Of; readonly after: T }
  | { readonly kind: 'removed'; readonly of: Of; readonly before: T }
  | { readonly kind: 'changed'; readonly of: Of; readonly before: T; readonly after: T };

export type AudienceChange = SetChange<'audience', Audience>;
export type TurnAwayChange = SetChange<'turn-away', NamedTurnAway>;
export type ExpectationChange = SetChange<'expectation', Expectation>;

/** The landing rules or the defaults differ: lists that are short and read as a whole. */
export type ListChange =
  | {
      readonly kind: 'changed';
      readonly of: 'landings';
      readonly before: readonly Landing[];
      readonly after: readonly Landing[];
    }
  | {
      readonly kind: 'changed';
      readonly of: 'defaults';
      readonly before: readonly Default[];
      readonly after: readonly Default[];
    };

export type PolicyChange = GateChange | AudienceChange | TurnAwayChange | ExpectationChange | ListChange;

/** The differences from one policy to another, in the order of the newer one, removals last; gates before audiences. */
export function difference(before: Policy, after: Policy): readonly PolicyChange[] {
  return [
    ...gateChanges(before.gates, after.gates),
    ...setChanges('audience', before.audiences, after.audiences),
    ...setChanges('turn-away', before.turnAways, after.turnAways),
    ...setChanges('expectation', before.expectations, after.expectations),
    ...listChanges(before, after),
  ];
}

const listChanges = (before: Policy, after: Policy): readonly ListChange[] => [
  ...(same(before.landings, after.landings)
    ? []
    : [{ kind: 'changed', of: 'landings', before: before.landings, after: after.landings } as const]),
  ...(same(before.defaults, after.defaults)
    ? []
    : [{ kind: 'changed', of: 'defaults', before: before.defaults, after: after.defaults } as const]),
];

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

function setChanges<Of extends string, T extends { readonly id: string }>(
  of: Of,
  before: readonly T[],
  after: readonly T[],
): readonly SetChange<Of, T>[] {
  const old = byId(before);
  const current = byId(after);
  return [
    ...after.flatMap((one): SetChange<Of, T>[] => {
      const previous = old.get(one.id);
      if (!previous) return [{ kind: 'added', of, after: one }];
      return same(previous, one) ? [] : [{ kind: 'changed', of, before: previous, after: one }];
    }),
    ...before
      .filter(({ id }) => !current.has(id))
      .map((one): SetChange<Of, T> => ({ kind: 'removed', of, before: one })),
  ];
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
