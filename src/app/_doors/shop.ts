/** The shop: everything that is sold, buying one of it, an order on its way, and what the till tells. */
import { safeNext } from '@/core';
import {
  type BuyProblems,
  frameFor,
  GUEST_SESSION_MS,
  offerOf,
  offersFor,
  orderAt,
  runningTill,
  setOut,
  signInAddress,
  soldAs,
  takeSignedNotice,
} from '@/services';
import { renderBuy, renderOrder, renderShop } from '@/site';
import type { Answer } from '../_http/answer';
import { readText } from '../_http/request';
import { htmlAnswer, PRIVATE, seeOther } from '../_http/response';
import { beginning, sessionCookie } from '../_http/session-cookie';
import type { Ask, Door } from './door';
import { type Fields, fieldsOf, networkOf, retryAfter, shown, unreadable } from './form-door';
import { missing } from './page';

const MOST_NOTICE = 20_000;

export const shop: Door = {
  GET: (ask) => {
    const [what, order, ...more] = ask.rest;
    if (more.length > 0) return missing(ask);
    if (what === undefined) return all(ask);
    if (what === 'order') return order === undefined ? missing(ask) : onItsWay(ask, order);
    return order === undefined ? buying(ask, what, { status: 200 }) : missing(ask);
  },
  POST: async (ask) => {
    const [what, ...more] = ask.rest;
    if (what === undefined || more.length > 0) return missing(ask);
    return what === 'notices' ? told(ask) : begin(ask, what);
  },
};

async function all({ context, delivery }: Ask): Promise<Answer> {
  const html = await renderShop({ frame: frameFor(context, null), delivery, offers: offersFor(context) });
  return htmlAnswer(html, { status: 200, walk: delivery.walk });
}

interface State {
  readonly status: number;
  readonly fields?: Fields | null;
  readonly problems?: BuyProblems;
  readonly headers?: Readonly<Record<string, string>>;
}

async function buying(ask: Ask, product: string, state: State): Promise<Answer> {
  const { context, delivery, url, visitor } = ask;
  const sold = soldAs(context, product);
  const { status, fields = null, problems = {}, headers = {} } = state;
  const from = fields === null ? url.searchParams.get('next') : shown(fields, 'next');
  const back = safeNext(from);
  const offer = sold && offerOf(context, sold, back);
  // What somebody can't have is as if it were not there.
  if (!offer) return missing(ask);
  const till = runningTill();
  const typed = (name: string) =>
    fields === null ? (url.searchParams.get(name) ?? '').slice(0, 300) : shown(fields, name);
  const here = `/shop/${encodeURIComponent(product)}?${new URLSearchParams({ next: back })}`;
  const html = await renderBuy({
    frame: frameFor(context, null),
    delivery,
    offer,
    action: `${context.base}/shop/${encodeURIComponent(product)}`,
    back,
    signIn: visitor.person ? null : signInAddress(context, here),
    sells: till !== null,
    typed: { price: typed('price'), voucher: typed('voucher'), name: typed('name'), email: typed('email') },
    problems,
  });
  return htmlAnswer(html, { status, walk: delivery.walk, formsTo: till?.origin ?? null, headers });
}

async function begin(ask: Ask, product: string): Promise<Answer> {
  const { trivet, visitor, context, now } = ask;
  const fields = await fieldsOf(ask);
  if (fields === null) return buying(ask, product, { status: 400, problems: { form: unreadable(ask) } });
  const from = networkOf(ask);
  const answer = await setOut(trivet, runningTill(), { visitor, context, from }, product, fields, now);
  switch (answer.kind) {
    case 'missing':
      return missing(ask);
    case 'on the way': {
      const cookie = answer.token && sessionCookie(answer.token, GUEST_SESSION_MS / 1000);
      return seeOther(answer.to, cookie ? { 'Set-Cookie': cookie } : {});
    }
    default: {
      const status = answer.kind === 'too many' ? 429 : answer.kind === 'not now' ? 503 : 422;
      return buying(ask, product, {
        status,
        fields,
        problems: answer.problems,
        headers: retryAfter(answer.seconds),
      });
    }
  }
}

/** What has become of an order, for whoever comes back from the till; and then back to where they were. */
async function onItsWay(ask: Ask, id: string): Promise<Answer> {
  const { trivet, visitor, context, delivery, now } = ask;
  if (delivery.walk) return missing(ask);
  const answer = await orderAt(trivet, runningTill(), visitor, id, now);
  if (answer.kind === 'missing') return missing(ask);
  if (answer.kind === 'paid') {
    const back = seeOther(answer.back);
    return answer.started ? beginning(back, ask.request, answer.started) : back;
  }
  const order = answer.kind === 'sign in' ? null : answer.order;
  const again = order
    ? `/shop/${encodeURIComponent(order.product)}?${new URLSearchParams({
        price: order.price,
        next: order.back,
        ...(visitor.person === null && { name: order.name, email: order.email }),
      })}`
    : '/shop';
  const html = await renderOrder({
    frame: frameFor(context, null),
    delivery,
    kind: answer.kind,
    order,
    again,
    signIn: signInAddress(context, answer.kind === 'sign in' ? answer.back : null),
  });
  return htmlAnswer(html, { status: 200 });
}

/** A notice of the till: nothing in it is looked at before it is known to be genuine. */
async function told({ trivet, request, now }: Ask): Promise<Answer> {
  const till = runningTill();
  const said = (status: number, text: string): Answer => ({
    status,
    headers: { 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': PRIVATE },
    body: text,
  });
  if (till === null) return said(404, 'This site has no till.');
  const body = await readText(request, MOST_NOTICE);
  if (body === null) return said(413, 'That is longer than a notice is.');
  const answer = await takeSignedNotice(trivet, till, (name) => request.headers.get(name), body, now);
  return answer.kind === 'refused' ? said(401, answer.problem) : said(200, answer.kind);
}
