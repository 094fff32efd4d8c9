/** Whoever is turned away is counted; what they did next, once; who they were, only where the site has set so. */
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { siteResponse } from '@/app/_doors';
import { asId, decide, guest, type ItemId } from '@/core';
import { type Administrator, editSettings, journalReport, plainRequest, type Trivet } from '..';
import { gretaAt, later, now, openLarkfell, signedInAt } from '../testing';

let trivet: Trivet;
let greta: Administrator;

beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterEach(() => trivet.close());

const base = 'http://localhost:3000';
const ask = (
  path: string,
  {
    browser = 'A',
    token = '',
    at = now,
    form,
  }: { browser?: string; token?: string; at?: Date; form?: Record<string, string> } = {},
) =>
  siteResponse(
    trivet,
    new Request(base + path, {
      headers: {
        'user-agent': browser,
        'x-trivet-from': '192.0.2.1',
        ...(token && { cookie: `trivet_session=${token}` }),
      },
      ...(form && { method: 'POST', body: new URLSearchParams(form) }),
    }),
    at,
  );
const report = async (at = now) => journalReport(trivet, greta, 7, at);
const settings = (journal: 'off' | 'counts' | 'names', journalDays = 90) =>
  editSettings(trivet, greta, { timeZone: 'UTC', journal, journalDays }, now);

it('counts by item, gate and what was given', async () => {
  await ask('/observers');
  await ask('/observers', { browser: 'B' });
  await ask('/crew');
  await ask('/visit');
  await ask('/nowhere');
  await ask('/nowhere/else');
  const { entries, nowhere } = await report();
  expect(nowhere).toBe(2);
  expect(entries).toMatchObject([
    { item: 'observers', gate: 'observers-room', given: 'redirect', visitor: 'guest', count: 2 },
    { item: 'crew', gate: 'crew', given: 'missing', visitor: 'guest', count: 1 },
  ]);
});

it('waits for no more visitors than it can keep in mind: the first ones are taken to have left', async () => {
  const { state } = trivet;
  const closed = decide(state.live.compiled, asId<ItemId>('observers'), guest, plainRequest(state, now));
  for (let browser = 0; browser <= 20_005; browser++)
    trivet.journal.note(
      trivet,
      { browser: `${browser}`, person: null, now },
      asId<ItemId>('observers'),
      closed,
    );
  // Half an hour has passed for nobody.
  const { entries } = await report();
  expect(entries).toMatchObject([{ item: 'observers', count: 20_006, left: 6 }]);
});

it('does the same for what is missing as for what was never there', async () => {
  const note = vi.spyOn(trivet.journal, 'note');
  const addresses = [
    '/crew',
    '/crew/rota',
    '/never/there',
    '/files/never/x',
    '/files/frame-1/x',
    '/old%20spelling',
  ];
  for (const path of addresses) await ask(path, { browser: path });
  expect(note.mock.calls.map(([, , , decision]) => decision.kind)).toEqual(
    addresses.map(() => 'turned away'),
  );
  // Nothing is written while anybody waits.
  const { journalCounts } = await import('@/store/schema');
  expect(await trivet.db.select().from(journalCounts)).toEqual([]);
  await trivet.journal.flush(trivet, now);
  expect((await trivet.db.select().from(journalCounts)).reduce((sum, { count }) => sum + count, 0)).toBe(
    addresses.length,
  );
});

it('tells those who got in from those who left, each once', async () => {
  await ask('/observers');
  await ask('/observers');
  const answer = await ask('/sign-in', {
    form: { email: 'tobin@larkfell.example', password: 'larkfell-demo', next: '/observers' },
  });
  const token = /trivet_session=([^;]+)/.exec(answer.headers.get('set-cookie') ?? '')?.[1] ?? '';
  expect(token).not.toBe('');
  await ask('/observers', { token });
  await ask('/observers', { token });
  await ask('/trustees', { browser: 'B' });
  const [first, second] = (await report(later(31))).entries;
  expect(first).toMatchObject({ item: 'observers', count: 2, gotIn: 1, signedIn: 0, left: 0 });
  expect(second).toMatchObject({ item: 'trustees', count: 1, left: 1 });
});

it('tells those who signed in and were still turned away', async () => {
  await ask('/trustees');
  await ask('/sign-in', { form: { email: 'marek@larkfell.example', password: 'larkfell-demo' } });
  expect((await report(later(31))).entries).toMatchObject([
    { item: 'trustees', signedIn: 1, left: 0, gotIn: 0 },
  ]);
});

it('leaves out administrators, and everybody while it is off', async () => {
  const { token } = await signedInAt(trivet, 'greta');
  await ask('/trustees', { token });
  await settings('off');
  await ask('/trustees');
  expect((await report()).entries).toEqual([]);
});

it('names members only where that is set, and forgets them when it is no longer', async () => {
  const { token } = await signedInAt(trivet, 'marek');
  await ask('/trustees', { token });
  expect((await report()).people).toEqual([]);
  await settings('names');
  await ask('/trustees', { token });
  expect((await report()).people).toEqual([
    { item: 'trustees', person: 'marek', name: 'Marek Dunmore', count: 1 },
  ]);
  await settings('counts');
  await settings('names');
  expect((await report()).people).toEqual([]);
});

it('keeps for so many days and no longer', async () => {
  await settings('counts', 3);
  await ask('/trustees');
  expect((await report()).entries).toHaveLength(1);
  const day = 24 * 60;
  await report(later(2 * day));
  expect((await report(later(2 * day))).entries).toHaveLength(1);
  expect((await report(later(4 * day))).entries).toEqual([]);
});

it('says what is wrong with settings, and keeps nothing of them', async () => {
  expect(
    await editSettings(trivet, greta, { timeZone: 'Mars/North', journal: 'counts', journalDays: 0 }, now),
  ).toEqual({
    timeZone: expect.stringContaining('time zone'),
    journalDays: expect.stringContaining('at least a day'),
  });
  expect(trivet.state.settings.timeZone).toBe('UTC');
});

it('knows everybody who waits outside of one page, and each gets in for themselves', async () => {
  const { token } = await signedInAt(trivet, 'tobin');
  for (const browser of ['A', 'B', 'C', 'B']) await ask('/observers', { browser });
  // Somebody who was never turned away lets nobody else in.
  await ask('/observers', { browser: 'D', token });
  for (const browser of ['B', 'A']) await ask('/observers', { browser, token });
  const [observers] = (await report(later(31))).entries;
  expect(observers).toMatchObject({ item: 'observers', count: 4, gotIn: 2, left: 1 });
});
