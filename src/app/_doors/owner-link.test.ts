/** The way back in when nobody can sign in: a link made on the machine, good once and for a day. */
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { administratorOf, importSite, makeOwnerLink, siteAsFile, Trivet, visitorOf } from '@/services';
import { attemptAt, later, now, openLarkfell, signedInAt } from '@/services/testing';
import { askDoor } from './testing';

let folder: string;
let trivet: Trivet;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'trivet-owner-'));
  const larkfell = await openLarkfell();
  const file = await siteAsFile(larkfell, 'people who can sign in');
  await larkfell.close();
  trivet = await Trivet.open(null, undefined, folder);
  await importSite(trivet, file, 'The test');
});
afterEach(async () => {
  await trivet.close();
  rmSync(folder, { recursive: true });
});

const PASSWORD = 'red torch, spare';

function linkFor(email: string): string {
  const made = makeOwnerLink(folder, email, now);
  if ('problem' in made) throw new Error(made.problem);
  return `/reset/owner/${made.token}`;
}

const ask = (
  path: string,
  fields?: Readonly<Record<string, string>>,
  at = now,
  headers: Readonly<Record<string, string>> = {},
) => askDoor(trivet, path, { form: fields && new URLSearchParams(fields), at, headers });

it('gives a member a new password and the whole desk, ends where they were signed in, and is gone', async () => {
  const { token } = await signedInAt(trivet, 'marek');
  const link = linkFor('Marek@larkfell.example');
  expect((await ask(link)).text).toContain('choose a new password');
  const short = await ask(link, { password: 'short' });
  expect([short.status, short.text.includes('at least 8 characters.')]).toEqual([422, true]);
  const done = await ask(link, { password: PASSWORD });
  expect([done.status, done.location]).toEqual([303, '/desk']);
  expect(administratorOf(await visitorOf(trivet, done.session, now))?.desk).toEqual({
    right: 'owner',
    branch: null,
  });
  expect((await visitorOf(trivet, token, now)).person).toBeNull();
  expect((await attemptAt(trivet)('marek@larkfell.example', PASSWORD)).kind).toBe('signed in');
  expect((await ask(link)).status).toBe(404);
  expect((await ask(link, { password: PASSWORD })).status).toBe(404);
});

it('makes an account for whoever has none, and asks for a name', async () => {
  const link = linkFor('una@hazel.example');
  expect((await ask(link, { password: PASSWORD })).text).toContain('Type one name.');
  await ask(link, { name: 'Una', password: PASSWORD });
  const una = [...trivet.state.people.values()].find(({ email }) => email === 'una@hazel.example');
  expect(una).toMatchObject({ name: 'Una', desk: { right: 'owner' } });
});

it('is nothing to whoever does not have it, after a day, and when its file is spoilt', async () => {
  const nothing = (await ask('/reset/owner/x')).text;
  const link = linkFor('marek@larkfell.example');
  expect((await ask(link, undefined, later(25 * 60))).text).toBe(nothing);
  expect((await ask(`${link}/more`)).status).toBe(404);
  expect((await ask('/reset/owner')).status).toBe(404);
  expect((await ask('/reset/owner/..%2F..%2Fdatabase')).status).toBe(404);
  expect((await ask(link, { password: PASSWORD }, now, { 'sec-fetch-site': 'cross-site' })).status).toBe(400);
  const [name = ''] = readdirSync(join(folder, 'owner-links'));
  const file = join(folder, 'owner-links', name);
  // Whoever reads the folder has no address.
  expect(readFileSync(file, 'utf8') + name).not.toContain(link.split('/').at(-1));
  writeFileSync(file, 'spoilt');
  expect((await ask(link)).text).toBe(nothing);
});

it('of two who send it in the same moment, one has it', async () => {
  const link = linkFor('marek@larkfell.example');
  const both = await Promise.all([1, 2].map((at) => ask(link, { password: `${PASSWORD} ${at}` })));
  expect(both.map(({ status }) => status).sort()).toEqual([303, 404]);
});

it('is for a mail address', () => {
  expect(makeOwnerLink(folder, 'marek', now)).toEqual({ problem: expect.stringContaining('mail address') });
});
