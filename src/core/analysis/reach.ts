/**
 * Who can ever get what: for every item the set of all visitors and requests there could be to whom it is open, and for every
 * hurdle those who pass it.
 */
import { type Condition, FALSE, foldPushed, soundAudiences, TRUE, testsIn } from '../condition';
import { expanded } from '../condition/audience';
import { casesIn, type Gate } from '../gate';
import type { ItemId } from '../ids';
import { onceFor } from '../once';
import { type CompiledPolicy, type Hurdle, hurdlesOf } from '../policy';
import { aspectOfGate } from '../policy/places';
import { type Day, type Following, type Item, isShared, type SharedSection, type Vocabulary } from '../site';
import { axiomsFor, nothingFollows } from './axioms';
import { type Cells, cellsFor, sceneOf } from './cells';
import { ALL, type Diagram, type Diagrams, diagrams, NONE, orElse, Undecided } from './diagram';
import { ACCOUNT, type Asked, type Asking, keyOfThing, THINGS, thingsRead } from './things';
import { waysBy } from './ways';

export interface Reach {
  readonly compiled: CompiledPolicy;
  readonly following: Following;
  /** The first day that is looked at. */
  readonly from: Day;
  readonly cells: Cells;
  readonly space: Diagrams;
  /** Everybody there could be: owners of a product have what it gives. */
  readonly possible: Diagram;
  /** Of whom a condition is true, about an item; or false, for `holds` false. Throws `Undecided`. */
  meeting(condition: Condition, item: Item | null, holds?: boolean): Diagram;
  /** Who passes a hurdle. */
  passing(hurdle: Hurdle): Diagram;
  /** The hurdles of an item, or of a shared section on a host (`placeId`), as a number that is equal for the same. */
  wayTo(item: ItemId): number;
  /** To whom an item is open, or a shared section on a host. */
  openTo(item: ItemId): Diagram;
  /** Somebody in a set, as made up from the first samples that do; null for the empty set. */
  somebodyIn(set: Diagram): Asking | null;
  /** A member in it who asks in no particular way: the first day there is, from nowhere; null where there is none. */
  plainMemberIn(set: Diagram): Asking | null;
}

/** Gathers everything that a policy asks, and what else is to be asked, from a day on. */
export function reachOf(
  compiled: CompiledPolicy,
  from: Day,
  following: Following = nothingFollows,
  also: Iterable<Asked> = [],
): Reach {
  const { vocabulary } = compiled;
  const ground = { vocabulary, from };
  const asked = [...askedBy(compiled), ...also];
  const things = new Set(asked.flatMap((one) => thingsRead(one, vocabulary)).map(keyOfThing));
  const axioms = axiomsFor(following, things, vocabulary, from);
  const follows = axioms.flatMap((axiom) => [axiom.of, axiom.follows]).map((test) => ({ test, item: null }));
  const cells = cellsFor([...asked, ...follows], ground);
  const space = diagrams(cells.things.map((thing) => thing.cells.length));
  const sound = soundAudiences(vocabulary.audiences);

  function tested(asked: Asked, holds: boolean): Diagram {
    const { reads, at } = cells.tableOf(asked);
    const wanted = holds ? TRUE : FALSE;
    const build = (chosen: readonly number[]): Diagram => {
      const variable = reads[chosen.length];
      if (variable === undefined) return at(chosen) === wanted ? ALL : NONE;
      const count = cells.things[variable]?.cells.length ?? 0;
      return space.choose(
        variable,
        Array.from({ length: count }, (_, cell) => build([...chosen, cell])),
      );
    };
    return build([]);
  }

  const meeting = (condition: Condition, item: Item | null, holds = true): Diagram =>
    foldPushed<Diagram>(
      condition,
      {
        all: space.all,
        any: space.any,
        audience: ({ audience }, wanted) => {
          const found = sound.get(audience);
          return found ? meeting(found.who, item, wanted) : NONE;
        },
        test: (test, wanted) => tested({ test, item }, wanted),
      },
      holds,
    );

  // What can't be worked out makes nobody impossible.
  const possible = orElse(
    () =>
      space.attempt(() =>
        space.all(
          axioms.map(({ of, follows }) => space.or(space.not(meeting(of, null)), meeting(follows, null))),
        ),
      ),
    () => ALL,
  );

  const told = tellingApart(vocabulary);
  const passed = new Map<Gate, Map<string, Diagram | Undecided>>();
  function passing({ gate, hostless, over, at }: Hurdle): Diagram {
    if (hostless) return NONE;
    if (gate === null) return over.published && isShared(over) ? anywhere(over) : NONE;
    const known = passed.get(gate) ?? new Map<string, Diagram | Undecided>();
    passed.set(gate, known);
    const key = told(gate, at);
    // What could not be decided once is not tried again.
    const found =
      known.get(key) ??
      orElse<Diagram, Undecided>(
        () => space.attempt(() => meeting(gate.who, at)),
        (reason) => reason,
      );
    known.set(key, found);
    if (found instanceof Undecided) throw found;
    return found;
  }

  const along = (hurdles: readonly Hurdle[]): Diagram =>
    hurdles.reduce((set, hurdle) => (set === NONE ? NONE : space.and(set, passing(hurdle))), ALL);

  const somewhere = new Map<ItemId, Diagram>();
  /** Who gets a shared section at any of its hosts, or where no item is. */
  function anywhere(section: SharedSection): Diagram {
    const found = somewhere.get(section.id);
    if (found !== undefined) return found;
    const { places } = compiled;
    const elsewhere = section.shared.elsewhere ? along(places.hurdlesAt(section, null)) : NONE;
    const made = space.any([elsewhere, ...places.kindsOf(section).map(({ hurdles }) => along(hurdles))]);
    somewhere.set(section.id, made);
    return made;
  }

  const way = waysBy(told);
  const open = new Map<number, Diagram>();
  const somebodyIn = (set: Diagram): Asking | null => {
    const picked = space.pick(set);
    return picked && sceneOf(cells, (variable) => picked.get(variable) ?? 0, ground);
  };
  return {
    compiled,
    following,
    from,
    cells,
    space,
    possible,
    meeting,
    passing,
    wayTo: (item) => way(hurdlesOf(compiled, item) ?? []),
    openTo(item) {
      const hurdles = hurdlesOf(compiled, item);
      if (hurdles === null) return NONE;
      const which = way(hurdles);
      const made = open.get(which) ?? space.and(possible, along(hurdles));
      open.set(which, made);
      return made;
    },
    somebodyIn,
    plainMemberIn: (set) => {
      // Where nobody is asked whether they are signed in, there are no members to tell from guests.
      if (cells.things[0]?.thing.kind !== ACCOUNT) return null;
      return somebodyIn(
        cells.things.reduce((left, { thing }, variable) => {
          if (thing.kind === ACCOUNT) return space.and(left, space.where(variable, [false, true]));
          return THINGS[thing.kind] === 'request' ? space.given(left, variable, 0) : left;
        }, set),
      );
    },
  };
}

/** Answers with what a gate asks of an item, as a text that is the same where it asks the same. */
export function tellingApart(vocabulary: Vocabulary): (gate: Gate, item: Item) => string {
  const aspects = onceFor((gate: Gate) => aspectOfGate(gate, vocabulary));
  return (gate, item) => aspects(gate)?.(item) ?? '';
}

/** Everything that a policy asks, of every item that it asks about. */
function* askedBy(compiled: CompiledPolicy): Iterable<Asked> {
  const seen = new Map<Gate, Set<string>>();
  const told = tellingApart(compiled.vocabulary);
  const { outline, places, vocabulary } = compiled;
  const hurdles = function* (): Iterable<Hurdle> {
    for (const id of outline.items.keys()) yield* compiled.hurdles(id) ?? [];
    for (const item of outline.items.values())
      if (isShared(item)) {
        yield* places.hurdlesAt(item, null);
        for (const host of places.hosts(item)) yield* places.hurdlesAt(item, outline.items.get(host) ?? null);
      }
  };
  const asides = function* (): Iterable<Pick<Hurdle, 'gate' | 'at'>> {
    for (const [id, gates] of compiled.covering) {
      const at = outline.items.get(id);
      if (at) for (const { gate, setAside } of gates) if (setAside) yield { gate, at };
    }
  };
  for (const { gate, at } of [...hurdles(), ...asides()]) {
    if (gate === null) continue;
    const known = seen.get(gate) ?? new Set<string>();
    seen.set(gate, known);
    const key = told(gate, at);
    if (known.has(key)) continue;
    known.add(key);
    for (const condition of [gate.who, ...casesIn(gate)])
      for (const test of testsIn(expanded(condition, vocabulary.audiences))) yield { test, item: at };
  }
}
