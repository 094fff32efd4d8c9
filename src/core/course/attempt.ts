/** Attempts at a quiz: whether another can begin, which score counts, and who is told what would have been right. */
import type { ItemId } from '../ids';
import type { Completion } from '../site';
import type { Quiz, QuizTerms } from './quiz';

/** How an attempt went, as far as what comes after it depends on that. */
export interface AttemptResult {
  /** A percentage; null while it is not handed in. */
  readonly score: number | null;
  readonly passed: boolean;
  /** When it was handed in, or its time was up; null while it is not handed in. */
  readonly finished: Date | null;
}

/** More than anybody needs, so that nobody fills the disk with them. */
export const MOST_ATTEMPTS = 100;

const MINUTE_MS = 60_000;

/** Whether somebody who has made these attempts can begin another. */
export type Turn =
  | {
      readonly kind: 'may begin';
      /** How many are left with this one; null for any number. */
      readonly left: number | null;
    }
  | { readonly kind: 'under way' }
  | { readonly kind: 'wait'; readonly until: Date }
  | { readonly kind: 'none left' }
  | { readonly kind: 'nothing asked' };

export function turnOf(quiz: Quiz, attempts: readonly AttemptResult[], now: Date): Turn {
  if (attempts.some(({ finished }) => finished === null)) return { kind: 'under way' };
  if (quiz.questions.length === 0) return { kind: 'nothing asked' };
  if (attempts.length >= Math.min(quiz.attempts ?? MOST_ATTEMPTS, MOST_ATTEMPTS))
    return { kind: 'none left' };
  const last = Math.max(0, ...attempts.map(({ finished }) => finished?.getTime() ?? 0));
  const until = new Date(last + quiz.wait * MINUTE_MS);
  if (last > 0 && until > now) return { kind: 'wait', until };
  return { kind: 'may begin', left: quiz.attempts === null ? null : quiz.attempts - attempts.length };
}

/** Until when an attempt that begins now takes answers; null for as long as somebody likes. */
export const endOf = ({ minutes }: QuizTerms, begun: Date): Date | null =>
  minutes === null ? null : new Date(begun.getTime() + minutes * MINUTE_MS);

/** What is sent in time may arrive a little later. */
const ON_ITS_WAY_MS = 15_000;

/** Whether an attempt takes no answers any more. */
export const isOver = ({ until }: { readonly until: Date | null }, now: Date): boolean =>
  until !== null && now.getTime() > until.getTime() + ON_ITS_WAY_MS;

/** Whether somebody who has made these attempts is told what would have been right, and why. */
export function tellsAnswers(
  { answers, attempts: most }: QuizTerms,
  attempts: readonly AttemptResult[],
): boolean {
  // Never while answers are taken, whatever went before.
  if (attempts.length === 0 || attempts.some(({ finished }) => finished === null)) return false;
  switch (answers) {
    case 'never':
      return false;
    case 'after the attempt':
      return true;
    case 'after passing':
      return attempts.some(({ passed }) => passed);
    case 'after the last attempt':
      return most !== null && attempts.length >= most;
    default:
      return answers satisfies never;
  }
}

/** The score that counts of attempts that were handed in, the first of them first; null where there is none. */
export function scoreThatCounts({ counts }: QuizTerms, attempts: readonly AttemptResult[]): number | null {
  const scores = attempts.flatMap(({ score }) => score ?? []);
  return scores.length === 0 ? null : counts === 'last' ? (scores.at(-1) ?? null) : Math.max(...scores);
}

/** Completions with another score of an item that is among them. */
export const withScore = (
  completions: readonly Completion[],
  item: ItemId,
  score: number | null,
): readonly Completion[] => completions.map((one) => (one.item === item ? { ...one, score } : one));
