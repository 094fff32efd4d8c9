/** Answers to the questions of an attempt: which can be given, what is wrong with one, and what it is worth. */
import { english, type Messages } from '../messages/english';
import type { Asked } from './drawing';
import type { QuestionKind, QuestionOf } from './quiz';

/**
 * What was filled in for a question; a text each. One of several: its place in what is shown, if one was chosen. Several of
 * them: their places. A number or a short text: what was typed. In order: for each that is shown, which place it was given,
 * from 1. Pairs: for each on the left, the place of what was chosen for it. What is empty was not answered.
 */
export type Answer = readonly string[];

export const LONGEST_ANSWER = 300;

interface Answering<Kind extends QuestionKind> {
  /** How many texts an answer has. */
  readonly most: (question: QuestionOf<Kind>) => number;
  /** Whether each of them could be filled in like this. */
  readonly offers: (text: string, question: QuestionOf<Kind>) => boolean;
  /** What has to be mended before it is handed in, in words; null for nothing. */
  readonly problem?: (answer: Answer, says: Messages['quiz']) => string | null;
  /** What it is worth, from 0 to 1. */
  readonly worth: (answer: Answer, question: QuestionOf<Kind>, shown: readonly number[]) => number;
  /** What would have been right, a line each. */
  readonly right: (question: QuestionOf<Kind>, says: Messages['quiz']) => readonly string[];
}

const isPlace = (text: string, count: number): boolean => /^\d{1,3}$/.test(text) && Number(text) < count;
const typed = (text: string): boolean => text.length <= LONGEST_ANSWER;
const isOne = (holds: boolean): number => (holds ? 1 : 0);
const shareOf = <T>(list: readonly T[], holds: (one: T, at: number) => boolean): number =>
  list.filter(holds).length / Math.max(1, list.length);

/** A number as people write one: with a point or a comma. */
function numberIn(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  return /^[+\-−]?(\d+\.?\d*|\.\d+)(e[+-]?\d{1,3})?$/i.test(plain) ? Number(plain.replace('−', '-')) : null;
}

/** A text as it is compared: case, accents written in other ways, and spaces make no difference. */
const plainly = (text: string): string => text.normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase();

const ANSWERING: { readonly [Kind in QuestionKind]: Answering<Kind> } = {
  one: {
    most: () => 1,
    offers: (text, { options }) => isPlace(text, options.length),
    worth: ([chosen], { options }, shown) =>
      isOne(chosen !== undefined && options[shown[Number(chosen)] ?? -1]?.right === true),
    right: ({ options }) => options.filter(({ right }) => right).map(({ text }) => text),
  },
  several: {
    most: ({ options }) => options.length,
    offers: (text, { options }) => isPlace(text, options.length),
    // What was chosen and is wrong takes away what something right gave, so that choosing everything is worth nothing.
    worth: (answer, { options }, shown) => {
      const chosen = answer.map((place) => options[shown[Number(place)] ?? -1]?.right === true);
      const right = options.filter((one) => one.right).length;
      const wrong = options.length - right;
      const got = chosen.filter(Boolean).length;
      return Math.max(0, got / right - (wrong === 0 ? 0 : (chosen.length - got) / Math.min(right, wrong)));
    },
    right: ({ options }) => options.filter(({ right }) => right).map(({ text }) => text),
  },
  number: {
    most: () => 1,
    offers: typed,
    problem: ([text = ''], says) => (text.trim() === '' || numberIn(text) !== null ? null : says.notNumber),
    worth: ([text = ''], { right, tolerance }) => {
      const given = numberIn(text);
      // A tenth and two tenths are three tenths, whatever the machine makes of them.
      const slack = 1e-9 * Math.max(1, Math.abs(right));
      return isOne(given !== null && Math.abs(given - right) <= tolerance + slack);
    },
    right: ({ right, tolerance }, says) => [tolerance === 0 ? `${right}` : says.giveOrTake(right, tolerance)],
  },
  text: {
    most: () => 1,
    offers: typed,
    worth: ([text = ''], { accepted }) =>
      isOne(plainly(text) !== '' && accepted.some((one) => plainly(one) === plainly(text))),
    right: ({ accepted }) => accepted,
  },
  order: {
    most: ({ steps }) => steps.length,
    offers: (text, { steps }) => text === '' || (text !== '0' && isPlace(text, steps.length + 1)),
    problem: (answer, says) => {
      const given = answer.filter((place) => place !== '');
      const twice = given.find((place, at) => given.indexOf(place) !== at);
      return twice === undefined ? null : says.twice(twice);
    },
    worth: (answer, { steps }, shown) =>
      shareOf(shown, (step, at) => steps[Number(answer[at] || 0) - 1] === steps[step]),
    right: ({ steps }) => steps,
  },
  pairs: {
    most: ({ pairs }) => pairs.length,
    offers: (text, { pairs }) => text === '' || isPlace(text, pairs.length),
    worth: (answer, { pairs }, shown) =>
      shareOf(pairs, ({ right }, at) => {
        const chosen = answer[at];
        return chosen !== undefined && chosen !== '' && pairs[shown[Number(chosen)] ?? -1]?.right === right;
      }),
    right: ({ pairs }) => pairs.map(({ left, right }) => `${left}: ${right}`),
  },
};

/** The row of a question's kind. The table's types say that they belong together; the compiler can't follow that. */
const answeringOf = <Kind extends QuestionKind>({ kind }: QuestionOf<Kind>): Answering<Kind> =>
  ANSWERING[kind] as unknown as Answering<Kind>;

/** Whether something could have been filled in like this. */
export function isOffered({ question }: Asked, answer: Answer): boolean {
  const { most, offers } = answeringOf(question);
  const isSet = question.kind === 'several' && new Set(answer).size !== answer.length;
  return answer.length <= most(question) && !isSet && answer.every((text) => offers(text, question));
}

/** Whether anything was filled in. */
export const isAnswered = (answer: Answer): boolean => answer.some((text) => text.trim() !== '');

/** What has to be mended before an answer can be handed in. */
export const answerProblem = (
  { question }: Asked,
  answer: Answer,
  { quiz }: Pick<Messages, 'quiz'> = english,
): string | null => answeringOf(question).problem?.(answer, quiz) ?? null;

/** What an answer is worth, from 0 to 1. */
export const worthOf = ({ question, shown }: Asked, answer: Answer): number =>
  isAnswered(answer) ? answeringOf(question).worth(answer, question, shown) : 0;

/** What would have been right, a line each. */
export const rightAnswer = (
  { question }: Asked,
  { quiz }: Pick<Messages, 'quiz'> = english,
): readonly string[] => answeringOf(question).right(question, quiz);

/** The score of an attempt: a percentage to a tenth, rounded down, so that nobody passes by rounding. */
export function scoreOf(asked: readonly Asked[], answers: readonly Answer[]): number {
  const most = asked.reduce((sum, { question }) => sum + question.points, 0);
  if (most <= 0) return 0;
  const got = asked.reduce((sum, one, at) => sum + one.question.points * worthOf(one, answers[at] ?? []), 0);
  return Math.floor((got / most) * 1000 + 1e-6) / 10;
}
