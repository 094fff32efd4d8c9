/** Behind real proxies, with the configuration that the docs give: TLS, and each visitor by their own address. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request as ask } from 'node:https';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../scripts/free-port.mjs';
import { type OwnSite, ownSite } from './own-site';
import { expect, test } from './story';

interface Heard {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
}

/** A proxy that stands before a site. */
interface Proxy {
  readonly port: number;
  readonly stop: () => Promise<void>;
}

/** A proxy that runs in a folder of its own, with a certificate of its own; `start` writes its configuration and starts it. */
async function proxyBefore(
  name: string,
  start: (at: (file: string) => string, port: number, plain: number) => ChildProcess,
): Promise<Proxy> {
  const folder = mkdtempSync(join(tmpdir(), `trivet-${name}-`));
  const [port, plain] = [await freePort(), await freePort()];
  const at = (file: string) => join(folder, file);
  const certificate = `req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=localhost -addext subjectAltName=DNS:localhost -keyout ${at('site.key')} -out ${at('site.pem')}`;
  execFileSync('openssl', certificate.split(' '), { stdio: 'ignore' });
  const proxy = start(at, port, plain);
  for (let open = false; !open; ) {
    const socket = connect(port, '127.0.0.1');
    open = await Promise.race([
      once(socket, 'connect').then(() => true),
      once(socket, 'error').then(() => false),
    ]).catch(() => false);
    socket.destroy();
    if (proxy.exitCode !== null) throw new Error(`${name} does not start.`);
  }
  return {
    port,
    stop: async () => {
      const ended = once(proxy, 'exit');
      proxy.kill('SIGTERM');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** nginx with the configuration of the docs. */
const nginxBefore = (site: number): Promise<Proxy> =>
  proxyBefore('nginx', (at, port, plain) => {
    for (const name of ['body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']) mkdirSync(at(name));
    const server = readFileSync('docs/nginx.conf', 'utf8')
      .replace('listen 80;', `listen 127.0.0.1:${plain};`)
      .replace('listen 443 ssl;', `listen 127.0.0.1:${port} ssl;`)
      .replaceAll('site.example', 'localhost')
      .replace('/etc/ssl/site.pem', at('site.pem'))
      .replace('/etc/ssl/site.key', at('site.key'))
      .replace('127.0.0.1:3000', `127.0.0.1:${site}`);
    const paths = ['fastcgi', 'uwsgi', 'scgi', 'proxy']
      .map((one) => `${one}_temp_path ${at(one)};`)
      .join('\n');
    writeFileSync(
      at('nginx.conf'),
      `daemon off;\npid ${at('pid')};\nerror_log stderr crit;\nworker_processes 1;\nevents {}\nhttp {\naccess_log off;\nclient_body_temp_path ${at('body')};\n${paths}\n${server}\n}\n`,
    );
    return spawn('/usr/sbin/nginx', ['-c', at('nginx.conf'), '-p', at(''), '-e', 'stderr'], {
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  });

/** Caddy with the configuration of the docs, which leads nowhere else and listens on this machine alone. */
const caddyBefore = (site: number): Promise<Proxy> =>
  proxyBefore('caddy', (at, port) => {
    const server = readFileSync('docs/Caddyfile', 'utf8')
      .replace('site.example {', `localhost:${port} {\n\tbind 127.0.0.1`)
      .replace('/etc/ssl/site.pem', at('site.pem'))
      .replace('/etc/ssl/site.key', at('site.key'))
      .replace('127.0.0.1:3000', `127.0.0.1:${site}`);
    const alone = '{\n\tadmin off\n\tauto_https disable_redirects\n\tlog {\n\t\toutput discard\n\t}\n}\n';
    writeFileSync(at('Caddyfile'), alone + server);
    return spawn('/usr/bin/caddy', ['run', '--config', at('Caddyfile'), '--adapter', 'caddyfile'], {
      stdio: 'ignore',
      env: { ...process.env, HOME: at(''), XDG_DATA_HOME: at('data'), XDG_CONFIG_HOME: at('config') },
    });
  });

const PROXIES = [
  { name: 'nginx', before: nginxBefore },
  { name: 'Caddy', before: caddyBefore },
] as const;

for (const { name, before } of PROXIES)
  test(`two visitors behind ${name} are two, and nobody is somebody else by what they send`, async () => {
    test.setTimeout(120_000);
    const port = await freePort();
    const proxy = await before(port);
    let site: OwnSite | null = null;
    const origin = `https://localhost:${proxy.port}`;
    /** Asks through the proxy, from an address of this machine. */
    const from = (localAddress: string, path: string, form?: string, headers: object = {}) =>
      new Promise<Heard>((resolve, reject) => {
        const type = form === undefined ? {} : { 'content-type': 'application/x-www-form-urlencoded' };
        const all = { host: `localhost:${proxy.port}`, ...type, ...headers };
        const options = {
          localAddress,
          rejectUnauthorized: false,
          method: form === undefined ? 'GET' : 'POST',
        };
        const sent = ask(`https://127.0.0.1:${proxy.port}${path}`, { ...options, headers: all }, (answer) => {
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
        from(who, '/sign-in', 'email=una%40hazel.example&password=wrong', headers).then(
          ({ status }) => status,
        );
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
      await proxy.stop();
    }
  });
