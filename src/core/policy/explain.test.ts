import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  all,
  any,
  FALSE,
  guests,
  hasRole,
  inGroup,
  knows,
  not,
  owns,
  profile,
  TRUE,
  test,
  testOf,
  UNKNOWN,
} from '../condition';
import { asId, type GroupId } from '../ids';
import { describeChanges } from '../sentence';
import { guest, member, type VisitorFacts } from '../site';
import { anItem, policies, visitors } from '../testing/arbitraries';
import {
  certificate,
  crew,
  gates,
  hours,
  id,
  night,
  observer,
  outline,
  pass,
  people,
  policy,
  request,
  suspended,
  trustee,
  valley,
  vocabulary,
} from '../testing/larkfell';
import { assume, type Change, compile, decide, explain, openers } from '.';
import { candidateChanges } from './openers';

const compiled = compile(policy, outline, vocabulary);
const waysIn = (item: string, person: keyof typeof people) =>
  openers(compiled, id(item), people[person], request).ways.map((set) =>
    describeChanges(set, people[person], vocabulary),
  );

it('names the gate that spoke and the test in it that failed', () => {
  const [step] = explain(compiled, id('charts'), people.basil, request).steps;
  expect(step).toMatchObject({ kind: 'gate', verdict: 'spoke', gate: { id: 'observers' } });
  if (step?.kind !== 'gate') throw new Error('no gate');
  expect(step.trace.parts.map((part) => part.truth)).toEqual([TRUE, FALSE]);
});

it('tells unknown from no', () => {
  const [step] = explain(compiled, id('charts'), people.marek, request).steps;
  if (step?.kind !== 'gate') throw new Error('no gate');
  expect(step.trace.parts.map((part) => part.truth)).toEqual([UNKNOWN, TRUE]);
});

it('keeps the gates that are set aside in the list', () => {
  const verdicts = explain(compiled, id('sample'), people.guest, request).steps.map((step) => step.verdict);
  expect(verdicts).toEqual(['set aside', 'passed']);
});

it('says through which other item a link is closed', () => {
  const steps = explain(compiled, id('to-charts'), people.marek, request).steps;
  expect(steps.map((step) => [step.at.id, step.verdict])).toContainEqual(['observers', 'spoke']);
});

it('finds the shortest ways in', () => {
  expect(waysIn('observers', 'marek')).toEqual(['reach Observer level']);
  expect(waysIn('observers', 'guest')).toEqual(['sign in and reach Observer level']);
  expect(waysIn('observers', 'basil')).toEqual(['leave Suspended']);
  expect(waysIn('school', 'tobin')).toEqual(['join Hollin School', 'become a Trustee']);
  expect(waysIn('join', 'tobin')).toEqual(['sign out', 'have no level']);
  expect(waysIn('account', 'guest')).toEqual(['sign in']);
  expect(waysIn('crew', 'ines')).toEqual([]);
});

it('finds both changes when two are needed', () => {
  const both = { ...people.marek, groups: [suspended] };
  expect(openers(compiled, id('charts'), both, request).ways).toEqual([
    [
      { kind: 'level', level: observer },
      { kind: 'make', test: inGroup(suspended), holds: false },
    ],
  ]);
});

it('finds ways through profile fields, purchases and passphrases', () => {
  const gated = (who: (typeof gates.crew)['who']) =>
    compile({ ...policy, gates: [{ ...gates.crew, who }] }, outline, vocabulary);
  const ways = (who: (typeof gates.crew)['who'], person: keyof typeof people) =>
    openers(gated(who), id('crew'), people[person], request).ways.map((set) =>
      describeChanges(set, people[person], vocabulary),
    );
  expect(ways(profile(certificate, 'is yes'), 'wren')).toEqual(['have “dome certificate” yes']);
  expect(ways(all(inGroup(crew), profile(hours, 'at least', 100)), 'marek')).toEqual([
    'join Dome crew and have “hours logged” at least 100',
  ]);
  expect(ways(owns(pass), 'guest')).toEqual(['sign in and buy Keeper’s pass']);
  expect(ways(knows(night), 'guest')).toEqual(['type the passphrase Open night']);
  expect(ways(not(profile(hours, 'at least', 100)), 'marek')).toEqual(['have “hours logged” less than 100']);
});

it('knows that before the first activity nothing has to be done, and by a guest nothing is known to be', () => {
  const first = test('completed the one before', 'is');
  const gated = (who: (typeof gates.crew)['who']) =>
    compile(
      {
        ...policy,
        gates: [
          { ...gates.crew, who, what: { targets: [{ kind: 'item', item: id('ladder') }], except: [] } },
        ],
      },
      outline,
      vocabulary,
    );
  const ways = (who: (typeof gates.crew)['who'], person: keyof typeof people) =>
    openers(gated(who), id('ladder'), people[person], request).ways.map((set) =>
      describeChanges(set, people[person], vocabulary),
    );
  expect(ways(first, 'guest')).toEqual(['sign in']);
  expect(ways(not(all(first, owns(pass))), 'guest')).toEqual(['sign in']);
  expect(ways(not(first), 'marek')).toEqual([]);
});

it('mends all that is asked of a product by what is known of it', () => {
  const who = all(not(any(testOf('ended', pass, 'is'), testOf('subscribed', pass, 'is'))));
  const gated = compile({ ...policy, gates: [{ ...gates.crew, who }] }, outline, vocabulary);
  const unknown = { ...people.marek, purchases: null };
  expect(openers(gated, id('crew'), unknown, request).ways).toEqual([
    [{ kind: 'make', test: testOf('subscribed', pass, 'is'), holds: false }],
  ]);
});

it('offers a way in only where the item is closed', () => {
  fc.assert(
    fc.property(policies, anItem, visitors, (some, item, visitor) => {
      const made = compile(some, outline, vocabulary);
      if (decide(made, item.id, visitor, request).kind === 'open')
        expect(openers(made, item.id, visitor, request)).toEqual({ ways: [], cut: false });
    }),
  );
});

it('offers only ways in that work, none of which contains another', () => {
  fc.assert(
    fc.property(policies, anItem, askers, (some, item, visitor) => {
      const made = compile(some, outline, vocabulary);
      const { ways } = openers(made, item.id, visitor, request);
      for (const way of ways) {
        expect(decide(made, item.id, changed(visitor, way), request).kind).toBe('open');
        for (const needless of way) {
          // One value may have to meet several tests; without one of them it would be another value.
          if (way.some((one) => one !== needless && sameThing(one, needless))) continue;
          const rest = way.filter((one) => one !== needless);
          expect(decide(made, item.id, changed(visitor, rest), request).kind).toBe('turned away');
        }
      }
    }),
    { numRuns: 500 },
  );
});

it('misses no set of up to three changes that opens an item', () => {
  fc.assert(
    fc.property(policies, anItem, askers.map(asThereAre), (some, item, visitor) => {
      const made = compile(some, outline, vocabulary);
      if (decide(made, item.id, visitor, request).kind === 'open') return;
      const { ways } = openers(made, item.id, visitor, request);
      const candidates = candidateChanges(made, item.id, visitor).slice(0, 20);
      for (const set of subsets(candidates, 3)) {
        const things = set.map(({ of }) => of);
        const changes = set.map(({ change }) => change);
        if (new Set(things).size < set.length) continue;
        // Of a guest nothing else is known than the passphrases they typed.
        if (changes.some(({ kind }) => kind === 'sign out') && changes.some(asMember)) continue;
        if (decide(made, item.id, changed(visitor, changes), request).kind !== 'open') continue;
        // A smaller set, or one that differs in values alone, is listed in its place.
        const listed = ways.some((way) =>
          way.every(
            (change) =>
              // Whatever a guest is to become, they have signed in for it.
              (change.kind === 'sign in' && changes.some(asMember)) ||
              changes.some(
                (one) =>
                  one === change ||
                  (one.kind === change.kind && one.kind !== 'make') ||
                  sameThing(one, change),
              ),
          ),
        );
        expect(listed).toBe(true);
      }
    }),
    { numRuns: 150 },
  );
});

/** What can be unknown of nobody who is signed in, and all that can be known of somebody who is not. */
const asThereAre = (one: VisitorFacts): VisitorFacts =>
  one.signedIn
    ? {
        ...one,
        roles: one.roles ?? [],
        groups: one.groups ?? [],
        profile: one.profile ?? {},
        purchases: one.purchases ?? [],
        enrolments: one.enrolments ?? [],
        completions: one.completions ?? [],
      }
    : { ...guest, passphrases: one.passphrases };

/** Members, guests, and guests who typed something: what opens for each is found in its own way. */
const askers = fc.oneof(
  visitors,
  fc.constant(guest),
  fc.constant({ ...guest, passphrases: [night] }),
  visitors.map((one) => ({ ...one, passphrases: [night] })),
);

const asMember = (change: Change): boolean =>
  change.kind === 'level' || (change.kind === 'make' && change.test.fact !== 'passphrase');

const sameThing = (a: Change, b: Change): boolean =>
  a.kind === 'make' && b.kind === 'make' && a.test.fact === b.test.fact && a.test.subject === b.test.subject;

function* subsets<T>(list: readonly T[], most: number, from = 0): Generator<readonly T[]> {
  if (most === 0) return;
  for (let at = from; at < list.length; at++) {
    const one = list[at] as T;
    yield [one];
    for (const rest of subsets(list, most - 1, at + 1)) yield [one, ...rest];
  }
}

it('finds what lies deeper than anybody would look', () => {
  const who = all(
    inGroup(crew),
    profile(certificate, 'is yes'),
    profile(hours, 'at least', 100),
    any(all(owns(pass), knows(night)), hasRole(trustee)),
  );
  const gated = compile({ ...policy, gates: [{ ...gates.crew, who }] }, outline, vocabulary);
  const said = openers(gated, id('crew'), people.marek, request).ways.map((set) =>
    describeChanges(set, people.marek, vocabulary),
  );
  expect(said[0]).toMatch(/Trustee/);
  expect(said.map((one) => one.split(/, | and /).length)).toEqual([4, 5]);
});

it('keeps what a guest has typed when they sign in for more', () => {
  const gated = compile(
    { ...policy, gates: [{ ...gates.crew, who: all(knows(night), inGroup(crew)) }] },
    outline,
    vocabulary,
  );
  expect(
    openers(gated, id('crew'), guest, request).ways.map((set) => describeChanges(set, guest, vocabulary)),
  ).toHaveLength(1);
});

it('offers a guest nothing that being a member brings anyhow, and signing out with what is typed then', () => {
  const gated = (who: (typeof gates.crew)['who']) =>
    compile({ ...policy, gates: [{ ...gates.crew, who }] }, outline, vocabulary);
  const ways = (who: (typeof gates.crew)['who'], visitor: VisitorFacts) =>
    openers(gated(who), id('crew'), visitor, request).ways.map((set) =>
      describeChanges(set, visitor, vocabulary),
    );
  expect(ways(all(not(inGroup(crew)), owns(pass)), guest)).toEqual(['sign in and buy Keeper’s pass']);
  expect(ways(all(knows(night), guests), people.marek)).toEqual([
    'sign out and type the passphrase Open night',
  ]);
  expect(ways(all(guests, knows(night)), { ...people.marek, passphrases: [night] })).toEqual([
    'sign out and type the passphrase Open night',
  ]);
});

it('says when there is more than it tried, and does not try for ever', () => {
  const fieldTests = Array.from({ length: 96 }, (_, at) => profile(valley, 'is', `v${at}`));
  const groups = Array.from({ length: 12 }, (_, at) => ({
    id: asId<GroupId>(`g${at}`),
    name: `G${at}`,
    private: false,
  }));
  const names = { ...vocabulary, groups: [...vocabulary.groups, ...groups] };
  const any4 = (from: number) => any(...groups.slice(from, from + 4).map(({ id: one }) => inGroup(one)));
  const many = compile(
    {
      ...policy,
      gates: [
        {
          ...gates.crew,
          who: all(any(...fieldTests), any4(0), any4(4), any4(8), any(...fieldTests.map(not))),
        },
      ],
    },
    outline,
    names,
  );
  const answer = openers(many, id('crew'), guest, request);
  expect(answer.cut).toBe(true);
  const few = compile({ ...policy, gates: [{ ...gates.crew, who: any(...fieldTests) }] }, outline, names);
  expect(openers(few, id('crew'), guest, request)).toMatchObject({ cut: false, ways: { length: 96 } });
});

it('asks for one value where two tests of a field have to hold', () => {
  const who = all(profile(hours, 'at least', 100), not(profile(hours, 'at least', 200)));
  const gated = compile({ ...policy, gates: [{ ...gates.crew, who }] }, outline, vocabulary);
  expect(
    openers(gated, id('crew'), people.marek, request).ways.map((set) =>
      describeChanges(set, people.marek, vocabulary),
    ),
  ).toEqual(['have “hours logged” less than 200 and have “hours logged” at least 100']);
});

/** A visitor after some changes, read from the changes alone. */
function changed(visitor: VisitorFacts, changes: readonly Change[]): VisitorFacts {
  let facts = changes.some(({ kind }) => kind === 'sign out') ? guest : visitor;
  for (const change of changes) {
    if (change.kind === 'sign out') continue;
    if (change.kind === 'make') facts = assume(facts, change.test, change.holds, request.today, vocabulary);
    else if (!facts.signedIn) facts = member({ passphrases: facts.passphrases });
    if (change.kind === 'level') facts = { ...facts, level: change.level };
  }
  return facts;
}
