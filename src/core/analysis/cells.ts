/**
 * Cells: the samples of each thing, put together where no test tells them apart, and what every test comes to in each
 * combination of the cells that it reads. What that is, the ordinary evaluator says.
 */
import { aspectOf, evaluatorOf, keyOf, problemOf, type Test, type Truth, UNKNOWN } from '../condition';
import { onceFor } from '../once';
import { guest, requestAt, type Vocabulary } from '../site';
import { daySamples, type Ground } from './dates';
import { orElse, TOO_MUCH, Undecided } from './diagram';
import { samplesOf } from './thing-samples';
import {
  type Asked,
  type Asking,
  DAY,
  keyOfThing,
  ORDER,
  type Sample,
  type Thing,
  thingsRead,
} from './things';

/** The most combinations of samples that a test is tried in, and all of them together. */
const MOST_TRIED = 2_000_000;
const MOST_TRIED_IN_ALL = 8_000_000;

/** A thing with its cells, each as the first sample in it. */
export interface CellsOf {
  readonly thing: Thing;
  readonly cells: readonly Sample[];
}

/** What a test comes to, over the cells of the variables that it reads, in their order. */
export interface Table {
  readonly reads: readonly number[];
  /** What it comes to in one cell of each. */
  at(cells: readonly number[]): Truth;
}

export interface Cells {
  /** The things, in the order of the variables of diagrams. */
  readonly things: readonly CellsOf[];
  /** The tests that are asked of a variable, each once. */
  askedOf(variable: number): readonly Asked[];
  /** What a test comes to; throws `Undecided` for one that can't be split into cells. */
  tableOf(asked: Asked): Table;
}

/** Answers with a text that is the same for tests that come to the same, at whatever items. */
function keying(vocabulary: Vocabulary): (asked: Asked) => string {
  const aspects = onceFor((test: Test) => aspectOf([test], vocabulary));
  return ({ test, item }) => {
    const [key, aspect] = [keyOf(test), aspects(test)];
    return aspect === null ? key : `${key} ${aspect(item)}`;
  };
}

const nowhere: Asking = {
  visitor: guest,
  request: requestAt({ today: '2000-01-01', minute: 720, weekday: 'Saturday' }),
};

/** Splits everything that tests ask about into cells. */
export function cellsFor(all: Iterable<Asked>, ground: Ground): Cells {
  const { vocabulary } = ground;
  const keyOfAsked = keying(vocabulary);
  const asked = new Map<string, Asked>();
  for (const one of all) if (problemOf(one.test, vocabulary) === null) asked.set(keyOfAsked(one), one);
  const things = new Map<string, { readonly thing: Thing; readonly asked: string[] }>();
  for (const [key, one] of asked)
    for (const thing of thingsRead(one, vocabulary)) {
      const name = keyOfThing(thing);
      const found = things.get(name) ?? { thing, asked: [] };
      found.asked.push(key);
      things.set(name, found);
    }
  const ordered = [...things.values()].toSorted(
    ({ thing: a }, { thing: b }) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) || (a.of < b.of ? -1 : 1),
  );
  const variableOf = new Map(ordered.map(({ thing }, variable) => [keyOfThing(thing), variable]));
  const why = new Map<string, string>();
  const of = (keys: readonly string[]) => keys.flatMap((key) => asked.get(key) ?? []);
  const days = orElse(
    () =>
      daySamples(
        ordered.map((one) => of(one.asked)),
        ground,
      ),
    ({ message }) => {
      for (const [key, one] of asked)
        if (thingsRead(one, vocabulary).some(({ kind }) => kind === DAY)) why.set(key, message);
      return [ground.from];
    },
  );
  const samples = ordered.map(({ thing, asked: keys }) =>
    orElse<readonly Sample[], readonly Sample[]>(
      () => samplesOf(thing, of(keys), days, ground),
      ({ message }) => {
        for (const key of keys) why.set(key, message);
        return [];
      },
    ),
  );

  const tried = new Map<string, Tried>();
  let inAll = 0;
  for (const [key, one] of asked) {
    if (why.has(key)) continue;
    const reads = thingsRead(one, vocabulary).map((thing) => variableOf.get(keyOfThing(thing)) ?? 0);
    const sizes = reads.map((variable) => samples[variable]?.length ?? 0);
    const count = sizes.reduce((product, size) => product * size, 1);
    if (count > MOST_TRIED || inAll + count > MOST_TRIED_IN_ALL) {
      why.set(key, TOO_MUCH);
      continue;
    }
    inAll += count;
    tried.set(key, tryOut(one, reads, samples, ground));
  }

  const kept = ordered.map((_, variable) => told(variable, samples[variable] ?? [], [...tried.values()]));
  return {
    things: ordered.map(({ thing }, variable) => ({
      thing,
      cells: (kept[variable] ?? []).map((sample) => samples[variable]?.[sample] ?? ((asking) => asking)),
    })),
    askedOf: (variable) => of(ordered[variable]?.asked ?? []).filter((one) => !why.has(keyOfAsked(one))),
    tableOf(one) {
      const key = keyOfAsked(one);
      const reason = why.get(key);
      if (reason !== undefined) throw new Undecided(reason);
      const found = tried.get(key);
      if (!found) {
        if (problemOf(one.test, vocabulary) === null)
          throw new Error('What was not asked can’t be answered.');
        return { reads: [], at: () => UNKNOWN };
      }
      const { reads } = found;
      return {
        reads,
        at: (cells) => found.at(cells.map((cell, at) => kept[reads[at] ?? 0]?.[cell] ?? 0)),
      };
    },
  };
}

/** A test tried out in every combination of samples of what it reads. */
interface Tried {
  readonly reads: readonly number[];
  readonly sizes: readonly number[];
  readonly truths: Int8Array;
  at(samples: readonly number[]): Truth;
}

function tryOut(
  { test, item }: Asked,
  reads: readonly number[],
  samples: readonly (readonly Sample[])[],
  { vocabulary, from }: Ground,
): Tried {
  const evaluate = evaluatorOf(test, vocabulary);
  const sizes = reads.map((variable) => samples[variable]?.length ?? 0);
  const truths = new Int8Array(sizes.reduce((product, size) => product * size, 1));
  let place = 0;
  const visit = (depth: number, asking: Asking): void => {
    const variable = reads[depth];
    if (variable === undefined) {
      truths[place++] = evaluate(asking.visitor, item, asking.request);
      return;
    }
    for (const sample of samples[variable] ?? []) visit(depth + 1, sample(asking));
  };
  visit(0, { ...nowhere, request: { ...nowhere.request, today: from } });
  const at = (cells: readonly number[]): Truth =>
    (truths[cells.reduce((index, cell, depth) => index * (sizes[depth] ?? 1) + cell, 0)] ?? UNKNOWN) as Truth;
  return { reads, sizes, truths, at };
}

/** Of the samples of a variable the first of each kind that some test tells from the others. */
function told(variable: number, samples: readonly Sample[], tried: readonly Tried[]): readonly number[] {
  const readers = tried.filter(({ reads }) => reads.includes(variable));
  const kinds = new Map<string, number>();
  samples.forEach((_, sample) => {
    const told = readers.map((one) => toldBy(one, one.reads.indexOf(variable), sample)).join('|');
    if (!kinds.has(told)) kinds.set(told, sample);
  });
  return [...kinds.values()];
}

/** What a test comes to in everything that there is with one sample of one of those that it reads. */
function toldBy({ sizes, truths }: Tried, depth: number, sample: number): string {
  const inner = sizes.slice(depth + 1).reduce((product, size) => product * size, 1);
  const step = inner * (sizes[depth] ?? 1);
  const parts: string[] = [];
  for (let start = sample * inner; start < truths.length; start += step)
    parts.push(truths.subarray(start, start + inner).join(''));
  return parts.join(',');
}

/** Cells of which each variable is in one, as somebody who asks. Those that are not named are in their first. */
export function sceneOf({ things }: Cells, cellOf: (variable: number) => number, { from }: Ground): Asking {
  return things.reduce<Asking>((asking, { cells }, variable) => cells[cellOf(variable)]?.(asking) ?? asking, {
    ...nowhere,
    request: { ...nowhere.request, today: from },
  });
}
