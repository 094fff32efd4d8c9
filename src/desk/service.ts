/** Talking to the desk's data routes. */

/** An answer: the value, or a refusal with its status, its sentence and whatever came with it. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      readonly status: number;
      readonly title: string;
      readonly body: Readonly<Record<string, unknown>>;
    };

const UNREACHABLE = {
  ok: false,
  status: 0,
  title: 'The server can’t be reached. What you did is kept here; it is tried again.',
  body: {},
} as const;

/** Statuses of who can't reach what they ask (RFC 9110 §15.6). */
const NOT_THERE: ReadonlySet<number> = new Set([502, 503, 504]);

/** Sends a request (a file as it is, anything else as JSON) and reads the JSON answer. Never throws, but for being called off. */
export const ask = <T>(
  method: string,
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<Answer<T>> => send(method, path, body, signal ? { signal } : {});

/** The same for what is done as well if the page goes at once; at most 64 KB (Fetch Standard, “keepalive”). */
export const askToStay = <T>(method: string, path: string, body: unknown): Promise<Answer<T>> =>
  send(method, path, body, { keepalive: true });

async function send<T>(
  method: string,
  path: string,
  body: unknown,
  how: Pick<RequestInit, 'signal' | 'keepalive'>,
): Promise<Answer<T>> {
  let response: Response;
  let value: unknown;
  try {
    response = await fetch(`/desk/api/${path}`, {
      method,
      ...(body instanceof Blob
        ? { body }
        : body !== undefined && {
            body: JSON.stringify(body),
            headers: { 'Content-Type': 'application/json' },
          }),
      ...how,
    });
    // A refusal may come from something in between that speaks no JSON; an answer that can't be read is no answer.
    value = response.ok ? await response.json() : await response.json().catch(() => ({}));
  } catch (error) {
    if (how.signal?.aborted) throw error;
    return UNREACHABLE;
  }
  return answerOf<T>(response.status, value);
}

function answerOf<T>(status: number, value: unknown): Answer<T> {
  if (status >= 200 && status < 300) return { ok: true, value: value as T };
  const body = value as Readonly<Record<string, unknown>>;
  const title = typeof body.title === 'string' ? body.title : null;
  // What stands between says so in its own words, and a server that is cut off in words for visitors.
  if (title === null && NOT_THERE.has(status)) return UNREACHABLE;
  return { ok: false, status, title: title ?? `The server refused this (${status}).`, body };
}

/** Sends bytes as they are, and tells what part of them is on its way; else as {@link ask}. */
export const sendBytes = <T>(
  path: string,
  bytes: Blob,
  onPart: (part: number) => void,
  signal: AbortSignal,
): Promise<Answer<T>> =>
  new Promise((resolve) => {
    // What is sent by `fetch` does not tell how far it is.
    const request = new XMLHttpRequest();
    request.open('POST', `/desk/api/${path}`);
    request.upload.onprogress = ({ loaded, total }) => onPart(total === 0 ? 1 : loaded / total);
    request.onerror = () => resolve(UNREACHABLE);
    request.onabort = () => resolve(UNREACHABLE);
    request.onload = () => {
      let value: unknown = {};
      try {
        value = JSON.parse(request.responseText);
      } catch {
        // A refusal may come from something in between that speaks no JSON.
      }
      resolve(answerOf<T>(request.status, value));
    };
    signal.addEventListener('abort', () => request.abort());
    request.send(bytes);
  });

/**
 * Sends a question whose answer comes as lines of JSON, and hands on each as it comes. Answers what went wrong, or null; it
 * never throws, also when it is called off.
 */
export async function askLines<T>(
  path: string,
  body: unknown,
  onLine: (line: T) => void,
  signal: AbortSignal,
): Promise<string | null> {
  try {
    const response = await fetch(`/desk/api/${path}`, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'Content-Type': 'application/json' },
      signal,
    });
    if (!response.ok || !response.body) {
      const refusal = (await response.json().catch(() => ({}))) as { readonly title?: unknown };
      return typeof refusal.title === 'string'
        ? refusal.title
        : `The server refused this (${response.status}).`;
    }
    const reader = response.body.getReader();
    const decoder = new TextDecoder();
    let rest = '';
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      const lines = (rest + decoder.decode(part.value, { stream: true })).split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) if (line !== '') onLine(JSON.parse(line) as T);
    }
    return null;
  } catch {
    return signal.aborted ? null : UNREACHABLE.title;
  }
}
