/** nginx before several processes of Trivet, with the configuration that the docs give. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

const NGINX = '/usr/sbin/nginx';

export const hasNginx = () => existsSync(NGINX);

/** Starts it in a folder of its own, on a port of this machine, before servers on others; answers the process. */
export function startBalancer(folder, port, ports) {
  const at = (name) => join(resolve(folder), name);
  mkdirSync(folder, { recursive: true });
  for (const name of ['body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']) mkdirSync(at(name), { recursive: true });
  const given = readFileSync('docs/nginx-several.conf', 'utf8');
  const line = (one) => `    server 127.0.0.1:${one} max_fails=1 fail_timeout=2s;\n`;
  const server = given
    .replace(/( {4}server 127\.0\.0\.1:\d+ [^\n]*\n)+/, ports.map(line).join(''))
    .replace('listen 80;', `listen 127.0.0.1:${port};`)
    .replace('server_name site.example;', 'server_name localhost;')
    // Where the port is not the usual one, it is part of the site’s address.
    .replace('Host $host;', 'Host $http_host;');
  const paths = ['fastcgi', 'uwsgi', 'scgi', 'proxy'].map((one) => `${one}_temp_path ${at(one)};`).join('\n');
  writeFileSync(
    at('nginx.conf'),
    `daemon off;\npid ${at('pid')};\nerror_log stderr crit;\nworker_processes 1;\nevents { worker_connections 1024; }\nhttp {\naccess_log off;\nclient_body_temp_path ${at('body')};\n${paths}\n${server}\n}\n`,
  );
  return spawn(NGINX, ['-c', at('nginx.conf'), '-p', at(''), '-e', 'stderr'], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}
