/**
 * Documents that are sent more than once: pages, lists, teasers, and what stands where nothing is. Each is kept by the answers
 * that its visitor gave while it was made (`Kept`), so that whoever would get the same bytes gets these.
 */
import {
  type Elsewhere,
  frameFor,
  Kept,
  type ListAnswer,
  type PageAnswer,
  Recording,
  type Trivet,
  type View,
} from '@/services';
import { renderAnswer } from '@/site';
import { type Answer, Packable } from '../_http/answer';
import { documentAnswer, leadTo, unlessKnown } from '../_http/response';
import type { Asking } from './door';

type Documents = Kept<Answer>;

type Part = 'items' | 'lists' | 'elsewhere';

const keptBy = new WeakMap<Trivet, Readonly<Record<Part, Documents>>>();

/**
 * The documents of a site that are kept: of items, of lists, and of what is said elsewhere. There are as many addresses where
 * nothing is as somebody cares to think of, so they have a part of their own to fill.
 */
export function documentsOf(trivet: Trivet): Readonly<Record<Part, Documents>> {
  const known = keptBy.get(trivet);
  if (known) return known;
  // A quarter is for files.
  const apart = Math.floor(trivet.keptBytes / 8);
  const made = {
    items: new Kept(4 * apart, bytesOf),
    lists: new Kept(apart, bytesOf),
    elsewhere: new Kept(apart, bytesOf),
  };
  keptBy.set(trivet, made);
  return made;
}

/** What a document takes: as it is, and packed, which is no more. */
const bytesOf = ({ body }: Answer): number => (body instanceof Packable ? 2 * body.plain.length : 0);

/** What is drawn on the live site itself is kept; on a walk it is somebody's own. */
const isKept = ({ context, trivet, delivery }: Asking): boolean =>
  !delivery.walk && context.compiled === trivet.state.live.compiled;

/** What a document is of: an item, a list, or what is said where nothing of a page is drawn. */
export interface DocumentOf {
  readonly part: Part;
  readonly name: string;
}

/** Administrators get a way to the desk on every page. */
const rootOf = ({ name }: DocumentOf, { delivery }: Asking): string =>
  delivery.desk ? `desk ${name}` : name;

/** What was made before for somebody who gave the same answers; null where that is yet to be made. */
export function keptDocument(ask: Asking, what: DocumentOf): Answer | null {
  const { trivet, context, request } = ask;
  if (!isKept(ask)) return null;
  const found = documentsOf(trivet)[what.part].find(rootOf(what, ask), context);
  return found && unlessKnown(request, found);
}

/** A document, made now: what is said in `what` and the answers of the visitor are all that it may depend on. */
export async function madeDocument(
  ask: Asking,
  what: DocumentOf,
  view: (view: View) => PageAnswer | ListAnswer | Promise<PageAnswer | ListAnswer>,
): Promise<Answer> {
  const { trivet, context, request } = ask;
  const recording = new Recording(context);
  const answer = await view(recording);
  if (answer.kind === 'missing' && what.part === 'lists') return givenElsewhere(ask, answer);
  const made = await drawn(ask, answer);
  if (isKept(ask) && !recording.isPersonal)
    documentsOf(trivet)[what.part].keep(context.compiled, rootOf(what, ask), recording.trail, made);
  return unlessKnown(request, made);
}

/** An answer, drawn for this one request. */
export async function drawn({ delivery }: Asking, answer: PageAnswer | ListAnswer): Promise<Answer> {
  const rendered = await renderAnswer(answer, delivery);
  if ('location' in rendered) return leadTo(rendered.status, rendered.location);
  const sameForEveryone =
    answer.kind === 'page' && answer.sameForEveryone && !delivery.desk && !delivery.walk;
  const script =
    answer.kind === 'page' && answer.activity?.watch && !delivery.walk ? delivery.watchDigest : null;
  return documentAnswer(rendered, { walk: delivery.walk, sameForEveryone, script });
}

/** What is given where nothing of a page is drawn, if that was made before or needs no making. */
export function keptElsewhere(ask: Asking, answer: Elsewhere): Answer | null {
  if (answer.kind === 'redirect') return leadTo(303, answer.to);
  if (answer.kind === 'moved') return leadTo(301, answer.to);
  return keptDocument(ask, saying(answer));
}

/**
 * The same, made now if need be. It is kept by what it says and not by where, so that what is missing, what is closed with
 * the same words, and what was never there are one document, found in the same time.
 */
export const givenElsewhere = async (ask: Asking, answer: Elsewhere): Promise<Answer> =>
  keptElsewhere(ask, answer) ??
  madeDocument(ask, saying(answer), (view) => {
    const frame = frameFor(view, null);
    return answer.kind === 'message'
      ? { kind: 'message', title: answer.title, reason: answer.reason, step: answer.step, frame }
      : { kind: 'missing', frame };
  });

const saying = (answer: Elsewhere): DocumentOf => ({
  part: 'elsewhere',
  name:
    answer.kind === 'message'
      ? `message ${JSON.stringify([answer.title, answer.reason, answer.step])}`
      : 'missing',
});
