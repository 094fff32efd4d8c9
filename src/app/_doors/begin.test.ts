/** A server without a site: who may begin one, with what, and what everybody else gets meanwhile. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
  administratorOf,
  type LeakReport,
  leakCheck,
  letBegin,
  READY_MADE,
  siteAsFile,
  type Trivet,
  visitorOf,
} from '@/services';
import { attemptAt, later, now, openEmpty, openLarkfell } from '@/services/testing';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer, siteResponse } from '.';
import { askDoor } from './testing';

let trivet: Trivet;
let door: string;
beforeEach(async () => {
  // Where nothing was begun, the next begins in the same place.
  if (!trivet || trivet.hasSite) {
    await trivet?.close();
    trivet = await openEmpty();
  }
  door = `/begin/${letBegin(trivet, now)}`;
});
afterAll(() => trivet.close());

const FIELDS = {
  title: 'Hazel & Co: the "barn"',
  timeZone: 'Europe/Stockholm',
  name: 'Una Fairweather',
  email: 'Una@hazel.example',
  password: 'under the stairs',
  with: 'society',
};

interface Sent {
  readonly fields?: Readonly<Record<string, string>>;
  readonly file?: string;
  readonly method?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly at?: Date;
}

function ask(path: string, { fields, file, ...more }: Sent = {}) {
  const form = fields && new FormData();
  for (const [name, value] of Object.entries(fields ?? {})) form?.set(name, value);
  if (file !== undefined) form?.set('file', new File([file], 'site.json', { type: 'application/json' }));
  return askDoor(trivet, path, { form, at: now, ...more });
}

describe('before there is a site', () => {
  it('everybody learns how one begins, and nothing else', async () => {
    for (const path of [
      '/',
      '/desk',
      '/sign-in',
      '/begin',
      '/begin/',
      `/begin/${'x'.repeat(43)}`,
      `${door}x`,
    ]) {
      const answer = await ask(path);
      expect([path, answer.status, answer.headers['Cache-Control']]).toEqual([
        path,
        503,
        'private, no-store',
      ]);
      expect(answer.text).toContain('Nothing is here yet');
      expect(answer.text).not.toContain(door);
    }
    expect((await ask('/', { fields: FIELDS })).status).toBe(503);
    expect(trivet.hasSite).toBe(false);
  });

  it('whoever watches over the server hears that it is alive, and its style sheet is there', async () => {
    expect((await ask('/api/health')).status).toBe(200);
    const sheet = /href="(\/assets\/[^"]+\.css)"/.exec((await ask('/')).text)?.[1] ?? '';
    expect((await ask(sheet)).headers['Content-Type']).toContain('text/css');
    expect((await ask('/assets/nothing.css')).status).toBe(503);
  });

  it('an address is good for a day, and the next start has another', async () => {
    expect((await ask(door, { at: later(23 * 60) })).status).toBe(200);
    const late = await ask(door, { at: later(25 * 60) });
    expect([late.status, late.text]).toEqual([503, expect.stringContaining('good for a day')]);
    expect((await ask(door, { fields: FIELDS, at: later(25 * 60) })).status).toBe(503);
    letBegin(trivet, now);
    expect((await ask(door, { fields: FIELDS })).text).toContain('Nothing is here yet');
    expect(trivet.hasSite).toBe(false);
  });

  it('what is wrong is said where it is wrong, what was typed stays, and no password is sent back', async () => {
    const fields = { ...FIELDS, title: ' ', timeZone: 'Nowhere/Else', email: 'una', password: 'short' };
    const answer = await ask(door, { fields });
    expect(answer.status).toBe(422);
    for (const words of [
      'Give the site a name.',
      'That is no time zone.',
      'Type a mail address like',
      'at least 8 characters.',
      'value="Una Fairweather"',
      'checked="" value="society"',
    ])
      expect(answer.text).toContain(words);
    expect(answer.text).not.toContain('short');
    expect((await ask(door, { fields: { ...FIELDS, with: 'magic' } })).text).toContain('Choose what');
    expect(trivet.hasSite).toBe(false);
  });

  it('another site’s form, another kind of body and another method begin nothing', async () => {
    const foreign = await ask(door, { fields: FIELDS, headers: { 'sec-fetch-site': 'cross-site' } });
    expect(foreign.status).toBe(400);
    expect((await ask(door, { method: 'POST' })).status).toBe(400);
    expect((await ask(door, { method: 'PUT' })).status).toBe(405);
    expect(trivet.hasSite).toBe(false);
  });

  it('a file that is none is said to be none, with everything that is wrong with it', async () => {
    const begin = async (file?: string) =>
      (await ask(door, { fields: { ...FIELDS, with: 'file' }, ...(file !== undefined && { file }) })).text;
    expect(await begin()).toContain('Choose the site file.');
    expect(await begin('{')).toContain('That is not JSON');
    expect(await begin('7')).toContain('This is no site file');
    expect(await begin('{"people": 7}')).toContain('This is no site file');
    const { people: _, ...site } = READY_MADE.empty.site({
      title: 'A',
      timeZone: 'UTC',
      today: '2026-11-20',
    });
    const wrong = { ...site, people: [null, { id: 'a', email: 'una@hazel.example', roles: ['duke'] }] };
    expect(await begin(JSON.stringify(wrong))).toContain('people.1 (a).name');
    expect(trivet.hasSite).toBe(false);
  });
});

describe('beginning', () => {
  it.each(Object.entries(READY_MADE))(
    'makes a site, signs its owner in, and leaks nothing: %s',
    async (how) => {
      const answer = await ask(door, { fields: { ...FIELDS, with: how } });
      expect([answer.status, answer.location]).toEqual([303, '/desk']);
      const visitor = await visitorOf(trivet, answer.session, now);
      expect(administratorOf(visitor)).toMatchObject({ name: 'Una Fairweather', desk: { right: 'owner' } });
      // Going back leads on to the desk, and to nobody else is there anything.
      expect((await ask(door)).location).toBe('/desk');
      expect((await ask(door, { fields: FIELDS })).location).toBe('/desk');
      expect((await ask('/begin/x')).status).not.toBe(503);
      const home = await ask('/', { headers: { cookie: `${SESSION_COOKIE}=${answer.session}` } });
      expect([home.status, home.text]).toEqual([
        200,
        expect.stringContaining('Hazel &amp; Co: the &quot;barn&quot;'),
      ]);
      expect((await attemptAt(trivet)(FIELDS.email, FIELDS.password)).kind).toBe('signed in');
      const report: LeakReport = await leakCheck({
        source: trivet.state,
        people: [...trivet.state.people.keys()],
        now,
        cookieName: SESSION_COOKIE,
        knock: (copy, request) => siteResponse(copy, request, now),
      });
      expect([report.leaks, report.requests > 50]).toEqual([[], true]);
    },
    60_000,
  );

  it('of two who send it in the same moment, one begins', async () => {
    const both = await Promise.all([1, 2].map(() => ask(door, { fields: FIELDS })));
    expect(both.map(({ status }) => status).sort()).toEqual([303, 422]);
    expect(trivet.state.people.size).toBe(1);
  });

  it('with a site that was saved with people who can sign in, all of them can', async () => {
    const larkfell = await openLarkfell();
    const file = JSON.stringify(await siteAsFile(larkfell, 'people who can sign in'));
    await larkfell.close();
    const fields = { ...FIELDS, title: '', timeZone: '', with: 'file' };
    expect((await ask(door, { fields, file })).location).toBe('/desk');
    expect(trivet.state.people.size).toBeGreaterThan(12);
    const attempt = attemptAt(trivet);
    expect((await attempt('wren@larkfell.example', 'larkfell-demo')).kind).toBe('signed in');
    expect((await attempt(FIELDS.email, FIELDS.password)).kind).toBe('signed in');
    // And what opened Comet night by mail opens it here.
    const typed = new Request('http://localhost:3000/passphrase', {
      method: 'POST',
      body: new URLSearchParams({ passphrase: 'bring a red torch', next: '/comet-night' }),
    });
    expect((await siteAnswer(trivet, typed, now)).headers.Location).toBe('/comet-night');
  });

  it('whoever is in the file already is its owner, with the password that was typed now', async () => {
    const larkfell = await openLarkfell();
    const file = JSON.stringify(await siteAsFile(larkfell, 'people who can sign in'));
    await larkfell.close();
    const fields = { ...FIELDS, email: 'Marek@larkfell.example', with: 'file' };
    expect((await ask(door, { fields, file })).location).toBe('/desk');
    const marek = [...trivet.state.people.values()].find(({ email }) => email === 'marek@larkfell.example');
    expect(marek?.desk).toEqual({ right: 'owner', branch: null });
    const attempt = attemptAt(trivet);
    expect((await attempt('marek@larkfell.example', 'larkfell-demo')).kind).not.toBe('signed in');
    expect((await attempt('marek@larkfell.example', FIELDS.password)).kind).toBe('signed in');
  });
});
