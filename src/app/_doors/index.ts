/**
 * The visitor's side as one function from a request to a response. Every door is in one table, so that whoever checks them
 * (the leak check, the tests) checks all of them, with the code that visitors get.
 */
import {
  administratorOf,
  Busy,
  frameFor,
  nowhere,
  type Trivet,
  type ViewContext,
  type Visitor,
  walkOf,
  wouldDo,
} from '@/services';
import { renderAnswer, renderWould } from '@/site';
import { contextOf } from '../_http/context';
import { visitorIn } from '../_http/request';
import { delivery, htmlResponse, PRIVATE, respond } from '../_http/response';
import { me } from './account';
import { api } from './api';
import { assets } from './assets';
import type { Ask, Door } from './door';
import { feedJson, feedXml } from './feeds';
import { files } from './files';
import { fieldsOf } from './form-door';
import { forms } from './forms';
import { groups } from './groups';
import { noteInJournal } from './journal';
import { category, tag } from './lists';
import { notTaken, page } from './page';
import { passphrase } from './passphrase';
import { reset } from './reset';
import { searchDoor } from './search';
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
  'feed.xml': feedXml,
  'feed.json': feedJson,
  'sitemap.xml': sitemap,
  'robots.txt': robots,
  api,
  assets,
};

/** What the site answers a request. */
export async function siteResponse(trivet: Trivet, request: Request, now = new Date()): Promise<Response> {
  const url = new URL(request.url);
  const visitor = await visitorIn(trivet, request, now);
  const [, first = '', token = ''] = url.pathname.split('/');
  if (first === 'walk') return walkResponse(trivet, request, url, visitor, token, now);
  const context = contextOf(trivet, visitor, request, now);
  const desk = Boolean(visitor.person?.desk);
  // Whatever a page of a walk sends is about the walk. What would be done by it on the site itself is nobody's wish.
  if (request.method !== 'GET' && comesFromWalk(request)) return nothing(request, context, desk);
  const response = await unlessBusy(
    answer(
      {
        trivet,
        request,
        url,
        path: url.pathname,
        rest: [],
        visitor,
        context,
        delivery: delivery(desk, false),
        now,
      },
      first,
    ),
  );
  noteInJournal({ trivet, request, visitor, context, now }, first, Object.hasOwn(DOORS, first), response);
  return response;
}

/** An answer; or, while too many do what takes the machine long, that it can't be given now. */
const unlessBusy = (answered: Promise<Response>): Promise<Response> =>
  answered.catch((error: unknown) => {
    if (!(error instanceof Busy)) throw error;
    return new Response('Too many people are doing this just now. Wait a few seconds and try again.', {
      status: 503,
      headers: { 'Retry-After': '5', 'Cache-Control': PRIVATE, 'Content-Type': 'text/plain; charset=utf-8' },
    });
  });

/** The site as a stand-in sees it. To anybody but the administrator who walks, there is nothing here. */
async function walkResponse(
  trivet: Trivet,
  request: Request,
  url: URL,
  visitor: Visitor,
  token: string,
  now: Date,
): Promise<Response> {
  const walk = await walkOf(trivet, administratorOf(visitor), token, now, url);
  if (!walk) {
    const desk = Boolean(visitor.person?.desk);
    return nothing(request, contextOf(trivet, visitor, request, now), desk);
  }
  const base = `/walk/${token}`;
  const path = url.pathname.slice(base.length) || '/';
  const standIn: Visitor = { person: walk.context.person, facts: walk.context.facts, session: null };
  const ask = {
    trivet,
    request,
    url,
    path,
    rest: [],
    visitor: standIn,
    context: walk.context,
    delivery: delivery(false, true),
    now,
  };
  const response = await (request.method === 'GET' ? answer(ask, path.split('/')[1] ?? '') : would(ask));
  return withFormsOf(response, base);
}

/** What the form that was sent would do. Nothing is done. */
async function would(ask: Ask): Promise<Response> {
  const fields = (await fieldsOf(ask)) ?? {};
  const referrer = ask.request.headers.get('referer') ?? '';
  const from = URL.canParse(referrer) ? new URL(referrer) : null;
  const html = await renderWould({
    frame: frameFor(ask.context, null),
    delivery: ask.delivery,
    ...wouldDo(ask.context, [ask.path.split('/')[1] ?? '', ...(partsOf(ask.path) ?? [])], fields),
    back: from?.pathname.startsWith(ask.context.base) ? from.pathname + from.search : `${ask.context.base}/`,
  });
  return htmlResponse(html, { status: 200, walk: true });
}

/** A page of a walk whose forms are sent to the walk, whatever address they were drawn with. */
async function withFormsOf(response: Response, base: string): Promise<Response> {
  if (!response.headers.get('content-type')?.startsWith('text/html')) return response;
  const html = await response.text();
  const headers = new Headers(response.headers);
  headers.delete('content-length');
  const forms = html.replace(/(<form\b[^>]*\baction=")(\/[^"]*)"/g, (whole, before: string, to: string) =>
    to.startsWith(`${base}/`) ? whole : `${before}${base}${to}"`,
  );
  return new Response(forms, { status: response.status, headers });
}

function comesFromWalk(request: Request): boolean {
  const referrer = request.headers.get('referer') ?? '';
  return URL.canParse(referrer) && new URL(referrer).pathname.startsWith('/walk/');
}

async function answer(ask: Ask, first: string): Promise<Response> {
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

/** The same as at an address that was never there. */
async function nothing(request: Request, context: ViewContext, desk: boolean): Promise<Response> {
  const rendered = await renderAnswer(nowhere(context, new URL(request.url).pathname), delivery(desk, false));
  return respond(request, rendered, false, false);
}
