/** Conditions: one compiled, over columns, and as text; each against the same thing by hand, in one run. */
import { larkfell } from '../demo/larkfell';
import {
  all,
  any,
  asId,
  type Columns,
  type Condition,
  columnsOf,
  conditionCompiler,
  countOf,
  emptyBitset,
  type GroupId,
  hasRole,
  inGroup,
  type LevelId,
  level,
  member,
  not,
  parseCondition,
  popcount,
  printCondition,
  profile,
  type RoleId,
  requestAt,
  type Test,
  type VisitorFacts,
  type Vocabulary,
  vocabularyOf,
} from '../src/core';
import { personOf, readSiteFile } from '../src/services';

const site = await readSiteFile(larkfell);
if ('problems' in site) throw new Error(site.problems.join('\n'));
export const vocabulary: Vocabulary = vocabularyOf(site.names, site.policy);
const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });
export const milliseconds = () => Number(process.hrtime.bigint()) / 1e6;

const [crew, suspended] = ['dome-crew', 'suspended'].map((id) => asId<GroupId>(id)) as [GroupId, GroupId];
const volunteer = asId<RoleId>('volunteer');
const observer = asId<LevelId>('observer');
const hours = asId<never>('hours-logged');
const five = all(
  level('at least', observer),
  not(inGroup(suspended)),
  any(inGroup(crew), hasRole(volunteer)),
  profile(hours, 'at least', 50),
);

const RANKS: Readonly<Record<string, number>> = { friend: 0, observer: 1, keeper: 2 };
const fiveByHand = (visitor: VisitorFacts): boolean => {
  if (visitor.level === null || (RANKS[visitor.level] ?? -1) < 1) return false;
  if (visitor.groups === null || visitor.groups.includes(suspended)) return false;
  if (!visitor.groups.includes(crew) && !visitor.roles?.includes(volunteer)) return false;
  const logged = visitor.profile?.['hours-logged'];
  return typeof logged === 'number' && logged >= 50;
};

/** Nanoseconds for a condition of five tests, compiled and by hand, over Larkfell's people; the best of some turns. */
export function benchFive(rounds = 40_000, turns = 9) {
  const people =
    site && 'people' in site
      ? (site.people ?? []).map(
          (one) =>
            personOf(one, {
              ...site,
              settings: { shareKey: '00' },
              bought: new Map(),
              unconfirmed: new Set(),
            }).facts,
        )
      : [];
  const compiled = conditionCompiler(vocabulary)(five);
  const forms = {
    byHand: (visitor: VisitorFacts) => fiveByHand(visitor),
    compiled: (visitor: VisitorFacts) => compiled(visitor, null, request),
  };
  if (people.some((one) => forms.byHand(one) !== forms.compiled(one))) throw new Error('The two disagree.');
  const best = { byHand: Number.POSITIVE_INFINITY, compiled: Number.POSITIVE_INFINITY };
  let passed = 0;
  for (let turn = 0; turn < turns; turn++) {
    for (const name of ['byHand', 'compiled'] as const) {
      const start = milliseconds();
      for (let round = 0; round < rounds; round++) for (const one of people) if (forms[name](one)) passed++;
      best[name] = Math.min(best[name], ((milliseconds() - start) * 1e6) / (rounds * people.length));
    }
  }
  if (passed === 0) throw new Error('Nobody passed.');
  return best;
}

/** Numbers between 0 and 1, the same ones every time (Park and Miller's minimal standard generator). */
function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}

/** A membership made up. */
export function crowd(size: number): readonly VisitorFacts[] {
  const random = seeded(7);
  const some = <T extends { readonly id: string }>(list: readonly T[], share: number): T['id'][] =>
    list.filter(() => random() < share).map(({ id }) => id);
  const teams = ['Optics', 'Grounds', 'Visits'];
  return Array.from({ length: size }, () =>
    member({
      roles: some(vocabulary.roles, 0.1) as RoleId[],
      groups: some(vocabulary.groups, 0.15) as GroupId[],
      level: random() < 0.3 ? null : (vocabulary.levels[Math.floor(random() * 3)]?.id ?? null),
      profile: {
        ...(random() < 0.6 && { team: teams[Math.floor(random() * 3)] as string }),
        ...(random() < 0.6 && { 'hours-logged': Math.floor(random() * 300) }),
        ...(random() < 0.3 && { 'dome-certificate': random() < 0.5 }),
      },
    }),
  );
}

/** Tests of several kinds, about sixty of them. */
export function tests(): readonly Test[] {
  return [
    ...vocabulary.groups.map(({ id }) => inGroup(id)),
    ...vocabulary.roles.map(({ id }) => hasRole(id)),
    ...vocabulary.levels.flatMap(({ id }) =>
      (['at least', 'exactly', 'at most'] as const).map((op) => level(op, id)),
    ),
    ...['Optics', 'Grounds', 'Visits'].map((team) => profile(asId('team'), 'is', team)),
    ...Array.from({ length: 38 }, (_, at) => profile(hours, 'at least', at * 8)),
    profile(asId('dome-certificate'), 'is yes'),
    profile(asId('dome-certificate'), 'is not set'),
  ];
}

/** One condition with the loop that somebody would write for it over the same bitsets. */
interface Pair {
  readonly condition: Condition;
  readonly loop: () => number;
}

/** Keeps a word of a result and hands it on. */
function put(out: Uint32Array, at: number, word: number): number {
  out[at] = word;
  return word;
}

function pairs(count: number, columns: Columns, out: Uint32Array): readonly Pair[] {
  const random = seeded(11);
  const list = tests();
  const pick = () => list[Math.floor(random() * list.length)] as Test;
  const bitsOf = (condition: Condition) => columns.select(condition).bits;
  const { length } = out;
  return Array.from({ length: count }, (_, at): Pair => {
    const [p, q, r, s, t] = [pick(), pick(), pick(), pick(), pick()] as const;
    const [a, b, c, d, e] = [p, q, r, s, t].map(bitsOf) as [
      Uint32Array,
      Uint32Array,
      Uint32Array,
      Uint32Array,
      Uint32Array,
    ];
    const no = bitsOf(not(r));
    const word = (bits: Uint32Array, i: number) => bits[i] as number;
    switch (at % 4) {
      case 0:
        return {
          condition: all(p, q),
          loop: () => {
            let found = 0;
            for (let i = 0; i < length; i++) found += popcount(put(out, i, word(a, i) & word(b, i)));
            return found;
          },
        };
      case 1:
        return {
          condition: all(any(p, q), not(r)),
          loop: () => {
            let found = 0;
            for (let i = 0; i < length; i++)
              found += popcount(put(out, i, (word(a, i) | word(b, i)) & word(no, i)));
            return found;
          },
        };
      case 2:
        return {
          condition: all(p, q, any(r, s)),
          loop: () => {
            let found = 0;
            for (let i = 0; i < length; i++)
              found += popcount(put(out, i, word(a, i) & word(b, i) & (word(c, i) | word(d, i))));
            return found;
          },
        };
      default:
        return {
          condition: all(any(p, q), any(r, s), t),
          loop: () => {
            let found = 0;
            for (let i = 0; i < length; i++)
              found += popcount(
                put(out, i, (word(a, i) | word(b, i)) & (word(c, i) | word(d, i)) & word(e, i)),
              );
            return found;
          },
        };
    }
  });
}

/** Many conditions over many people: building the columns, then columns against bare loops. Times in milliseconds. */
export function benchColumns(size = 1_000_000, count = 500, turns = 3) {
  const people = crowd(size);
  const columns = columnsOf(people, vocabulary, request);
  const start = milliseconds();
  for (const test of tests()) columns.select(test);
  const building = milliseconds() - start;
  const list = pairs(count, columns, emptyBitset(size));
  for (const { condition, loop } of list.slice(0, 20))
    if (countOf(columns.select(condition).bits) !== loop()) throw new Error('The two disagree.');
  const best = { loops: Number.POSITIVE_INFINITY, columns: Number.POSITIVE_INFINITY };
  let found = 0;
  for (let turn = 0; turn < turns; turn++) {
    const first = milliseconds();
    for (const { loop } of list) found += loop();
    const second = milliseconds();
    for (const { condition } of list) found -= columns.select(condition).count;
    const third = milliseconds();
    best.loops = Math.min(best.loops, second - first);
    best.columns = Math.min(best.columns, third - second);
  }
  if (found !== 0) throw new Error('The two disagree.');
  return { ...best, building, tests: tests().length, bytesPerPerson: columns.bytes() / size };
}

/** Microseconds to print and to read a condition of some tests, over many of them. */
export function benchText(count = 10_000) {
  const random = seeded(13);
  const list = tests();
  const pick = (): Condition => list[Math.floor(random() * list.length)] as Test;
  const conditions = Array.from({ length: count }, () => all(pick(), any(pick(), not(pick())), pick()));
  const start = milliseconds();
  const texts = conditions.map((condition) => printCondition(condition, vocabulary));
  const printed = milliseconds();
  const read = texts.filter((text) => parseCondition(text, vocabulary).ok).length;
  const parsed = milliseconds();
  if (read !== count) throw new Error('Something printed could not be read.');
  const characters = texts.reduce((sum, text) => sum + text.length, 0) / count;
  return {
    print: ((printed - start) * 1000) / count,
    parse: ((parsed - printed) * 1000) / count,
    characters,
  };
}
