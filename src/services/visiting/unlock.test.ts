import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Trivet, unlock, viewPage, visitorOf } from '..';
import { attemptAt, later, liveContext, now, openLarkfell, signedInAt } from '../testing';

let trivet: Trivet;

beforeAll(async () => {
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

const stranger = () => visitorOf(trivet, undefined, now);
let addresses = 0;
const type = async (passphrase: unknown, over: { next?: unknown; from?: string; at?: Date } = {}) =>
  unlock(
    trivet,
    await stranger(),
    { passphrase, next: over.next, from: over.from ?? `10.1.0.${addresses++}` },
    over.at ?? now,
  );
const comet = async (token: string | undefined) => {
  const { facts } = await visitorOf(trivet, token, now);
  return viewPage(liveContext(trivet.state, facts), '/comet-night');
};

it('sends a guest to type the passphrase and back, and opens for their session alone', async () => {
  expect(await comet(undefined)).toEqual({ kind: 'redirect', to: '/passphrase?next=%2Fcomet-night' });
  const answer = await type(' Bring a red TORCH ', { next: '/comet-night' });
  if (answer.kind !== 'unlocked' || !answer.token) throw new Error(answer.kind);
  expect(answer.next).toBe('/comet-night');
  expect((await comet(answer.token)).kind).toBe('page');
  expect((await comet(undefined)).kind).toBe('redirect');
  // Read from the database, as after a restart.
  trivet.sessions.clear();
  expect((await comet(answer.token)).kind).toBe('page');
});

it('keeps it in the session a member has, and through signing in', async () => {
  const { token, visitor } = await signedInAt(trivet, 'marek');
  const given = { passphrase: 'bring a red torch', next: '/', from: '10.2.0.1' };
  expect(await unlock(trivet, visitor, given, now)).toMatchObject({ kind: 'unlocked', token: null });
  expect((await comet(token)).kind).toBe('page');
  const other = await signedInAt(trivet, 'marek');
  expect((await comet(other.token)).kind).toBe('redirect');
});

it.each([
  ['nothing', undefined, 'Type one passphrase.'],
  ['two of them', ['a', 'b'], 'Type one passphrase.'],
  ['blanks', '   ', 'Type the passphrase.'],
  ['far too much', 'x'.repeat(100_000), 'too long'],
  ['a wrong one', 'bring a green torch', 'That is not a passphrase of this site.'],
])('refuses %s', async (_, passphrase, problem) => {
  expect(await type(passphrase)).toMatchObject({ kind: 'wrong', problem: expect.stringContaining(problem) });
});

it('leads nowhere but back onto this site', async () => {
  expect(await type('bring a red torch', { next: '//elsewhere.example' })).toMatchObject({ next: '/' });
});

it('limits attempts by address; right ones do not count', async () => {
  const from = '10.3.0.1';
  for (let n = 0; n < 12; n++) await type('bring a red torch', { from });
  for (let n = 0; n < 10; n++) expect((await type('wrong wrong', { from })).kind).toBe('wrong');
  expect(await type('bring a red torch', { from })).toMatchObject({ kind: 'too many', seconds: 900 });
  expect((await type('bring a red torch', { from, at: later(15) })).kind).toBe('unlocked');
  expect((await attemptAt(trivet)('marek@larkfell.example', 'x', { from })).kind).toBe('wrong');
});
