/**
 * A bound on open connections that keeps nobody out: when there are too many, those go first that have not asked for anything
 * yet, then those that rest between two requests, then the stream that has gone on for longest. So ten thousand connections
 * that say nothing, or stopped reading, cost those who come no more than their own kind.
 */
import type { Server } from 'node:http';
import type { Socket } from 'node:net';

/** So many requests of one connection may wait for their answers. */
const MOST_WAITING = 32;

export class CrowdControl {
  readonly #waiting = new WeakMap<Socket, number>();
  // Each in the order in which they came to be so.
  readonly #silent = new Set<Socket>();
  readonly #streams = new Map<Socket, number>();
  #open = 0;

  constructor(
    private readonly server: Server,
    private readonly most: number,
    /** A stream that has gone on for longer may be given up for somebody else: its reader can come back for the rest. */
    private readonly patienceMs: number,
  ) {
    server.on('connection', (socket) => this.#came(socket));
  }

  /** A connection asks for something. */
  asks(socket: Socket): void {
    this.#silent.delete(socket);
  }

  /** It waits for an answer. One that has asked for many at once is not listened to until it has some of them. */
  async answers(socket: Socket, answering: Promise<void>): Promise<void> {
    const before = this.#waiting.get(socket) ?? 0;
    this.#waiting.set(socket, before + 1);
    if (before + 1 === MOST_WAITING) socket.pause();
    await answering;
    const left = (this.#waiting.get(socket) ?? 1) - 1;
    this.#waiting.set(socket, left);
    if (left === MOST_WAITING - 1 && !socket.destroyed) socket.resume();
  }

  /** It is sent a stream, for as long as that takes. */
  async streams(socket: Socket, sending: Promise<void>): Promise<void> {
    this.#streams.set(socket, performance.now());
    try {
      await sending;
    } finally {
      this.#streams.delete(socket);
    }
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
    // A connection is counted until its end is heard of, which is after the turn that follows.
    setImmediate(() => setImmediate(() => this.#stillTooMany(socket)));
  }

  #stillTooMany(newest: Socket): void {
    if (this.#open <= this.most) return;
    const [longest] = this.#streams;
    const isLong = longest !== undefined && performance.now() - longest[1] > this.patienceMs;
    this.#end(isLong ? longest[0] : newest);
  }

  #end(socket: Socket): void {
    this.#silent.delete(socket);
    this.#streams.delete(socket);
    socket.destroy();
  }
}
