/** Taking a quiz: beginning an attempt, keeping what is filled in, handing it in. */
import { randomInt, randomUUID } from 'node:crypto';
import {
  type Activity,
  type Answer,
  type Asked,
  answerProblem,
  asId,
  decide,
  drawn,
  endOf,
  type ItemId,
  isAnswered,
  isOffered,
  isOver,
  LONGEST_ANSWER,
  type Messages,
  type Quiz,
  type RequestFacts,
  scoreOf,
  scoreThatCounts,
  turnOf,
} from '@/core';
import {
  finishQuizAttempt,
  insertQuizAttempt,
  keepQuizAnswers,
  type QuizAttempt,
  readQuizAttempts,
  readQuizResults,
} from '@/store';
import { applyChange } from '../people';
import { messagesOf, type Person, type SiteState, type Trivet, type Visitor } from '../running';
import {
  type AnswerProblems,
  contentOf,
  opens,
  type QuizView,
  quizView,
  resultOf,
  type View,
  type ViewContext,
} from '../view';
import { learnt } from './learning';

/** Somebody at a quiz that is open to them. */
interface Sitting {
  readonly trivet: Trivet;
  readonly person: Person;
  readonly visitor: Visitor;
  readonly activity: Activity;
  readonly quiz: Quiz;
  readonly request: RequestFacts;
  readonly now: Date;
}

type Given = Readonly<Record<string, unknown>>;

/** The quiz at which somebody may be; null where none is open to them, or they are a guest. */
function sittingOf(
  trivet: Trivet,
  visitor: Visitor,
  id: string,
  request: RequestFacts,
  now: Date,
): Sitting | null {
  const { person, facts } = visitor;
  const { state } = trivet;
  const found = quizAt(state, id);
  return person && found && decide(state.live.compiled, found.activity.id, facts, request).kind === 'open'
    ? { trivet, person, visitor, request, now, ...found }
    : null;
}

/** The quiz with this id, whoever may take it. */
export function quizAt(
  state: SiteState,
  id: string,
): { readonly activity: Activity; readonly quiz: Quiz } | null {
  const activity = state.outline.items.get(asId<ItemId>(id));
  const { quiz } = contentOf(state, asId<ItemId>(id));
  return activity?.kind === 'activity' && activity.activity === 'quiz' && quiz ? { activity, quiz } : null;
}

/** A quiz with what this visitor has done in it; null where none is open to them. */
export async function quizFor(
  trivet: Trivet,
  visitor: Visitor,
  id: string,
  view: View,
  request: RequestFacts,
  now: Date,
  problems?: AnswerProblems,
): Promise<QuizView | null> {
  const sitting = sittingOf(trivet, visitor, id, request, now);
  if (!sitting) return null;
  const { person, activity, quiz } = sitting;
  const attempts = await settled(sitting, () => readQuizAttempts(trivet.db, person.id, [activity.id]));
  return quizView(view, activity, quiz, attempts, now, problems);
}

/** The same on a walk, on which nobody's attempts are looked at and none begins. */
export function quizOnWalk(context: ViewContext, id: string, now: Date): QuizView | null {
  const found = context.facts.signedIn ? quizAt(context.state, id) : null;
  return found && opens(context, found.activity.id)
    ? quizView(context, found.activity, found.quiz, [], now)
    : null;
}

/** The attempt that is under way. One whose time is up is handed in as it was kept, and no longer is. */
async function underWay(sitting: Sitting): Promise<QuizAttempt | null> {
  const { trivet, person, activity, now } = sitting;
  const [attempt = null] = await readQuizAttempts(trivet.db, person.id, [activity.id], true);
  if (attempt === null || !isOver(attempt, now)) return attempt;
  await finish(sitting, attempt, attempt.answers, attempt.until ?? now);
  return null;
}

/** Somebody's attempts, read again where the time of one was up and it was handed in. */
async function settled<T extends Pick<QuizAttempt, 'finished' | 'until'>>(
  sitting: Sitting,
  read: () => Promise<readonly T[]>,
): Promise<readonly T[]> {
  const attempts = await read();
  if (!attempts.some((one) => one.finished === null && isOver(one, sitting.now))) return attempts;
  await underWay(sitting);
  return read();
}

/** Begins an attempt, if this visitor may; whether they may is said by the quiz itself. False where it is not theirs to try. */
export async function beginAttempt(
  trivet: Trivet,
  visitor: Visitor,
  id: string,
  request: RequestFacts,
  now: Date,
): Promise<boolean> {
  const sitting = sittingOf(trivet, visitor, id, request, now);
  if (!sitting) return false;
  const { person, activity, quiz } = sitting;
  const attempts = await settled(sitting, () => readQuizResults(trivet.db, person.id, activity.id));
  if (turnOf(quiz, attempts.map(resultOf), now).kind !== 'may begin') return true;
  const asked = drawn(quiz, () => randomInt(2 ** 32) / 2 ** 32);
  // Of two that begin at once one is there, and both go on with that.
  await insertQuizAttempt(trivet.db, {
    id: randomUUID(),
    person: person.id,
    activity: activity.id,
    number: (attempts.at(-1)?.number ?? 0) + 1,
    asked,
    answers: asked.map(() => []),
    passMark: quiz.passMark,
    begun: now,
    until: endOf(quiz, now),
    finished: null,
    score: null,
  });
  return true;
}

export type AnswersTaken =
  | { readonly kind: 'kept' }
  | { readonly kind: 'handed in' }
  /** There is no attempt under way (any more): its time was up, or it was handed in elsewhere. */
  | { readonly kind: 'over' }
  /** Kept as far as it could be, and not handed in. */
  | { readonly kind: 'wrong'; readonly problems: AnswerProblems }
  | { readonly kind: 'closed' };

/**
 * Takes what was filled in: to keep it, to hand it in, or to hand it in though there are questions without an answer. What
 * was not among what there was to choose from changes nothing.
 */
export async function takeAnswers(
  trivet: Trivet,
  visitor: Visitor,
  id: string,
  fields: Given,
  request: RequestFacts,
  now: Date,
): Promise<AnswersTaken> {
  const sitting = sittingOf(trivet, visitor, id, request, now);
  if (!sitting) return { kind: 'closed' };
  const attempt = await underWay(sitting);
  // A form of another attempt (a tab left open) says nothing of this one.
  if (!attempt || fields.attempt !== String(attempt.number)) return { kind: 'over' };
  const messages = messagesOf(trivet.state);
  const read = attempt.asked.map((asked, at) => readAnswer(asked, fields, `q${at}`, messages.quiz));
  const answers = read.map((answer, at) => (Array.isArray(answer) ? answer : (attempt.answers[at] ?? [])));
  const refused = read.map((answer) => (typeof answer === 'string' ? answer : null));
  const handsIn = fields.do === 'hand in' || fields.do === 'hand in as it is';
  const problems = attempt.asked.map((asked, at): string | null => {
    const answer = answers[at] ?? [];
    if (refused[at] || !handsIn) return refused[at] ?? null;
    if (!isAnswered(answer)) return fields.do === 'hand in as it is' ? null : messages.quiz.notAnswered;
    return answerProblem(asked, answer, messages);
  });
  if (problems.some((problem) => problem !== null) || !handsIn) {
    if (!(await keepQuizAnswers(trivet.db, attempt.id, answers))) return { kind: 'over' };
    return problems.some((problem) => problem !== null) ? { kind: 'wrong', problems } : { kind: 'kept' };
  }
  return (await finish(sitting, attempt, answers, now)) ? { kind: 'handed in' } : { kind: 'over' };
}

/** What was filled in for a question, or why that can't be. */
function readAnswer(asked: Asked, fields: Given, name: string, words: Messages['quiz']): Answer | string {
  const { question, shown } = asked;
  const { kind } = question;
  const given =
    kind === 'order' || kind === 'pairs' ? shown.map((_, at) => fields[`${name}.${at}`] ?? '') : fields[name];
  const list: readonly unknown[] = given === undefined ? [] : Array.isArray(given) ? given : [given];
  const texts = list.filter((text) => typeof text === 'string');
  if (texts.length !== list.length) return words.unreadableAnswer;
  if ((kind === 'text' || kind === 'number') && texts.some((text) => text.length > LONGEST_ANSWER))
    return words.longAnswer(LONGEST_ANSWER);
  return isOffered(asked, texts) ? texts : words.notOffered;
}

/** The attempt was handed in already, by another tab or another process. */
class HandedIn extends Error {}

/** Notes how an attempt went together with what that completes, in one transaction. */
async function finish(
  { trivet, person, visitor, activity, quiz, request, now }: Sitting,
  attempt: QuizAttempt,
  answers: readonly Answer[],
  finished: Date,
): Promise<boolean> {
  const score = scoreOf(attempt.asked, answers);
  const result = { ...attempt, answers, score, finished };
  const before = (await readQuizResults(trivet.db, person.id, activity.id)).filter(
    ({ id }) => id !== attempt.id,
  );
  const counted = scoreThatCounts(quiz, [...before, result].map(resultOf));
  try {
    const answer = await applyChange(
      trivet,
      person,
      (state) => {
        const how = { score: counted, enough: score >= attempt.passMark, request };
        const change = learnt(state, visitor, activity.id, how);
        if (typeof change === 'string') return change;
        const alongside = async (tx: Trivet['db']) => {
          if (!(await finishQuizAttempt(tx, result))) throw new HandedIn();
        };
        return { ...change, alongside };
      },
      now,
    );
    return answer.kind !== 'wrong';
  } catch (error) {
    if (error instanceof HandedIn) return false;
    throw error;
  }
}
