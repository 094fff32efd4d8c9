/** How far learners are: what each activity of a course is to each of them. */
import type { ItemId } from '../ids';
import { keysOf } from '../keys';
import { type CompiledPolicy, decide } from '../policy';
import { isCompleted, type RequestFacts, type VisitorFacts } from '../site';

/** What an activity is to a learner, in the order in which they get further. */
export const PROGRESS = {
  closed: { words: 'closed', letter: 'c' },
  'to do': { words: 'not begun', letter: 't' },
  begun: { words: 'begun', letter: 'b' },
  waiting: { words: 'waiting for a tutor', letter: 'w' },
  done: { words: 'done', letter: 'd' },
} as const satisfies Record<string, { readonly words: string; readonly letter: string }>;

export type Progress = keyof typeof PROGRESS;

const BY_LETTER = new Map(keysOf(PROGRESS).map((state) => [PROGRESS[state].letter as string, state]));

/** States as a letter each, so that thousands of learners travel in a few kilobytes; and back. */
export const lettersOf = (states: readonly Progress[]): string =>
  states.map((state) => PROGRESS[state].letter).join('');
export const statesIn = (letters: string): readonly Progress[] =>
  [...letters].map((letter) => BY_LETTER.get(letter) ?? 'closed');

/** What activities are to a learner. Done stays done, also where it is closed by now. */
export const progressOf = (
  policy: CompiledPolicy,
  activities: readonly ItemId[],
  learner: VisitorFacts,
  request: RequestFacts,
  begunAs: (activity: ItemId) => 'begun' | 'waiting' | null,
): readonly Progress[] =>
  activities.map((id) =>
    isCompleted(learner.completions ?? [], id)
      ? 'done'
      : decide(policy, id, learner, request).kind !== 'open'
        ? 'closed'
        : (begunAs(id) ?? 'to do'),
  );

/**
 * Where somebody stands with these states: at the first activity that they could do and have not; where there is none, at the
 * first that is closed to them. Null for whoever has done everything.
 */
export function standsAt(states: readonly Progress[]): number | null {
  const open = states.findIndex((state) => state === 'to do' || state === 'begun' || state === 'waiting');
  const at = open >= 0 ? open : states.indexOf('closed');
  return at < 0 ? null : at;
}
