/** What comes over a socket: as HTTP has it, and as nobody should send it. Everybody else is served meanwhile. */
import { once } from 'node:events';
import { request as ask, type IncomingMessage } from 'node:http';
import { type AddressInfo, connect, type Socket } from 'node:net';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { journalReport, leakCheck, type Trivet } from '@/services';
import { gretaAt, openLarkfell } from '@/services/testing';
import { insertItems, writeFileBytes } from '@/store';
import { type FrontDoor, frontDoor } from './front-door';
import { SESSION_COOKIE } from './session-cookie';

const LARGE = 10_000_000;

let trivet: Trivet;
const doors: FrontDoor[] = [];
const sockets: Socket[] = [];

beforeAll(async () => {
  trivet = await openLarkfell();
  const file = {
    ...{ id: 'large', parent: 'site', rank: 99, title: 'Large', published: true },
    ...{ kind: 'file', name: 'large.pdf', mediaType: 'application/pdf', size: LARGE },
  } as never;
  await insertItems(trivet.db, [{ item: file, content: { summary: '', body: '' } }]);
  await writeFileBytes(trivet.db, 'large' as never, Buffer.alloc(LARGE, 'x'));
  await trivet.reload();
});
afterEach(async () => {
  for (const socket of sockets.splice(0)) socket.destroy();
  await Promise.all(doors.splice(0).map((door) => door.stop()));
});
afterAll(() => trivet.close());

async function open(site: Trivet = trivet, limits: { mostConnections?: number; patienceMs?: number } = {}) {
  const door = frontDoor({
    ready: () => Promise.resolve(site),
    built: () => new Map(),
    desk: (_, outgoing) => outgoing.writeHead(200).end('the desk'),
    ...limits,
  });
  doors.push(door);
  door.server.listen(0, '127.0.0.1');
  await once(door.server, 'listening');
  return { door, port: (door.server.address() as AddressInfo).port };
}

/** A connection, and everything that it was sent. */
function dial(port: number) {
  const socket = connect({ port, host: '127.0.0.1' });
  sockets.push(socket);
  let said = '';
  socket.on('data', (part) => {
    said += part.toString('latin1');
  });
  const closed = new Promise<void>((resolve) => socket.once('close', () => resolve()));
  socket.on('error', () => undefined);
  return {
    socket,
    closed,
    said: () => said,
    /** Waits until it has been sent something that looks so. */
    hears: async (what: RegExp): Promise<string> => {
      while (!what.test(said) && !socket.destroyed) await Promise.race([once(socket, 'data'), closed]);
      expect(said).toMatch(what);
      return said;
    },
  };
}

const get = (path: string, more = '') => `GET ${path} HTTP/1.1\r\nHost: x\r\n${more}\r\n`;

/** What is answered before the line is closed. */
async function answerTo(text: string): Promise<string> {
  const { port } = await open();
  const line = dial(port);
  line.socket.write(text);
  await line.closed;
  return line.said();
}

interface Whole {
  readonly status: number | undefined;
  readonly headers: Readonly<Record<string, unknown>>;
  readonly body: Buffer;
}

const fetched = (
  port: number,
  path: string,
  method = 'GET',
  headers: Record<string, string> = {},
  sent?: string,
): Promise<Whole> =>
  new Promise((resolve, reject) => {
    const request = ask({ host: '127.0.0.1', port, path, method, headers }, (response: IncomingMessage) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () =>
        resolve({ status: response.statusCode, headers: response.headers, body: Buffer.concat(parts) }),
      );
    });
    request.on('error', reject).end(sent);
  });

describe('what HTTP does not allow', () => {
  it.each([
    ['two hosts', `GET /visit HTTP/1.1\r\nHost: a\r\nhost: b\r\n\r\n`, 400],
    ['no host', 'GET /visit HTTP/1.1\r\n\r\n', 400],
    [
      'two lengths of one body',
      'POST /sign-in HTTP/1.1\r\nHost: x\r\nContent-Length: 3\r\nTransfer-Encoding: chunked\r\n\r\n0\r\n\r\n',
      400,
    ],
    [
      'two lengths',
      'POST /sign-in HTTP/1.1\r\nHost: x\r\nContent-Length: 3\r\nContent-Length: 4\r\n\r\nabc',
      400,
    ],
    ['a head of 100 kB', get('/visit', `X: ${'x'.repeat(100_000)}\r\n`), 431],
    ['a header folded over two lines', get('/visit', 'X: a\r\n b\r\nConnection: close\r\n'), 400],
    ['something else', 'hello\r\n\r\n', 400],
  ])('is refused, and the line is closed: %s', async (_, text, status) => {
    expect(await answerTo(text)).toMatch(new RegExp(`^HTTP/1.1 ${status} `));
  });

  it('changes nobody’s mind about where a request is for', async () => {
    const close = 'Connection: close\r\n';
    for (const [target, status] of [
      ['http://x/visit', 200],
      ['HTTP://elsewhere.example/visit?a=b', 200],
      ['http://x', 200],
      ['http://x?a=b', 200],
      ['ftp://x/visit', 404],
      ['visit', 400],
    ] as const)
      expect([target, (await answerTo(get(target, close))).slice(9, 12)]).toEqual([target, String(status)]);
    expect(await answerTo(`OPTIONS * HTTP/1.1\r\nHost: x\r\n${close}\r\n`)).toMatch(
      /^HTTP\/1.1 405 .*\r\nAllow: GET, HEAD\r\n/s,
    );
  });
});

describe('one connection', () => {
  it('is answered in the order in which it asks, however much at once', async () => {
    const { port } = await open();
    const line = dial(port);
    const paths = ['/visit', '/never-there', '/api/health', '/join', '/visit'];
    line.socket.write(paths.map((path) => get(path)).join('') + get('/robots.txt', 'Connection: close\r\n'));
    await line.closed;
    const statuses = [...line.said().matchAll(/HTTP\/1.1 (\d+) /g)].map(([, status]) => status);
    expect(statuses).toEqual(['200', '404', '200', '200', '200', '200']);
    expect(line.said()).toMatch(
      /<h1>Visit us<.*<h1>There is nothing.*"ok":true.*<h1>Join us<.*<h1>Visit us<.*User-agent/s,
    );
  });

  it('is not listened to while it waits for many answers, and gets every one', async () => {
    const { port } = await open();
    const line = dial(port);
    // More than arrives in one piece.
    const many = 5000;
    line.socket.write(get('/search').repeat(many - 1) + get('/search', 'Connection: close\r\n'));
    expect((await fetched(port, '/visit')).status).toBe(200);
    await line.closed;
    expect(line.said().match(/HTTP\/1.1 200 /g)).toHaveLength(many);
  }, 60_000);

  it('is answered when it has said all that it will say', async () => {
    const { port } = await open();
    for (const path of ['/visit', '/search?q=night', '/files/large/large.pdf']) {
      const line = dial(port);
      line.socket.end(get(path));
      await line.closed;
      expect([path, /^HTTP\/1.1 200 .*(<\/html>|xxx)$/s.test(line.said())]).toEqual([path, true]);
    }
  });

  it('is closed after a body that nobody asked for, and reads none of it as a request', async () => {
    const { port } = await open();
    for (const path of ['/visit', '/visit', '/never-there', '/files/large/large.pdf']) {
      const line = dial(port);
      const body = get('/join');
      line.socket.write(`${get(path, `Content-Length: ${body.length}\r\n`)}${body}`);
      await line.closed;
      expect([path, line.said().match(/HTTP\/1.1 \d+ /g)?.length]).toEqual([path, 1]);
    }
  });

  it('is closed after an answer to a body that is still being sent', async () => {
    const { port } = await open();
    const line = dial(port);
    line.socket.write('POST /visit HTTP/1.1\r\nHost: x\r\nContent-Length: 900000\r\n\r\nhello');
    await line.hears(/^HTTP\/1.1 405 .*Connection: close/s);
    await line.closed;
  });
});

describe('everybody else', () => {
  it('is served while many connections say nothing', async () => {
    const { port } = await open(trivet, { mostConnections: 20 });
    const silent = Array.from({ length: 60 }, () => dial(port));
    await Promise.all(
      silent.map(({ socket }) => Promise.race([once(socket, 'connect'), once(socket, 'close')])),
    );
    for (let turn = 0; turn < 5; turn++) expect((await fetched(port, '/visit')).status).toBe(200);
    expect(silent.filter(({ socket }) => !socket.destroyed).length).toBeLessThanOrEqual(20);
  });

  it('is served while many connections rest', async () => {
    const { port } = await open(trivet, { mostConnections: 10 });
    const resting = Array.from({ length: 10 }, () => dial(port));
    for (const line of resting) {
      line.socket.write(get('/visit'));
      await line.hears(/<\/html>/);
    }
    expect((await fetched(port, '/visit')).status).toBe(200);
  });

  it('is let in before those are answered who came before', async () => {
    const busy = () => {
      const start = performance.now();
      while (performance.now() - start < 5);
    };
    // What is made takes its time.
    const slow = new Proxy(trivet, {
      get: (_, name) => {
        if (name === 'state') busy();
        const found: unknown = Reflect.get(trivet, name, trivet);
        return typeof found === 'function' ? found.bind(trivet) : found;
      },
    });
    const { port } = await open(slow);
    let answered = 0;
    const many = Array.from({ length: 60 }, async (_, at) => {
      const line = dial(port);
      line.socket.write(get(`/search?q=${at}`));
      await line.hears(/^HTTP/);
      answered += 1;
    });
    const late = dial(port);
    late.socket.write(get('/api/health'));
    await late.hears(/^HTTP\/1\.1 200/);
    expect(answered).toBeLessThan(many.length / 2);
    await Promise.all(many);
  });

  it('is served while many begin a request and don’t end it', async () => {
    const { port } = await open(trivet, { mostConnections: 10 });
    const slow = Array.from({ length: 10 }, () => dial(port));
    await Promise.all(slow.map(({ socket }) => once(socket, 'connect')));
    for (const { socket } of slow) socket.write('GET /visit HTTP/1.1\r\nHost: ');
    expect((await fetched(port, '/visit')).status).toBe(200);
  });

  it('is served while all lines are taken by those who stopped reading, if they do so for long', async () => {
    const { port } = await open(trivet, { mostConnections: 3, patienceMs: 0 });
    const stalled = Array.from({ length: 3 }, () => dial(port));
    for (const line of stalled) {
      line.socket.write(get('/files/large/large.pdf'));
      await line.hears(/Content-Length: 10000000/);
      line.socket.pause();
    }
    expect((await fetched(port, '/visit')).status).toBe(200);
    expect((await fetched(port, '/visit')).status).toBe(200);
  });

  it('is served while somebody stops reading in the middle of a large file', async () => {
    const { port } = await open();
    const line = dial(port);
    line.socket.write(get('/files/large/large.pdf'));
    await line.hears(/Content-Length: 10000000/);
    line.socket.pause();
    for (let turn = 0; turn < 3; turn++) expect((await fetched(port, '/visit')).status).toBe(200);
    // And whoever comes back to reading gets the rest.
    line.socket.resume();
    await line.hears(/x{1000}/);
    while (line.said().length < LARGE) await once(line.socket, 'data');
  });
});

it('tells the journal once of a request that is answered once, packed or not', async () => {
  const { port } = await open();
  const greta = await gretaAt(trivet);
  const counted = async () => {
    await trivet.journal.flush(trivet, new Date());
    const report = await journalReport(trivet, greta, 1, new Date());
    return report.entries.find(({ item }) => item === 'first-light')?.count ?? 0;
  };
  const before = await counted();
  for (const coding of ['identity', 'gzip', 'gzip'])
    expect(
      (await fetched(port, '/night-logs/first-light', 'GET', { 'accept-encoding': coding })).status,
    ).toBe(200);
  expect(await counted()).toBe(before + 3);
});

it('stops by ending what it has begun, and beginning nothing', async () => {
  const { door, port } = await open();
  const line = dial(port);
  const resting = dial(port);
  resting.socket.write(get('/visit'));
  await resting.hears(/<\/html>/);
  line.socket.write(get('/files/large/large.pdf'));
  await line.hears(/Content-Length: 10000000/);
  line.socket.pause();
  const cutOff = vi.spyOn(door.server, 'closeAllConnections');
  const stopped = door.stop();
  await resting.closed;
  await expect(fetched(port, '/visit')).rejects.toThrow('ECONNREFUSED');
  line.socket.resume();
  await stopped;
  await line.closed;
  expect(line.said().length).toBeGreaterThan(LARGE);
  // It had its end, and was not waited for until its time was over.
  expect(cutOff).not.toHaveBeenCalled();
});

it('sends a large file whole, in parts and not at all, as it is asked to', async () => {
  const { port } = await open();
  const path = '/files/large/large.pdf';
  for (let turn = 0; turn < 2; turn++) {
    const whole = await fetched(port, path);
    expect([
      whole.status,
      whole.headers['content-length'],
      whole.body.equals(Buffer.alloc(LARGE, 'x')),
    ]).toEqual([200, String(LARGE), true]);
  }
  const part = await fetched(port, path, 'GET', { range: 'bytes=262140-262150' });
  expect([part.status, part.headers['content-range'], part.body.toString()]).toEqual([
    206,
    `bytes 262140-262150/${LARGE}`,
    'x'.repeat(11),
  ]);
  const head = await fetched(port, path, 'HEAD');
  expect([head.status, head.headers['content-length'], head.body.length]).toEqual([200, String(LARGE), 0]);
  const known = await fetched(port, path, 'GET', { 'if-none-match': String(head.headers.etag) });
  expect([known.status, known.headers['content-length'], known.headers.etag]).toEqual([
    304,
    undefined,
    head.headers.etag,
  ]);
});

it('leaves the desk, and nothing that only begins like it, to the framework', async () => {
  const { port } = await open();
  for (const [path, desk] of [
    ['/desk', true],
    ['/desk/site', true],
    ['/desk/../visit', false],
    ['/desks', false],
    ['/DESK', false],
    ['http://elsewhere.example/desk', true],
  ] as const)
    expect([path, (await fetched(port, path)).body.toString() === 'the desk']).toEqual([path, desk]);
  expect((await fetched(port, '/desk', 'TRACE')).status).toBe(405);
});

describe('the framework’s way and the socket’s', () => {
  // What a socket adds, and what only a socket can know.
  const OWN = ['date', 'connection', 'keep-alive', 'content-length', 'vary', 'transfer-encoding'];
  const told = (headers: Readonly<Record<string, unknown>>) =>
    Object.fromEntries(Object.entries(headers).filter(([name]) => !OWN.includes(name)));

  it('are the same, byte for byte, over everything that the leak check asks for', async () => {
    const { GET, POST } = await import('../[[...address]]/route');
    const holder = globalThis as { __trivet?: Promise<Trivet> };
    const before = holder.__trivet;
    let asked = 0;
    let port: number | null = null;
    try {
      const report = await leakCheck({
        source: trivet.state,
        people: ['basil'] as never[],
        cookieName: SESSION_COOKIE,
        // A socket is answered now.
        now: new Date(),
        knock: async (copy, request) => {
          holder.__trivet = Promise.resolve(copy);
          port ??= (await open(copy)).port;
          const path = request.url.slice('http://localhost'.length);
          const headers = Object.fromEntries(request.headers);
          const other = await fetched(
            port,
            path,
            request.method,
            headers,
            request.method === 'POST' ? '' : undefined,
          );
          const response = await (request.method === 'POST' ? POST : GET)(request.clone());
          const body = Buffer.from(await response.clone().arrayBuffer());
          expect([path, other.status, told(other.headers)]).toEqual([
            path,
            response.status,
            told(Object.fromEntries(response.headers)),
          ]);
          if (!other.body.equals(body))
            expect([path, other.body.toString()]).toEqual([path, body.toString()]);
          asked += 1;
          return response;
        },
      });
      expect(report.leaked).toBe(0);
      expect(asked).toBeGreaterThan(600);
    } finally {
      if (before) holder.__trivet = before;
      else delete holder.__trivet;
    }
  }, 120_000);
});
