/** Behind a real proxy, with the configuration that the docs give: TLS, and each visitor by their own address. */
import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request as ask } from 'node:https';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, type OwnSite, ownSite } from './own-site';
import { expect, test } from './story';

interface Heard {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
}

/** nginx with the configuration of the docs, a certificate of its own and other ports. */
async function nginxBefore(
  site: number,
): Promise<{ readonly port: number; readonly stop: () => Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'trivet-nginx-'));
  const [port, plain] = [await freePort(), await freePort()];
  const at = (name: string) => join(folder, name);
  const certificate = `req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=localhost -keyout ${at('site.key')} -out ${at('site.pem')}`;
  execFileSync('openssl', certificate.split(' '), { stdio: 'ignore' });
  for (const name of ['body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']) mkdirSync(at(name));
  const server = readFileSync('docs/nginx.conf', 'utf8')
    .replace('listen 80;', `listen 127.0.0.1:${plain};`)
    .replace('listen 443 ssl;', `listen 127.0.0.1:${port} ssl;`)
    .replaceAll('site.example', 'localhost')
    .replace('/etc/ssl/site.pem', at('site.pem'))
    .replace('/etc/ssl/site.key', at('site.key'))
    .replace('127.0.0.1:3000', `127.0.0.1:${site}`);
  const paths = ['fastcgi', 'uwsgi', 'scgi', 'proxy'].map((one) => `${one}_temp_path ${at(one)};`).join('\n');
  writeFileSync(
    at('nginx.conf'),
    `daemon off;\npid ${at('pid')};\nerror_log stderr crit;\nworker_processes 1;\nevents {}\nhttp {\naccess_log off;\nclient_body_temp_path ${at('body')};\n${paths}\n${server}\n}\n`,
  );
  const nginx = spawn('/usr/sbin/nginx', ['-c', at('nginx.conf'), '-p', folder, '-e', 'stderr'], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  for (let open = false; !open; ) {
    const socket = connect(port, '127.0.0.1');
    open = await Promise.race([
      once(socket, 'connect').then(() => true),
      once(socket, 'error').then(() => false),
    ]).catch(() => false);
    socket.destroy();
    if (nginx.exitCode !== null) throw new Error('nginx does not start.');
  }
  return {
    port,
    stop: async () => {
      const ended = once(nginx, 'exit');
      nginx.kill('SIGTERM');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

test('two visitors behind nginx are two, and nobody is somebody else by what they send', async () => {
  test.setTimeout(120_000);
  const port = await freePort();
  const nginx = await nginxBefore(port);
  let site: OwnSite | null = null;
  const origin = `https://localhost:${nginx.port}`;
  /** Asks through nginx, from an address of this machine. */
  const from = (localAddress: string, path: string, form?: string, headers: object = {}) =>
    new Promise<Heard>((resolve, reject) => {
      const type = form === undefined ? {} : { 'content-type': 'application/x-www-form-urlencoded' };
      const all = { host: `localhost:${nginx.port}`, ...type, ...headers };
      const options = {
        localAddress,
        rejectUnauthorized: false,
        method: form === undefined ? 'GET' : 'POST',
      };
      const sent = ask(`https://127.0.0.1:${nginx.port}${path}`, { ...options, headers: all }, (answer) => {
        answer.resume();
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers }));
      });
      sent.on('error', reject);
      sent.end(form);
    });
  try {
    site = await ownSite({ PORT: String(port), TRIVET_URL: origin, TRIVET_PROXY: '127.0.0.1' });
    // A browser that says where it comes from alone begins the site, through the proxy.
    const fields = {
      title: 'Hazelbarn',
      timeZone: 'UTC',
      name: 'Una',
      email: 'una@hazel.example',
      password: 'under the stairs',
      with: 'empty',
    };
    const form = new FormData();
    for (const [name, value] of Object.entries(fields)) form.set(name, value);
    const whole = new Response(form);
    const type = whole.headers.get('content-type') ?? '';
    const body = await whole.text();
    const begin = new URL(site.begin ?? '').pathname;
    expect(site.begin).toContain(`${origin}/begin/`);
    const begun = await from('127.0.0.2', begin, body, {
      'content-type': type,
      origin,
    });
    expect([begun.status, begun.headers.location]).toEqual([303, '/desk']);
    expect(String(begun.headers['set-cookie'])).toContain('; Secure');
    expect(begun.headers['strict-transport-security']).toBeDefined();

    // One visitor guesses until they are told to wait; the other is not.
    const guess = (who: string, headers?: object) =>
      from(who, '/sign-in', 'email=una%40hazel.example&password=wrong', headers).then(({ status }) => status);
    let tries = 0;
    while ((await guess('127.0.0.2')) !== 429) {
      tries += 1;
      expect(tries).toBeLessThan(100);
    }
    // What they make up helps them to no other address.
    for (const headers of [
      { 'x-forwarded-for': '192.0.2.77' },
      { forwarded: 'for=192.0.2.77' },
      { 'x-forwarded-for': '127.0.0.1', forwarded: 'for=127.0.0.1' },
      { 'x-trivet-from': '192.0.2.77' },
      { 'x-real-ip': '192.0.2.77' },
    ])
      expect(await guess('127.0.0.2', headers)).toBe(429);
    const other = await from(
      '127.0.0.3',
      '/sign-up',
      'name=Bram&email=bram%40hazel.example&password=a+lamp+there',
    );
    expect(other.status).toBe(303);
    // Nor is the proxy gone round by whoever reaches the server itself.
    const direct = await fetch(`http://127.0.0.1:${port}/api/health`);
    expect(direct.status).toBe(200);
  } finally {
    await site?.stop();
    await nginx.stop();
  }
});
