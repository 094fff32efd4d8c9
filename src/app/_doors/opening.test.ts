/** What is done by opening it, and by watching it: by whom, how, and what is not done by that. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, type PersonId } from '@/core';
import type { Trivet } from '@/services';
import { now, openLarkfell, signedInAt } from '@/services/testing';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';

const READING = '/courses/astrophotography/star-trails';
const VIDEO = '/courses/astrophotography/watch-it-turn';
const PLAYED = '/me/played/watch-it-turn';

let trivet: Trivet;
const tokens = new Map<string, string>();
beforeEach(async () => {
  await trivet?.close();
  tokens.clear();
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

interface Asked {
  readonly form?: Readonly<Record<string, string>>;
  readonly headers?: Readonly<Record<string, string>>;
  readonly method?: string;
}

async function ask(who: string | null, path: string, { form, headers, method }: Asked = {}) {
  if (who !== null && !tokens.has(who)) tokens.set(who, (await signedInAt(trivet, who)).token);
  const token = who === null ? null : tokens.get(who);
  const request = new Request(`http://localhost:3000${path}`, {
    headers: { ...(token && { cookie: `${SESSION_COOKIE}=${token}` }), ...headers },
    ...(method && { method }),
    ...(form && { method: 'POST', body: new URLSearchParams(form) }),
  });
  const answer = await siteAnswer(trivet, request, now);
  return { ...answer, text: textOf(answer) ?? '' };
}

const isDone = (who: string, item: string): boolean =>
  trivet.state.people.get(asId<PersonId>(who))?.completions.some((one) => one.item === item) ?? false;

describe('a reading that is done by opening it', () => {
  it('is done, and says so, for whoever opens it as a page', async () => {
    // Read by others before, and kept: that makes no difference.
    await ask(null, READING);
    const page = await ask('tobin', READING, { headers: { 'sec-fetch-dest': 'document' } });
    expect(isDone('tobin', 'star-trails')).toBe(true);
    expect(page.text).toContain('You are done with this.');
    expect((await ask('marek', READING)).text).toContain('You are done with this.');
    expect(isDone('marek', 'star-trails')).toBe(true);
    const [completion] = trivet.state.people.get(asId<PersonId>('tobin'))?.completions ?? [];
    await ask('tobin', READING);
    expect(trivet.state.people.get(asId<PersonId>('tobin'))?.completions).toEqual([completion]);
  });

  it('is not done by what nobody opened: read ahead, shown as a picture, asked about', async () => {
    for (const asked of [
      { headers: { 'sec-fetch-dest': 'image' } },
      { headers: { 'sec-purpose': 'prefetch' } },
      { method: 'HEAD' },
    ])
      await ask('tobin', READING, asked);
    expect(isDone('tobin', 'star-trails')).toBe(false);
    // Those made a page that is kept; it is no way around being done.
    await ask('tobin', READING);
    expect(isDone('tobin', 'star-trails')).toBe(true);
    await ask('tobin', '/courses/astrophotography/darks-and-flats');
    expect(isDone('tobin', 'darks-and-flats')).toBe(false);
  });

  it('is no longer once it is something else', async () => {
    await trivet.db.execute(`update items set activity = 'video' where id = 'star-trails'` as never);
    await trivet.reload();
    await ask('tobin', READING);
    expect(isDone('tobin', 'star-trails')).toBe(false);
  });
});

describe('a video', () => {
  const played = (ranges: string, who = 'marek', seconds = '3.6') =>
    ask(who, PLAYED, { form: { ranges, seconds } });

  it('is done once most of it was played, in whatever pieces; skipping to the end plays nothing', async () => {
    const page = await ask('marek', VIDEO);
    expect(page.text).toContain(`data-watch="${PLAYED}"`);
    const digest = /integrity="(sha256-[^"]+)"/.exec(page.text)?.[1];
    expect(page.headers['Content-Security-Policy']).toContain(`script-src '${digest}'; connect-src 'self'`);
    expect(page.text).toMatch(/<track kind="captions" src="\/files\/turning-captions\/turning\.vtt"/);
    expect((await played('3.4-3.6')).status).toBe(204);
    expect((await played('0-1')).status).toBe(204);
    // The same once more is no more.
    expect((await played('0-1,0-1,0-1,0-1')).status).toBe(204);
    expect(isDone('marek', 'watch-it-turn')).toBe(false);
    const { rows } = await trivet.db.execute(`select ranges from played where person = 'marek'` as never);
    expect(rows).toEqual([
      {
        ranges: [
          [0, 1],
          [3.4, 3.6],
        ],
      },
    ]);
    expect((await played('1-3.1')).status).toBe(200);
    expect(isDone('marek', 'watch-it-turn')).toBe(true);
    const after = await ask('marek', VIDEO);
    expect(after.text).toContain('You are done with this.');
    expect(after.text).not.toContain('<script defer');
    expect(after.headers['Content-Security-Policy']).not.toContain('script-src');
  });

  it('needs no script of those who say so themselves, and of guests', async () => {
    const guest = await ask(null, VIDEO);
    expect(guest.text).not.toContain('data-watch');
    expect(guest.headers['Content-Security-Policy']).not.toContain('script-src');
    const told = await ask('marek', '/me/done/watch-it-turn', { form: { next: VIDEO } });
    expect([told.status, isDone('marek', 'watch-it-turn')]).toEqual([303, true]);
  });

  it('takes nothing that is no range, of what is no video, or from whoever it is not open to', async () => {
    for (const [ranges, seconds] of [
      ['', '3.6'],
      ['1', '3.6'],
      ['-1-3', '3.6'],
      ['0-Infinity', '3.6'],
      ['0-3.6', '0'],
      ['0-3.6', '-4'],
      ['0-3.6', 'NaN'],
      ['0-3.6', '1e9'],
      [`0-1${',0-1'.repeat(2000)}`, '3.6'],
    ] as const)
      expect([ranges.slice(0, 20), (await played(ranges, 'marek', seconds)).status]).toEqual([
        ranges.slice(0, 20),
        400,
      ]);
    expect(isDone('marek', 'watch-it-turn')).toBe(false);
    const sent = { form: { ranges: '0-3.6', seconds: '3.6' } };
    expect((await ask(null, PLAYED, sent)).status).toBe(404);
    for (const id of ['star-trails', 'never-there', 'first-opening-quiz', 'visit'])
      expect((await ask('marek', `/me/played/${id}`, sent)).status).toBe(404);
    const foreign = { ...sent, headers: { 'sec-fetch-site': 'cross-site' } };
    expect((await ask('marek', PLAYED, foreign)).status).toBe(400);
    await trivet.db.execute(`update items set published = false where id = 'astrophotography'` as never);
    await trivet.reload();
    expect((await ask('marek', PLAYED, sent)).status).toBe(404);
    expect(isDone('marek', 'watch-it-turn')).toBe(false);
  });
});
