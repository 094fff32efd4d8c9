/**
 * Bringing two people's edits of one draft together. Each list of a policy is merged by the ids of what is in it: what one
 * side did to something the other left alone is done, and each side's order is kept among its own.
 */
import { same } from '../same';
import type { Default, Policy } from './policy';

/** Something that both sides changed, each in another way. */
export type Contested =
  | {
      readonly kind: 'changed';
      readonly of: 'gate' | 'audience' | 'turn-away' | 'landing' | 'expectation';
      readonly id: string;
      /** Whose stands in the merge. What one side took away and the other changed stays, as it was changed. */
      readonly stands: 'mine' | 'theirs';
    }
  /** Both moved what was there before; mine is the order. */
  | { readonly kind: 'ordered'; readonly of: 'gates' | 'landings' };

/** Two drafts brought together. */
export interface Merge {
  readonly policy: Policy;
  readonly contested: readonly Contested[];
}

/**
 * Puts my edits of a common base on top of theirs. With nothing changed on one side it is the other side as it is. Whether
 * the two together open something that each keeps closed is for `openedByMerge` to say, which knows the site.
 */
export function rebase(base: Policy, mine: Policy, theirs: Policy): Merge {
  const gates = mergeLists(base.gates, mine.gates, theirs.gates, (list) =>
    list.some(({ stance }) => stance === 'instead'),
  );
  const audiences = mergeLists(base.audiences, mine.audiences, theirs.audiences);
  const turnAways = mergeLists(base.turnAways, mine.turnAways, theirs.turnAways);
  const landings = mergeLists(base.landings, mine.landings, theirs.landings);
  const expectations = mergeLists(base.expectations, mine.expectations, theirs.expectations);
  const defaults = mergeLists(
    numbered(base.defaults),
    numbered(mine.defaults),
    numbered(theirs.defaults),
  ).list.map(({ one }) => one);
  const changed = (of: Extract<Contested, { kind: 'changed' }>['of'], merged: Merged<unknown>) =>
    merged.contested.map((one) => ({ kind: 'changed' as const, of, ...one }));
  return {
    policy: {
      gates: gates.list,
      audiences: audiences.list,
      turnAways: turnAways.list,
      landings: landings.list,
      defaults,
      expectations: expectations.list,
    },
    contested: [
      ...changed('gate', gates),
      ...(gates.bothMoved ? [{ kind: 'ordered', of: 'gates' } as const] : []),
      ...changed('audience', audiences),
      ...changed('turn-away', turnAways),
      ...changed('landing', landings),
      ...changed('expectation', expectations),
      ...(landings.bothMoved ? [{ kind: 'ordered', of: 'landings' } as const] : []),
    ],
  };
}

/** Defaults have no ids: each is what it says, and the second of the same is another. */
function numbered(list: readonly Default[]): readonly { readonly id: string; readonly one: Default }[] {
  const seen = new Map<string, number>();
  return list.map((one) => {
    const says = JSON.stringify([one.kind, one.category, one.gate]);
    const count = seen.get(says) ?? 0;
    seen.set(says, count + 1);
    return { id: `${says} ${count}`, one };
  });
}

interface Merged<T> {
  readonly list: readonly T[];
  readonly contested: readonly { readonly id: string; readonly stands: 'mine' | 'theirs' }[];
  readonly bothMoved: boolean;
}

/** `leads` tells of what one side added whether it is to stand before what the other added at the same place. */
function mergeLists<T extends { readonly id: string }>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  leads: (added: readonly T[]) => boolean = () => false,
): Merged<T> {
  const [was, my, their] = [byId(base), byId(mine), byId(theirs)];
  const contested: { id: string; stands: 'mine' | 'theirs' }[] = [];
  const kept = new Map<string, T>();
  for (const id of new Set([...my.keys(), ...their.keys()])) {
    const [before, here, there] = [was.get(id), my.get(id), their.get(id)];
    if (same(here, there) || same(there, before)) {
      if (here) kept.set(id, here);
    } else if (same(here, before)) {
      if (there) kept.set(id, there);
    } else {
      contested.push({ id, stands: here ? 'mine' : 'theirs' });
      kept.set(id, (here ?? there) as T);
    }
  }
  const orderOf = (list: readonly T[], shared: ReadonlyMap<string, unknown>): readonly string[] =>
    list.flatMap(({ id }) => (shared.has(id) ? [id] : []));
  const moved = (side: readonly T[], sides: ReadonlyMap<string, unknown>) =>
    !same(orderOf(side, was), orderOf(base, sides));
  const agree = same(orderOf(mine, their), orderOf(theirs, my));
  const bothMoved = !agree && moved(mine, my) && moved(theirs, their);
  const ids = agree
    ? interleaved(mine, theirs, leads)
    : moved(mine, my)
      ? inserted(orderOf(mine, kept), orderOf(theirs, kept))
      : inserted(orderOf(theirs, kept), orderOf(mine, kept));
  return { list: ids.flatMap((id) => kept.get(id) ?? []), contested, bothMoved };
}

const byId = <T extends { readonly id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
  new Map(list.map((one) => [one.id, one]));

/** Two lists that have what they share in one order: between two of those, what one has and what the other has. */
function interleaved<T extends { readonly id: string }>(
  mine: readonly T[],
  theirs: readonly T[],
  leads: (added: readonly T[]) => boolean,
): readonly string[] {
  const inTheirs = byId(theirs);
  const result: string[] = [];
  let at = 0;
  let own: T[] = [];
  const between = (other: readonly T[]) => {
    // A gate that sets aside what is above it stands above what the other side added.
    const [first, second] = leads(own) && !leads(other) ? [own, other] : [other, own];
    result.push(...[...first, ...second].map(({ id }) => id));
    own = [];
  };
  for (const one of mine) {
    if (!inTheirs.has(one.id)) {
      own.push(one);
      continue;
    }
    const shared = theirs.findIndex(({ id }) => id === one.id);
    between(theirs.slice(at, shared));
    result.push(one.id);
    at = shared + 1;
  }
  between(theirs.slice(at));
  return result;
}

/** An order with the other side's own put in: each behind what it stands behind there, and behind its own before it. */
function inserted(order: readonly string[], other: readonly string[]): readonly string[] {
  const result = [...order];
  const there = new Set(order);
  let least = 0;
  let before: string | null = null;
  for (const id of other) {
    if (!there.has(id)) {
      const place = Math.max(least, before === null ? 0 : result.indexOf(before) + 1);
      result.splice(place, 0, id);
      least = place + 1;
    }
    before = id;
  }
  return result;
}
