/**
 * A bound on open connections that keeps nobody out: when there are too many, those go first that have not asked for anything
 * yet, then those that rest between two requests, then the stream that has gone on for longest. So ten thousand connections
 * that say nothing, or stopped reading, cost those who come no more than their own kind.
 */
import type { Server } from 'node:http';
import type { Socket } from 'node:net';

/** A stream that has gone on for so long may be given up for somebody else, in milliseconds: its reader can come back for the rest. */
const LONG_MS = 30_000;

export class CrowdControl {
  // Each in the order in which they came to be so.
  readonly #silent = new Set<Socket>();
  readonly #streams = new Map<Socket, number>();
  #open = 0;

  constructor(
    private readonly server: Server,
    private readonly most: number,
  ) {
    server.on('connection', (socket) => this.#came(socket));
  }

  /** A connection asks for something. */
  asks(socket: Socket): void {
    this.#silent.delete(socket);
  }

  /** It is sent a stream, until `streamed`. */
  streams(socket: Socket): void {
    this.#streams.set(socket, performance.now());
  }

  streamed(socket: Socket): void {
    this.#streams.delete(socket);
  }

  #came(socket: Socket): void {
    this.#open += 1;
    this.#silent.add(socket);
    socket.once('close', () => {
      this.#open -= 1;
      this.#silent.delete(socket);
      this.#streams.delete(socket);
    });
    if (this.#open <= this.most) return;
    const [silent] = this.#silent;
    if (silent !== undefined && silent !== socket) {
      this.#end(silent);
      return;
    }
    this.server.closeIdleConnections();
    // When those have gone that could.
    setImmediate(() => {
      if (this.#open <= this.most) return;
      const [longest] = this.#streams;
      const isLong = longest !== undefined && performance.now() - longest[1] > LONG_MS;
      this.#end(isLong ? longest[0] : socket);
    });
  }

  #end(socket: Socket): void {
    this.#silent.delete(socket);
    this.#streams.delete(socket);
    socket.destroy();
  }
}
