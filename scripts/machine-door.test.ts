/** What is sent through the machine's own door comes to its end, however slowly it is read, and ends with whoever hangs up. */
import { once } from 'node:events';
import { type Readable, Writable } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import { pack } from 'tar-stream';
import { expect, it } from 'vitest';
import { pour } from './machine-door';

/** Takes everything at once, and a while to say that it has. */
class Slow extends Writable {
  taken = 0;
  override _write(piece: Buffer, _: string, done: () => void): void {
    this.taken += piece.length;
    done();
  }
  override _final(done: () => void): void {
    void (async () => {
      for (let turn = 0; turn < 20; turn++) await setImmediate();
      done();
    })();
  }
}

const tarOf = (bytes: number) => {
  const tar = pack();
  tar.entry({ name: 'a' }, Buffer.alloc(bytes));
  tar.finalize();
  return tar as unknown as Readable;
};

it('is sent to its end to whoever reads slowly', async () => {
  const to = new Slow();
  const ended = once(to, 'finish');
  const from = tarOf(100_000);
  pour(from, to);
  await once(from, 'close');
  expect(to.destroyed).toBe(false);
  await ended;
  expect(to.taken).toBeGreaterThan(100_000);
});

it('breaks off where it can’t be gone on with, and where nobody reads it any more', async () => {
  const [broken, away] = [new Slow(), new Slow()];
  const from = pack() as unknown as Readable;
  pour(from, broken);
  from.destroy(new Error('The disk is full.'));
  await once(broken, 'close');
  expect(broken.writableFinished).toBe(false);
  const unread = tarOf(100_000);
  pour(unread, away);
  away.destroy();
  await once(unread, 'close');
  expect(unread.destroyed).toBe(true);
});
