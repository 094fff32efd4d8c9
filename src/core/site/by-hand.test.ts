/** What is given by hand or taken comes to the same, whether it is done to the record or to what is known of somebody. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { asId, type GroupId, type ItemId, type LevelId, type ProductId, type RoleId } from '../ids';
import { changedByHand, factsChangedByHand, type HandChange, type HeldByHand } from './by-hand';
import { type Following, factsOf } from './facts-of';
import type { Enrolment, Purchase } from './visitor';

const today = '2026-03-10';
const days = fc.constantFrom('2026-02-01', '2026-03-09', today, '2026-03-11', '2026-05-01');
const groups = ['crew', 'school'].map((id) => asId<GroupId>(id));
const roles = ['trustee', 'guide'].map((id) => asId<RoleId>(id));
const levels = ['friend', 'keeper'].map((id) => asId<LevelId>(id));
const courses = ['induction', 'optics'].map((id) => asId<ItemId>(id));
const product = asId<ProductId>('pass');

const following: fc.Arbitrary<Following> = fc
  .record({
    days: fc.constantFrom(null, 1, 30),
    since: days,
    gives: fc.subarray(groups),
    course: fc.constantFrom(...courses),
  })
  .map(({ days: lasts, since, gives, course }) => ({
    byGroup: new Map(
      groups.map((group, at) => [group, [{ course: courses[at] ?? course, since, days: lasts }]]),
    ),
    byProduct: new Map([
      [product, { level: null, roles: [], groups: gives, enrolments: [{ course, days: lasts }] }],
    ]),
  }));

const changes: fc.Arbitrary<HandChange> = fc.oneof(
  fc.record({ kind: fc.constantFrom('join', 'leave'), group: fc.constantFrom(...groups) }),
  fc.record({ kind: fc.constantFrom('give', 'take'), role: fc.constantFrom(...roles) }),
  fc.record({ kind: fc.constant('level' as const), level: fc.constantFrom(null, ...levels) }),
  fc.record({
    kind: fc.constant('enrol' as const),
    course: fc.constantFrom(...courses),
    until: fc.constantFrom(null, '2026-06-01'),
  }),
  fc.record({ kind: fc.constant('end enrolment' as const), course: fc.constantFrom(...courses) }),
);

const people = fc.record({
  groups: fc.subarray(groups),
  roles: fc.subarray(roles),
  level: fc.constantFrom(null, ...levels),
  enrolments: fc.array(fc.record({ course: fc.constantFrom(...courses), on: days, until: fc.option(days) }), {
    maxLength: 2,
  }),
  purchases: fc.array(
    fc.record({
      product: fc.constant(product),
      on: days,
      until: fc.option(days),
      state: fc.constantFrom('paid' as const, 'refunded' as const),
    }),
    { maxLength: 2 },
  ),
  since: days,
});

it('a change of the record and a change of the facts come to the same', () => {
  fc.assert(
    fc.property(people, changes, following, ({ since, ...person }, change, follows) => {
      const known = (held: HeldByHand & { readonly purchases: readonly Purchase[] }) =>
        factsOf(
          {
            ...held,
            groupsSince: Object.fromEntries(
              held.groups.map((group) => [group, person.groups.includes(group) ? since : today]),
            ),
          },
          follows,
        );
      const then = known(changedByHand(person, change, today));
      const found = factsChangedByHand(known(person), change, follows, today);
      expect({ ...found, enrolments: inOrder(found.enrolments) }).toEqual({
        ...then,
        enrolments: inOrder(then.enrolments),
      });
    }),
    { numRuns: 500 },
  );
});

const inOrder = (enrolments: readonly Enrolment[] | null) =>
  (enrolments ?? []).map((one) => JSON.stringify(one, Object.keys(one).sort())).sort();

it('leaves alone whoever is so already', () => {
  const nobody: HeldByHand = { groups: [], roles: [], level: null, enrolments: [] };
  const [crew, school] = groups as [GroupId, GroupId];
  expect(changedByHand(nobody, { kind: 'leave', group: crew }, today)).toEqual(nobody);
  const member = { ...nobody, groups: [school] };
  expect(changedByHand(member, { kind: 'join', group: school }, today).groups).toBe(member.groups);
});
