/**
 * A quiz as a learner meets it. What would be right is in the answer of this only where they may be told, and never while they
 * are being asked.
 */
import {
  type Answer,
  type Asked,
  choicesOf,
  type Day,
  type Item,
  momentIn,
  type QuestionKind,
  type Quiz,
  type Review,
  reviewOf,
  type Turn,
  tellsAnswers,
  turnOf,
} from '@/core';
import type { QuizAttempt, QuizResult } from '@/store';
import { messagesOf, type SiteState } from '../running';
import { addressIn, type View } from './context';
import { type ActivityPlace, placeInCourse } from './course-view';
import { type Frame, frameFor } from './frame';
import { outlineOf, type QuizOutline, quizAddress } from './quiz-outline';
import { ownHtml } from './texts';

/** A question as it is asked. */
export interface QuestionView {
  /** What its fields in the form are called: this, or this with a point and a place behind it. */
  readonly name: string;
  readonly kind: QuestionKind;
  readonly html: string;
  readonly points: number;
  /** What there is to choose or to put in order. */
  readonly choices: readonly string[];
  /** Of pairs: what something belongs to. */
  readonly lefts: readonly string[];
  readonly answer: Answer;
  readonly problem: string | null;
}

/** A question as it was answered. */
export type AnsweredView = Review & { readonly html: string };

export interface PastAttempt {
  readonly number: number;
  readonly on: Day;
  readonly score: number;
  readonly passed: boolean;
  /** Whether it ended because its time was up. */
  readonly timeUp: boolean;
  /** Question by question; null where that is not told, and of the last one, which stands by itself. */
  readonly answered: readonly AnsweredView[] | null;
}

/** A moment by the site's clock: "14:35", with its day when that is another than today. */
interface Moment {
  readonly clock: string;
  readonly day: Day | null;
}

export interface QuizView {
  readonly frame: Frame;
  readonly title: string;
  /** Where it is introduced. */
  readonly address: string;
  readonly place: ActivityPlace | null;
  readonly outline: QuizOutline;
  readonly turn:
    | Exclude<Turn, { kind: 'wait' }>
    /** By the site's clock. */
    | { readonly kind: 'wait'; readonly until: Moment };
  /** Where an attempt begins, is kept and is handed in. */
  readonly action: string;
  readonly attempt: {
    readonly number: number;
    /** Until when it takes answers, by the site's clock, and how many seconds that is from now. */
    readonly until: (Moment & { readonly seconds: number }) | null;
    readonly questions: readonly QuestionView[];
  } | null;
  /** The last one first. */
  readonly past: readonly PastAttempt[];
  /** The last attempt, question by question; null where that is not told. */
  readonly answered: readonly AnsweredView[] | null;
}

/** What is wrong with what was filled in, by question; null where nothing is. */
export type AnswerProblems = readonly (string | null)[];

/** A quiz that is open to this visitor, with the attempts that they made at it. */
export function quizView(
  view: View,
  activity: Extract<Item, { kind: 'activity' }>,
  quiz: Quiz,
  attempts: readonly QuizAttempt[],
  now: Date,
  problems: AnswerProblems = [],
): QuizView {
  const results = attempts.map(resultOf);
  const turn = turnOf(quiz, results, now);
  const underWay = attempts.find(({ finished }) => finished === null);
  const past = attempts.filter(({ finished }) => finished !== null).toReversed();
  const [last] = past;
  const tells = tellsAnswers(quiz, results);
  return {
    frame: frameFor(view, activity.id),
    title: activity.title,
    address: addressIn(view, activity.address),
    place: placeInCourse(view, activity.id),
    outline: outlineOf(quiz),
    turn: turn.kind === 'wait' ? { kind: 'wait', until: clockOf(view.state, turn.until, now) } : turn,
    action: quizAddress(view, activity.id),
    attempt: underWay
      ? {
          number: underWay.number,
          until: underWay.until && {
            ...clockOf(view.state, underWay.until, now),
            seconds: Math.max(0, Math.floor((underWay.until.getTime() - now.getTime()) / 1000)),
          },
          questions: underWay.asked.map((asked, at) =>
            questionView(view, asked, at, underWay.answers[at] ?? [], problems[at] ?? null),
          ),
        }
      : null,
    past: past.map(({ number, finished, until, score, passMark, asked, answers }, at) => ({
      number,
      answered: tells && at > 0 && at < MOST_TOLD ? answeredView(view, asked, answers) : null,
      on: momentIn(view.state.settings.timeZone, finished ?? now).today,
      score: score ?? 0,
      passed: (score ?? 0) >= passMark,
      timeUp: until !== null && finished !== null && finished >= until,
    })),
    answered: last && tells ? answeredView(view, last.asked, last.answers) : null,
  };
}

/** So many attempts are told question by question: whoever needs more has seen the questions. */
const MOST_TOLD = 10;

const answeredView = (
  view: View,
  asked: readonly Asked[],
  answers: readonly Answer[],
): readonly AnsweredView[] =>
  asked.map((one, at) => ({
    html: ownHtml(view, one.question.text),
    ...reviewOf(one, answers[at] ?? [], messagesOf(view.state)),
  }));

/** How an attempt went. */
export const resultOf = ({ score, passMark, finished }: QuizResult) => ({
  score,
  passed: score !== null && score >= passMark,
  finished,
});

function questionView(
  view: View,
  { question, shown }: Asked,
  at: number,
  answer: Answer,
  problem: string | null,
): QuestionView {
  return {
    name: `q${at}`,
    kind: question.kind,
    html: ownHtml(view, question.text),
    points: question.points,
    choices: shown.map((place) => choicesOf(question)[place] ?? ''),
    lefts: question.kind === 'pairs' ? question.pairs.map(({ left }) => left) : [],
    answer,
    problem,
  };
}

function clockOf({ settings: { timeZone } }: SiteState, at: Date, now: Date): Moment {
  const { today, minute } = momentIn(timeZone, at);
  const clock = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
  return { clock, day: today === momentIn(timeZone, now).today ? null : today };
}
