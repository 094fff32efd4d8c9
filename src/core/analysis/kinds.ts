/** Kinds of visitor: those whom the site treats alike at every item. */
import { type Condition, evaluatorOf, inGroup, signedIn, type Test, testOf } from '../condition';
import type { GroupId, ItemId } from '../ids';
import { onceFor } from '../once';
import type { CompiledPolicy, Outcome } from '../policy';
import { type Following, guest, isShared, type RequestFacts } from '../site';
import { describer } from './describing';
import { ALL, atMost, type Diagram, NONE, orElse } from './diagram';
import type { Witness } from './finding';
import { shownBy } from './leading';
import { outcomesIn } from './outcomes';
import { type Reach, reachOf, tellingApart } from './reach';
import { type Asked, DAY, THINGS } from './things';
import { waysBy } from './ways';

/** An item that stands for all at which everybody gets what they get at it. */
export interface Representative {
  readonly item: ItemId;
  /** Itself and the others. */
  readonly items: readonly ItemId[];
}

/** One item for each way there is to items at which not everybody gets the same. */
export function representativesOf({
  outline,
  hurdles,
  ...compiled
}: CompiledPolicy): readonly Representative[] {
  const way = waysBy(tellingApart(compiled.vocabulary));
  const ways = new Map<string, { readonly item: ItemId; readonly items: ItemId[] }>();
  for (const [id, item] of outline.items) {
    const own = hurdles(id) ?? [];
    const isSettled = own.length === 0 || own.some(({ gate, over }) => gate === null && !isShared(over));
    if (isSettled) continue;
    const key = `${item.kind} ${way(own)}`;
    const found = ways.get(key);
    if (found) found.items.push(id);
    else ways.set(key, { item: id, items: [id] });
  }
  return [...ways.values()];
}

/** A kind of visitor, by what they get at each representative. */
export interface DescribedKind {
  /**
   * Who is of it: a condition that is true of them and of nobody else, owners of single items aside; null where there is no
   * short one.
   */
  readonly who: Condition | null;
  /** Somebody who is of it. */
  readonly witness: Witness | null;
}

export interface Kinds {
  /** Those that were asked about, in their order. */
  readonly kinds: readonly DescribedKind[];
  /** How many kinds there can be; null where there are more than anybody would count. */
  readonly count: number | null;
  /** All the others, where there are few enough to be listed. */
  readonly others: readonly (DescribedKind & { readonly gets: readonly Outcome[] })[];
}

const MOST_COUNTED = 1000;
/** What takes more than this part of the space has too much to it to be told apart while one waits. */
const AT_ONCE = 20;
/** After so many that had too much to them nobody is asked for any more. */
const MOST_IN_VAIN = 5;
/** What takes more than this part of the space to say takes more than a few words. */
const A_FEW_WORDS = 100;
const MOST_LISTED = 300;

/** Tells of kinds who is of them, at a moment, and counts all that there can be. */
export function kindsOf(
  compiled: CompiledPolicy,
  following: Following,
  request: RequestFacts,
  wanted: readonly (readonly Outcome[])[],
): Kinds {
  const reach = sayable(compiled, following, request);
  const { space } = reach;
  const outcomes = outcomesIn(reach);
  const now = atThe(request, reach);
  const universe = now(reach.possible);
  const said = representativesOf(compiled).map(({ item }) =>
    orElse(
      () => new Map([...outcomes(item)].map(([outcome, set]) => [outcome, space.attempt(() => now(set))])),
      () => null,
    ),
  );
  const plain = owningNothing(reach);
  const conditionOf = describer(reach, space.and(universe, plain), now);
  const shareOf = onceFor(space.share);
  let inVain = 0;
  const described = (gets: readonly Outcome[]): DescribedKind =>
    orElse<DescribedKind, DescribedKind>(
      () => {
        if (said.includes(null)) return { who: null, witness: null };
        if (inVain > MOST_IN_VAIN) return { who: null, witness: null };
        // What leaves the fewest comes first, so that what is put together stays small.
        const sets = [...new Set(gets.map((outcome, at) => said[at]?.get(outcome) ?? NONE))].toSorted(
          (a, b) => shareOf(a) - shareOf(b),
        );
        const set = space.attempt(() => space.all([universe, ...sets]), AT_ONCE);
        const witness = shownBy(set, reach);
        return {
          who: orElse(
            () => space.attempt(() => conditionOf(space.and(set, plain)), A_FEW_WORDS),
            () => null,
          ),
          witness: witness && { ...witness, request },
        };
      },
      () => {
        inVain += 1;
        return { who: null, witness: null };
      },
    );
  const parts = said.includes(null)
    ? null
    : orElse(
        () => space.attempt(() => partsOf(universe, said, reach), AT_ONCE),
        () => null,
      );
  const known = new Set(wanted.map((gets) => gets.join()));
  const others = parts === null || parts.length > MOST_LISTED ? [] : parts;
  return {
    kinds: wanted.map(described),
    count: parts?.length ?? null,
    others: others.filter((gets) => !known.has(gets.join())).map((gets) => ({ gets, ...described(gets) })),
  };
}

/**
 * Who can ever get what, with all that is asked of visitors asked in words that can be said of them: whether they have
 * completed what a gate knows as "the one before".
 */
function sayable(compiled: CompiledPolicy, following: Following, { today }: RequestFacts): Reach {
  const asked = (test: Test): Asked => ({ test, item: null });
  const { cells } = reachOf(compiled, today, following);
  const said = cells.things.flatMap(({ thing: { kind, of } }): readonly Asked[] =>
    kind === 'group'
      ? [asked(inGroup(of as GroupId))]
      : kind === 'done' && compiled.outline.items.get(of as ItemId)?.kind === 'activity'
        ? [asked(testOf('completed', of, 'is'))]
        : [],
  );
  return reachOf(compiled, today, following, [asked(signedIn), ...said]);
}

/** Those who are nobody in particular: whose an item is can't be said in a few words. */
function owningNothing({ cells, space }: Reach): Diagram {
  const variable = cells.things.findIndex(({ thing }) => thing.kind === 'identity');
  const asksOwner =
    variable >= 0 && cells.askedOf(variable).every(({ test }) => test.fact === 'visitor owns item');
  if (!asksOwner) return ALL;
  return space.where(variable, cells.things[variable]?.cells.map((_, cell) => cell === 0) ?? []);
}

/** What those of a set get who get the same everywhere: once for each part of it. */
function partsOf(
  universe: Diagram,
  said: readonly (ReadonlyMap<Outcome, Diagram> | null)[],
  { space }: Reach,
): readonly (readonly Outcome[])[] {
  let parts: readonly { readonly gets: readonly Outcome[]; readonly set: Diagram }[] = [
    { gets: [], set: universe },
  ];
  for (const outcomes of said) {
    parts = parts.flatMap(({ gets, set }) =>
      [...(outcomes ?? [])]
        .map(([outcome, those]) => ({ gets: [...gets, outcome], set: space.and(set, those) }))
        .filter((part) => part.set !== NONE),
    );
    atMost(MOST_COUNTED, parts.length);
  }
  return parts.map(({ gets }) => gets);
}

/** Answers with those of a set who ask at a moment, in its way. */
function atThe(request: RequestFacts, { cells, space, compiled }: Reach): (set: Diagram) => Diagram {
  const fixed = cells.things.flatMap(({ thing, cells: own }, variable) => {
    if (THINGS[thing.kind] !== 'request') return [];
    // The first day there is is the day of the moment.
    if (thing.kind === DAY) return [[variable, 0] as const];
    const isLike = (cell: number) =>
      cells.askedOf(variable).every((asked) => {
        const { reads, at } = cells.tableOf(asked);
        const truth = evaluatorOf(asked.test, compiled.vocabulary)(guest, asked.item, request);
        return reads.length !== 1 || at([cell]) === truth;
      });
    return [
      [
        variable,
        Math.max(
          0,
          own.findIndex((_, cell) => isLike(cell)),
        ),
      ] as const,
    ];
  });
  return (set) => fixed.reduce((left, [variable, cell]) => space.given(left, variable, cell), set);
}
