/** Marking what somebody is done with, by hand: for what was shown on the hill, and to take back what was noted wrongly. */
import { z } from 'zod';
import { asId, completing, type ItemId, isCompleted, type PersonId, withScore } from '@/core';
import { id, percentage } from '../forms';
import { applyChange, type ChangeAnswer } from '../people';
import { type Administrator, plainRequest, recordOf, requirePermissionAt, type Trivet } from '../running';
import { courseAt, learnsIn } from './course-at';

const marking = z.strictObject({
  course: id,
  person: id,
  activity: id,
  done: z.boolean(),
  /** A percentage. */
  score: percentage.nullable().default(null),
  why: z.string().trim().max(500, 'A reason has at most 500 letters.').default(''),
});

/**
 * Notes that a learner is done with an activity, whether it is open to them or not, or takes that back, with a reason. A unit
 * or a course that was completed stays so.
 */
export async function markDone(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<ChangeAnswer> {
  const parsed = marking.safeParse(input);
  const course = parsed.success ? parsed.data.course : '';
  requirePermissionAt(administrator, trivet.state.outline, [asId(course)], 'learners');
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be marked.' };
  const { person: who, activity: what, done, score, why } = parsed.data;
  const make = (state: Trivet['state']) => {
    const at = courseAt(state, course);
    const activity = at?.activities.find((one) => one.id === asId<ItemId>(what));
    const person = state.people.get(asId<PersonId>(who));
    if (!at || !activity) return 'There is no such activity in this course any more.';
    if (!person || !learnsIn(at, person)) return 'That is no learner of this course any more.';
    if (!done && why === '') return 'Say why it is taken back: the learner may ask.';
    const before = recordOf(person);
    const completions = !done
      ? before.completions.filter(({ item }) => item !== activity.id)
      : isCompleted(before.completions, activity.id)
        ? withScore(before.completions, activity.id, score)
        : [
            ...before.completions,
            ...completing(state.live.compiled, person.facts, activity, score, plainRequest(state, now)),
          ];
    return {
      summary: done
        ? `${before.name}: ${activity.title} marked as done${score === null ? '' : `, ${score} %`}`
        : `${before.name}: ${activity.title} no longer done`,
      why,
      people: [{ before, after: { ...before, completions } }],
      names: null,
    };
  };
  return applyChange(trivet, administrator, make, now);
}
