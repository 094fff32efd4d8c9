/** The desk's data routes: who may use them, what they read, how they refuse. */
import { type Permission, unkeptIn } from '@/core';
import {
  type Administrator,
  administratorOf,
  isAway,
  isBusy,
  NotAllowed,
  noteTrouble,
  requirePermission,
  type Trivet,
  yieldToOthers,
} from '@/services';
import { asking, fromThisSite, readBytes, readText } from './request';
import { PRIVATE } from './response';

const LARGEST_BODY = 4_000_000;

/** A JSON answer for this administrator only. What is still being worked out is no answer: the compiler refuses it. */
export const json = <T>(value: T extends PromiseLike<unknown> ? never : T, status = 200): Response =>
  Response.json(value, { status, headers: { 'Cache-Control': PRIVATE } });

/** A table to be kept as a file (RFC 4180). */
export const csvFile = (name: string, csv: string): Response =>
  new Response(csv, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8; header=present',
      'Content-Disposition': `attachment; filename="${name}.csv"`,
      'Cache-Control': PRIVATE,
      'X-Content-Type-Options': 'nosniff',
    },
  });

/** A refusal as RFC 9457 problem details. */
export const problem = (status: number, title: string, more: object = {}): Response =>
  new Response(JSON.stringify({ title, status, ...more }), {
    status,
    headers: { 'Content-Type': 'application/problem+json', 'Cache-Control': PRIVATE },
  });

/** Whether something was written when the database went, it alone can tell. */
const AWAY =
  'The database can’t be reached just now. If you were changing something, look whether it was done before you do it again.';

type BytesHandler = (
  trivet: Trivet,
  administrator: Administrator,
  bytes: Uint8Array,
) => Response | Promise<Response>;

type Handler = (trivet: Trivet, administrator: Administrator, body: unknown) => Response | Promise<Response>;

/**
 * Runs a handler for an administrator with the request's JSON body, or refuses with a sentence. Whether their right reaches
 * to it is asked before the body is read.
 */
export async function forDesk(
  request: Request,
  doing: Permission,
  handler: Handler,
  largest = LARGEST_BODY,
): Promise<Response> {
  const asked = await allowed(request, doing);
  if (asked instanceof Response) return asked;
  const run = (body: unknown) => within(() => handler(asked.trivet, asked.administrator, body));
  if (request.method === 'GET') return run(null);
  const text = await readText(request, largest);
  if (text === null)
    return problem(
      413,
      `That is larger than ${largest / 1_000_000} MB, which is the most that is read here.`,
    );
  let body: unknown;
  try {
    body = text === '' && request.method === 'DELETE' ? null : JSON.parse(text);
  } catch {
    return problem(400, 'The request is not JSON.');
  }
  // Such texts can only come escaped, and looking through everything takes its time.
  const unkept = UNKEPT.test(text) ? unkeptIn(body) : null;
  return unkept === null ? run(body) : problem(422, `${unkept.message} It stands at ${unkept.path}.`);
}

const UNKEPT = /\\u(0000|d[89a-f])/i;

/** The same with a body of bytes, as soon as they are known not to be too many. */
export async function withBytes(
  request: Request,
  doing: Permission,
  largest: number,
  handler: BytesHandler,
): Promise<Response> {
  const asked = await allowed(request, doing);
  if (asked instanceof Response) return asked;
  const bytes = await readBytes(request, largest);
  return bytes === null
    ? problem(413, `That file is larger than ${largest / 1_000_000} MB. Make it smaller.`)
    : within(() => handler(asked.trivet, asked.administrator, bytes));
}

/** The same with a body that is handed on as it comes; whoever takes it bounds it. */
export async function withStream(
  request: Request,
  doing: Permission,
  handler: (
    trivet: Trivet,
    administrator: Administrator,
    body: ReadableStream<Uint8Array> | null,
  ) => Promise<Response>,
): Promise<Response> {
  const asked = await allowed(request, doing);
  if (asked instanceof Response) return asked;
  return within(() => handler(asked.trivet, asked.administrator, request.body));
}

/**
 * What a handler answers, or a refusal when the right of whoever asks does not reach so far. Of those who ask in the same
 * moment one begins in each turn, so that nobody waits for the first piece of each.
 */
async function within(handler: () => Response | Promise<Response>): Promise<Response> {
  try {
    await yieldToOthers();
    return await handler();
  } catch (error) {
    if (error instanceof NotAllowed) return problem(403, error.message);
    if (isBusy(error)) return problem(503, 'Too many are doing the same just now. Try again in a moment.');
    if (isAway(error)) return problem(503, AWAY);
    noteTrouble('A request of the desk failed.', error);
    return problem(500, 'Something went wrong here, and nothing was changed. It was noted; try again.');
  }
}

/** Who asks, if they may do this and come from the desk. */
async function allowed(
  request: Request,
  doing: Permission,
): Promise<Response | { readonly trivet: Trivet; readonly administrator: Administrator }> {
  let asked: Awaited<ReturnType<typeof asking>>;
  try {
    asked = await asking(request);
  } catch (error) {
    if (isAway(error)) return problem(503, AWAY);
    throw error;
  }
  const { trivet, visitor } = asked;
  const administrator = administratorOf(visitor);
  if (!visitor.person)
    return problem(401, 'Your session has ended. Sign in again in another tab; nothing here is lost.');
  if (!administrator) return problem(403, 'The desk is for administrators of this site.');
  if (request.method !== 'GET' && !fromThisSite(request))
    return problem(403, 'This request did not come from the desk.');
  try {
    requirePermission(administrator, doing);
  } catch (error) {
    if (error instanceof NotAllowed) return problem(403, error.message);
    throw error;
  }
  const unkept = unkeptIn(Object.fromEntries(new URL(request.url).searchParams));
  return unkept === null ? { trivet, administrator } : problem(400, unkept.message);
}

/** What became of a change, or would: 409 when there is nothing to do, 422 with a sentence when it can't be done. */
export const changeAnswer = (
  answer: { readonly kind: string } | { readonly kind: 'wrong'; readonly message: string },
): Response => {
  if ('message' in answer) return problem(422, answer.message);
  if (answer.kind === 'nothing to do')
    return problem(409, 'Everybody is like that already. There is nothing to change.');
  return json(answer);
};

/** What became of a step over areas, or would: 422 with a sentence, and the line it is about, when it can't be done. */
export const areaAnswer = (
  answer:
    | { readonly kind: 'done' | 'report' }
    | { readonly kind: 'wrong'; readonly message: string; readonly line?: number },
): Response =>
  answer.kind === 'wrong' ? problem(422, answer.message, { line: answer.line ?? null }) : json(answer);

/**
 * An answer that takes its time: lines of JSON as they come, and what the work came to in the end. Whoever hangs up stops
 * the work.
 */
export function lines(
  hungUp: AbortSignal,
  work: (write: (line: unknown) => void, signal: AbortSignal) => Promise<unknown>,
): Response {
  const stop = new AbortController();
  hungUp.addEventListener('abort', () => stop.abort());
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      const write = (line: unknown) => {
        if (!stop.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      try {
        write(await work(write, stop.signal));
        if (!stop.signal.aborted) controller.close();
      } catch (error) {
        if (!stop.signal.aborted) controller.error(error);
      }
    },
    cancel: () => stop.abort(),
  });
  return new Response(body, {
    headers: { 'Content-Type': 'application/jsonl; charset=utf-8', 'Cache-Control': PRIVATE },
  });
}
