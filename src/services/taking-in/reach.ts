/**
 * Reading from the web for somebody at the desk: bounded in time and size, and nothing but what is on the public internet, so
 * that the desk is no way to look into the network that the server stands in.
 */
import { type LookupAddress, lookup } from 'node:dns';
import http, { type IncomingMessage } from 'node:http';
import https from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

export interface Fetched {
  readonly status: number;
  readonly type: string;
  readonly charset: string | null;
  readonly location: string | null;
  readonly bytes: Uint8Array;
}

/** Why something could not be had, as a sentence. */
export class Unreachable extends Error {}

const LONGEST_MS = 15_000;

const NOT_PUBLIC =
  'That is not on the public internet. Whoever runs the server can name it in TRIVET_TAKE_IN_FROM, and then it is read.';

/** Whether everybody could reach a network address (IANA special-purpose registries). */
const isPublic = (address: string): boolean =>
  ipaddr.isValid(address) && ipaddr.process(address).range() === 'unicast';

/** Looks a name up, and knows nothing of what is not public. */
const publicLookup: LookupFunction = (name, options, done) =>
  lookup(name, { ...options, all: true }, (error, found) => {
    if (error) return done(error, '', 0);
    const all = found as readonly LookupAddress[];
    const [first] = all;
    // If one of them is not, it is not known which is asked in the end.
    if (!first || !all.every(({ address }) => isPublic(address)))
      return done(new Unreachable(NOT_PUBLIC), '', 0);
    if (options.all) return done(null, [...all]);
    done(null, first.address, first.family);
  });

/** What reads from the web; `allowed` are hosts that may be anywhere. */
export interface Reach {
  get(url: URL, largest: number, signal: AbortSignal): Promise<Fetched>;
  close(): void;
}

/** Opens connections, a few at the same time, that are closed in the end. */
export function reach(allowed: readonly string[], atOnce: number): Reach {
  const agents = {
    'http:': new http.Agent({ keepAlive: true, maxSockets: atOnce }),
    'https:': new https.Agent({ keepAlive: true, maxSockets: atOnce }),
  };
  return {
    get: (url, largest, signal) => {
      const anywhere = allowed.includes(url.host) || allowed.includes(url.hostname);
      const literal = url.hostname.replace(/^\[|\]$/g, '');
      if (url.protocol !== 'http:' && url.protocol !== 'https:')
        return Promise.reject(new Unreachable('Only addresses with http or https are read.'));
      if (!anywhere && isIP(literal) !== 0 && !isPublic(literal))
        return Promise.reject(new Unreachable(NOT_PUBLIC));
      const { get } = url.protocol === 'https:' ? https : http;
      return new Promise((resolve, reject) => {
        const late = AbortSignal.timeout(LONGEST_MS);
        const request = get(
          url,
          {
            agent: agents[url.protocol as keyof typeof agents],
            headers: { 'User-Agent': 'Trivet', 'Accept-Encoding': 'identity' },
            signal: AbortSignal.any([signal, late]),
            ...(!anywhere && { lookup: publicLookup }),
          },
          (response) => void answerOf(response, largest).then(resolve, reject),
        );
        request.on('error', (error) =>
          reject(
            error instanceof Unreachable
              ? error
              : late.aborted
                ? new Unreachable(`It did not answer within ${LONGEST_MS / 1000} seconds.`)
                : new Unreachable(
                    `It can’t be reached (${(error as NodeJS.ErrnoException).code ?? 'no answer'}).`,
                  ),
          ),
        );
      });
    },
    close: () => {
      for (const agent of Object.values(agents)) agent.destroy();
    },
  };
}

function answerOf(response: IncomingMessage, largest: number): Promise<Fetched> {
  const { statusCode = 0, headers } = response;
  const type = headers['content-type'] ?? '';
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    let size = 0;
    response.on('data', (part: Buffer) => {
      size += part.length;
      if (size > largest) {
        reject(new Unreachable(`It is larger than ${largest / 1_000_000} MB.`));
        response.destroy();
        return;
      }
      parts.push(part);
    });
    response.on('error', () => reject(new Unreachable('The answer broke off.')));
    response.on('aborted', () => reject(new Unreachable('The answer broke off.')));
    response.on('end', () =>
      resolve({
        status: statusCode,
        type: type.split(';')[0]?.trim().toLowerCase() ?? '',
        charset: /charset\s*=\s*"?([\w-]+)/i.exec(type)?.[1] ?? null,
        location: headers.location ?? null,
        bytes: new Uint8Array(Buffer.concat(parts)),
      }),
    );
  });
}
