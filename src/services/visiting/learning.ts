/** What learners do themselves: enrolling in a course, being done with an activity, and with the unit and the course that this completes. */
import {
  ACTIVITIES,
  asId,
  type Course,
  changedByHand,
  completing,
  decide,
  endOfEnrolment,
  type Item,
  type ItemId,
  isCompleted,
  isEnrolledOn,
  KINDS,
  type RequestFacts,
  withScore,
} from '@/core';
import { applyChange, type SiteChange } from '../people';
import { enrollingIn, recordOf, type SiteState, type Trivet, type Visitor } from '../running';

export type DoneAnswer =
  | 'done'
  /** It is not this visitor's to do, and may not even be there. */
  | 'closed';

/**
 * Records that a member is done with an activity, and with its unit and course if nothing is left in them. Whether it is open
 * to them is decided as it is written: a form of before opens nothing. What is done by what one does in it is not for them to
 * say.
 */
export async function completeActivity(
  trivet: Trivet,
  visitor: Visitor,
  activity: string,
  request: RequestFacts,
  now: Date,
): Promise<DoneAnswer> {
  const { person } = visitor;
  const item = trivet.state.outline.items.get(asId<ItemId>(activity));
  if (!person || item?.kind !== 'activity' || !ACTIVITIES[item.activity].learnersSay) return 'closed';
  const how: Learnt = { score: null, enough: true, request };
  const answer = await applyChange(trivet, person, (state) => learnt(state, visitor, item.id, how), now);
  return answer.kind === 'wrong' ? 'closed' : 'done';
}

/** Whether somebody would be done with an activity by opening it. */
export const isDoneByOpening = (
  { contents }: Pick<SiteState, 'contents'>,
  { person, facts }: Pick<Visitor, 'person' | 'facts'>,
  item: Item,
): boolean =>
  person !== null &&
  item.kind === 'activity' &&
  // What was a reading once keeps what was said of it, and is done in its own way.
  item.activity === 'reading' &&
  contents.get(item.id)?.doneWhen === 'opened' &&
  !isCompleted(facts.completions ?? [], item.id);

/** Enrols a member in a course that is open to them and takes whoever likes, from today. */
export async function enrolOneself(
  trivet: Trivet,
  { person, facts }: Visitor,
  course: string,
  request: RequestFacts,
  now: Date,
): Promise<DoneAnswer> {
  if (!person) return 'closed';
  const answer = await applyChange(
    trivet,
    person,
    (state) => {
      const current = state.people.get(person.id);
      const item = courseTaking(state, course);
      if (!current || !item) return 'There is no such course to enrol in any more.';
      const learner = { ...current.facts, passphrases: facts.passphrases };
      if (decide(state.live.compiled, item.id, learner, request).kind !== 'open') return 'This is not open.';
      const before = recordOf(current);
      const { today } = request;
      const there = current.facts.enrolments?.some(
        (one) => one.course === item.id && isEnrolledOn(one, today),
      );
      const until = endOfEnrolment(enrollingIn(state, item.id), today);
      const after = there ? before : changedByHand(before, { kind: 'enrol', course: item.id, until }, today);
      return {
        summary: `${before.name} enrolled in ${item.title}`,
        people: [{ before, after }],
        names: null,
      };
    },
    now,
  );
  return answer.kind === 'wrong' ? 'closed' : 'done';
}

/** A course in which whoever may open it enrols as they like; null where there is none with this id. */
export function courseTaking(state: SiteState, id: string): Course | null {
  const course = state.outline.items.get(asId<ItemId>(id));
  return course?.kind === 'course' && enrollingIn(state, course.id).open ? course : null;
}

/** How an activity went. */
export interface Learnt {
  /** The score that counts: a percentage, or null where there is none. */
  readonly score: number | null;
  /** Whether it is done with this. Whoever is done stays so. */
  readonly enough: boolean;
  readonly request: RequestFacts;
}

/** The change of a person that follows from how an activity went, or why there can be none. */
export function learnt(
  state: SiteState,
  { person, facts }: Visitor,
  id: ItemId,
  { score, enough, request }: Learnt,
): SiteChange | string {
  const current = person && state.people.get(person.id);
  const item = state.outline.items.get(id);
  const { compiled } = state.live;
  if (!current || item?.kind !== 'activity') return 'There is no such activity any more.';
  const learner = { ...current.facts, passphrases: facts.passphrases };
  if (decide(compiled, id, learner, request).kind !== 'open') return 'This is not open.';
  const before = recordOf(current);
  const change = (summary: string, completions: typeof before.completions): SiteChange => ({
    summary: `${before.name} ${summary}`,
    people: [{ before, after: { ...before, completions: [...completions] } }],
    names: null,
  });
  if (isCompleted(before.completions, id))
    return change(
      `took “${item.title}” again: ${score} %`,
      score === null ? before.completions : withScore(before.completions, id, score),
    );
  const made = enough ? completing(compiled, learner, item, score, request) : [];
  const named = made.flatMap((one) => {
    const done = state.outline.items.get(one.item);
    return done ? [done.kind === 'activity' ? done.title : `${KINDS[done.kind].one} “${done.title}”`] : [];
  });
  const scored = score === null ? '' : `: ${score} %`;
  return change(`is done with ${named.join(', and with ')}${scored}`, [...before.completions, ...made]);
}
