import { expect, it } from 'vitest';
import { Busy, isBusy, lane } from './lane';

it('lets so many go at once, so many wait, and tells the rest', async () => {
  const inLane = lane(2, 3);
  const ends: (() => void)[] = [];
  let going = 0;
  let most = 0;
  const work = () =>
    inLane(async () => {
      going += 1;
      most = Math.max(most, going);
      await new Promise<void>((resolve) => ends.push(resolve));
      going -= 1;
    });
  const all = Array.from({ length: 7 }, () =>
    work().then(
      () => 'done',
      (error: unknown) => error instanceof Busy && 'busy',
    ),
  );
  for (let n = 0; n < 5; n++) {
    while (ends.length === 0) await new Promise((resolve) => setImmediate(resolve));
    ends.shift()?.();
  }
  expect(await Promise.all(all)).toEqual(['done', 'done', 'done', 'done', 'done', 'busy', 'busy']);
  expect(most).toBe(2);
});

it('goes on after work that failed', async () => {
  const inLane = lane(1, 1);
  await expect(inLane(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
  expect(await inLane(async () => 'yes')).toBe('yes');
});

it('is told from other trouble, also where others had the site for too long', () => {
  expect(isBusy(new Busy())).toBe(true);
  // PostgreSQL’s code for a lock that was waited for in vain.
  expect(isBusy(Object.assign(new Error('canceling statement due to lock timeout'), { code: '55P03' }))).toBe(
    true,
  );
  expect(isBusy(new Error('Something else'))).toBe(false);
});
