/** What follows from what people were given: enrolled through a group, for as long as they are in it. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, type GroupId, type ItemId, type LevelId, type ProductId, type RoleId } from '../ids';
import { addDays } from './day';
import {
  type ByGroup,
  enrolledByGroup,
  enrollingByHand,
  type Following,
  factsOf,
  type Held,
} from './facts-of';
import { type ByProduct, groupsAt, levelAt, rolesAt } from './granted';
import { doubledIn, originsOf } from './origins';
import { isEnrolledOn } from './visitor';

const crew = asId<GroupId>('dome-crew');
const survey = asId<GroupId>('tarn-survey');
const course = asId<ItemId>('dome-induction');
const held = (over: Partial<Held> = {}): Held => ({ groups: [], groupsSince: {}, ...over });
const following = (byGroup: ByGroup, byProduct: ByProduct = new Map()): Following => ({ byGroup, byProduct });
const rules = (days: number | null = null): Following =>
  following(
    enrolledByGroup([[course, { ...enrollingByHand, days, groups: [{ group: crew, since: '2026-11-01' }] }]]),
  );

describe('being enrolled through a group', () => {
  it('is since the day from which the group is, or since somebody came into it, and says so', () => {
    const since = (groupsSince: Held['groupsSince']) =>
      factsOf(held({ groups: [crew], groupsSince }), rules()).enrolments;
    expect(since({})).toEqual([{ course, on: '2026-11-01', until: null, through: crew }]);
    expect(since({ [crew]: '2026-09-01' })).toMatchObject([{ on: '2026-11-01' }]);
    expect(since({ [crew]: '2026-11-12' })).toMatchObject([{ on: '2026-11-12' }]);
    expect(factsOf(held({ groups: [survey] }), rules()).enrolments).toEqual([]);
  });

  it('ends so many days after it began, the last of them included', () => {
    const [made] = factsOf(held({ groups: [crew] }), rules(3)).enrolments ?? [];
    expect(made).toMatchObject({ on: '2026-11-01', until: '2026-11-03' });
    const on = (day: string) => made !== undefined && isEnrolledOn(made, day);
    expect(['2026-10-31', '2026-11-01', '2026-11-03', '2026-11-04'].map(on)).toEqual([
      false,
      true,
      true,
      false,
    ]);
  });

  it('leaves what was given by hand as it is', () => {
    const byHand = { course, on: '2026-01-01', until: '2026-12-01' };
    const facts = factsOf(held({ groups: [crew], enrolments: [byHand] }), rules());
    expect(facts.enrolments).toHaveLength(2);
    expect(facts.enrolments?.[0]).toEqual(byHand);
    expect(factsOf(held({ enrolments: [byHand] }), rules()).enrolments).toEqual([byHand]);
  });
});

const group = fc.constantFrom(crew, survey, asId<GroupId>('hollin'));
const aCourse = fc.constantFrom('a', 'b', 'c').map((id) => asId<ItemId>(id));
const day = fc.integer({ min: 0, max: 60 }).map((days) => addDays('2026-10-01', days));
const anEnrolling = fc.record({
  open: fc.boolean(),
  days: fc.option(fc.integer({ min: 1, max: 30 })),
  groups: fc.uniqueArray(fc.record({ group, since: day }), { maxLength: 3, selector: (one) => one.group }),
});
const courses = fc.uniqueArray(fc.tuple(aCourse, anEnrolling), { selector: ([id]) => id });
const people = fc
  .record({
    groups: fc.uniqueArray(group),
    groupsSince: fc.dictionary(group, day, { maxKeys: 3 }),
    enrolments: fc.uniqueArray(fc.record({ course: aCourse, on: day, until: fc.option(day) }), {
      selector: (one) => one.course,
    }),
  })
  .map((one) => held(one));

describe('for any courses, people and days', () => {
  it('is as a naive reading has it: in a course are those enrolled by hand and those in its groups by then', () => {
    fc.assert(
      fc.property(courses, people, aCourse, day, (list, person, id, today) => {
        const found = factsOf(person, following(enrolledByGroup(list))).enrolments ?? [];
        const enrolled = found.some((one) => one.course === id && isEnrolledOn(one, today));
        const byHand = (person.enrolments ?? []).some(
          (one) => one.course === id && one.on <= today && (one.until === null || today <= one.until),
        );
        const [, says] = list.find(([one]) => one === id) ?? [];
        const through = (says?.groups ?? []).some(({ group: wanted, since }) => {
          if (!person.groups?.includes(wanted)) return false;
          const came = [since, person.groupsSince[wanted] ?? since].toSorted()[1] ?? since;
          return came <= today && (says?.days == null || today < addDays(came, says.days));
        });
        expect(enrolled).toBe(byHand || through);
      }),
    );
  });

  it('takes exactly that away with a group which the group brought', () => {
    fc.assert(
      fc.property(courses, people, group, (list, person, gone) => {
        const byGroup = following(enrolledByGroup(list));
        const before = factsOf(person, byGroup).enrolments ?? [];
        const groups = (person.groups ?? []).filter((one) => one !== gone);
        const after = factsOf({ ...person, groups }, byGroup).enrolments ?? [];
        expect(after).toEqual(before.filter(({ through }) => through !== gone));
      }),
    );
  });
});

const product = fc.constantFrom('pass', 'atlas', 'gone').map((id) => asId<ProductId>(id));
const aLevel = fc.constantFrom('friend', 'observer', 'keeper').map((id) => asId<LevelId>(id));
const aRole = fc.constantFrom('tutor', 'volunteer').map((id) => asId<RoleId>(id));
const grants = fc.record({
  level: fc.option(aLevel),
  roles: fc.uniqueArray(aRole),
  groups: fc.uniqueArray(group, { maxLength: 2 }),
  enrolments: fc.uniqueArray(
    fc.record({ course: aCourse, days: fc.option(fc.integer({ min: 1, max: 30 })) }),
    {
      selector: (one) => one.course,
      maxLength: 2,
    },
  ),
});
const byProducts = fc.tuple(grants, grants).map(
  ([one, other]): ByProduct =>
    new Map([
      [asId('pass'), one],
      [asId('atlas'), other],
    ]),
);
const purchase = fc.record({
  product,
  on: day,
  until: fc.option(day),
  state: fc.constantFrom('paid' as const, 'paid' as const, 'failed' as const, 'refunded' as const),
});
const buyers = fc
  .tuple(people, fc.array(purchase, { maxLength: 6 }), fc.option(aLevel), fc.uniqueArray(aRole))
  .map(([one, purchases, level, roles]): Held => ({ ...one, purchases, level, roles }));

const levels = ['friend', 'observer', 'keeper'].map((id) => ({ id: asId<LevelId>(id), name: id }));
const rank = (level: string) => levels.findIndex(({ id }) => id === level);

describe('for any purchases, products and days', () => {
  it('is as a naive reading has it: what was given by hand, joined with what is paid for on that day', () => {
    fc.assert(
      fc.property(buyers, byProducts, courses, day, (person, byProduct, list, today) => {
        const facts = factsOf(person, following(enrolledByGroup(list), byProduct));
        const now = (person.purchases ?? []).filter(
          (one) => one.state === 'paid' && one.on <= today && (one.until === null || today <= one.until),
        );
        const given = now.flatMap((one) => byProduct.get(one.product) ?? []);
        const held = [person.level ?? null, ...given.map((one) => one.level)].flatMap((one) => one ?? []);
        const highest = held.toSorted((one, other) => rank(other) - rank(one))[0] ?? null;
        expect(levelAt(facts, today, levels)).toBe(highest);
        expect(new Set(rolesAt(facts, today))).toEqual(
          new Set([...(person.roles ?? []), ...given.flatMap((one) => one.roles)]),
        );
        expect(new Set(groupsAt(facts, today))).toEqual(
          new Set([...(person.groups ?? []), ...given.flatMap((one) => one.groups)]),
        );
        const through = now.flatMap((one) =>
          (byProduct.get(one.product)?.enrolments ?? []).filter(
            ({ days }) => days === null || today < addDays(one.on, days),
          ),
        );
        for (const { course: id } of through)
          expect((facts.enrolments ?? []).some((one) => one.course === id && isEnrolledOn(one, today))).toBe(
            true,
          );
      }),
    );
  });

  it('says the same on a day whatever day was asked before', () => {
    fc.assert(
      fc.property(
        buyers,
        byProducts,
        fc.array(day, { minLength: 1, maxLength: 8 }),
        (person, byProduct, days) => {
          const asked = factsOf(person, following(new Map(), byProduct));
          for (const today of days) {
            const fresh = factsOf(person, following(new Map(), byProduct));
            expect(groupsAt(asked, today)).toEqual(groupsAt(fresh, today));
            expect(levelAt(asked, today, levels)).toBe(levelAt(fresh, today, levels));
          }
        },
      ),
    );
  });

  it('takes exactly that away with a purchase which the purchase gave', () => {
    fc.assert(
      fc.property(buyers, byProducts, fc.nat(5), day, (person, byProduct, at, today) => {
        const all = person.purchases ?? [];
        const rest = all.filter((_, place) => place !== at);
        const [before, after] = [all, rest].map((purchases) =>
          originsOf(factsOf({ ...person, purchases }, following(new Map(), byProduct)), today),
        );
        const kept = new Set(after?.map((one) => JSON.stringify(one)));
        const gone = (before ?? []).filter((one) => !kept.has(JSON.stringify(one)));
        // Nothing that was given by hand, and nothing by another product.
        expect(gone.every(({ through }) => through !== null && through === all[at]?.product)).toBe(true);
      }),
    );
  });
});

it('says what somebody has twice, by hand and by what they bought', () => {
  const byProduct: ByProduct = new Map([
    [asId('pass'), { level: asId<LevelId>('observer'), roles: [], groups: [crew], enrolments: [] }],
  ]);
  const bought = {
    product: asId<ProductId>('pass'),
    on: '2026-11-01',
    until: '2026-11-30',
    state: 'paid' as const,
  };
  const facts = factsOf(
    held({ level: asId<LevelId>('observer'), groups: [survey], purchases: [bought] }),
    following(new Map(), byProduct),
  );
  expect(doubledIn(facts, '2026-11-20')).toEqual([
    { kind: 'level', id: 'observer', through: null, until: null },
  ]);
  expect(doubledIn(facts, '2026-12-01')).toEqual([]);
});
