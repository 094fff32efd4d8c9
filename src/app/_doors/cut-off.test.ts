/** A process that can't know what is open to whom answers nobody, and says so. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Trivet, tellTroubleTo } from '@/services';
import { now, openLarkfell, signedInAt } from '@/services/testing';
import { lastChange } from '@/store';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { keptAnswer, siteAnswer, siteResponse } from '.';

let keeping: Trivet;
let trivet: Trivet;
/** Whether the database says how far its log is. */
let there = true;
/** Whether it can be read. */
let reads = true;

beforeAll(async () => {
  keeping = await openLarkfell();
  const { db } = keeping;
  trivet = await Trivet.over({
    db,
    close: () => Promise.resolve(),
    together: {
      alone: (work) => work(db),
      atOnce: (read) => (reads ? read(db) : Promise.reject(new Error('The line is dead.'))),
      lastNumber: () => (there ? lastChange(db) : Promise.reject(new Error('The line is dead.'))),
      listen: () => undefined,
      words: { tell: async () => undefined, hear: () => undefined },
      unlessAnother: (_, work) => work(),
    },
  });
});
afterAll(async () => {
  await trivet.close();
  await keeping.close();
});

const asked = (path: string, cookie = '') =>
  new Request(`http://localhost:3000${path}`, { headers: { cookie, accept: 'text/html' } });

it('answers while the database is there, says nothing while it is not, and answers again', async () => {
  const { token } = await signedInAt(keeping, 'ines');
  const ines = `${SESSION_COOKIE}=${token}`;
  const get = async (path: string, cookie = '') =>
    (await siteResponse(trivet, asked(path, cookie), now)).status;
  for (const who of ['', ines]) expect(await get('/visit', who)).toBe(200);
  expect(keptAnswer(trivet, asked('/visit'), now)).not.toBe(null);

  there = false;
  if (trivet.currency) trivet.currency.patienceMs = 20;
  const told: string[] = [];
  tellTroubleTo((what) => told.push(what));
  trivet.currency?.lapse();
  expect(keptAnswer(trivet, asked('/visit'), now)).toBe(null);
  for (const who of ['', ines])
    for (const path of ['/visit', '/me', '/files/nothing', '/api/items', '/never', '/sitemap.xml'])
      expect(await get(path, who), path).toBe(503);
  const answer = await siteAnswer(trivet, asked('/me', ines), now);
  expect(answer).toMatchObject({
    headers: { 'Retry-After': '5' },
    body: expect.stringMatching(/can’t be looked up just now/),
  });
  // How the server is can be asked for all the same.
  expect(await get('/api/health')).toBe(200);
  expect(await (await siteResponse(trivet, asked('/api/ready'), now)).json()).toMatchObject({ ready: false });

  // Whoever runs the server hears of it once.
  expect(told).toEqual([expect.stringMatching(/can’t be asked what holds/)]);
  tellTroubleTo(null);

  there = true;
  if (trivet.currency) trivet.currency.patienceMs = 60_000;
  for (const who of ['', ines]) expect(await get('/visit', who)).toBe(200);
});

it('answers nothing from before a change that it made itself, though it could not read what became of it', async () => {
  expect(await trivet.currency?.becomesCurrent()).toBe(true);
  const answer = await trivet.change(async () => {
    await trivet.db.execute(`update people set name = 'Ines the Second' where id = 'ines'`);
    reads = false;
    return 'done';
  });
  // What is done is done, and said.
  expect(answer).toBe('done');
  expect(trivet.currency?.isCurrent).toBe(false);
  expect(keptAnswer(trivet, asked('/visit'), now)).toBe(null);
  reads = true;
  expect(await trivet.currency?.becomesCurrent()).toBe(true);
  expect([...trivet.state.people.values()].map(({ name }) => name)).toContain('Ines the Second');
  await keeping.reload();
});
