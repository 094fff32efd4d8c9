/** Writing an answer to a socket: lengths, packing and its tags, HEAD, 304, streams no faster than they are read. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Answer, Packable } from './answer';
import { canPack, PACKED_TAG, packs, wantsPacked } from './packing';
import { strictTransport } from './response';

/** Writes an answer. Settles when it has been handed over, or for a stream when all of it has. */
export async function write(
  { status, headers, body }: Answer,
  incoming: IncomingMessage,
  outgoing: ServerResponse,
): Promise<void> {
  const told: Record<string, string | readonly string[] | number> = { ...headers, ...strictTransport() };
  // What is still being sent belongs to a request that has been answered.
  if (!incoming.complete) told.Connection = 'close';
  const head = incoming.method === 'HEAD';
  if (body instanceof ReadableStream) {
    outgoing.writeHead(status, told as Record<string, string>);
    await pipeline(Readable.fromWeb(body as WebStream), outgoing);
    return;
  }
  const wanted = wantsPacked(incoming.headers['accept-encoding']);
  const type = typeof headers['Content-Type'] === 'string' ? headers['Content-Type'] : null;
  const etag = typeof headers.ETag === 'string' ? headers.ETag : null;
  if (canPack(type) || status === 304) told.Vary = 'Accept-Encoding';
  // A 304 says nothing of how long what it stands for is.
  if (status === 304) {
    if (etag !== null && wanted) told.ETag = asKnown(etag, incoming.headers['if-none-match']);
    outgoing.writeHead(304, told as Record<string, string>).end();
    return;
  }
  let bytes = plainOf(body);
  if (wanted && packs(type, bytes.length)) {
    const packable = body instanceof Packable ? body : new Packable(bytes);
    bytes = packable.packed ?? (await packable.pack());
    told['Content-Encoding'] = 'gzip';
    if (etag !== null) told.ETag = packedTag(etag);
  }
  // A body that was left out because only its head was asked for has said how long it is.
  told['Content-Length'] ??= bytes.length;
  outgoing.writeHead(status, told as Record<string, string>);
  outgoing.end(head ? undefined : bytes);
}

// The two names of one class: the browser's and Node's.
type WebStream = Parameters<typeof Readable.fromWeb>[0];

const plainOf = (body: string | Uint8Array | Packable | null): Uint8Array =>
  body instanceof Packable ? body.plain : typeof body === 'string' ? Buffer.from(body) : (body ?? EMPTY);

const EMPTY = new Uint8Array();

const packedTag = (etag: string): string => etag.replace(/"$/, PACKED_TAG);

/** The tag of what somebody has already, as they had it. */
const asKnown = (etag: string, known: string | undefined): string =>
  known?.includes(packedTag(etag)) ? packedTag(etag) : etag;
