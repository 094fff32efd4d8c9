/** What is told of a quiz to those who may take it, before they do. */
import { askedIn, type ItemId, type Quiz } from '@/core';
import type { SiteState } from '../running';
import { addressIn, type View } from './context';
import { contentOf } from './texts';

export interface QuizOutline {
  readonly questions: number;
  /** A percentage. */
  readonly passMark: number;
  readonly attempts: number | null;
  readonly minutes: number | null;
}

export const quizAddress = (view: View, activity: ItemId): string =>
  addressIn(view, `/me/quiz/${encodeURIComponent(activity)}`);

/** What a quiz is about, for its own page. */
export function quizOutline(state: SiteState, activity: ItemId): QuizOutline | null {
  const { quiz } = contentOf(state, activity);
  return quiz ? outlineOf(quiz) : null;
}

export const outlineOf = (quiz: Quiz): QuizOutline => ({
  questions: askedIn(quiz),
  passMark: quiz.passMark,
  attempts: quiz.attempts,
  minutes: quiz.minutes,
});
