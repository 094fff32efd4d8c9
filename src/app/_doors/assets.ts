/**
 * What pages link to: the style sheet, the fonts, and the scripts of quizzes and videos, built with the application and the same for
 * everybody. Anything else under this address is nothing, like everywhere.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { coloursNamed } from '@/services';
import type { Answer } from '../_http/answer';
import type { Asking, Door } from './door';
import { missing } from './page';

const FOLDER = 'public/assets';
const TYPES: Readonly<Record<string, string>> = {
  css: 'text/css; charset=utf-8',
  js: 'text/javascript; charset=utf-8',
  woff2: 'font/woff2',
};

interface Asset {
  readonly type: string;
  readonly bytes: Uint8Array;
}

let built: ReadonlyMap<string, Asset> | undefined;

function assetsBuilt(): ReadonlyMap<string, Asset> {
  built ??= new Map(
    readdirSync(FOLDER).flatMap((name) => {
      const type = TYPES[name.split('.').at(-1) ?? ''];
      return type
        ? [[name, { type, bytes: new Uint8Array(readFileSync(`${FOLDER}/${name}`)) }] as const]
        : [];
    }),
  );
  return built;
}

const headersOf = (type: string) => ({
  'Content-Type': type,
  'X-Content-Type-Options': 'nosniff',
  // Style sheets and scripts are named by their content, and a font does not change.
  'Cache-Control': 'public, max-age=31536000, immutable',
});

/** One of them; null where there is none of that name. */
export function assetNamed(name: string): Answer | null {
  const asset = assetsBuilt().get(name);
  return asset
    ? {
        status: 200,
        headers: headersOf(asset.type),
        body: asset.bytes,
      }
    : null;
}

/** The site's own colours, while they are at this address. */
function coloursAnswer({ trivet }: Asking, name: string): Answer | null {
  const body = coloursNamed(trivet.state, `/assets/${name}`);
  return body === null ? null : { status: 200, headers: headersOf(TYPES.css ?? ''), body };
}

export const assets: Door = {
  GET: (ask) => {
    const [name = '', ...more] = ask.rest;
    if (more.length > 0 || ask.delivery.walk) return missing(ask);
    return assetNamed(name) ?? coloursAnswer(ask, name) ?? missing(ask);
  },
};
