/** Handing something in, and what became of it. It is the learner's own, and kept for nobody. */
import {
  handInAt,
  handInFor,
  handIn as handInOf,
  handInOnWalk,
  instead,
  lane,
  messagesOf,
  mostSent,
  opens,
  ownHandedFile,
  signInAddress,
} from '@/services';
import { renderHandIn } from '@/site';
import type { Answer } from '../_http/answer';
import { readMultipart } from '../_http/multipart';
import { fromThisSite } from '../_http/request';
import { fileHeaders, htmlAnswer, PRIVATE, seeOther } from '../_http/response';
import type { Ask } from './door';
import { given, missing } from './page';

/** Files are in memory while they are read: so many at once, and so many more wait for their turn. */
const fewAtOnce = lane(8, 100);

const addressOf = (activity: string): string => `/me/hand-in/${encodeURIComponent(activity)}`;

export const handIn = {
  GET: async (ask: Ask): Promise<Answer> => {
    const [activity, file, name, ...more] = ask.rest;
    if (activity === undefined || more.length > 0) return missing(ask);
    if (!ask.context.facts.signedIn) return seeOther(signInAddress(ask.context, addressOf(activity)));
    if (file !== undefined) return fileOf(ask, activity, file, name);
    const said = ask.url.searchParams.has('sent');
    return drawn(ask, activity, 200, { note: said ? 'handed in' : null, draft: null });
  },
  POST: async (ask: Ask): Promise<Answer> => {
    const [activity, ...more] = ask.rest;
    if (activity === undefined || more.length > 0) return missing(ask);
    const { trivet, visitor, context, now } = ask;
    if (!visitor.person) return seeOther(signInAddress(context, addressOf(activity)));
    // Whether it is theirs to hand in is asked before what they hand in is read.
    const found = handInAt(trivet.state, activity);
    if (!found || !opens(context, found.activity.id)) return closed(ask, activity);
    const { handIn: words } = messagesOf(trivet.state);
    const form = fromThisSite(ask.request)
      ? await fewAtOnce(() => readMultipart(ask.request, mostSent(found.task)))
      : null;
    if (form === null)
      return drawn(ask, activity, 400, { note: null, draft: null, problem: words.unreadable });
    if ('tooLarge' in form) {
      const problem = words.tooLarge(found.task.files > 0 ? found.task.megabytes : null);
      return drawn(ask, activity, 413, { note: null, draft: form.tooLarge.text ?? null, problem });
    }
    const text = form.fields.text ?? '';
    const sent = { text, files: form.files };
    const answer = await handInOf(trivet, visitor, activity, sent, context.request, now);
    switch (answer.kind) {
      case 'handed in':
        return seeOther(`${addressOf(activity)}?sent`);
      case 'wrong':
        return drawn(ask, activity, 422, { note: null, draft: text, problem: answer.problem });
      case 'closed':
        return closed(ask, activity);
      default:
        return answer satisfies never;
    }
  },
};

interface State {
  readonly note: 'handed in' | null;
  /** What was written and is to be mended. */
  readonly draft: string | null;
  readonly problem?: string;
}

async function drawn(ask: Ask, activity: string, status: number, state: State): Promise<Answer> {
  const { trivet, visitor, context, delivery } = ask;
  const { note, draft, problem = null } = state;
  const view = delivery.walk
    ? handInOnWalk(context, activity)
    : await handInFor(trivet, visitor, activity, context, context.request, draft);
  if (view === null) return closed(ask, activity);
  const html = await renderHandIn({ handIn: view, delivery, note, problem });
  return htmlAnswer(html, { status, walk: delivery.walk });
}

/** What somebody handed in themselves; to everybody else there is nothing. */
async function fileOf(ask: Ask, activity: string, id: string, name: string | undefined): Promise<Answer> {
  const file = ask.delivery.walk ? null : await ownHandedFile(ask.trivet, ask.visitor, activity, id);
  return file && file.name === name ? handedFile(file) : missing(ask);
}

/** A file that was handed in: to be kept, never to be shown or run. */
export const handedFile = (file: {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}): Answer => ({
  status: 200,
  headers: { ...fileHeaders(file.mediaType, file.name, false), 'Cache-Control': PRIVATE },
  body: Buffer.from(file.bytes),
});

/** The same as the hand-in's own page gives whoever it is not open to. */
function closed(ask: Ask, activity: string): Promise<Answer> {
  const found = handInAt(ask.context.state, activity);
  return found && !opens(ask.context, found.activity.id)
    ? given(ask, instead(ask.context, found.activity))
    : missing(ask);
}
