// @vitest-environment happy-dom
import { renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import { byTheClock } from './testing';
import { useAnswer } from './use-answer';

const asking = () =>
  renderHook(({ question }) => useAnswer<string>('kinds', question), { initialProps: { question: 'one' } });
const { pass, asked, only, answered, answer } = byTheClock();

it('asks a moment later, and keeps the last answer until there is another', async () => {
  const { result, rerender } = asking();
  expect(result.current).toBeNull();
  await pass(200);
  expect(only()).toMatchObject({ method: 'POST', path: 'kinds', body: 'one' });
  await answer('first');
  rerender({ question: 'two' });
  await pass(200);
  expect(result.current).toMatchObject({ value: 'first' });
  await answer('second');
  expect(result.current).toMatchObject({ value: 'second' });
});

it('asks again where the server can’t be reached, and says so meanwhile; a refusal is an answer', async () => {
  const { result } = asking();
  await pass(200);
  await answered((one) => one.fail());
  expect(result.current).toMatchObject({ ok: false, status: 0 });
  expect(asked()).toEqual([]);
  await pass(5000);
  await answered((one) => one.fail());
  await pass(5000);
  await answer({ title: 'Not for you.' }, 403);
  expect(result.current).toMatchObject({ ok: false, status: 403, title: 'Not for you.' });
  await pass(60_000);
  expect(asked()).toEqual([]);
});

it('does not ask again what is not asked any more', async () => {
  const { rerender, unmount } = asking();
  await pass(200);
  await answered((one) => one.fail());
  rerender({ question: 'two' });
  await pass(10_000);
  expect(only().body).toBe('two');
  await answered((one) => one.fail());
  unmount();
  await pass(10_000);
  expect(asked()).toEqual([]);
});
