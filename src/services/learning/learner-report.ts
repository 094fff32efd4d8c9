/** One learner in a course: what they did, what is closed to them and why, and how their attempts went. */
import {
  type Activity,
  type ActivityType,
  asId,
  capital,
  type Day,
  describeBecause,
  describeChanges,
  explain,
  type FactName,
  type Item,
  type ItemId,
  momentIn,
  openers,
  type PersonId,
  type Progress,
  progressOf,
  type RequestFacts,
  type Review,
  reviewOf,
} from '@/core';
import { type QuizAttempt, readQuizAttempts } from '@/store';
import {
  type Administrator,
  type Person,
  requirePermissionAt,
  type SiteState,
  type Trivet,
  yielder,
} from '../running';
import { courseAt, type EnrolmentTold, enrolmentTold, learnsIn } from './course-at';
import { onDay } from './course-progress';
import { type HandedIn, handedInBy } from './hand-ins';

export interface ActivityOfLearner {
  readonly id: ItemId;
  readonly title: string;
  readonly type: ActivityType;
  readonly state: Progress;
  readonly on: Day | null;
  readonly score: number | null;
  /** Why it is closed to them, and the shortest ways in; empty where it is not. */
  readonly because: string | null;
  readonly waysIn: readonly string[];
  readonly attempts: readonly AttemptOfLearner[];
  /** What they handed in, the first version first. */
  readonly handedIn: readonly HandedIn[];
}

export interface AttemptOfLearner {
  readonly number: number;
  readonly begun: Day;
  /** Null while it is under way, like the score. */
  readonly finished: Day | null;
  readonly score: number | null;
  readonly passed: boolean;
  /** Question by question, with what was asked in Markdown. */
  readonly answered: readonly (Review & { readonly text: string })[];
}

export interface LearnerReport {
  readonly person: PersonId;
  readonly name: string;
  readonly email: string;
  readonly enrolled: EnrolmentTold | null;
  readonly units: readonly {
    readonly id: ItemId;
    readonly title: string;
    readonly completed: Day | null;
    readonly activities: readonly ActivityOfLearner[];
  }[];
  readonly completed: Day | null;
}

const MOST_WAYS = 3;
// Ways in are found by trying, which takes its time; of a long course those that are closed first get some.
const MOST_TRIED = 20;

/** One learner of a course, as things are or would be on another day; null where there is no such learner. */
export async function learnerReport(
  trivet: Trivet,
  administrator: Administrator,
  {
    course: id,
    person: who,
    day,
  }: { readonly course: string; readonly person: string; readonly day: string | null },
  now: Date,
): Promise<LearnerReport | null> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(id)], 'learners');
  const { state } = trivet;
  const at = courseAt(state, id);
  const person = state.people.get(asId<PersonId>(who));
  if (!at || !person || !learnsIn(at, person)) return null;
  const attempts = await readQuizAttempts(
    trivet.db,
    person.id,
    at.activities.map((one) => one.id),
  );
  const handedIn = await handedInBy(trivet, at, person.id);
  const request = onDay(state, day, now);
  const doneOn = (item: ItemId) => person.completions.find((one) => one.item === item) ?? null;
  let tried = 0;
  const rest = yielder();
  const ofLearner = async (activity: Activity): Promise<ActivityOfLearner> => {
    await rest();
    const own = attempts.filter((one) => one.activity === activity.id);
    const ownWork = handedIn.filter((one) => one.activity === activity.id);
    const begunAs = () =>
      ownWork.at(-1)?.state === 'waiting' ? 'waiting' : own.length + ownWork.length > 0 ? 'begun' : null;
    const [progress = 'closed'] = progressOf(
      state.live.compiled,
      [activity.id],
      person.facts,
      request,
      begunAs,
    );
    const done = doneOn(activity.id);
    if (progress === 'closed') tried += 1;
    return {
      id: activity.id,
      title: activity.title,
      type: activity.activity,
      state: progress,
      on: done?.on ?? null,
      score: done?.score ?? null,
      ...(progress === 'closed'
        ? whyClosed(state, activity, person, request, tried <= MOST_TRIED)
        : { because: null, waysIn: [] }),
      attempts: own.map((one) => attemptOf(state, one)),
      handedIn: ownWork,
    };
  };
  const units: LearnerReport['units'][number][] = [];
  for (const { unit, activities } of at.units) {
    const list: ActivityOfLearner[] = [];
    for (const activity of activities) list.push(await ofLearner(activity));
    units.push({
      id: unit.id,
      title: unit.title,
      completed: doneOn(unit.id)?.on ?? null,
      activities: list,
    });
  }
  return {
    person: person.id,
    name: person.name,
    email: person.email,
    enrolled: enrolmentTold(state, person, at.course.id, request.today),
    completed: doneOn(at.course.id)?.on ?? null,
    units,
  };
}

function whyClosed(
  { live: { compiled } }: SiteState,
  item: Item,
  { facts }: Person,
  request: RequestFacts,
  tries: boolean,
): Pick<ActivityOfLearner, 'because' | 'waysIn'> {
  const because = describeBecause(explain(compiled, item.id, facts, request), item, compiled.vocabulary);
  return {
    because: because === null ? null : capital(because),
    waysIn: tries
      ? openers(compiled, item.id, facts, request)
          .ways.toSorted((one, other) => Number(isLearning(other)) - Number(isLearning(one)))
          .slice(0, MOST_WAYS)
          .map((changes) => describeChanges(changes, facts, compiled.vocabulary))
      : [],
  };
}

const LEARNT: ReadonlySet<string> = new Set<FactName>([
  'completed',
  'completed unit',
  'completed course',
  'completed the one before',
  'score',
  'enrolled',
  'enrolment',
]);

/** Whether a way in is gone by learning alone: that is what a tutor can tell somebody. */
const isLearning = (way: ReturnType<typeof openers>['ways'][number]): boolean =>
  way.every((change) => change.kind === 'make' && LEARNT.has(change.test.fact));

function attemptOf(
  { settings: { timeZone } }: SiteState,
  { number, begun, finished, score, passMark, asked, answers }: QuizAttempt,
): AttemptOfLearner {
  const dayOf = (at: Date): Day => momentIn(timeZone, at).today;
  return {
    number,
    begun: dayOf(begun),
    finished: finished && dayOf(finished),
    score,
    passed: score !== null && score >= passMark,
    answered: asked.map((one, at) => ({ text: one.question.text, ...reviewOf(one, answers[at] ?? []) })),
  };
}
