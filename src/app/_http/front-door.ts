/**
 * Everything between a socket and the doors of the site. A request comes in as Node's HTTP parser read it (which answers what
 * is no HTTP by itself: RFC 9112, in its strict reading), is looked at once, and goes one of three ways: the framework's built
 * files from memory, the desk to the framework, and everything else to `siteAnswer`. So what is not a door is nowhere.
 */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import { normaliseAddress } from '@/core';
import { noteTrouble, type Trivet, yielder } from '@/services';
import { cutOff, isCurrent, keptAnswer, siteAnswer } from '../_doors';
import { notTaken } from '../_doors/page';
import type { Answer } from './answer';
import { type BuiltFile, serveBuilt } from './built-files';
import { clientAddress } from './client-address';
import { CrowdControl } from './crowd-control';
import { PRIVATE } from './response';
import { FROM, requestFrom } from './site-request';
import { hasBody, write, writeAtOnce } from './write';

/** Nothing is open for longer than a slow line needs. All in milliseconds. */
const TIMES = {
  /** Until the head of a request is there. */
  headersTimeout: 20_000,
  /** Until all of it is. */
  requestTimeout: 300_000,
  /** Between two requests. */
  keepAliveTimeout: 30_000,
  /** How often the first two are looked at. */
  connectionsCheckingInterval: 5000,
};
/** While nothing at all goes either way: whoever stopped reading in the middle of something. */
const SILENCE_MS = 120_000;
/** So many are answered before others are heard again. */
const MOST_AT_ONCE = 64;
/** How long what is being answered may go on when the server stops. */
const STOPPING_MS = 10_000;
/** How often it is looked then who has been answered: whose answer had begun before was promised that they may ask again. */
const LOOKING_MS = 50;

/** Told of a request, and who answers it: from the built files, at the desk, or the site. */
export type Watch = (
  of: 'built' | 'desk' | 'site',
  target: string,
  incoming: IncomingMessage,
  outgoing: ServerResponse,
) => void;

export interface FrontDoorOptions {
  /** Settles when the site is in memory; requests that come earlier wait for it. */
  readonly ready: () => Promise<Trivet>;
  /** The framework's built files by their addresses. */
  readonly built: () => ReadonlyMap<string, BuiltFile>;
  /** The framework, which answers the desk. */
  readonly desk: (incoming: IncomingMessage, outgoing: ServerResponse) => unknown;
  /** In development the framework speaks more than HTTP, and its files are its own. */
  readonly development?: {
    readonly upgrade: (incoming: IncomingMessage, socket: Socket, head: Buffer) => unknown;
  };
  /** Told of every request before it is answered. */
  readonly watch?: Watch;
  /** No more connections than one machine can look after. */
  readonly mostConnections?: number;
  /** How long a stream may go on while others have no room. In milliseconds. */
  readonly patienceMs?: number;
}

/** A request for the visitor's side, and where its answer goes. */
interface Asked {
  /** The path and the query. */
  readonly target: string;
  readonly incoming: IncomingMessage;
  readonly outgoing: ServerResponse;
}

export interface FrontDoor {
  readonly server: Server;
  /** Takes no more requests, and settles when those that are being answered are, or have had their time. */
  readonly stop: () => Promise<void>;
}

export function frontDoor({
  ready,
  built,
  desk,
  development,
  watch,
  mostConnections = 2000,
  patienceMs = 30_000,
}: FrontDoorOptions): FrontDoor {
  let trivet: Trivet | null = null;
  let stopping = false;
  const waiting = async () => {
    trivet ??= await ready();
    return trivet;
  };

  const asked: Asked[] = [];
  /** Answers those who asked in the same turn: first what was made before for all of them, then it is sent to each. */
  const answerAll = () => {
    const now = asked.splice(0, MOST_AT_ONCE);
    if (asked.length > 0) setImmediate(answerAll);
    const kept = now.map((one) => (trivet ? atOnce(trivet, one) : null));
    for (const [at, one] of now.entries()) {
      const answer = kept[at] ?? null;
      if (answer && isSent(answer, one)) continue;
      const { incoming, outgoing } = one;
      const answered = answer ?? answerTo(trivet ?? waiting(), one);
      void crowd.answers(incoming.socket, send(answered, incoming, outgoing, crowd));
    }
  };

  const server = createServer(TIMES, (incoming, outgoing) => {
    crowd.asks(incoming.socket);
    if (stopping) outgoing.setHeader('Connection', 'close');
    const target = targetOf(incoming);
    if (target === null) return refuse(outgoing);
    const path = pathIn(target);
    const file = built().get(path);
    if (file) {
      watch?.('built', target, incoming, outgoing);
      return serveBuilt(file, incoming, outgoing);
    }
    if (NEVER.has(incoming.method ?? '') || !isDesk(path, development !== undefined)) {
      // Whoever asks next, in this turn, is heard first. Work of one kind after the other takes half the time of work by turns:
      // what the processor had learnt of it is not forgotten at every step into the network and back.
      watch?.('site', target, incoming, outgoing);
      asked.push({ target, incoming, outgoing });
      if (asked.length === 1) setImmediate(answerAll);
      return;
    }
    watch?.('desk', target, incoming, outgoing);
    incoming.url = target;
    // Who is asking can't be made up: what comes of that name from outside is overwritten.
    incoming.headers[FROM] = clientAddress(incoming);
    // What takes long there says so in its own way, and is for administrators.
    incoming.socket.setTimeout(0);
    waiting()
      .then(async (site) => {
        if (!(await isCurrent(site))) return send(cutOff(site), incoming, outgoing, crowd);
        // Where there is no site there is nothing to be done at a desk.
        return site.hasSite
          ? desk(incoming, outgoing)
          : send(siteAnswer(site, requestFrom(incoming, target)), incoming, outgoing, crowd);
      })
      .catch((error: unknown) => {
        noteTrouble('A request failed.', error);
        outgoing.destroy();
      });
  });
  server.on('connection', () => {
    cameIn += 1;
  });
  server.setTimeout(SILENCE_MS);
  // Whoever has said all that they will say still waits for the answer (RFC 9112 §9.6).
  Object.assign(server, { httpAllowHalfOpen: true });
  const crowd = new CrowdControl(server, mostConnections, patienceMs);
  server.on('upgrade', (incoming, socket, head) => {
    if (development) return development.upgrade(incoming, socket as Socket, head);
    // Nothing here is spoken but HTTP; the framework would listen and never answer.
    socket.end(REFUSAL, () => socket.destroy());
  });

  return {
    server,
    stop: async () => {
      stopping = true;
      const closed = new Promise((resolve) => server.close(resolve));
      server.closeIdleConnections();
      const looking = setInterval(() => server.closeIdleConnections(), LOOKING_MS);
      const late = setTimeout(() => server.closeAllConnections(), STOPPING_MS);
      await closed;
      clearInterval(looking);
      clearTimeout(late);
    },
  };
}

const REFUSAL = 'HTTP/1.1 400 Bad Request\r\nConnection: close\r\nContent-Length: 0\r\n\r\n';

/** To a request that HTTP does not allow (RFC 9112 §3.2). */
function refuse(outgoing: ServerResponse): void {
  outgoing.writeHead(400, { Connection: 'close', 'Content-Length': 0 }).end();
}

/**
 * The path and query that a request is for, as they came; null for one that names two hosts. An absolute target is for the path
 * in it (RFC 9112 §3.2.2). What can't be an address becomes one at which nothing is.
 */
function targetOf({ url = '/', rawHeaders }: IncomingMessage): string | null {
  let hosts = 0;
  for (let at = 0; at < rawHeaders.length; at += 2)
    if (rawHeaders[at]?.length === 4 && rawHeaders[at]?.toLowerCase() === 'host') hosts += 1;
  if (hosts > 1) return null;
  if (url.startsWith('/')) return url;
  const [origin] = /^https?:\/\/[^/?#]*/i.exec(url) ?? [];
  if (origin === undefined) return NOWHERE;
  const own = url.slice(origin.length);
  return own.startsWith('/') ? own : `/${own}`;
}

/** A path at which nothing is, and nothing can be. */
const NOWHERE = '/%00';

const pathIn = (target: string): string => {
  const at = target.indexOf('?');
  return at < 0 ? target : target.slice(0, at);
};

/** Whether a request is the framework's to answer: the desk. What only begins like its address and leads elsewhere is the site's. */
export function isDesk(path: string, development = false): boolean {
  if (development && /^\/(_next|__next)/.test(path)) return true;
  if (path !== '/desk' && !path.startsWith('/desk/')) return false;
  return /^\/desk(\/|$)/.test(normaliseAddress(path) ?? '');
}

/** Sends what the visitor's side answers. Never throws: what goes wrong is logged, and answered in a sentence. */
async function send(
  answered: Answer | Promise<Answer>,
  incoming: IncomingMessage,
  outgoing: ServerResponse,
  crowd: CrowdControl,
): Promise<void> {
  try {
    const answer = await answered;
    const sending = write(answer, incoming, outgoing);
    await (answer.body instanceof ReadableStream ? crowd.streams(incoming.socket, sending) : sending);
  } catch (error) {
    // Whoever hung up wants no answer.
    if (outgoing.destroyed) return;
    noteTrouble('A request failed.', error);
    if (outgoing.headersSent) outgoing.destroy();
    else await write(FAILED, incoming, outgoing).catch(() => outgoing.destroy());
  }
}

const FAILED: Answer = {
  status: 500,
  headers: { 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': PRIVATE },
  body: 'Something went wrong here. It was noted; try again in a while.',
};

// Methods that ask for what nobody here gives.
const NEVER = new Set(['TRACE', 'CONNECT', 'TRACK']);

/** What is answered without any making; null for everything else, and where something went wrong. */
function atOnce(trivet: Trivet, { target, incoming }: Asked): Answer | null {
  if (hasBody(incoming)) return null;
  try {
    return keptAnswer(trivet, requestFrom(incoming, readable(target)));
  } catch (error) {
    noteTrouble('A request failed.', error);
    return null;
  }
}

/** Whether an answer could be sent without waiting for anything. */
function isSent(answer: Answer, { incoming, outgoing }: Asked): boolean {
  try {
    return writeAtOnce(answer, incoming, outgoing);
  } catch (error) {
    noteTrouble('A request failed.', error);
    outgoing.destroy();
    return true;
  }
}

async function answerTo(site: Trivet | Promise<Trivet>, { target, incoming }: Asked): Promise<Answer> {
  if (NEVER.has(incoming.method ?? '')) return notTaken('GET, HEAD');
  const trivet = await site;
  // Whoever asks how the server is gets an answer whatever else it does.
  if (target !== '/api/health') await turn();
  return siteAnswer(trivet, requestFrom(incoming, readable(target)));
}

/** So long answers are made without a pause, in milliseconds. */
const AT_ONCE_MS = 4;
/** So many who come in one after the other are let in before anybody else is answered. */
const MOST_LET_IN = 256;
/** How many have come in so far. */
let cameIn = 0;

/**
 * Visitors don't queue behind long works, nor outside: one that connects is let in with each turn of the event loop, so that
 * the last of two hundred would wait for as many pieces of work, whatever they ask for.
 */
async function letIn(): Promise<void> {
  for (let turns = 0; turns < MOST_LET_IN; turns++) {
    const before = cameIn;
    await new Promise((resolve) => setImmediate(resolve));
    if (cameIn === before) return;
  }
}

const rest = yielder(AT_ONCE_MS, letIn);
let last: Promise<unknown> = Promise.resolve();

/**
 * What has to be made is made one at a time: when hundreds ask in the same moment, what came meanwhile is heard in between.
 */
function turn(): Promise<unknown> {
  last = last.then(rest);
  return last;
}

/** A target that is an address; of one that can't be, the query at an address at which nothing is. */
function readable(target: string): string {
  const path = pathIn(target);
  if (normaliseAddress(path) === null) return NOWHERE + target.slice(path.length);
  return path.includes('//') ? path.replace(/\/{2,}/g, '/') + target.slice(path.length) : target;
}
