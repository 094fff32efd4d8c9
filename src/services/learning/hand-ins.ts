/** What learners handed in, from their tutor's side: what waits, accepting it, giving it back. */
import { z } from 'zod';
import {
  asId,
  completing,
  type Day,
  type HandInState,
  type ItemId,
  isCompleted,
  momentIn,
  type PersonId,
  withScore,
} from '@/core';
import {
  type HandIn,
  judgeHandIn,
  putIntoOutbox,
  readHandedFile,
  readHandedFiles,
  readHandIn,
  readHandIns,
  readWaiting,
} from '@/store';
import { id, percentage } from '../forms';
import { writtenLetter } from '../mail';
import { applyChange } from '../people';
import {
  type Administrator,
  environment,
  plainRequest,
  recordOf,
  requirePermissionAt,
  type SiteState,
  type Trivet,
} from '../running';
import { activitiesAt, type CourseAt, courseAt } from './course-at';

/** A version of a hand-in, as tutors see it. */
export interface HandedIn {
  readonly id: string;
  readonly person: PersonId;
  readonly name: string;
  readonly activity: ItemId;
  readonly title: string;
  readonly version: number;
  readonly on: Day;
  readonly state: HandInState;
  readonly score: number | null;
  readonly text: string;
  readonly files: readonly { readonly id: string; readonly name: string; readonly size: number }[];
  readonly words: string;
  readonly by: string;
}

export interface HandInsWaiting {
  /** The longest first. */
  readonly list: readonly HandedIn[];
  /** How many there are in all. */
  readonly count: number;
}

const MOST_LISTED = 50;

/** What waits for a tutor in a course; null where there is no such course. */
export async function handInsWaiting(
  trivet: Trivet,
  administrator: Administrator,
  course: string,
): Promise<HandInsWaiting | null> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(course)], 'learners');
  const at = courseAt(trivet.state, course);
  if (!at) return null;
  const { list, count } = await readWaiting(trivet.db, activitiesAt(at, 'hand-in'), MOST_LISTED);
  return { list: await toldOf(trivet, list), count };
}

/** Everything that somebody handed in to a course. */
export const handedInBy = async (
  trivet: Trivet,
  at: CourseAt,
  person: PersonId,
): Promise<readonly HandedIn[]> =>
  toldOf(trivet, await readHandIns(trivet.db, person, activitiesAt(at, 'hand-in')));

async function toldOf({ db, state }: Trivet, list: readonly HandIn[]): Promise<readonly HandedIn[]> {
  const files = await readHandedFiles(db, list);
  const { timeZone } = state.settings;
  return list.map(({ judged: _, at, ...one }) => ({
    ...one,
    name: state.people.get(one.person)?.name ?? '',
    title: state.outline.items.get(one.activity)?.title ?? '',
    on: momentIn(timeZone, at).today,
    files: files
      .filter(({ handIn }) => handIn === one.id)
      .map(({ id: file, name, size }) => ({ id: file, name, size })),
  }));
}

const judging = z.strictObject({
  course: id,
  handIn: id,
  accepts: z.boolean(),
  /** A percentage. */
  score: percentage.nullable().default(null),
  words: z.string().trim().max(5000, 'That is too long: at most 5,000 letters.').default(''),
});

export type Judged =
  | { readonly kind: 'judged'; readonly summary: string }
  | { readonly kind: 'wrong'; readonly message: string };

const GONE = 'That no longer waits: somebody looked at it, or a newer version took its place.';

/** Another tutor, or a newer version, was quicker. */
class NoLongerWaits extends Error {}

/**
 * Accepts what somebody handed in, with which they are done with it, or gives it back with words. What is noted of it, their
 * completion and the letter to them are one transaction.
 */
export async function judge(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<Judged> {
  const parsed = judging.safeParse(input);
  const course = parsed.success ? parsed.data.course : '';
  requirePermissionAt(administrator, trivet.state.outline, [asId(course)], 'learners');
  const wrong = (message: string): Judged => ({ kind: 'wrong', message });
  if (!parsed.success) return wrong(parsed.error.issues[0]?.message ?? 'That can’t be noted.');
  const { handIn, accepts, score, words } = parsed.data;
  if (!accepts && words === '') return wrong('Say what is missing: they will read it.');
  const found = await readHandIn(trivet.db, handIn);
  if (found?.state !== 'waiting') return wrong(GONE);
  const title = trivet.state.outline.items.get(found.activity)?.title ?? '';
  const name = trivet.state.people.get(found.person)?.name ?? '';
  const summary = `${name}: ${title} ${accepts ? `accepted${score === null ? '' : `, ${score} %`}` : 'given back'}`;
  const alongside = async (tx: Trivet['db']) => {
    const noted = await judgeHandIn(tx, {
      id: handIn,
      state: accepts ? 'accepted' : 'given back',
      score: accepts ? score : null,
      words,
      by: administrator.name,
      judged: now,
    });
    if (!noted) throw new NoLongerWaits();
    const to = trivet.state.people.get(found.person)?.email;
    if (to)
      await putIntoOutbox(tx, {
        to,
        at: now,
        ...letter(trivet.state, title, found.activity, accepts, words),
      });
  };
  const make = (state: SiteState) => {
    const at = courseAt(state, course);
    const activity = at?.activities.find((one) => one.id === found.activity);
    const person = state.people.get(found.person);
    if (!at || !activity || !person) return 'There is no such activity in this course any more.';
    const before = recordOf(person);
    const completions = !accepts
      ? before.completions
      : isCompleted(before.completions, activity.id)
        ? withScore(before.completions, activity.id, score)
        : [
            ...before.completions,
            ...completing(state.live.compiled, person.facts, activity, score, plainRequest(state, now)),
          ];
    return {
      summary,
      why: words.slice(0, 500),
      people: [{ before, after: { ...before, completions } }],
      names: null,
      alongside,
    };
  };
  try {
    const answer = await applyChange(trivet, administrator, make, now);
    return answer.kind === 'wrong' ? answer : { kind: 'judged', summary };
  } catch (error) {
    if (error instanceof NoLongerWaits) return wrong(GONE);
    throw error;
  }
}

const letter = (state: SiteState, title: string, activity: ItemId, accepts: boolean, words: string) =>
  writtenLetter(state, accepts ? 'accepted' : 'givenBack', {
    title,
    words,
    link: new URL(`/me/hand-in/${encodeURIComponent(activity)}`, environment().publicUrl).href,
  });

/** A file that was handed in to a course, for its tutors. */
export async function handedFileFor(
  trivet: Trivet,
  administrator: Administrator,
  course: string,
  file: string,
) {
  requirePermissionAt(administrator, trivet.state.outline, [asId(course)], 'learners');
  const at = courseAt(trivet.state, course);
  const found = at && (await readHandedFile(trivet.db, file));
  return found && at.ids.has(found.activity) ? found : null;
}
