/** Asking the doors as a browser does, for their tests. */
import type { Trivet } from '@/services';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';

interface Sent {
  /** A form that was filled in; without one, the page is asked for. */
  readonly form?: URLSearchParams | FormData | undefined;
  readonly method?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly at: Date;
}

/** What is answered, with the session that begins by it; empty where none does. */
export async function askDoor(trivet: Trivet, path: string, { form, method, headers = {}, at }: Sent) {
  const request = new Request(`http://localhost:3000${path}`, {
    headers,
    method: method ?? (form ? 'POST' : 'GET'),
    ...(form && { body: form }),
  });
  const answer = await siteAnswer(trivet, request, at);
  const cookies = answer.headers['Set-Cookie'];
  const session = Array.isArray(cookies) ? cookies.find((one) => one.startsWith(SESSION_COOKIE)) : undefined;
  return {
    ...answer,
    text: textOf(answer) ?? '',
    location: answer.headers.Location,
    session: session?.slice(SESSION_COOKIE.length + 1).split(';')[0] ?? '',
  };
}
