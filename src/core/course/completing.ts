/** What is done when an activity is: itself, and with it its unit and its course once nothing in them is left to do. */
import type { ItemId } from '../ids';
import { type CompiledPolicy, decide } from '../policy';
import {
  type Activity,
  activitiesOf,
  type Completion,
  type RequestFacts,
  unitsOf,
  type VisitorFacts,
} from '../site';

/**
 * The completions to be recorded for somebody who is done with an activity now: none where they were before. A unit or a
 * course is done when everything is that is published there and open to them, as they are then.
 */
export function completing(
  { outline, ...compiled }: CompiledPolicy,
  learner: VisitorFacts,
  activity: Activity,
  score: number | null,
  request: RequestFacts,
): readonly Completion[] {
  const before = learner.completions ?? [];
  const isDone = (id: ItemId, list: readonly Completion[]) => list.some(({ item }) => item === id);
  if (isDone(activity.id, before)) return [];
  const made: Completion[] = [{ item: activity.id, on: request.today, score }];
  const now = () => ({ ...learner, completions: [...before, ...made] });
  const isLeft = ({ id, published }: Activity): boolean => {
    const then = now();
    return (
      published &&
      !isDone(id, then.completions) &&
      decide({ outline, ...compiled }, id, then, request).kind === 'open'
    );
  };
  const { unit, course } = activity.within ?? { unit: null, course: null };
  const finish = (id: ItemId | null, activities: readonly Activity[]) => {
    if (id !== null && !isDone(id, before) && !activities.some(isLeft))
      made.push({ item: id, on: request.today, score: null });
  };
  if (unit !== null) finish(unit, activitiesOf(outline, unit));
  if (course !== null)
    finish(
      course,
      unitsOf(outline, course).flatMap(({ id }) => activitiesOf(outline, id)),
    );
  return made;
}
