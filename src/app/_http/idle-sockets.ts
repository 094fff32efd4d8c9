/**
 * Which connections rest. When there are too many, the one that has rested for longest goes, so that ten thousand that say
 * nothing keep nobody out; and when none rests, the one whose answer has taken longest, if that is long.
 */
import type { Socket } from 'node:net';

/** An answer that has taken so long may be given up for somebody else, in milliseconds: there is a slow line at its end. */
const LONG_MS = 30_000;

export class IdleSockets {
  // Both in the order in which they came to be so.
  readonly #resting = new Set<Socket>();
  readonly #busy = new Map<Socket, number>();

  constructor(private readonly most: number) {}

  /** A new connection. */
  came(socket: Socket): void {
    socket.once('close', () => {
      this.#resting.delete(socket);
      this.#busy.delete(socket);
    });
    const full = this.#resting.size + this.#busy.size >= this.most;
    const goes = full ? this.#mostIdle() : null;
    if (full && goes === null) {
      socket.destroy();
      return;
    }
    goes?.destroy();
    this.#resting.add(socket);
  }

  /** A request begins. */
  busy(socket: Socket): void {
    this.#resting.delete(socket);
    this.#busy.set(socket, performance.now());
  }

  /** It has been answered. */
  rests(socket: Socket): void {
    if (!this.#busy.delete(socket) || socket.destroyed) return;
    this.#resting.add(socket);
  }

  #mostIdle(): Socket | null {
    const [resting] = this.#resting;
    if (resting) return this.#forget(resting);
    const [first] = this.#busy;
    return first && performance.now() - first[1] > LONG_MS ? this.#forget(first[0]) : null;
  }

  #forget(socket: Socket): Socket {
    this.#resting.delete(socket);
    this.#busy.delete(socket);
    return socket;
  }
}
