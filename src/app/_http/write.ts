/** Writing an answer to a socket: lengths, packing and its tags, HEAD, 304, streams no faster than they are read. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Answer, Packable } from './answer';
import { canPack, PACKED_TAG, packs, wantsPacked } from './packing';
import { strictTransport } from './response';

/** Writes an answer. Settles when it has been handed over, or for a stream when all of it has. */
export async function write(
  answer: Answer,
  incoming: IncomingMessage,
  outgoing: ServerResponse,
): Promise<void> {
  const { status, body } = answer;
  if (body instanceof ReadableStream) {
    outgoing.writeHead(status, closing(linesOf(answer, false, 0), incoming));
    await pipeline(Readable.fromWeb(body as WebStream), outgoing);
    return;
  }
  const whole = { ...answer, body: body instanceof Packable ? body : new Packable(body ?? '') };
  if (goesPacked(whole, whole.body, incoming)) await whole.body.pack();
  writeAtOnce(whole, incoming, outgoing);
}

// The two names of one class: the browser's and Node's.
type WebStream = Parameters<typeof Readable.fromWeb>[0];

/** The same, when nothing has to be waited for; false where it has, and nothing is written. */
export function writeAtOnce(answer: Answer, incoming: IncomingMessage, outgoing: ServerResponse): boolean {
  const { status, body } = answer;
  if (body !== null && !(body instanceof Packable)) return false;
  const packed = body !== null && goesPacked(answer, body, incoming);
  const bytes = packed ? body.packed : (body?.plain ?? EMPTY);
  if (bytes === null) return false;
  const lines =
    status === 304
      ? linesOf(answer, hasPacked(answer, incoming), 0)
      : keptLines(answer, packed, bytes.length);
  outgoing.writeHead(status, closing(lines, incoming));
  outgoing.end(incoming.method === 'HEAD' || bytes.length === 0 ? undefined : bytes);
  return true;
}

const EMPTY = new Uint8Array();

/** Whether a body goes out packed to whoever asks. */
const goesPacked = (answer: Answer, body: Packable, { headers }: IncomingMessage): boolean =>
  wantsPacked(headers['accept-encoding']) &&
  answer.status !== 304 &&
  packs(typeIn(answer), body.plain.length);

const typeIn = ({ headers }: Answer): string | null =>
  typeof headers['Content-Type'] === 'string' ? headers['Content-Type'] : null;

type Lines = readonly string[];

// What is sent over and over has its lines written once.
const written = { plain: new WeakMap<Answer, Lines>(), packed: new WeakMap<Answer, Lines>() };

function keptLines(answer: Answer, packed: boolean, length: number): Lines {
  const known = written[packed ? 'packed' : 'plain'];
  const found = known.get(answer);
  if (found) return found;
  const lines = linesOf(answer, packed, length);
  known.set(answer, lines);
  return lines;
}

/** The header's lines, names and values in turn; for a body of so many bytes. */
function linesOf(answer: Answer, packed: boolean, length: number): Lines {
  const { status, headers, body } = answer;
  const told: Record<string, string | readonly string[]> = { ...headers, ...strictTransport() };
  if (canPack(typeIn(answer)) || status === 304) told.Vary = 'Accept-Encoding';
  const etag = packed ? packedTagIn(answer) : null;
  if (etag !== null) told.ETag = etag;
  if (packed && status !== 304) told['Content-Encoding'] = 'gzip';
  // A 304 says nothing of how long what it stands for is. What is left out, because only its head was asked for, has said it.
  if (status !== 304 && !(body instanceof ReadableStream)) told['Content-Length'] ??= String(length);
  return Object.entries(told).flatMap(([name, value]) =>
    typeof value === 'string' ? [name, value] : value.flatMap((one) => [name, one]),
  );
}

/** What is still being sent, or what nobody reads, belongs to a request that has been answered. */
const closing = (lines: Lines, incoming: IncomingMessage): string[] =>
  leavesBody(incoming) ? [...lines, 'Connection', 'close'] : (lines as string[]);

const leavesBody = (incoming: IncomingMessage): boolean =>
  hasBody(incoming) && (!incoming.complete || incoming.method === 'GET' || incoming.method === 'HEAD');

/** Whether a request says that it has a body (RFC 9112 §6). */
export const hasBody = ({ headers }: IncomingMessage): boolean =>
  headers['transfer-encoding'] !== undefined || (headers['content-length'] ?? '0') !== '0';

const packedTagIn = ({ headers }: Answer): string | null =>
  typeof headers.ETag === 'string' ? headers.ETag.replace(/"$/, PACKED_TAG) : null;

/** Whether somebody has it already as it was packed, and would take it so. */
function hasPacked(answer: Answer, { headers }: IncomingMessage): boolean {
  const tag = packedTagIn(answer);
  return (
    tag !== null &&
    Boolean(headers['if-none-match']?.includes(tag)) &&
    wantsPacked(headers['accept-encoding'])
  );
}
