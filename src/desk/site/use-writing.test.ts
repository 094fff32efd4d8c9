// @vitest-environment happy-dom
import { act, cleanup, renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Document } from '@/services';
import { byTheClock, titled } from '../testing';
import { useWriting } from './use-writing';

const live = titled('Visit us');

const { pass, asked, only, answered, answer } = byTheClock();

/** Visit us, opened for writing. */
async function open(draft: { document: Document; version: number; by: string; at: string } | null = null) {
  const hook = renderHook(() => useWriting('visit'));
  expect(only()).toMatchObject({ method: 'GET', path: 'items/visit' });
  await answer({ id: 'visit', kind: 'page', live, version: 4, draft });
  return { ...hook, writing: hook.result };
}
type Opened = Awaited<ReturnType<typeof open>>['writing'];
const type = (writing: Opened, title: string) => act(async () => writing.current.change(titled(title)));

it('begins with what is kept, or with what is on the site', async () => {
  const { writing } = await open();
  expect(writing.current).toMatchObject({ document: live, drafted: false, keeping: 'kept' });
  cleanup();
  const kept = { document: titled('Come'), version: 2, by: 'Greta', at: '' };
  expect((await open(kept)).writing.current).toMatchObject({ document: kept.document, drafted: true });
});

it('keeps what is written half a second after the last letter', async () => {
  const { writing } = await open();
  await type(writing, 'C');
  await pass(400);
  await type(writing, 'Co');
  expect(writing.current.keeping).toBe('keeping');
  await pass(400);
  expect(asked()).toEqual([]);
  await pass(100);
  expect(only()).toMatchObject({
    method: 'PUT',
    path: 'items/visit/draft',
    body: { version: 0, document: titled('Co') },
  });
  await answer({ version: 1 });
  expect(writing.current).toMatchObject({ keeping: 'kept', drafted: true });
});

it('goes on keeping what was written while it was kept, based on that', async () => {
  const { writing } = await open();
  await type(writing, 'C');
  await pass(500);
  await type(writing, 'Co');
  await answer({ version: 1 });
  expect(writing.current.keeping).toBe('keeping');
  await pass(500);
  expect(only().body).toEqual({ version: 1, document: titled('Co') });
});

it('tries again while the server can’t be reached, and loses nothing', async () => {
  const { writing } = await open();
  await type(writing, 'Come');
  await pass(500);
  await answered((one) => one.fail());
  expect(writing.current).toMatchObject({ keeping: 'not kept', document: titled('Come') });
  await pass(3000);
  expect(only().body).toMatchObject({ document: titled('Come') });
  await answer({ version: 1 });
  expect(writing.current).toMatchObject({ keeping: 'kept', problem: null });
});

/** Ines was quicker: hers comes back. */
async function late(writing: Opened) {
  const theirs = { document: titled('Theirs'), version: 3, by: 'Ines', at: '' };
  await type(writing, 'Mine');
  await pass(500);
  await answer({ title: 'Late.', draft: theirs }, 409);
  await answer({ id: 'visit', kind: 'page', live, version: 5, draft: theirs });
  expect(writing.current.theirs).toEqual(theirs);
  expect(writing.current.document).toEqual(titled('Mine'));
  return theirs;
}

it('shows both versions when somebody was quicker, and keeps mine over theirs when told to', async () => {
  const { writing } = await open();
  await late(writing);
  await act(async () => writing.current.settle('mine'));
  expect(only().body).toEqual({ version: 3, document: titled('Mine') });
  await answer({ version: 4 });
  expect(writing.current).toMatchObject({ theirs: null, keeping: 'kept', document: titled('Mine') });
});

it('takes theirs when told to, and sends nothing', async () => {
  const { writing } = await open();
  await late(writing);
  await act(async () => writing.current.settle('theirs'));
  await pass(5000);
  expect(asked()).toEqual([]);
  expect(writing.current).toMatchObject({ document: titled('Theirs'), drafted: true, keeping: 'kept' });
});

it('keeps the last words before it puts them on the site, based on what was read', async () => {
  const { writing } = await open();
  await type(writing, 'Come');
  let sent: boolean | undefined;
  await act(async () => void writing.current.send().then((done) => (sent = done)));
  await answer({ version: 1 });
  expect(only()).toMatchObject({ method: 'POST', path: 'items/visit/send', body: { version: 4, draft: 1 } });
  await answer({ version: 5, live: titled('Come') });
  await answer({ id: 'visit', kind: 'page', live: titled('Come'), version: 5, draft: null });
  expect(sent).toBe(true);
  expect(writing.current).toMatchObject({ document: titled('Come'), drafted: false });
});

it('says what is wrong, where, until something is changed', async () => {
  const { writing } = await open();
  const problems = [{ path: 'address', line: null, message: 'Taken.' }];
  let sent: boolean | undefined;
  await act(async () => void writing.current.send().then((done) => (sent = done)));
  await answer({ title: 'That can’t go.', problems }, 422);
  expect([sent, writing.current.problems, writing.current.problem]).toEqual([
    false,
    problems,
    'That can’t go.',
  ]);
  await type(writing, 'Come');
  expect(writing.current.problems).toEqual([]);
});

it('keeps the last words when one leaves', async () => {
  const { writing, unmount } = await open();
  await type(writing, 'Last');
  unmount();
  await pass(0);
  expect(only().body).toMatchObject({ document: titled('Last') });
});

it('drops what is kept and shows what is on the site', async () => {
  const kept = { document: titled('Come'), version: 2, by: 'Greta', at: '' };
  const { writing } = await open(kept);
  await act(async () => void writing.current.drop());
  expect(only()).toMatchObject({ method: 'DELETE', path: 'items/visit/draft' });
  await answer({});
  await answer({ id: 'visit', kind: 'page', live, version: 4, draft: null });
  expect(writing.current).toMatchObject({ document: live, drafted: false });
});

it('says why it can’t be opened', async () => {
  const hook = renderHook(() => useWriting('gone'));
  await answer({ title: 'There is no such page.' }, 404);
  expect(hook.result.current).toMatchObject({ document: null, problem: 'There is no such page.' });
});

it('does not keep again what was dropped while it was on its way', async () => {
  const { writing } = await open();
  await type(writing, 'C');
  await pass(500);
  let dropped: Promise<void> = Promise.resolve();
  act(() => {
    dropped = writing.current.drop();
  });
  await answer({ version: 1 });
  expect(only()).toMatchObject({ method: 'DELETE', path: 'items/visit/draft' });
  await pass(5000);
  await answer({});
  await answer({ id: 'visit', kind: 'page', live, version: 4, draft: null });
  await act(() => dropped);
  expect(writing.current).toMatchObject({ document: live, drafted: false, keeping: 'kept' });
  expect(asked()).toEqual([]);
});
