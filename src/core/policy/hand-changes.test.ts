/** What is offered to be given to people makes it so; and nothing that would is left out. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { all, any, type Condition, hasRole, inGroup, level, not, testOf } from '../condition';
import { factsChangedByHand, type HandChange, member, nothingHeld, type VisitorFacts } from '../site';
import { anItem, gates, requests, visitors } from '../testing/arbitraries';
import {
  crew,
  id,
  keeper,
  observer,
  outline,
  people,
  policy,
  request,
  suspended,
  vocabulary,
} from '../testing/larkfell';
import { compile } from './compile';
import { decide } from './decide';
import { handChangesFor } from './hand-changes';

const following = { byGroup: new Map(), byProduct: new Map() };
const live = compile(policy, outline, vocabulary);
const offered = (items: readonly string[], who: readonly VisitorFacts[], open: boolean) =>
  handChangesFor(live, { items: items.map(id), people: who, open, request, following });

describe('what is closed', () => {
  it('opens to somebody who is put into the group, or at the lowest level that is enough', () => {
    expect(offered(['crew'], [people.marek], true)).toEqual([{ kind: 'join', group: crew }]);
    expect(offered(['observers'], [people.marek], true)).toEqual([{ kind: 'level', level: observer }]);
  });

  it('opens to several when one thing is enough for all, at all of it', () => {
    expect(offered(['crew', 'rota'], [people.marek, people.tobin], true)).toEqual([
      { kind: 'join', group: crew },
    ]);
    expect(offered(['crew', 'observers'], [people.marek], true)).toEqual([]);
    expect(offered(['observers'], [people.marek, people.basil], true)).toEqual([]);
  });

  it('is open already, or nobody is asked for', () => {
    expect(offered(['home'], [people.marek], true)).toEqual([]);
    expect(offered(['crew'], [], true)).toEqual([]);
  });
});

describe('what is open', () => {
  it('closes to somebody who is taken out of the group, or put into the one that is shut out', () => {
    expect(offered(['rota'], [people.ines], false)).toEqual([{ kind: 'leave', group: crew }]);
    expect(offered(['observers'], [people.tobin], false)).toContainEqual({ kind: 'join', group: suspended });
  });

  it('does not close by taking what a purchase gives as well', () => {
    const granted = [
      { product: 'pass' as never, on: '2020-01-01', until: null, level: null, roles: [], groups: [crew] },
    ];
    expect(offered(['rota'], [member({ level: keeper, groups: [crew], granted })], false)).toEqual([]);
  });
});

/** Every single thing that could be given to somebody or taken, the levels in their order. */
const EVERY: readonly HandChange[] = [
  ...vocabulary.groups.flatMap(({ id: group }): HandChange[] => [
    { kind: 'join', group },
    { kind: 'leave', group },
  ]),
  ...vocabulary.roles.flatMap(({ id: role }): HandChange[] => [
    { kind: 'give', role },
    { kind: 'take', role },
  ]),
  ...[null, ...vocabulary.levels.map((one) => one.id)].map((level): HandChange => ({ kind: 'level', level })),
  ...vocabulary.courses.flatMap(({ id: course }): HandChange[] => [
    { kind: 'enrol', course, until: null },
    { kind: 'end enrolment', course },
  ]),
];

const members = visitors.map(
  (one): VisitorFacts => ({
    ...one,
    signedIn: true,
    roles: one.roles ?? [],
    groups: one.groups ?? [],
    profile: one.profile ?? {},
    purchases: one.purchases ?? nothingHeld.purchases,
    enrolments: one.enrolments ?? [],
    completions: one.completions ?? [],
  }),
);

/** Conditions on what can be given, now and then with something else. */
const given: fc.Arbitrary<Condition> = fc.constantFrom(
  ...vocabulary.groups.map((one) => inGroup(one.id)),
  ...vocabulary.roles.map((one) => hasRole(one.id)),
  ...vocabulary.levels.map((one) => level('at least', one.id)),
  ...vocabulary.courses.flatMap((one) => [
    testOf('enrolled', one.id, 'is'),
    testOf('enrolment', one.id, 'within the last', 3),
  ]),
);
const simple: fc.Arbitrary<Condition> = fc.oneof(
  given,
  given.map(not),
  fc.tuple(given, given).map((parts) => any(...parts)),
  fc.tuple(given, given.map(not)).map((parts) => all(...parts)),
);

it('what is offered makes it so, and of all that could be given or taken nothing that does is left out', () => {
  let found = 0;
  fc.assert(
    fc.property(
      fc.array(anItem, { minLength: 1, maxLength: 2 }),
      fc.array(fc.tuple(gates, simple), { minLength: 1, maxLength: 2 }),
      fc.array(members, { minLength: 1, maxLength: 2 }),
      requests,
      fc.boolean(),
      (items, gated, those, how, open) => {
        const targets = items.map((item) => ({ kind: 'item' as const, item: item.id }));
        const list = gated.map(([gate, who]) => ({ ...gate, who, what: { targets, except: [] } }));
        const compiled = compile({ ...policy, gates: list }, outline, vocabulary);
        const isSo = (facts: VisitorFacts) =>
          items.every((item) => (decide(compiled, item.id, facts, how).kind === 'open') === open);
        const made = handChangesFor(compiled, {
          items: items.map((item) => item.id),
          people: those,
          open,
          request: how,
          following,
        });
        const making = those.every(isSo)
          ? []
          : EVERY.filter((change) =>
              those.every((facts) => isSo(factsChangedByHand(facts, change, following, how.today))),
            );
        const levels = making.filter(({ kind }) => kind === 'level');
        const wanted = open ? levels[0] : levels.at(-1);
        found += making.length;
        expect(new Set(made)).toEqual(
          new Set(making.filter((change) => change.kind !== 'level' || change === wanted)),
        );
      },
    ),
    { numRuns: 500 },
  );
  expect(found).toBeGreaterThan(20);
});
