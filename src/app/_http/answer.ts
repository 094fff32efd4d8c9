/**
 * What the site answers, before it goes out: plain values, which cost nothing to make. `front-door.ts` writes them to a socket;
 * for whoever speaks in the platform's requests and responses (tests, the leak check, the framework) `toResponse` makes one.
 */
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';

const zip = promisify(gzip);

export interface Answer {
  readonly status: number;
  readonly headers: Headers;
  readonly body: Body;
}

/** Header fields by their names, each spelt the one way that it is spelt here. A list goes out as a line for each. */
export type Headers = Readonly<Record<string, string | readonly string[]>>;

/** A stream is sent as it comes; of everything else the length is known. */
export type Body = string | Uint8Array | Packable | ReadableStream<Uint8Array> | null;

/** Bytes that are sent more than once: packed when somebody first wants them so, and then no more. */
export class Packable {
  readonly plain: Buffer;
  /** Known once somebody wanted them so. */
  packed: Buffer | null = null;

  constructor(of: string | Uint8Array) {
    this.plain = typeof of === 'string' ? Buffer.from(of) : Buffer.from(of.buffer, of.byteOffset, of.length);
  }

  async pack(): Promise<Buffer> {
    this.packed ??= await zip(this.plain);
    return this.packed;
  }
}

/** A body that is text; null for what is none, or is not at hand. */
export const textOf = ({ body }: Answer): string | null =>
  typeof body === 'string' ? body : body instanceof Packable ? body.plain.toString() : null;

/** The same as a response of the platform's. */
export function toResponse({ status, headers, body }: Answer): Response {
  const told = new globalThis.Headers();
  for (const [name, value] of Object.entries(headers))
    for (const one of typeof value === 'string' ? [value] : value) told.append(name, one);
  const bytes = body instanceof Packable ? body.plain : body;
  return new Response(bytes as BodyInit | null, { status, headers: told });
}
