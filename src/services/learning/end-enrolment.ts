/** Ending somebody's enrolment in a course, by hand as it was made. */
import { z } from 'zod';
import { asId, changedByHand, isEnrolledOn, type PersonId } from '@/core';
import { id } from '../forms';
import { applyChange, type ChangeAnswer } from '../people';
import {
  type Administrator,
  momentAt,
  recordOf,
  requirePermissionAt,
  type SiteState,
  type Trivet,
} from '../running';
import { courseAt } from './course-at';

const ending = z.strictObject({
  course: id,
  person: id,
  why: z.string().trim().max(500, 'A reason has at most 500 letters.').default(''),
});

/** Ends an enrolment as of today; it stays as a record. One through a group ends with the group, and not here. */
export async function endEnrolment(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<ChangeAnswer> {
  const parsed = ending.safeParse(input);
  const course = parsed.success ? parsed.data.course : '';
  requirePermissionAt(administrator, trivet.state.outline, [asId(course)], 'learners');
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be read.' };
  const { person: who, why } = parsed.data;
  const make = (state: SiteState) => {
    const at = courseAt(state, course);
    const person = state.people.get(asId<PersonId>(who));
    if (!at || !person) return 'That is no learner of this course any more.';
    const { today } = momentAt(state, now);
    const running = (person.facts.enrolments ?? []).filter(
      (one) => one.course === at.course.id && isEnrolledOn(one, today),
    );
    const through = state.names.groups.find(({ id: group }) => running.some((one) => one.through === group));
    if (through)
      return `They are in it through ${through.name}, and stay in it for as long as they are in that group.`;
    if (running.length === 0) return 'They are not enrolled.';
    const before = recordOf(person);
    return {
      summary: `${before.name} no longer enrolled in ${at.course.title}`,
      why,
      people: [
        { before, after: changedByHand(before, { kind: 'end enrolment', course: at.course.id }, today) },
      ],
      names: null,
    };
  };
  return applyChange(trivet, administrator, make, now);
}
