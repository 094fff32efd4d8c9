/**
 * The visitor's side as one function from a request to a response. Every door is in one table, so that whoever checks them
 * (the leak check, the tests) checks all of them, with the code that visitors get.
 */
import {
  administratorOf,
  frameFor,
  isAway,
  isBusy,
  messagesOf,
  type Trivet,
  theTime,
  type Visitor,
  walkOf,
  wouldDo,
} from '@/services';
import { renderWould } from '@/site';
import type { Answer } from '../_http/answer';
import { textOf, toResponse } from '../_http/answer';
import { contextOf } from '../_http/context';
import { knownVisitorIn, visitorIn } from '../_http/request';
import { delivery, htmlAnswer, PRIVATE } from '../_http/response';
import { pathOf, type SiteRequest } from '../_http/site-request';
import { me } from './account';
import { api } from './api';
import { assets } from './assets';
import { BEGINNING, beginAnswer, NOTHING_KNOWN } from './begin';
import type { Ask, Asking, Door } from './door';
import { feedJson, feedXml } from './feeds';
import { files } from './files';
import { fieldsOf } from './form-door';
import { forms } from './forms';
import { groups } from './groups';
import { noteInJournal } from './journal';
import { category, tag } from './lists';
import { keptPage, missing, notTaken, page } from './page';
import { passphrase } from './passphrase';
import { reset } from './reset';
import { searchDoor } from './search';
import { shop } from './shop';
import { signInDoor } from './sign-in';
import { signOutDoor } from './sign-out';
import { signUp } from './sign-up';
import { robots, sitemap } from './sitemap';

/** By the first part of the path. Everything else is an address of the site. */
const DOORS: Readonly<Record<string, Door>> = {
  'sign-in': signInDoor,
  'sign-out': signOutDoor,
  'sign-up': signUp,
  reset,
  passphrase,
  search: searchDoor,
  category,
  tag,
  files,
  forms,
  groups,
  me,
  shop,
  'feed.xml': feedXml,
  'feed.json': feedJson,
  'sitemap.xml': sitemap,
  'robots.txt': robots,
  api,
  assets,
};

/** What the site answers a request, whoever sends it in whatever way. */
export const siteAnswer = (trivet: Trivet, request: SiteRequest, now = theTime()): Promise<Answer> =>
  currentAnswer(trivet, request, now).catch((error: unknown) => {
    if (!isAway(error)) throw error;
    return cutOff(trivet);
  });

async function currentAnswer(trivet: Trivet, request: SiteRequest, now: Date): Promise<Answer> {
  if (!ALWAYS.has(pathOf(request)) && !(await isCurrent(trivet))) return cutOff(trivet);
  if (!trivet.hasSite || pathOf(request).startsWith(BEGINNING)) {
    const begun = await beginAnswer(trivet, request, now);
    if (begun !== null) return begun;
  }
  const asking = askingOf(trivet, request, await visitorIn(trivet, request, now), now);
  return keptFor(asking) ?? (await madeFor({ ...asking, url: new URL(request.url), rest: [] }));
}

/** The same as the platform's responses are. */
export const siteResponse = async (trivet: Trivet, request: Request, now?: Date): Promise<Response> =>
  toResponse(await siteAnswer(trivet, request, now));

/** What the site answers at once, because it was made before or needs no making; null where `siteAnswer` makes it. */
export function keptAnswer(trivet: Trivet, request: SiteRequest, now = theTime()): Answer | null {
  if (trivet.currency?.isCurrent === false) return null;
  const visitor = trivet.hasSite ? knownVisitorIn(trivet, request, now) : null;
  return visitor && keptFor(askingOf(trivet, request, visitor, now));
}

const askingOf = (trivet: Trivet, request: SiteRequest, visitor: Visitor, now: Date): Asking => ({
  trivet,
  request,
  path: pathOf(request),
  visitor,
  context: contextOf(trivet, visitor, request, now),
  delivery: delivery(Boolean(visitor.person?.desk), false),
  now,
});

/** The first part of a path. */
function firstOf(path: string): string {
  const end = path.indexOf('/', 1);
  return end < 0 ? path.slice(1) : path.slice(1, end);
}

function keptFor(asking: Asking): Answer | null {
  const { method } = asking.request;
  const first = firstOf(asking.path);
  if ((method !== 'GET' && method !== 'HEAD') || first === 'walk' || Object.hasOwn(DOORS, first)) return null;
  const answer = keptPage(asking);
  if (answer) noteInJournal(asking, first, false, answer);
  return answer;
}

async function madeFor(ask: Ask): Promise<Answer> {
  const first = firstOf(ask.path);
  if (first === 'walk') return walkAnswer(ask);
  // Whatever a page of a walk sends is about the walk. What would be done by it on the site itself is nobody's wish.
  if (ask.request.method !== 'GET' && comesFromWalk(ask.request)) return missing(ask);
  const answer = await unlessBusy(ask, answerOf(ask, first));
  noteInJournal(ask, first, Object.hasOwn(DOORS, first), answer);
  return answer;
}

/** An answer; or, while too many do what takes the machine long, that it can't be given now. */
const unlessBusy = ({ trivet }: Ask, answered: Promise<Answer>): Promise<Answer> =>
  answered.catch((error: unknown) => {
    if (!isBusy(error)) throw error;
    return notNow(messagesOf(trivet.state).frame.busy);
  });

const notNow = (body: string): Answer => ({
  status: 503,
  headers: { 'Retry-After': '5', 'Cache-Control': PRIVATE, 'Content-Type': 'text/plain; charset=utf-8' },
  body,
});

/** What says how the server is, for whoever watches over it. */
const ALWAYS: ReadonlySet<string> = new Set(['/api/health', '/api/ready']);

/** Waits until memory is what the database holds, where others write to it as well; false where that can't be known. */
export const isCurrent = (trivet: Trivet): boolean | Promise<boolean> =>
  trivet.currency === null || trivet.currency.isCurrent || trivet.currency.becomesCurrent();

/** In place of anything from rights that may be old. */
export const cutOff = (trivet: Trivet): Answer =>
  notNow(trivet.hasSite ? messagesOf(trivet.state).frame.cutOff : NOTHING_KNOWN);

/** The site as a stand-in sees it. To anybody but the administrator who walks, there is nothing here. */
async function walkAnswer(asked: Ask): Promise<Answer> {
  const { trivet, request, url, visitor, now } = asked;
  const [, , token = ''] = url.pathname.split('/');
  const walk = await walkOf(trivet, administratorOf(visitor), token, now, url);
  if (!walk) return missing(asked);
  const { context } = walk;
  const path = url.pathname.slice(context.base.length) || '/';
  const standIn: Visitor = { person: context.person, facts: context.facts, session: null };
  const ask = { ...asked, path, visitor: standIn, context, delivery: delivery(false, true) };
  const answer = await (request.method === 'GET' ? answerOf(ask, firstOf(path)) : would(ask));
  return withFormsOf(answer, context.base);
}

/** What the form that was sent would do. Nothing is done. */
async function would(ask: Ask): Promise<Answer> {
  const fields = (await fieldsOf(ask)) ?? {};
  const referrer = ask.request.headers.get('referer') ?? '';
  const from = URL.canParse(referrer) ? new URL(referrer) : null;
  const html = await renderWould({
    frame: frameFor(ask.context, null),
    delivery: ask.delivery,
    ...wouldDo(ask.context, [ask.path.split('/')[1] ?? '', ...(partsOf(ask.path) ?? [])], fields),
    back: from?.pathname.startsWith(ask.context.base) ? from.pathname + from.search : `${ask.context.base}/`,
  });
  return htmlAnswer(html, { status: 200, walk: true });
}

/** A page of a walk whose forms are sent to the walk, whatever address they were drawn with. */
function withFormsOf(answer: Answer, base: string): Answer {
  const html = textOf(answer);
  if (html === null || !String(answer.headers['Content-Type']).startsWith('text/html')) return answer;
  const body = html.replace(/(<form\b[^>]*\baction=")(\/[^"]*)"/g, (whole, before: string, to: string) =>
    to.startsWith(`${base}/`) ? whole : `${before}${base}${to}"`,
  );
  return { ...answer, body };
}

function comesFromWalk(request: SiteRequest): boolean {
  const referrer = request.headers.get('referer') ?? '';
  return URL.canParse(referrer) && new URL(referrer).pathname.startsWith('/walk/');
}

async function answerOf(ask: Ask, first: string): Promise<Answer> {
  const door = Object.hasOwn(DOORS, first) ? DOORS[first] : undefined;
  if (!door) return page(ask);
  const rest = partsOf(ask.path);
  // An app is told in its own way that there is nothing.
  if (rest === null) return door === api && door.GET ? door.GET({ ...ask, rest: ['?'] }) : page(ask);
  const { method } = ask.request;
  const handler = method === 'GET' || method === 'HEAD' ? door.GET : method === 'POST' ? door.POST : null;
  return handler ? handler({ ...ask, rest }) : notTaken(allowedBy(door), first === 'api');
}

const allowedBy = ({ GET, POST }: Door): string =>
  [...(GET ? ['GET', 'HEAD'] : []), ...(POST ? ['POST'] : [])].join(', ');

/** The parts of a path behind the first, decoded; null when it can't be. */
function partsOf(path: string): readonly string[] | null {
  try {
    return path.split('/').slice(2).filter(Boolean).map(decodeURIComponent);
  } catch {
    return null;
  }
}
