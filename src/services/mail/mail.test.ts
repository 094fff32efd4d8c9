/** Letters over SMTP, to a real server: one that takes them, and ones that refuse, hang, drop the line and ask for patience. */
import { once } from 'node:events';
import { type AddressInfo, createServer, type Server } from 'node:net';
import { SMTPServer, type SMTPServerOptions } from 'smtp-server';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { putIntoOutbox } from '@/store';
import { type Administrator, latestMail, sendFromOutbox, type Trivet } from '..';
import { gretaAt, later, now, openLarkfell } from '../testing';
import { asHtml, messageOf } from './letter';
import { type Mailer, mailerAt } from './mailer';
import { tendMail } from './tend-mail';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});

const closing: (() => Promise<unknown> | unknown)[] = [];
afterEach(async () => {
  for (const close of closing.splice(0).toReversed()) await close();
  await trivet.close();
});

interface Taken {
  readonly to: readonly string[];
  readonly from: string;
  readonly message: string;
}

/** A mail server that takes everything, but for what it is told to do otherwise. */
async function mailServer(options: SMTPServerOptions = {}) {
  const taken: Taken[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData: (stream, session, callback) => {
      let message = '';
      stream.on('data', (part) => {
        message += String(part);
      });
      stream.on('end', () => {
        const { mailFrom, rcptTo } = session.envelope;
        taken.push({
          from: mailFrom === false ? '' : mailFrom.address,
          to: rcptTo.map(({ address }) => address),
          message,
        });
        callback();
      });
    },
    ...options,
  });
  server.on('error', () => undefined);
  server.listen(0, '127.0.0.1');
  await once(server.server, 'listening');
  closing.push(() => new Promise<void>((resolve) => server.close(() => resolve())));
  return { taken, port: (server.server.address() as AddressInfo).port };
}

/** A server that speaks as it likes. */
async function lineServer(speak: (server: Server) => void): Promise<number> {
  const server = createServer();
  speak(server);
  const sockets = new Set<{ destroy: () => void }>();
  server.on('connection', (socket) => sockets.add(socket.on('error', () => undefined)));
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  closing.push(() => {
    for (const socket of sockets) socket.destroy();
    return new Promise<void>((resolve) => server.close(() => resolve()));
  });
  return (server.address() as AddressInfo).port;
}

/** For servers that hang. Whoever answers has the time that it takes, on a machine that has other things to do as well. */
const LITTLE = { connect: 300, answer: 300 };

function postTo(port: number, account = '', patience?: typeof LITTLE) {
  const mailer: Mailer = mailerAt(`smtp://${account}127.0.0.1:${port}`, patience);
  closing.push(() => mailer.close());
  return { mailer, from: 'site@larkfell.example' };
}

const write = (over: Partial<Parameters<typeof putIntoOutbox>[1]> = {}) =>
  putIntoOutbox(trivet.db, {
    to: 'marek@larkfell.example',
    subject: 'Your night, and ours',
    text: 'Come up at nine.\n\nThe way: https://larkfell.example/visit.',
    at: now,
    ...over,
  });
const letters = async () => (await latestMail(trivet, greta)).letters;
const tend = (post: ReturnType<typeof postTo> | null, at = now) => tendMail(trivet, post, () => at);

describe('a letter', () => {
  it('goes to who it is for, once, as text and as HTML, from the site, and says that no person wrote it', async () => {
    const { taken, port } = await mailServer();
    const post = postTo(port);
    await write({ replyTo: 'nell@arden.example' });
    expect(await tend(post)).toBe(1);
    expect(await tend(post)).toBe(0);
    expect(taken).toHaveLength(1);
    expect(taken[0]).toMatchObject({ to: ['marek@larkfell.example'], from: 'site@larkfell.example' });
    const message = taken[0]?.message ?? '';
    for (const line of [
      /^From: Larkfell Observatory <site@larkfell\.example>\r$/m,
      /^To: marek@larkfell\.example\r$/m,
      /^Reply-To: nell@arden\.example\r$/m,
      /^Subject: Your night, and ours\r$/m,
      /^Auto-Submitted: auto-generated\r$/m,
      /^Message-ID: <\d+\.[0-9a-f]{16}@larkfell\.example>\r$/m,
      /^Date: .*\r$/m,
      /^MIME-Version: 1\.0\r$/m,
      /^Content-Type: multipart\/alternative;/m,
      /^Content-Type: text\/plain; charset=utf-8\r$/m,
      /^Content-Type: text\/html; charset=utf-8\r$/m,
    ])
      expect(message).toMatch(line);
    expect((await letters())[0]).toMatchObject({ state: 'sent', tries: 1, sentAt: now, problem: '' });
  });

  it('has the same name at every try, and two sites never the same', () => {
    const letter = {
      id: 7,
      at: now,
      to: 'a@b.example',
      replyTo: null,
      subject: 'A\r\nBcc: c@d.example',
      text: '',
    };
    const sender = { name: 'Larkfell', address: 'site@larkfell.example', mark: 'm', language: 'en' };
    const message = messageOf(letter, sender);
    expect(message.messageId).toBe(messageOf(letter, sender).messageId);
    expect(message.messageId).not.toBe(messageOf(letter, { ...sender, mark: 'n' }).messageId);
    // Nothing in a subject makes another line of the head.
    expect(message.subject).toBe('A Bcc: c@d.example');
  });

  it('as HTML is its text and nothing else', () => {
    const html = asHtml(
      'Hello <script>alert("1")</script>\n& more\n\nSee https://a.example/b?c=1&d="2", or (https://a.example/x).',
      'de',
    );
    expect(html).toContain('<html lang="de">');
    expect(html).not.toContain('<script');
    expect(html).toContain('<br>&amp; more</p>');
    expect(html).toContain(
      '<a href="https://a.example/b?c=1&amp;d=">https://a.example/b?c=1&amp;d=</a>&quot;2&quot;, or (',
    );
    expect(html).toContain('>https://a.example/x</a>).');
  });

  it('names no second mailbox, whatever was typed', async () => {
    const { taken, port } = await mailServer();
    await write({ to: 'a@b.example', replyTo: 'x,c@d.example' });
    await tend(postTo(port));
    expect(taken[0]?.to).toEqual(['a@b.example']);
  });
});

describe('what the mail server does', () => {
  it('refuses the mailbox for good: it is said, and not tried again until somebody asks', async () => {
    const { taken, port } = await mailServer({
      onRcptTo: (_, __, callback) =>
        callback(Object.assign(new Error('There is no such mailbox'), { responseCode: 550 })),
    });
    const post = postTo(port);
    await write();
    await tend(post);
    const [letter] = await letters();
    expect(letter).toMatchObject({ state: 'failed', problem: expect.stringContaining('no such mailbox') });
    expect(await tend(post, later(60 * 24))).toBe(0);
    expect(await sendFromOutbox(trivet, greta, { kind: 'again', id: letter?.id }, later(5))).toBeNull();
    expect(await tend(post, later(5))).toBe(1);
    expect(taken).toEqual([]);
  });

  it('asks for patience (greylisting): it is tried again, later each time, and goes through', async () => {
    let asked = 0;
    const { taken, port } = await mailServer({
      onRcptTo: (_, __, callback) =>
        callback(
          ++asked < 3 ? Object.assign(new Error('Come back later'), { responseCode: 450 }) : undefined,
        ),
    });
    const post = postTo(port);
    await write();
    expect(await tend(post)).toBe(1);
    expect((await letters())[0]).toMatchObject({ state: 'waiting', tries: 1, nextTry: later(1) });
    expect(await tend(post, later(0.9))).toBe(0);
    expect(await tend(post, later(1))).toBe(1);
    expect((await letters())[0]).toMatchObject({ tries: 2, nextTry: later(6) });
    expect(await tend(post, later(6))).toBe(1);
    expect([taken.length, (await letters())[0]?.state]).toEqual([1, 'sent']);
  });

  it('hangs, drops the line, is away, speaks something else, or does not know us: all of it is waited out', async () => {
    const hangs = await lineServer(() => undefined);
    const drops = await lineServer((server) => server.on('connection', (socket) => socket.destroy()));
    const stops = await lineServer((server) =>
      server.on('connection', (socket) => {
        socket.write('220 mail\r\n');
        socket.once('data', () => socket.write('250 mail\r\n'));
      }),
    );
    const speaks = await lineServer((server) =>
      server.on('connection', (socket) => socket.end('HTTP/1.1 400 Bad Request\r\n\r\n')),
    );
    const gone = await lineServer(() => undefined);
    await closing.pop()?.();
    const { port: strict } = await mailServer({
      authOptional: false,
      allowInsecureAuth: true,
      onAuth: (_, __, callback) => callback(new Error('Wrong password')),
    });
    for (const [port, account] of [
      [hangs, ''],
      [drops, ''],
      [stops, ''],
      [speaks, ''],
      [gone, ''],
      [strict, 'site:wrong@'],
    ] as const) {
      await write();
      await tend(postTo(port, account, LITTLE));
      const [letter] = await letters();
      expect(letter).toMatchObject({ state: 'waiting', tries: 1, nextTry: later(1) });
      expect(letter?.problem).not.toBe('');
      expect(letter?.problem).not.toContain('wrong@');
    }
  }, 30_000);

  it('never comes back: after about three days that is said', async () => {
    const post = postTo(await lineServer((server) => server.on('connection', (socket) => socket.destroy())));
    await write();
    let days = 0;
    for (let tries = 0; tries < 20; tries++) {
      const [letter] = await letters();
      if (letter?.state !== 'waiting') break;
      days = (letter.nextTry.getTime() - now.getTime()) / (24 * 60 * 60_000);
      await tend(post, letter.nextTry);
    }
    expect((await letters())[0]?.state).toBe('failed');
    expect(days).toBeGreaterThan(2.5);
    expect(days).toBeLessThan(4);
  }, 30_000);
});

describe('the outbox', () => {
  it('without a mail server keeps letters; one that is set up later sends only what is asked for', async () => {
    const { taken, port } = await mailServer();
    const post = postTo(port);
    await write();
    await tend(null);
    expect((await letters())[0]?.state).toBe('kept');
    expect(await tend(post, later(60))).toBe(0);
    await sendFromOutbox(trivet, greta, { kind: 'again', id: (await letters())[0]?.id }, later(60));
    await tend(post, later(60));
    expect(taken).toHaveLength(1);
  });

  it('sends nothing that would come too late to be of use', async () => {
    const { taken, port } = await mailServer();
    await write({ goodUntil: later(15) });
    await tend(postTo(port), later(16));
    expect(taken).toEqual([]);
    expect((await letters())[0]).toMatchObject({
      state: 'failed',
      problem: expect.stringContaining('too late'),
    });
  });

  it('of several that look after it at once, one sends each letter', async () => {
    const { taken, port } = await mailServer();
    const posts = [postTo(port), postTo(port), postTo(port)];
    for (let at = 0; at < 30; at++) await write({ to: `p${at}@larkfell.example` });
    let tried = 0;
    while (tried < 30) for (const count of await Promise.all(posts.map((post) => tend(post)))) tried += count;
    expect(taken.map(({ to }) => to[0]).sort()).toEqual(
      Array.from({ length: 30 }, (_, at) => `p${at}@larkfell.example`).sort(),
    );
  });

  it('tries a letter again whose sender was killed, once its lease is over', async () => {
    const { taken, port } = await mailServer();
    await write();
    const killed = {
      mailer: { send: () => new Promise<never>(() => undefined), close: () => undefined },
      from: 'x@y.example',
    };
    void tendMail(trivet, killed, () => now);
    const post = postTo(port);
    while ((await letters())[0]?.tries === 0);
    expect(await tend(post, later(14))).toBe(0);
    expect(await tend(post, later(16))).toBe(1);
    expect(taken).toHaveLength(1);
  });

  it('writes one to whoever asks, and knows no letter that is not there', async () => {
    expect(await sendFromOutbox(trivet, greta, { kind: 'try' }, now)).toBeNull();
    expect((await letters())[0]).toMatchObject({ to: greta.email, state: 'waiting' });
    expect(await sendFromOutbox(trivet, greta, { kind: 'again', id: 4711 }, now)).toBe(
      'That letter is not here.',
    );
    expect(await sendFromOutbox(trivet, greta, { kind: 'burn' }, now)).toBe(
      'Say which letter is to be sent.',
    );
  });
});
