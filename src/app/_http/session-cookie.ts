import { environment, SESSION_MS, type Started } from '@/services';
import type { Answer } from './answer';
import { cookieIn } from './cookie-in';
import type { SiteRequest } from './site-request';

/** The session cookie's name. */
export const SESSION_COOKIE = 'trivet_session';

/** The session cookie, out of reach of scripts and of other sites' forms. A life of zero seconds takes it away. */
export const sessionCookie = (token: string, seconds: number): string =>
  cookie(SESSION_COOKIE, token, seconds);

function cookie(name: string, value: string, seconds: number): string {
  const secure = environment().publicUrl.protocol === 'https:' ? '; Secure' : '';
  return `${name}=${value}; Path=/; Max-Age=${seconds}; HttpOnly; SameSite=Lax${secure}`;
}

/** Where a browser keeps which accounts signed in with it. */
const DEVICE_COOKIE = 'trivet_device';
const DEVICE_SECONDS = 365 * 24 * 60 * 60;
const MOST_DEVICES = 4;

/** The accounts' marks that a browser kept. */
export const devicesIn = (request: SiteRequest): readonly string[] =>
  (cookieIn(request, DEVICE_COOKIE) ?? '').split('~').filter(Boolean).slice(0, MOST_DEVICES);

/** An answer to somebody who has just signed in: their session, and that this browser was theirs. */
export function beginning(answer: Answer, request: SiteRequest, { token, device }: Started): Answer {
  const devices = [device, ...devicesIn(request)].slice(0, MOST_DEVICES).join('~');
  const cookies = [sessionCookie(token, SESSION_MS / 1000), cookie(DEVICE_COOKIE, devices, DEVICE_SECONDS)];
  return { ...answer, headers: { ...answer.headers, 'Set-Cookie': cookies } };
}
