/**
 * The framework's own files (scripts, styles, fonts) as it built them: read once, packed once, answered from memory. Their
 * names change with what is in them, so browsers keep them for good.
 */
import { readdirSync, readFileSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { extname, join, relative } from 'node:path';
import { gzipSync } from 'node:zlib';
import { packs, wantsPacked } from './packing';
import { strictTransport } from './response';

const BUILT = '.next/static';

const TYPES: Readonly<Record<string, string>> = {
  '.js': 'text/javascript; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.map': 'application/json',
  '.woff2': 'font/woff2',
};

export interface BuiltFile {
  readonly type: string;
  readonly plain: Buffer;
  /** Null where packing gains nothing. */
  readonly packed: Buffer | null;
}

function read(file: string): BuiltFile {
  const type = TYPES[extname(file)] ?? 'text/plain; charset=utf-8';
  const plain = readFileSync(file);
  return { type, plain, packed: packs(type, plain.length) ? gzipSync(plain, { level: 9 }) : null };
}

let built: ReadonlyMap<string, BuiltFile> | undefined;

/** The files by their addresses. */
export function builtFiles(): ReadonlyMap<string, BuiltFile> {
  built ??= new Map(
    readdirSync(BUILT, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map(({ parentPath, name }) => join(parentPath, name))
      .map((file) => [`/_next/static/${relative(BUILT, file)}`, read(file)]),
  );
  return built;
}

/** Answers a request with one of the framework's files. */
export function serveBuilt(file: BuiltFile, incoming: IncomingMessage, outgoing: ServerResponse): void {
  const { method } = incoming;
  if (method !== 'GET' && method !== 'HEAD') {
    outgoing.writeHead(405, { Allow: 'GET, HEAD' }).end();
    return;
  }
  const packed = wantsPacked(incoming.headers['accept-encoding']) ? file.packed : null;
  const body = packed ?? file.plain;
  outgoing.writeHead(200, {
    ...strictTransport(),
    'Content-Type': file.type,
    'Content-Length': body.length,
    'Cache-Control': 'public, max-age=31536000, immutable',
    'X-Content-Type-Options': 'nosniff',
    ...(file.packed && { Vary: 'Accept-Encoding' }),
    ...(packed && { 'Content-Encoding': 'gzip' }),
  });
  outgoing.end(method === 'HEAD' ? undefined : body);
}
