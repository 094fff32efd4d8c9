/**
 * The visitor's side straight from the socket: what Node received as a request for `siteResponse`, and its response as HTTP
 * has it. Nothing of the site goes through the framework, so what is not a door is nowhere.
 */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { normaliseAddress } from '@/core';
import { runningTrivet, yieldToOthers } from '@/services';
import { siteResponse } from '../_doors';
import { notTaken } from '../_doors/page';
import { canPack, packs, wantsPacked } from './packing';
import { PRIVATE, strictTransport } from './response';

const zip = promisify(gzip);

/** How long the body of a form may take to arrive. */
const SLOWEST_BODY_MS = 30_000;

/** Whether a request is the framework's to answer: the desk. What only begins like its address and leads elsewhere is the site's. */
export function isDesk(path: string, development = false): boolean {
  if (development && /^\/(_next|__next)/.test(path)) return true;
  if (path !== '/desk' && !path.startsWith('/desk/')) return false;
  return /^\/desk(\/|$)/.test(normaliseAddress(path) ?? '');
}

/** Answers a request of the visitor's side. Never throws: what goes wrong is logged, and answered in a sentence. */
export async function serveSite(incoming: IncomingMessage, outgoing: ServerResponse): Promise<void> {
  const hungUp = new AbortController();
  outgoing.on('close', () => hungUp.abort());
  try {
    const response = await answer(incoming, hungUp.signal);
    await write(response, incoming, outgoing);
  } catch (error) {
    if (hungUp.signal.aborted) return;
    console.error(error);
    if (outgoing.headersSent) outgoing.destroy();
    else await write(failed(), incoming, outgoing).catch(() => outgoing.destroy());
  }
}

const failed = (): Response =>
  new Response('Something went wrong here. It was noted; try again in a while.', {
    status: 500,
    headers: { 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': PRIVATE },
  });

async function answer(incoming: IncomingMessage, hungUp: AbortSignal): Promise<Response> {
  const { method = 'GET' } = incoming;
  // The platform knows no requests by these.
  if (method === 'TRACE' || method === 'CONNECT' || method === 'TRACK') return notTaken('GET, HEAD');
  const headers = new Headers();
  for (let at = 0; at + 1 < incoming.rawHeaders.length; at += 2) {
    const [name = '', value = ''] = incoming.rawHeaders.slice(at, at + 2);
    if (!name.startsWith(':')) headers.append(name, value);
  }
  // Who is asking can't be made up.
  headers.set('x-trivet-from', incoming.socket.remoteAddress ?? 'unknown');
  // A tag that was given for a packed body is of the same thing as the one without.
  const tags = headers.get('if-none-match');
  if (tags !== null) headers.set('if-none-match', tags.replaceAll(PACKED_TAG, '"'));
  const body = method === 'GET' || method === 'HEAD' ? null : bodyOf(incoming);
  const request = new Request(`http://localhost${pathOf(incoming)}`, {
    method,
    headers,
    signal: hungUp,
    ...(body && { body, duplex: 'half' }),
  });
  const trivet = await runningTrivet();
  // Whoever asks how the server is gets an answer whatever else it does.
  if (incoming.url === '/api/health') return siteResponse(trivet, request);
  await turn();
  return siteResponse(trivet, request);
}

let last: Promise<void> = Promise.resolve();

/**
 * When hundreds of requests come in the same moment, each begins in a turn of its own, and what came meanwhile is heard in
 * between.
 */
function turn(): Promise<void> {
  last = last.then(yieldToOthers);
  return last;
}

/** The path and query as they came; what can't be an address becomes one at which nothing is. */
function pathOf({ url = '/' }: IncomingMessage): string {
  const at = url.indexOf('?');
  const path = at < 0 ? url : url.slice(0, at);
  const readable = path.startsWith('/') && normaliseAddress(path) !== null;
  return (readable ? path.replace(/\/{2,}/g, '/') : '/%00') + (at < 0 ? '' : url.slice(at));
}

/**
 * A body as it arrives, no faster than it is read. One that takes too long is given up. Of one that nobody wants to the end
 * the rest is let run by, so that whoever sends it comes to read what is answered.
 */
function bodyOf(incoming: IncomingMessage): ReadableStream<Uint8Array> {
  const slow = setTimeout(() => incoming.destroy(), SLOWEST_BODY_MS);
  incoming.once('close', () => clearTimeout(slow)).once('end', () => clearTimeout(slow));
  let wanted = true;
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const last = (step: () => void) => () => {
        if (wanted) step();
        wanted = false;
      };
      incoming.on('data', (chunk: Buffer) => {
        if (!wanted) return;
        controller.enqueue(new Uint8Array(chunk));
        if ((controller.desiredSize ?? 0) <= 0) incoming.pause();
      });
      incoming.once(
        'end',
        last(() => controller.close()),
      );
      const broken = last(() => controller.error(new Error('The body was broken off.')));
      incoming.once('error', broken).once('close', broken);
    },
    pull: () => {
      incoming.resume();
    },
    cancel: () => {
      wanted = false;
      incoming.resume();
    },
  });
}

// The two names of one class: the browser's and Node's.
type WebStream = Parameters<typeof Readable.fromWeb>[0];

const PACKED_TAG = '-gz"';

async function write(response: Response, incoming: IncomingMessage, outgoing: ServerResponse): Promise<void> {
  const headers: Record<string, string | string[]> = { ...strictTransport() };
  for (const [name, value] of response.headers) if (name !== 'set-cookie') headers[name] = value;
  const cookies = response.headers.getSetCookie();
  if (cookies.length > 0) headers['set-cookie'] = cookies;
  // What is still being sent belongs to a request that has been answered.
  if (!incoming.complete) headers.connection = 'close';
  const head = incoming.method === 'HEAD';
  const bare = head || response.status === 304 || response.body === null;
  if (response.headers.has('content-length') || response.headers.has('accept-ranges')) {
    outgoing.writeHead(response.status, headers);
    if (bare || response.body === null) {
      await response.body?.cancel();
      outgoing.end();
    } else await pipeline(Readable.fromWeb(response.body as WebStream), outgoing);
    return;
  }
  const wanted = wantsPacked(incoming.headers['accept-encoding']);
  const type = response.headers.get('content-type');
  if (canPack(type) || response.status === 304) {
    headers.vary = 'Accept-Encoding';
    if (wanted && response.status === 304 && typeof headers.etag === 'string')
      headers.etag = packedTag(headers.etag, incoming.headers['if-none-match']);
  }
  let body = Buffer.from(await response.arrayBuffer());
  if (wanted && packs(type, body.length)) {
    body = await zip(body);
    headers['content-encoding'] = 'gzip';
    if (typeof headers.etag === 'string') headers.etag = headers.etag.replace(/"$/, PACKED_TAG);
  }
  // A 304 says nothing of how long what it stands for is.
  if (response.status !== 304) headers['content-length'] = String(body.length);
  outgoing.writeHead(response.status, headers);
  outgoing.end(bare ? undefined : body);
}

/** The tag of what somebody has already, as they had it. */
const packedTag = (etag: string, known: string | undefined): string => {
  const packed = etag.replace(/"$/, PACKED_TAG);
  return known?.includes(packed) ? packed : etag;
};
