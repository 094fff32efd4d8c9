/**
 * A course as a visitor gets it: its units and activities, each open, done, or locked with what is said to them. What their
 * gates leave out, or tell nothing of, is not among it.
 */
import {
  type Activity,
  type ActivityType,
  activitiesOf,
  type Course,
  type Decision,
  type Item,
  type ItemId,
  isCompleted,
  isEnrolledOn,
  TURN_AWAYS,
  type Unit,
  unitsOf,
} from '@/core';
import { enrollingIn } from '../running';
import { addressIn, decisionOn, isSignedIn, type View } from './context';
import { type QuizOutline, quizAddress, quizOutline } from './quiz-outline';
import { type Step, signInAddress, stepFor } from './step';
import { handInAddress, outlineOfTask, type TaskOutline, taskIn } from './task-outline';

/** What is said of something that is closed and shown all the same. */
export interface Closed {
  readonly reason: string | null;
  readonly step: Step | null;
}

export interface ActivityEntry {
  readonly id: ItemId;
  readonly title: string;
  readonly type: ActivityType;
  /** Where it is; null where it is closed. */
  readonly address: string | null;
  readonly done: boolean;
  readonly closed: Closed | null;
}

export interface UnitEntry {
  readonly id: ItemId;
  readonly title: string;
  readonly closed: Closed | null;
  readonly activities: readonly ActivityEntry[];
}

export interface CourseOutline {
  readonly units: readonly UnitEntry[];
  /** The first activity that is open and not done, for members. */
  readonly goOn: ActivityEntry | null;
  /** How many of the activities that are shown are done, for members. */
  readonly progress: { readonly done: number; readonly of: number } | null;
  /** Where one enrols with one click, for members who are not enrolled, or signs in for that; null where that is not for them. */
  readonly enrol: { readonly address: string; readonly back: string; readonly signIn: boolean } | null;
}

/** Whether something is done: of guests nothing is known. */
export const isDone = (view: View, item: ItemId): boolean | null =>
  view.ask(`done ${item}`, ({ facts }) => facts.completions && isCompleted(facts.completions, item));

/** The outline of a course that is open to this visitor. `back` is where they are. */
export function courseOutline(view: View, course: ItemId, back: string): CourseOutline {
  const { outline } = view.state;
  const units = unitsOf(outline, course).flatMap((unit) => unitEntry(view, unit, back) ?? []);
  const all = units.flatMap(({ activities }) => activities);
  const learns = all.length > 0 && isSignedIn(view);
  return {
    units,
    goOn: learns ? (all.find(({ address, done }) => address !== null && !done) ?? null) : null,
    progress: learns ? { done: all.filter(({ done }) => done).length, of: all.length } : null,
    enrol: enrolIn(view, course, back),
  };
}

function enrolIn(view: View, course: ItemId, back: string): CourseOutline['enrol'] {
  if (!enrollingIn(view.state, course).open) return null;
  if (!isSignedIn(view)) return { address: signInAddress(view, back), back, signIn: true };
  const isIn = view.ask(
    `enrolled ${course}`,
    ({ facts, request }) =>
      facts.enrolments?.some((one) => one.course === course && isEnrolledOn(one, request.today)) ?? false,
  );
  return isIn
    ? null
    : { address: addressIn(view, `/me/enrol/${encodeURIComponent(course)}`), back, signIn: false };
}

function unitEntry(view: View, unit: Unit, back: string): UnitEntry | null {
  const closed = closedBy(view, unit, decisionOn(view, unit.id), back);
  if (closed === 'left out') return null;
  return {
    id: unit.id,
    title: unit.title,
    closed,
    // What is in something closed is closed with it, and goes without saying.
    activities: closed
      ? []
      : activitiesOf(view.state.outline, unit.id).flatMap((activity) => activityEntry(view, activity) ?? []),
  };
}

/** Entries by what they say: the same value for everybody who gets the same, so that what is drawn of it is found by it. */
const entries = new WeakMap<Activity, WeakMap<Decision, Map<boolean, ActivityEntry>>>();

/** An activity of a unit that is open; null where it is left out. */
function activityEntry(view: View, activity: Activity): ActivityEntry | null {
  const { id, title, address, activity: type } = activity;
  const decision = decisionOn(view, id);
  const done = isDone(view, id) === true;
  const known = view.base === '' ? entries.get(activity)?.get(decision)?.get(done) : undefined;
  if (known) return known;
  const closed = closedBy(view, activity, decision, address);
  if (closed === 'left out') return null;
  const entry = { id, title, type, address: closed ? null : addressIn(view, address), done, closed };
  // Where a step leads depends on whose it is.
  if (view.base !== '' || (closed !== null && closed.step !== null)) return entry;
  const byDecision = entries.get(activity) ?? new WeakMap<Decision, Map<boolean, ActivityEntry>>();
  const byDone = byDecision.get(decision) ?? new Map<boolean, ActivityEntry>();
  entries.set(activity, byDecision.set(decision, byDone.set(done, entry)));
  return entry;
}

/** What is said of an item in place of it; null where it is open. */
function closedBy(view: View, item: Item, decision: Decision, back: string): Closed | null | 'left out' {
  if (decision.kind === 'open') return null;
  const { turnAway, reason } = decision;
  if (TURN_AWAYS[turnAway.kind].tells === 'nothing') return 'left out';
  const next = 'next' in turnAway ? turnAway.next : { kind: 'none' as const };
  return { reason, step: stepFor(view, next, 'address' in item ? item.address : back) };
}

/** What is the same of an activity for everybody who gets it. */
export interface ActivityStanding {
  readonly type: ActivityType;
  readonly course: { readonly title: string; readonly address: string };
  readonly unit: string | null;
  /** Where one says that one is done, and where one is then. */
  readonly finish: { readonly address: string; readonly back: string };
}

/** What comes before an activity and after it. */
export interface ActivitiesAround {
  readonly previous: ActivityEntry | null;
  readonly next: ActivityEntry | null;
}

/** Where an activity stands, and what comes before and after it as far as this visitor gets it. */
export interface ActivityPlace {
  readonly standing: ActivityStanding;
  readonly around: ActivitiesAround;
  /** Null for whoever it is not known of. */
  readonly done: boolean | null;
  /** Of a video that one is not done with: where it is told what of it was played. */
  readonly watch: string | null;
  /** Of a hand-in: what can be handed in and where, and the score of whoever is done with it. */
  readonly task: (TaskOutline & { readonly address: string; readonly score: number | null }) | null;
  /** Of a quiz: what it is about, where it is taken, and the score of whoever is done with it. */
  readonly quiz: (QuizOutline & { readonly address: string; readonly score: number | null }) | null;
}

/** The place of an activity that is open to this visitor. */
export function placeInCourse(view: View, id: ItemId): ActivityPlace | null {
  const { items } = view.state.outline;
  const item = items.get(id);
  if (item?.kind !== 'activity' || !item.within) return null;
  const course = items.get(item.within.course);
  const unit = item.within.unit === null ? undefined : items.get(item.within.unit);
  if (course?.kind !== 'course') return null;
  const done = isDone(view, id);
  return {
    standing: standingOf(view, item, course, unit),
    around: aroundOf(
      nearest(view, item, -1, ({ address }) => address !== null),
      nearest(view, item, 1, () => true),
    ),
    done,
    watch:
      item.activity === 'video' && done === false
        ? addressIn(view, `/me/played/${encodeURIComponent(id)}`)
        : null,
    task: placeOf(
      view,
      item,
      item.activity === 'hand-in' ? outlineOfTask(taskIn(view.state, id)) : null,
      handInAddress,
    ),
    quiz: placeOf(view, item, item.activity === 'quiz' ? quizOutline(view.state, id) : null, quizAddress),
  };
}

/** Standings by what they tell of: the same value for everybody, so that what is drawn of it is found by it. */
const standings = new WeakMap<
  Activity,
  { readonly course: Item; readonly unit: Item | undefined; readonly standing: ActivityStanding }
>();

function standingOf(view: View, item: Activity, course: Course, unit: Item | undefined): ActivityStanding {
  const known = view.base === '' ? standings.get(item) : undefined;
  if (known?.course === course && known.unit === unit) return known.standing;
  const standing: ActivityStanding = {
    type: item.activity,
    course: { title: course.title, address: addressIn(view, course.address) },
    unit: unit?.title ?? null,
    finish: { address: addressIn(view, `/me/done/${encodeURIComponent(item.id)}`), back: item.address },
  };
  // On a walk the addresses are the walk's.
  if (view.base === '') standings.set(item, { course, unit, standing });
  return standing;
}

/** What is told of an activity that is done elsewhere than on its page, with where that is. */
function placeOf<T extends object>(
  view: View,
  { id, address: item }: Activity,
  outline: T | null,
  addressOf: (view: View, activity: ItemId) => string,
): (T & { readonly address: string; readonly score: number | null }) | null {
  if (outline === null) return null;
  const address = addressOf(view, id);
  return {
    ...outline,
    address: isSignedIn(view) ? address : signInAddress(view, item),
    score: view.ask(
      `score ${id}`,
      ({ facts }) => facts.completions?.find(({ item }) => item === id)?.score ?? null,
    ),
  };
}

/** What is around activities: the same value for everybody who gets the same, so that what is drawn of it is found by it. */
const arounds = new WeakMap<object, WeakMap<object, ActivitiesAround>>();
const NOTHING = {};

function aroundOf(previous: ActivityEntry | null, next: ActivityEntry | null): ActivitiesAround {
  const before = previous ?? NOTHING;
  const known = arounds.get(before) ?? new WeakMap<object, ActivitiesAround>();
  arounds.set(before, known);
  const around = known.get(next ?? NOTHING) ?? { previous, next };
  known.set(next ?? NOTHING, around);
  return around;
}

/**
 * The nearest activity before another one or after it that is shown and wanted, in the units of its course that are open. Only
 * as far as is told is looked: a long course costs no more than a short one.
 */
function nearest(
  view: View,
  { id, within }: Activity,
  step: 1 | -1,
  wanted: (entry: ActivityEntry) => boolean,
): ActivityEntry | null {
  if (!within) return null;
  const { outline } = view.state;
  const units = unitsOf(outline, within.course);
  let from: ItemId | null = id;
  for (let unit = placeOfId(units, within.unit); ; unit += step) {
    const holder = units[unit];
    if (!holder) return null;
    const list = decisionOn(view, holder.id).kind === 'open' ? activitiesOf(outline, holder.id) : [];
    const start = from === null ? (step > 0 ? -1 : list.length) : placeOfId(list, from);
    for (let at = start + step; at >= 0 && at < list.length; at += step) {
      const entry = activityEntry(view, list[at] as Activity);
      if (entry && wanted(entry)) return entry;
    }
    from = null;
  }
}

const places = new WeakMap<readonly Item[], ReadonlyMap<ItemId, number>>();

/** At which place of a list something is, or -1; looked through once. */
function placeOfId(list: readonly Item[], id: ItemId | null): number {
  const known = places.get(list) ?? new Map(list.map((item, at) => [item.id, at]));
  places.set(list, known);
  return (id === null ? undefined : known.get(id)) ?? -1;
}
