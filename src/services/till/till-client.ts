/** A till over HTTP, as docs/till.md describes it: signed requests, signed answers, little time and little room for both. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { checkSignature, signed } from './signing';
import { noticeForm, type Till, TillTrouble } from './till';

const MOST_BYTES = 2_000_000;
const TIMEOUT_MS = 5_000;

export interface TillSettings {
  readonly url: string;
  /** The first signs; all are taken. */
  readonly keys: readonly string[];
}

const opened = z.object({ reference: z.string().min(1).max(200), payPage: z.url().max(2000) });
const listed = z.object({ notices: z.array(noticeForm).max(10_000) });
const page = z.object({ page: z.url().max(2000) });
const anything = z.looseObject({});
const about = z.object({ standIn: z.boolean() });

/** The till at an address. Asks it first who it is; one that does not answer yet is taken for no stand-in. */
export function tillAt({ url, keys }: TillSettings, asked: typeof fetch = fetch): Till {
  const { origin } = new URL(url);
  let standIn = false;
  const at = (path: string) => new URL(path, url.endsWith('/') ? url : `${url}/`).href;

  async function ask<T>(
    path: string,
    content: unknown,
    form: z.ZodType<T>,
    now: Date,
    key?: string,
  ): Promise<T> {
    const body = content === null ? '' : JSON.stringify(content);
    const response = await asked(at(path), {
      method: content === null ? 'GET' : 'POST',
      headers: {
        ...(content !== null && { 'Content-Type': 'application/json' }),
        ...signed(keys, key ?? randomUUID(), body === '' ? path : body, now),
      },
      ...(content !== null && { body }),
      redirect: 'error',
      signal: AbortSignal.timeout(TIMEOUT_MS),
    }).catch(() => {
      throw new TillTrouble('down');
    });
    const text = await textOf(response);
    if (response.status >= 500) throw new TillTrouble('down');
    const genuine = checkSignature(keys, (name) => response.headers.get(name), text, now);
    if (!response.ok || 'problem' in genuine) throw new TillTrouble('nonsense');
    const read = form.safeParse(jsonIn(text));
    if (!read.success) throw new TillTrouble('nonsense');
    return read.data;
  }

  /** A page of the till's own; buyers are sent nowhere else. */
  const ours = (address: string): string => {
    if (new URL(address).origin !== origin) throw new TillTrouble('nonsense');
    return address;
  };
  const orderPath = (reference: string, rest = '') => `orders/${encodeURIComponent(reference)}${rest}`;

  return {
    get standIn() {
      return standIn;
    },
    origin,
    check: (header, body, now) => checkSignature(keys, header, body, now),
    async meet(now) {
      ({ standIn } = await ask('about', null, about, now));
    },
    async open(order, now) {
      const answer = await ask('orders', order, opened, now, order.order);
      return { ...answer, payPage: ours(answer.payPage) };
    },
    notices: async (reference, now) => (await ask(orderPath(reference), null, listed, now)).notices,
    async refund(reference, { key, ...what }, now) {
      await ask(orderPath(reference, '/refund'), what, anything, now, key);
    },
    async cancel(reference, when, now) {
      await ask(orderPath(reference, '/cancel'), { when }, anything, now);
    },
    card: async (reference, returnTo, now) =>
      ours((await ask(orderPath(reference, '/card'), { returnTo }, page, now)).page),
    async moveOn(to, now) {
      await ask('clock', { to: to.getTime() }, anything, now);
    },
  };
}

async function textOf(response: Response): Promise<string> {
  const parts: Uint8Array[] = [];
  let length = 0;
  try {
    for await (const part of (response.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
      length += part.byteLength;
      if (length > MOST_BYTES) throw new TillTrouble('nonsense');
      parts.push(part);
    }
  } catch (error) {
    throw error instanceof TillTrouble ? error : new TillTrouble('down');
  }
  return Buffer.concat(parts).toString('utf8');
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new TillTrouble('nonsense');
  }
}
