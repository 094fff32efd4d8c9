/** What follows from what people were given: enrolled through a group, for as long as they are in it. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, type GroupId, type ItemId } from '../ids';
import { addDays } from './day';
import {
  type ByGroup,
  enrolledByGroup,
  enrollingByHand,
  type Following,
  factsOf,
  type Held,
} from './facts-of';
import type { ByProduct } from './granted';
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
