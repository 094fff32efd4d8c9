/**
 * Signatures of messages between site and till, as the Standard Webhooks specification writes them: HMAC-SHA256 over id,
 * time and body, with several keys while one is being changed. The time is the site's own, which in a demo can be moved on;
 * that is why it is handed in.
 */
import { createHmac, timingSafeEqual } from 'node:crypto';
import { keyBytes } from '../running';

/** The headers of a signed message. */
export const HEADERS = { id: 'webhook-id', timestamp: 'webhook-timestamp', signature: 'webhook-signature' };

/** How old a message may be, and how far ahead its sender's clock, in seconds. */
const TOLERANCE = 5 * 60;

function signature(key: string, id: string, timestamp: string, body: string): Buffer {
  const bytes = keyBytes(key);
  if (bytes === null) throw new Error('That is no key to sign with.');
  return createHmac('sha256', bytes).update(`${id}.${timestamp}.${body}`).digest();
}

/** The headers with which a message goes out, signed with the first key. */
export function signed(
  keys: readonly string[],
  id: string,
  body: string,
  now: Date,
): Readonly<Record<string, string>> {
  const timestamp = String(Math.floor(now.getTime() / 1000));
  const [key = ''] = keys;
  return {
    [HEADERS.id]: id,
    [HEADERS.timestamp]: timestamp,
    [HEADERS.signature]: `v1,${signature(key, id, timestamp, body).toString('base64')}`,
  };
}

export interface Checked {
  /** The message's id, where it is genuine. */
  readonly id: string;
}

/** Whether a message is genuine and fresh: its id, or why it is refused. */
export function checkSignature(
  keys: readonly string[],
  header: (name: string) => string | null,
  body: string,
  now: Date,
): Checked | { readonly problem: string } {
  const [id, timestamp, given] = [HEADERS.id, HEADERS.timestamp, HEADERS.signature].map(header);
  if (!id || !timestamp || !given) return { problem: 'It is not signed.' };
  if (id.length > 200 || given.length > 2000) return { problem: 'Its headers are too long.' };
  if (!/^\d{1,12}$/.test(timestamp)) return { problem: 'Its time can’t be read.' };
  const signatures = given
    .split(' ')
    .filter((one) => one.startsWith('v1,'))
    .slice(0, 10)
    .map((one) => Buffer.from(one.slice(3), 'base64'));
  // Each is compared with each, so that the time it takes tells nothing.
  let genuine = false;
  for (const key of keys) {
    const expected = signature(key, id, timestamp, body);
    for (const one of signatures)
      if (one.length === expected.length && timingSafeEqual(one, expected)) genuine = true;
  }
  if (!genuine) return { problem: 'Its signature is none of ours.' };
  const age = Math.floor(now.getTime() / 1000) - Number(timestamp);
  if (age > TOLERANCE) return { problem: 'It is too old.' };
  if (age < -TOLERANCE) return { problem: 'It is from the future.' };
  return { id };
}
