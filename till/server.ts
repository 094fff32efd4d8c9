/**
 * The stand-in till as a server: its pages for buyers, its interface for the site (docs/till.md), and the notices that it
 * sends, again and again until they are taken.
 */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { z } from 'zod';
import type { Notice, OrderId } from '../src/core';
import { checkSignature, signed, type TillOrder } from '../src/services';
import {
  type Account,
  accountAt,
  type Card,
  cancelled,
  change,
  declined,
  disputed,
  type Ledger,
  ledgerAt,
  opened,
  paid,
  refunded,
  withCard,
} from './ledger';
import { bankPage, cardPage, document, overPage, payPage } from './pay-page';

export interface TillServerOptions {
  /** Where notices go. */
  readonly notify: string;
  readonly keys: readonly string[];
  /** Its own address. */
  readonly origin: string;
  readonly ledger: Ledger;
  /** Keeps the ledger, before anybody is told. */
  readonly keep: (ledger: Ledger) => void;
  /** How long it waits where it is to be slow, in milliseconds. */
  readonly slow?: number;
  /** How long before a notice that was not taken is sent again, in milliseconds. */
  readonly again?: readonly number[];
}

const orderForm = z.object({
  order: z.string().min(1).max(100),
  what: z.string().max(300),
  email: z.string().max(300),
  currency: z.string().length(3),
  first: z.int().min(0),
  renewal: z.object({ amount: z.int().min(1), months: z.int().min(1) }).nullable(),
  freeDays: z.int().min(0).max(4000),
  trial: z.boolean(),
  returnTo: z.url(),
  timeZone: z.string().max(100),
  payUntil: z.int(),
});
const outcomeForm = z.enum(['open', 'won', 'lost']);
const refundForm = z.object({ amount: z.int().min(1), ends: z.boolean() });
const MOST_BYTES = 100_000;
const AGAIN = [500, 2_000, 10_000, 60_000, 600_000];

/** Makes the server; whoever makes it lets it listen, and closes it. */
export function tillServer(options: TillServerOptions): {
  readonly server: Server;
  readonly close: () => Promise<void>;
} {
  const { notify, keys, origin, slow = 15_000, again = AGAIN } = options;
  let ledger = options.ledger;
  const timers = new Set<NodeJS.Timeout>();
  // Told, or never to be told by itself; asked for it is told all the same.
  const told = new Set(ledger.accounts.flatMap(({ notices }) => notices.map(({ id }) => id)));
  const clock = () => Date.now() + ledger.ahead;

  const later = (ms: number, what: () => void) => {
    const timer = setTimeout(() => {
      timers.delete(timer);
      what();
    }, ms);
    timer.unref();
    timers.add(timer);
  };

  /** Keeps what has become of the ledger and answers what is new in it. */
  function become(next: Ledger): readonly Notice[] {
    ledger = next;
    options.keep(ledger);
    return ledger.accounts.flatMap(({ notices }) => notices.filter(({ id }) => !told.has(id)));
  }

  async function send(notice: Notice, tries = 0): Promise<void> {
    told.add(notice.id);
    const body = JSON.stringify(notice);
    const taken = await fetch(notify, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', ...signed(keys, notice.id, body, new Date(clock())) },
      body,
      signal: AbortSignal.timeout(10_000),
    }).then(
      async (response) => {
        await response.body?.cancel();
        return response.ok;
      },
      () => false,
    );
    const wait = again[tries];
    if (!taken && wait !== undefined) later(wait, () => void send(notice, tries + 1));
  }

  const sendAll = async (list: readonly Notice[]): Promise<void> => {
    for (const notice of list) await send(notice);
  };

  const update = (reference: string, how: (account: Account, at: number) => Account) =>
    become(change(ledgerAt(ledger, clock()), reference, (account) => how(account, clock())));

  async function page(request: IncomingMessage, response: ServerResponse, url: URL): Promise<void> {
    const [, first = '', reference = ''] = url.pathname.split('/');
    become(ledgerAt(ledger, clock()));
    const account = accountAt(ledger, reference);
    const html = (text: string, status = 200) => {
      response.writeHead(status, {
        'Content-Type': 'text/html; charset=utf-8',
        'Cache-Control': 'no-store',
        'Content-Security-Policy': `default-src 'none'; style-src 'unsafe-inline'; form-action 'self' ${account ? new URL(account.order.returnTo).origin : ''}; frame-ancestors 'none'; base-uri 'none'`,
      });
      response.end(text);
    };
    const lead = (to: string) => {
      response.writeHead(303, { Location: to });
      response.end();
    };
    if (!account || (first !== 'pay' && first !== 'card'))
      return html(document('Nothing here', '<h1>Nothing is paid here</h1>'), 404);
    const { returnTo } = account.order;
    if (request.method === 'GET' && first === 'pay')
      return html(account.state === 'open' ? payPage(account) : overPage(account));
    if (request.method === 'GET') return html(cardPage(account, backOf(url.searchParams.get('to'), account)));
    const fields = new URLSearchParams(await bodyOf(request));
    const card: Card = fields.get('card') === 'refused next time' ? 'refused next time' : 'good';
    const done = fields.get('do');
    if (first === 'card') {
      if (done === 'keep') await sendAll(update(reference, (one, at) => withCard(one, card, at)));
      return lead(backOf(fields.get('returnTo'), account));
    }
    const outcome = outcomeForm.safeParse(done);
    if (outcome.success) {
      await sendAll(update(reference, (one, at) => disputed(one, outcome.data, at)));
      return lead(`/pay/${reference}`);
    }
    if (done === 'bank') return html(bankPage(account, card));
    if (done === 'close') return lead(returnTo);
    if (done === 'decline') await sendAll(update(reference, declined));
    else {
      const news = update(reference, (one, at) => paid(one, card, at));
      if (done === 'slow') {
        for (const { id } of news) told.add(id);
        later(slow, () => void sendAll(news));
      } else if (done === 'lose') for (const { id } of news) told.add(id);
      else await sendAll(news);
    }
    return lead(returnTo);
  }

  /** What the site asks: signed, answered signed. */
  async function api(request: IncomingMessage, response: ServerResponse, url: URL): Promise<void> {
    const body = await bodyOf(request);
    const path = url.pathname.slice(1);
    const header = (name: string) => {
      const value = request.headers[name];
      return typeof value === 'string' ? value : null;
    };
    // Signed at the time of the question, by which it is checked: meanwhile the clock may have been moved on.
    const by = new Date(clock());
    const answer = (status: number, content: unknown) => {
      const text = JSON.stringify(content);
      response.writeHead(status, {
        'Content-Type': 'application/json',
        ...signed(keys, `answer-${header('webhook-id') ?? ''}`, text, by),
      });
      response.end(text);
    };
    const genuine = checkSignature(keys, header, body === '' ? path : body, by);
    if ('problem' in genuine) return answer(401, { problem: genuine.problem });
    const [first = '', reference = '', step = ''] = path.split('/').map(decodeURIComponent);
    const content: unknown = body === '' ? null : JSON.parse(body);
    if (first === 'about') return answer(200, { standIn: true });
    if (first === 'clock') {
      const { to } = z.object({ to: z.number() }).parse(content);
      const ahead = Math.max(ledger.ahead, to - Date.now());
      const news = become(ledgerAt({ ...ledger, ahead }, Date.now() + ahead));
      await sendAll(news.toSorted((one, other) => one.at - other.at));
      return answer(200, {});
    }
    if (first === 'orders' && reference === '') {
      const order = orderForm.parse(content);
      const made = opened(ledger, { ...order, order: order.order as OrderId } as TillOrder);
      become(made.ledger);
      return answer(200, {
        reference: made.account.reference,
        payPage: `${origin}/pay/${made.account.reference}`,
      });
    }
    const account = accountAt(ledger, reference);
    if (first !== 'orders' || !account) return answer(404, { problem: 'There is no such order.' });
    switch (step) {
      case '':
        become(ledgerAt(ledger, clock()));
        return answer(200, { notices: accountAt(ledger, reference)?.notices ?? [] });
      case 'refund': {
        const refund = refundForm.parse(content);
        void sendAll(update(reference, (one, at) => refunded(one, { ...refund, key: genuine.id }, at)));
        return answer(200, {});
      }
      case 'cancel': {
        const { when } = z.object({ when: z.enum(['now', 'at the end']) }).parse(content);
        void sendAll(update(reference, (one, at) => cancelled(one, when, at)));
        return answer(200, {});
      }
      case 'card': {
        const { returnTo } = z.object({ returnTo: z.url() }).parse(content);
        return answer(200, { page: `${origin}/card/${reference}?to=${encodeURIComponent(returnTo)}` });
      }
      default:
        return answer(404, { problem: 'There is no such step.' });
    }
  }

  const server = createServer((request, response) => {
    const url = new URL(request.url ?? '/', origin);
    const isPage = /^\/(pay|card)\//.test(url.pathname) || url.pathname === '/';
    (isPage ? page : api)(request, response, url).catch(() => {
      if (!response.headersSent) response.writeHead(400, { 'Content-Type': 'text/plain' });
      response.end('That could not be read.');
    });
  });

  return {
    server,
    close: () => {
      for (const timer of timers) clearTimeout(timer);
      return new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      });
    },
  };
}

/** Back to the shop that the order is of, and nowhere else. */
function backOf(given: string | null, { order: { returnTo } }: Account): string {
  const home = new URL(returnTo).origin;
  return given !== null && URL.canParse(given) && new URL(given).origin === home ? given : returnTo;
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request) {
    size += (part as Buffer).length;
    if (size > MOST_BYTES) throw new Error('That is too long.');
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts).toString('utf8');
}
