/** Taking a quiz: beginning an attempt, filling it in, handing it in. It is the learner's own, and kept for nobody. */
import { createHmac, randomBytes } from 'node:crypto';
import {
  type AnswerProblems,
  beginAttempt,
  instead,
  opens,
  quizAt,
  quizFor,
  quizOnWalk,
  signInAddress,
  takeAnswers,
} from '@/services';
import { renderQuiz } from '@/site';
import type { Answer } from '../_http/answer';
import { htmlAnswer, seeOther } from '../_http/response';
import type { Ask } from './door';
import { fieldsOf } from './form-door';
import { given, missing } from './page';

/** In bytes: two hundred questions with everything that can be typed into them. */
const LARGEST = 400_000;

const addressOf = (activity: string): string => `/me/quiz/${encodeURIComponent(activity)}`;

export const quiz = {
  GET: async (ask: Ask): Promise<Answer> => {
    const [activity, ...more] = ask.rest;
    if (activity === undefined || more.length > 0) return missing(ask);
    if (!ask.context.facts.signedIn) return seeOther(signInAddress(ask.context, addressOf(activity)));
    const note = ask.url.searchParams.get('note');
    return drawn(ask, activity, 200, { note: note === 'kept' || note === 'over' ? note : null });
  },
  POST: async (ask: Ask): Promise<Answer> => {
    const [activity, step, ...more] = ask.rest;
    if (activity === undefined || more.length > 0 || (step !== undefined && step !== 'begin'))
      return missing(ask);
    const { trivet, visitor, context, now } = ask;
    if (!visitor.person) return seeOther(signInAddress(context, addressOf(activity)));
    // Whether it is theirs to fill in is asked before what they filled in is read.
    const found = quizAt(trivet.state, activity);
    if (!found || !opens(context, found.activity.id)) return closed(ask, activity);
    const fields = await fieldsOf(ask, LARGEST);
    if (fields === null) return drawn(ask, activity, 400, { note: 'unreadable' });
    if (step === 'begin') {
      const began = await beginAttempt(trivet, visitor, activity, context.request, now);
      return began ? seeOther(addressOf(activity)) : closed(ask, activity);
    }
    const taken = await takeAnswers(trivet, visitor, activity, fields, context.request, now);
    switch (taken.kind) {
      case 'kept':
        return seeOther(`${addressOf(activity)}?note=kept`);
      case 'over':
        return seeOther(`${addressOf(activity)}?note=over`);
      case 'handed in':
        return seeOther(addressOf(activity));
      case 'wrong':
        return drawn(ask, activity, 422, { note: 'to mend', problems: taken.problems });
      case 'closed':
        return closed(ask, activity);
      default:
        return taken satisfies never;
    }
  },
};

interface State {
  readonly note: 'kept' | 'to mend' | 'unreadable' | 'over' | null;
  readonly problems?: AnswerProblems;
}

async function drawn(ask: Ask, activity: string, status: number, { note, problems }: State): Promise<Answer> {
  const { trivet, visitor, context, delivery, now } = ask;
  const view = delivery.walk
    ? quizOnWalk(context, activity, now)
    : await quizFor(trivet, visitor, activity, context, context.request, now, problems);
  if (view === null) return closed(ask, activity);
  const nonce = view.attempt && nonceOf(`${visitor.person?.id} ${activity} ${view.attempt.number}`);
  const html = await renderQuiz({ quiz: view, delivery, note, nonce });
  return htmlAnswer(html, { status, walk: delivery.walk, script: nonce && `nonce-${nonce}` });
}

// Whoever could write into a page can't know it, and the same page is the same bytes.
const key = randomBytes(32);
const nonceOf = (attempt: string): string =>
  createHmac('sha256', key).update(attempt).digest('base64').slice(0, 24);

/** The same as the quiz's own page gives whoever it is not open to. */
function closed(ask: Ask, activity: string): Promise<Answer> {
  const found = quizAt(ask.context.state, activity);
  return found && !opens(ask.context, found.activity.id)
    ? given(ask, instead(ask.context, found.activity))
    : missing(ask);
}
