/** How far the learners of a course are, on any day: who has done what, and what is closed to whom. */
import { stringify } from 'csv-stringify/sync';
import {
  type ActivityType,
  asId,
  type Day,
  type ItemId,
  isDay,
  lettersOf,
  momentIn,
  neutralised,
  type PersonId,
  PROGRESS,
  progressOf,
  type RequestFacts,
  requestAt,
  SHEET,
  statesIn,
} from '@/core';
import { readHandInStates, readQuizzesBegun } from '@/store';
import {
  type Administrator,
  branchItems,
  plainRequest,
  requirePermission,
  requirePermissionAt,
  type SiteState,
  type Trivet,
  yielder,
} from '../running';
import {
  activitiesAt,
  type CourseAt,
  courseAt,
  type EnrolmentTold,
  enrolmentTold,
  learnsIn,
} from './course-at';

export interface ProgressOfLearner {
  readonly person: PersonId;
  readonly name: string;
  /** Null for somebody who did something in it without being enrolled. */
  readonly enrolled: EnrolmentTold | null;
  /** When they completed the course. */
  readonly completed: Day | null;
  /** What each activity is to them, a letter each, in the order of the course. */
  readonly states: string;
  /** Scores, by the activity's place; those without one are not there. */
  readonly scores: Readonly<Record<number, number>>;
}

export interface CourseProgress {
  readonly course: ItemId;
  readonly title: string;
  readonly activities: readonly {
    readonly id: ItemId;
    readonly title: string;
    readonly unit: string;
    readonly type: ActivityType;
  }[];
  /** By name. */
  readonly learners: readonly ProgressOfLearner[];
  /** How many more there are than can be told at once. */
  readonly more: number;
}

const MOST_LEARNERS = 10_000;
const MINUTE_MS = 60_000;

/** The courses whose learners somebody may see, by title. */
export function coursesTaught(
  trivet: Trivet,
  administrator: Administrator,
): readonly { readonly id: ItemId; readonly title: string }[] {
  requirePermission(administrator, 'learners');
  const { outline } = trivet.state;
  const reach = branchItems(administrator.desk, outline);
  return [...outline.addressed.values()]
    .filter(({ kind, id }) => kind === 'course' && (reach === null || reach.has(id)))
    .map(({ id, title }) => ({ id, title }))
    .toSorted((one, other) => one.title.localeCompare(other.title));
}

/** The progress of a course's learners as it is, or as it would be on another day; null when there is no such course. */
export async function courseProgress(
  trivet: Trivet,
  administrator: Administrator,
  id: string,
  day: string | null,
  now: Date,
): Promise<CourseProgress | null> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(id)], 'learners');
  const { state } = trivet;
  const at = courseAt(state, id);
  if (!at) return null;
  const begun = await begunIn(trivet, at);
  const activities = at.activities.map((one) => one.id);
  const place = new Map(activities.map((one, index) => [one, index]));
  const request = onDay(state, day, now);
  const learners: ProgressOfLearner[] = [];
  const rest = yielder();
  for (const person of state.people.values()) {
    if (!learnsIn(at, person)) continue;
    await rest();
    const { id: who, name, facts, completions } = person;
    const states = progressOf(
      state.live.compiled,
      activities,
      facts,
      request,
      (one) => begun.get(`${who} ${one}`) ?? null,
    );
    const scores: Record<number, number> = {};
    for (const { item, score } of completions) {
      const index = place.get(item);
      if (index !== undefined && score !== null) scores[index] = score;
    }
    learners.push({
      person: who,
      name,
      enrolled: enrolmentTold(state, person, at.course.id, request.today),
      completed: completions.find(({ item }) => item === at.course.id)?.on ?? null,
      states: lettersOf(states),
      scores,
    });
  }
  const byName = new Intl.Collator('en').compare;
  learners.sort((one, other) => byName(one.name, other.name));
  return {
    course: at.course.id,
    title: at.course.title,
    activities: at.units.flatMap(({ unit, activities: list }) =>
      list.map((one) => ({ id: one.id, title: one.title, unit: unit.title, type: one.activity })),
    ),
    learners: learners.slice(0, MOST_LEARNERS),
    more: Math.max(0, learners.length - MOST_LEARNERS),
  };
}

/** The same as CSV (RFC 4180), a line a learner. */
export async function exportProgress(
  trivet: Trivet,
  administrator: Administrator,
  id: string,
  day: string | null,
  now: Date,
): Promise<string | null> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(id)], 'learners');
  const progress = await courseProgress(trivet, administrator, id, day, now);
  if (!progress) return null;
  const rows = progress.learners.map(({ name, enrolled, completed, states, scores }) => [
    name,
    enrolled?.on ?? '',
    enrolled?.until ?? '',
    completed ?? '',
    ...statesIn(states).map((state, at) => `${scores[at] ?? PROGRESS[state].words}`),
  ]);
  const heads = ['name', 'enrolled', 'until', 'completed', ...progress.activities.map(({ title }) => title)];
  return stringify(
    [heads, ...rows].map((row) => row.map(neutralised)),
    SHEET,
  );
}

/** A request on another day, of which nothing else is known; as it is now where none is named. */
export const onDay = (state: SiteState, day: string | null, now: Date): RequestFacts =>
  day !== null && isDay(day)
    ? requestAt(
        momentIn('UTC', new Date(Date.parse(`${day}T00:00Z`) + plainRequest(state, now).minute * MINUTE_MS)),
      )
    : plainRequest(state, now);

/** What learners of a course have begun: attempts at quizzes, and what they handed in. */
async function begunIn({ db }: Trivet, at: CourseAt): Promise<ReadonlyMap<string, 'begun' | 'waiting'>> {
  const quizzes = await readQuizzesBegun(db, activitiesAt(at, 'quiz'));
  const handIns = await readHandInStates(db, activitiesAt(at, 'hand-in'));
  return new Map([
    ...quizzes.map(({ person, activity }) => [`${person} ${activity}`, 'begun'] as const),
    ...handIns.map(
      ({ person, activity, state }) =>
        [`${person} ${activity}`, state === 'waiting' ? 'waiting' : 'begun'] as const,
    ),
  ]);
}
