/** A request as doors read it. The platform's own requests are such; one from a socket costs less to make. */
import type { IncomingMessage } from 'node:http';
import { clientAddress } from './client-address';
import { PACKED_TAG } from './packing';

export interface SiteRequest {
  readonly method: string;
  /** Whole; of where it was sent to only the path and the query count. */
  readonly url: string;
  readonly headers: { readonly get: (name: string) => string | null };
  /** The body as it arrives, no faster than it is read; null where there is none. */
  readonly body: ReadableStream<Uint8Array> | null;
}

/** A path that is the same however it is read. */
const PLAIN = /^[\w/-]*$/;

/** The path of a request. Most are plain, and need no reading. */
export function pathOf({ url }: Pick<SiteRequest, 'url'>): string {
  const from = url.indexOf('/', url.indexOf('//') + 2);
  const query = url.indexOf('?', from);
  const path = query < 0 ? url.slice(from) : url.slice(from, query);
  return from > 0 && PLAIN.test(path) ? path : new URL(url).pathname;
}

/** How long the body of a form may take to arrive. */
const SLOWEST_BODY_MS = 30_000;

/** Where the network address stands that the server saw. What comes of that name from outside is not looked at. */
export const FROM = 'x-trivet-from';

/** A request from a socket, for a path with its query. */
export const requestFrom = (incoming: IncomingMessage, target: string): SiteRequest =>
  new SocketRequest(incoming, target);

class SocketRequest implements SiteRequest {
  readonly url: string;
  readonly headers: SiteRequest['headers'];
  #body: ReadableStream<Uint8Array> | null | undefined;

  constructor(
    private readonly incoming: IncomingMessage,
    target: string,
  ) {
    this.url = `http://localhost${target}`;
    this.headers = new SocketHeaders(incoming);
  }

  get method(): string {
    return this.incoming.method ?? 'GET';
  }

  get body(): ReadableStream<Uint8Array> | null {
    const { method } = this;
    this.#body ??= method === 'GET' || method === 'HEAD' ? null : bodyOf(this.incoming);
    return this.#body;
  }
}

class SocketHeaders {
  constructor(private readonly incoming: IncomingMessage) {}

  get(name: string): string | null {
    if (name === FROM) return clientAddress(this.incoming);
    const value = this.incoming.headers[name];
    if (value === undefined) return null;
    const text = typeof value === 'string' ? value : value.join(', ');
    // A tag that was given for a packed body is of the same thing as the one without.
    return name === 'if-none-match' ? text.replaceAll(PACKED_TAG, '"') : text;
  }
}

/**
 * A body as it arrives, no faster than it is read. One that takes too long is given up. Of one that nobody wants to the end
 * the rest is let run by, so that whoever sends it comes to read what is answered.
 */
function bodyOf(incoming: IncomingMessage): ReadableStream<Uint8Array> {
  const slow = setTimeout(() => incoming.destroy(), SLOWEST_BODY_MS);
  incoming.once('close', () => clearTimeout(slow)).once('end', () => clearTimeout(slow));
  let wanted = true;
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const last = (step: () => void) => () => {
        if (wanted) step();
        wanted = false;
      };
      incoming.on('data', (chunk: Buffer) => {
        if (!wanted) return;
        controller.enqueue(new Uint8Array(chunk));
        if ((controller.desiredSize ?? 0) <= 0) incoming.pause();
      });
      incoming.once(
        'end',
        last(() => controller.close()),
      );
      const broken = last(() => controller.error(new Error('The body was broken off.')));
      incoming.once('error', broken).once('close', broken);
    },
    pull: () => {
      incoming.resume();
    },
    cancel: () => {
      wanted = false;
      incoming.resume();
    },
  });
}
