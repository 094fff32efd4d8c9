// @vitest-environment happy-dom
import { act, cleanup, render, screen } from '@testing-library/react';
import { Suspense } from 'react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

beforeEach(() => {
  vi.resetModules();
  vi.useFakeTimers();
  vi.stubGlobal('requestIdleCallback', (then: () => void) => setTimeout(then, 1));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const Part = () => <p>Here.</p>;
const pass = (ms: number) => act(async () => void (await vi.advanceTimersByTimeAsync(ms)));

it('is asked for again until it comes, and what is beside it stays', async () => {
  const { later } = await import('./later');
  const read = vi
    .fn<() => Promise<typeof Part>>()
    .mockRejectedValueOnce(new Error('no line'))
    .mockRejectedValueOnce(new Error('no line'))
    .mockResolvedValue(Part);
  const Lazy = later(read);
  await act(async () => {
    render(
      <>
        <p>Beside.</p>
        <Suspense fallback="On its way.">
          <Lazy />
        </Suspense>
      </>,
    );
  });
  expect(screen.getByText('On its way.')).toBeTruthy();
  await pass(2000);
  expect(screen.queryByText('Here.')).toBeNull();
  await pass(2000);
  expect(screen.getByText('Here.')).toBeTruthy();
  expect(screen.getByText('Beside.')).toBeTruthy();
  expect(read).toHaveBeenCalledTimes(3);
});

it('is read while nobody waits, one after the other, whether or not the one before came', async () => {
  const { later, readTheRest } = await import('./later');
  const order: string[] = [];
  const reading = (name: string, fails = false) =>
    later(async () => {
      order.push(name);
      if (fails) throw new Error('no line');
      return Part;
    });
  reading('first', true);
  reading('second');
  const done = readTheRest();
  await pass(10);
  await done;
  expect(order).toEqual(['first', 'second']);
});
