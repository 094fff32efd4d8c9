/** Quizzes as their authors write them: questions of six kinds, and the terms on which they are asked. */
import { keysOf } from '../keys';

/** Every kind of question, with what the desk calls it. */
export const QUESTIONS = {
  one: { name: 'one of several' },
  several: { name: 'several of several' },
  number: { name: 'a number' },
  text: { name: 'a short text' },
  order: { name: 'put in order' },
  pairs: { name: 'pairs' },
} as const satisfies Record<string, { readonly name: string }>;

export type QuestionKind = keyof typeof QUESTIONS;
export const QUESTION_KINDS = keysOf(QUESTIONS);

/** Something to choose, whether it is right to choose it, and what is said to whoever did. */
export interface Option {
  readonly text: string;
  readonly right: boolean;
  readonly feedback: string;
}

export interface Pair {
  readonly left: string;
  readonly right: string;
}

interface Parts {
  readonly one: { readonly options: readonly Option[] };
  readonly several: { readonly options: readonly Option[] };
  /** Right is whatever is no further from it than the tolerance. */
  readonly number: { readonly right: number; readonly tolerance: number };
  /** Read without regard to case and to how many spaces there are. */
  readonly text: { readonly accepted: readonly string[] };
  /** In the right order. */
  readonly order: { readonly steps: readonly string[] };
  readonly pairs: { readonly pairs: readonly Pair[] };
}

interface QuestionBase {
  readonly id: string;
  /** Markdown. */
  readonly text: string;
  /** What it counts for. */
  readonly points: number;
  /** What is said of it with the right answer. */
  readonly feedback: string;
}

export type QuestionOf<Kind extends QuestionKind> = QuestionBase & { readonly kind: Kind } & Parts[Kind];
export type Question = { [Kind in QuestionKind]: QuestionOf<Kind> }[QuestionKind];

/** When somebody is told what would have been right. */
export const ANSWERS_SHOWN = {
  never: 'never',
  'after the attempt': 'after each attempt',
  'after passing': 'once they have passed',
  'after the last attempt': 'after their last attempt',
} as const;

export type AnswersShown = keyof typeof ANSWERS_SHOWN;
export const ANSWERS_SHOWN_WHEN = keysOf(ANSWERS_SHOWN);

export interface QuizTerms {
  /** The score from which it is done: a percentage, 0 to 100. With 0 whoever hands it in is done. */
  readonly passMark: number;
  /** How often somebody may try; null for as often as they like. */
  readonly attempts: number | null;
  /** How many minutes have to pass between two attempts. */
  readonly wait: number;
  /** How many minutes an attempt may take; null for as long as they like. */
  readonly minutes: number | null;
  /** How many of the questions are asked; null for all of them. */
  readonly draw: number | null;
  /** Whether questions and what there is to choose come in another order for each attempt. */
  readonly shuffle: boolean;
  /** Which score counts of somebody who tried more than once. */
  readonly counts: 'best' | 'last';
  readonly answers: AnswersShown;
}

export interface Quiz extends QuizTerms {
  readonly questions: readonly Question[];
}

/** A quiz that was just made. */
export const newQuiz: Quiz = {
  passMark: 70,
  attempts: null,
  wait: 0,
  minutes: null,
  draw: null,
  shuffle: false,
  counts: 'best',
  answers: 'after the attempt',
  questions: [],
};

/** How many questions an attempt has. */
export const askedIn = ({ questions, draw }: Quiz): number =>
  Math.min(draw ?? questions.length, questions.length);
