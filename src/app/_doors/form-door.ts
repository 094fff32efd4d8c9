/** What the doors of forms have in common. */
import { messagesOf } from '@/services';
import { addressOf, fromThisSite, readForm } from '../_http/request';
import type { Ask } from './door';

export type Fields = Readonly<Record<string, unknown>>;

/** The fields of a form of this site, or null when it is none, or longer than it may be (in bytes). */
export const fieldsOf = async ({ request }: Ask, most?: number): Promise<Fields | null> =>
  fromThisSite(request) ? readForm(request, most) : null;

/** What is said where a form could not be read. */
export const unreadable = ({ trivet }: Pick<Ask, 'trivet'>): string =>
  messagesOf(trivet.state).frame.unreadable;

/** When to try again, for those who tried too often. */
export const retryAfter = (seconds: number): Readonly<Record<string, string>> =>
  seconds > 0 ? { 'Retry-After': String(seconds) } : {};

export const networkOf = ({ request }: Ask): string => addressOf(request);

/** A field that was typed, to be shown again; never a password. */
export const shown = (fields: Fields | null, name: string): string => {
  const value = fields?.[name];
  return typeof value === 'string' ? value.slice(0, 300) : '';
};
