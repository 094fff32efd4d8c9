/** Quizzes as they come from outside: from a site file and from the desk. */
import { z } from 'zod';
import {
  type ActivityType,
  ANSWERS_SHOWN_WHEN,
  LONGEST_ANSWER,
  MOST_ATTEMPTS,
  newQuiz,
  type Question,
  type QuestionKind,
  type Quiz,
  valuesOf,
} from '@/core';
import { newId as id, spaced, words } from '../forms';
import { markdownProblem } from '../texts';

const MOST_OPTIONS = 20;
const MOST_QUESTIONS = 200;
/** Of what each can be any of as many, which is drawn as many times as many. */
const MOST_ROWS = 12;
/** A month, and a day, in minutes. */
const LONGEST_WAIT = 30 * 24 * 60;
const LONGEST_TIME = 24 * 60;

const line = (empty: string) => words(500, empty);
const feedback = spaced(1000).default('');
const base = {
  id,
  text: z.string().max(5000, 'A question has at most 5,000 letters.').regex(/\S/, 'Say what is asked.'),
  points: z.number().gt(0, 'A question counts for something.').max(100).default(1),
  feedback,
};
const few = <T extends z.ZodType>(one: T, what: string, most = MOST_ROWS) =>
  z.array(one).min(2, `Give it at least two ${what}.`).max(most, `A question has at most ${most} ${what}.`);
const options = few(
  z.strictObject({ text: line('Say what there is to choose.'), right: z.boolean().default(false), feedback }),
  'things to choose from',
  MOST_OPTIONS,
);

const questions = {
  one: z.strictObject({ ...base, kind: z.literal('one'), options }),
  several: z.strictObject({ ...base, kind: z.literal('several'), options }),
  number: z.strictObject({
    ...base,
    kind: z.literal('number'),
    right: z.number(),
    tolerance: z.number().min(0, 'A tolerance is 0 or more.').default(0),
  }),
  text: z.strictObject({
    ...base,
    kind: z.literal('text'),
    accepted: z
      .array(words(LONGEST_ANSWER, 'Write what is accepted.'))
      .min(1, 'Say which answers are right.')
      .max(MOST_OPTIONS),
  }),
  order: z.strictObject({ ...base, kind: z.literal('order'), steps: few(line('Say what it is.'), 'things') }),
  pairs: z.strictObject({
    ...base,
    kind: z.literal('pairs'),
    pairs: few(
      z.strictObject({ left: line('Say what it is.'), right: line('Say what belongs to it.') }),
      'pairs',
    ),
  }),
} satisfies Record<QuestionKind, z.ZodObject>;

/** What a quiz asks and on which terms; whether it can be answered is asked afterwards. */
export const quizShape = z.strictObject({
  passMark: z
    .number()
    .min(0)
    .max(100, 'A pass mark is a percentage, from 0 to 100.')
    .default(newQuiz.passMark),
  attempts: z.int().min(1).max(MOST_ATTEMPTS).nullable().default(newQuiz.attempts),
  wait: z.int().min(0).max(LONGEST_WAIT, 'That is more than 30 days.').default(newQuiz.wait),
  minutes: z.int().min(1).max(LONGEST_TIME, 'That is more than a day.').nullable().default(newQuiz.minutes),
  draw: z.int().min(1, 'Ask at least one question.').max(MOST_QUESTIONS).nullable().default(newQuiz.draw),
  shuffle: z.boolean().default(newQuiz.shuffle),
  counts: z.enum(['best', 'last']).default(newQuiz.counts),
  answers: z.enum(ANSWERS_SHOWN_WHEN).default(newQuiz.answers),
  questions: z
    .array(z.discriminatedUnion('kind', valuesOf(questions)))
    .max(MOST_QUESTIONS, `A quiz has at most ${MOST_QUESTIONS} questions.`)
    .default([]),
});

export type QuizRead = z.output<typeof quizShape>;

export type QuestionRead = QuizRead['questions'][number];

/** A question that comes from elsewhere, or what is wrong with it. */
export function readQuestion(input: unknown): QuestionRead | { readonly problem: string } {
  const parsed = z.discriminatedUnion('kind', valuesOf(questions)).safeParse(input);
  if (!parsed.success) return { problem: parsed.error.issues[0]?.message ?? 'It can’t be used.' };
  const [problem] = problemsOf(parsed.data as Question);
  return problem === undefined ? parsed.data : { problem };
}

/** A quiz as it is edited, and as it stands in a file. */
export const editedQuiz = (quiz: Quiz): QuizRead => quizShape.parse(quiz);

/** What is wrong with a quiz beyond its shape, and with which question; null for the quiz as a whole. */
export interface QuizProblem {
  readonly question: number | null;
  readonly message: string;
}

export function quizProblems({ questions: asked, draw, answers, attempts }: Quiz): readonly QuizProblem[] {
  const whole = (message: string): QuizProblem => ({ question: null, message });
  const ids = asked.map((one) => one.id);
  return [
    ...(draw !== null && draw > asked.length
      ? [whole(`It draws ${draw} questions and has ${asked.length}. Draw fewer, or write more.`)]
      : []),
    ...(answers === 'after the last attempt' && attempts === null
      ? [whole('There is no last attempt. Say how many there are, or show the answers at another time.')]
      : []),
    ...asked.flatMap((question, at) =>
      [
        ...(ids.indexOf(question.id) === at ? [] : ['Another question has the id of this one. Add it anew.']),
        ...problemsOf(question),
      ].map((message) => ({ question: at, message })),
    ),
  ];
}

function problemsOf(question: Question): readonly string[] {
  const hard = markdownProblem(question.text);
  const wrong = answerless(question);
  return [...(hard ? [hard.message] : []), ...(wrong === null ? [] : [wrong])];
}

/** Why a question can't be answered rightly, or can by anything. */
function answerless(question: Question): string | null {
  if (question.kind !== 'one' && question.kind !== 'several') return null;
  const right = question.options.filter((one) => one.right).length;
  if (right === 0) return 'Say which of these is right.';
  return question.kind === 'one' && right > 1
    ? 'One of several has one right answer. Mark one, or ask for several.'
    : null;
}

/** What is missing of a quiz that is there to be taken. */
export const emptyQuiz = (type: ActivityType | null, quiz: Pick<Quiz, 'questions'> | null): string | null =>
  type === 'quiz' && (quiz?.questions.length ?? 0) === 0 ? 'It asks nothing yet. Add a question.' : null;
