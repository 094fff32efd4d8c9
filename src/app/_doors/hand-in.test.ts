/** Handing in by its door: whose it is to, what is taken, what is kept, and what becomes of it. */
import sharp from 'sharp';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, type ItemId, type PersonId } from '@/core';
import {
  type Administrator,
  administratorOf,
  handedFileFor,
  handInsWaiting,
  judge,
  learnerReport,
  markDone,
  startWalk,
  type Trivet,
} from '@/services';
import { gretaAt, later, now, openLarkfell, signedInAt } from '@/services/testing';
import { readHandedFiles, readHandIns, readOutbox, updateItem } from '@/store';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';

const TASK = asId<ItemId>('your-picture');
const COURSE = 'astrophotography';
const DOOR = `/me/hand-in/${TASK}`;
const PAGE = '/courses/astrophotography/your-picture';

let trivet: Trivet;
let greta: Administrator;
const tokens = new Map<string, string>();
beforeEach(async () => {
  await trivet?.close();
  tokens.clear();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

async function ask(
  who: string | null,
  path: string,
  body?: FormData | string,
  headers: object = {},
  at = now,
) {
  if (who !== null && !tokens.has(who)) tokens.set(who, (await signedInAt(trivet, who)).token);
  const token = who === null ? null : tokens.get(who);
  const request = new Request(`http://localhost:3000${path}`, {
    headers: { ...(token && { cookie: `${SESSION_COOKIE}=${token}` }), ...headers },
    ...(body !== undefined && { method: 'POST', body }),
  });
  const answer = await siteAnswer(trivet, request, at);
  const text = textOf(answer) ?? '';
  return { ...answer, text, main: /<main.*<\/main>/s.exec(text)?.[0] ?? '', request };
}

type Given = readonly (readonly [name: string, bytes: Uint8Array | string])[];

function form(text: string, files: Given = []): FormData {
  const made = new FormData();
  made.set('text', text);
  for (const [name, bytes] of files) made.append('files', new File([bytes as BlobPart], name));
  return made;
}
const handIn = (who: string | null, text: string, files?: Given, at = now) =>
  ask(who, DOOR, form(text, files), {}, at);
const versions = (who = 'lio') => readHandIns(trivet.db, asId<PersonId>(who), [TASK]);
const completions = (who = 'lio') =>
  (trivet.state.people.get(asId<PersonId>(who))?.completions ?? []).map(({ item }) => item as string);
const waiting = async () => (await handInsWaiting(trivet, greta, COURSE))?.list ?? [];
const judgeLast = async (over: object, who = greta) => {
  const [first] = await waiting();
  return judge(trivet, who, { course: COURSE, handIn: first?.id ?? 'none', accepts: true, ...over }, now);
};
const png = (red = 200): Promise<Buffer> =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: { r: red, g: 40, b: 90 } } })
    .withMetadata({ exif: { IFD0: { Copyright: 'secretplace' } } })
    .png()
    .toBuffer();

describe('handing in', () => {
  it('keeps every version, a newer one in the place of one that waits', async () => {
    expect((await ask('lio', PAGE)).main).toContain(`href="${DOOR}"`);
    expect((await ask('lio', DOOR)).main).toMatch(/enctype="multipart\/form-data"/i);
    const sent = await handIn('lio', 'Twenty-six pictures.');
    expect([sent.status, sent.headers.Location]).toEqual([303, `${DOOR}?sent`]);
    expect((await ask('lio', `${DOOR}?sent`)).main).toContain('It is handed in.');
    await handIn('lio', 'Twenty-seven.\r\n\r\nOne came in late.', [], later(5));
    expect((await versions()).map(({ version, state, text }) => [version, state, text])).toEqual([
      [1, 'replaced', 'Twenty-six pictures.'],
      [2, 'waiting', 'Twenty-seven.\n\nOne came in late.'],
    ]);
    const page = (await ask('lio', DOOR)).main;
    expect(page).toContain('Hand in instead');
    expect(page.indexOf('Version 2')).toBeLessThan(page.indexOf('Version 1'));
    expect(page).toContain('a newer one took its place');
  });

  it('draws pictures anew, and gives files back as attachments to whoever handed them in', async () => {
    await handIn('lio', '', [['My Shot.PNG', await png()]]);
    const [file] = await readHandedFiles(trivet.db, await versions());
    expect(file).toMatchObject({ name: 'my-shot.webp', mediaType: 'image/webp' });
    const path = `${DOOR}/${file?.id}/${file?.name}`;
    expect((await ask('lio', DOOR)).main).toContain(path);
    const own = await ask('lio', path);
    expect(own.status).toBe(200);
    expect(own.headers).toMatchObject({
      'Content-Disposition': "attachment; filename*=UTF-8''my-shot.webp",
      'Content-Security-Policy': "default-src 'none'; sandbox",
      'Cache-Control': 'private, no-store',
    });
    expect(Buffer.from(own.body as Buffer).toString('latin1')).not.toContain('secretplace');
    // To others, also to those who may look at everything at the desk, there is nothing here.
    for (const who of ['sunniva', 'greta', 'edda', 'marek'])
      expect((await ask(who, path)).text).toBe((await ask(who, `${DOOR}/never-there/x.webp`)).text);
    expect((await ask(null, path)).status).toBe(303);
    expect((await ask('lio', `${DOOR}/${file?.id}/other.webp`)).status).toBe(404);
    expect((await handedFileFor(trivet, greta, COURSE, file?.id ?? ''))?.name).toBe('my-shot.webp');
    expect(await handedFileFor(trivet, greta, 'dome-induction', file?.id ?? '')).toBeNull();
  });

  it.each<[string, string, Given, RegExp]>([
    ['nothing', '  ', [], /Write something, or choose a file/],
    ['too long a text', 'x'.repeat(50_001), [], /at most 50,000 letters/],
    [
      'more files than are taken',
      'a',
      [
        ['a.txt', 'a'],
        ['b.txt', 'b'],
        ['c.txt', 'c'],
      ],
      /At most 2 files/,
    ],
    [
      'a kind that is not taken',
      'Kept as I wrote it.',
      [['a.txt', 'plain']],
      /none of what is taken here: pictures and PDF/,
    ],
    ['markup by another name', '', [['picture.png', '<svg onload="x()"/>']], /markup/],
    ['an empty file', '', [['a.pdf', '']], /That file is empty/],
    [
      'a damaged picture',
      '',
      [['a.png', Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex')]],
      /can’t be read/,
    ],
  ])('refuses %s with a sentence, and nothing that was written is lost', async (_, text, files, message) => {
    const stored = trivet.state.contents.get(TASK);
    const item = trivet.state.outline.items.get(TASK);
    if (!item || !stored?.task) throw new Error('gone');
    await updateItem(trivet.db, {
      item,
      content: { ...stored, task: { ...stored.task, kinds: ['pictures', 'pdf'] } },
    });
    await trivet.reload();
    const answer = await handIn('lio', text, files);
    expect(answer.status).toBe(422);
    expect(answer.main).toMatch(message);
    if (text.length < 100) expect(answer.main).toContain(text.trim());
    expect(await versions()).toEqual([]);
  });

  it('does not read what is larger than it may be, or comes as something else or from elsewhere', async () => {
    const boundary = 'xxx';
    const type = { 'content-type': `multipart/form-data; boundary=${boundary}` };
    const typed = `--${boundary}\r\nContent-Disposition: form-data; name="text"\r\n\r\nTwo of\r\n\r\nmy own.\r\n--${boundary}\r\nContent-Disposition: form-data; name="files"; filename="a.png"\r\n\r\n`;
    const large = await ask('lio', DOOR, `${typed}${'x'.repeat(500_000)}`, {
      ...type,
      'content-length': '200000000',
    });
    expect(large.status).toBe(413);
    expect(large.main).toContain('at most 8 MB a file');
    // What was typed stands before the files, and is not lost with them.
    expect(large.main).toMatch(/<textarea[^>]*>Two of\s+my own\.<\/textarea>/);
    expect((await ask('lio', DOOR, 'x'.repeat(17_000_000), type)).status).toBe(400);
    const parts = `--${boundary}\r\nContent-Disposition: form-data; name="a"\r\n\r\n1\r\n`.repeat(41);
    for (const [body, headers] of [
      [`${parts}--${boundary}--\r\n`, type],
      ['text=plain', { 'content-type': 'application/x-www-form-urlencoded' }],
      ['{"text":"a"}', { 'content-type': 'application/json' }],
      [`--${boundary}\r\nnonsense`, type],
      [`--${boundary}--`, { 'content-type': 'multipart/form-data' }],
      [
        `--${boundary}\r\nContent-Disposition: form-data; name="text"\r\n\r\na\u0000b\r\n--${boundary}--\r\n`,
        type,
      ],
      [`--${boundary}--\r\n`, { ...type, 'sec-fetch-site': 'cross-site' }],
    ] as const)
      expect([body.slice(0, 40), (await ask('lio', DOOR, body, headers)).status]).toEqual([
        body.slice(0, 40),
        400,
      ]);
    expect(await versions()).toEqual([]);
  });

  it('is nobody’s to whom it is closed, or who is no longer enrolled', async () => {
    // What is closed here is what its own page gives.
    expect((await ask('marek', DOOR)).text).toBe((await ask('marek', PAGE)).text);
    expect((await handIn('marek', 'Mine')).status).toBe((await ask('marek', PAGE)).status);
    expect((await handIn(null, 'Mine')).headers.Location).toMatch(/^\/sign-in\?next=/);
    await trivet.db.execute(`update enrolments set until = '2026-11-19' where person = 'lio'` as never);
    await trivet.reload();
    const refused = await handIn('lio', 'Late');
    expect(refused.status).not.toBe(303);
    expect(await versions()).toEqual([]);
    expect(await versions('marek')).toEqual([]);
    for (const id of ['ladder-safety', 'never-there', '__proto__', 'visit'])
      expect((await ask('lio', `/me/hand-in/${id}`, form('x'))).status).toBe(404);
  });

  it('comes to one of two that are sent at once', async () => {
    const answers = await Promise.all([handIn('lio', 'One'), handIn('lio', 'Other')]);
    expect(answers.every(({ status }) => status === 303 || status === 422)).toBe(true);
    const states = (await versions()).map(({ state }) => state);
    expect(states.filter((state) => state === 'waiting')).toHaveLength(1);
  });

  it('is limited: not thirty times an hour', async () => {
    for (let at = 0; at < 30; at++) expect((await handIn('lio', `${at}`)).status).toBe(303);
    const answer = await handIn('lio', 'once more');
    expect([answer.status, answer.main.includes('tried too often')]).toEqual([422, true]);
    expect((await handIn('lio', 'an hour later', [], later(61))).status).toBe(303);
  });
});

describe('a tutor', () => {
  it('accepts it: completed with its score, in one step with the letter, and nothing more can be handed in', async () => {
    await handIn('lio', 'Twenty-six pictures.');
    expect((await waiting()).map(({ name, title, version }) => [name, title, version])).toEqual([
      ['Lio Farrow', 'Your picture, and how it came about', 1],
    ]);
    const judged = await judgeLast({ score: 85, words: 'The dust is lovely.' });
    expect(judged).toEqual({
      kind: 'judged',
      summary: 'Lio Farrow: Your picture, and how it came about accepted, 85 %',
    });
    expect(completions()).toContain(TASK);
    const [mail] = await readOutbox(trivet.db, 1);
    expect(mail).toMatchObject({
      to: 'lio@larkfell.example',
      text: expect.stringContaining('The dust is lovely.'),
    });
    const page = (await ask('lio', DOOR)).main;
    expect(page).toContain('accepted, 85 %');
    expect(page).not.toContain('<form');
    expect((await handIn('lio', 'More')).main).toContain('You are done with this already.');
    expect(await waiting()).toEqual([]);
    // Taken back, there is something to be handed in again.
    await markDone(
      trivet,
      greta,
      { course: COURSE, person: 'lio', activity: TASK, done: false, why: 'It was somebody else’s.' },
      now,
    );
    expect((await handIn('lio', 'My own')).status).toBe(303);
  });

  it('gives it back with words, from where its learner goes on', async () => {
    await handIn('lio', 'Mostly a security light.');
    expect(await judgeLast({ accepts: false })).toMatchObject({
      message: expect.stringContaining('Say what is missing'),
    });
    expect((await judgeLast({ accepts: false, words: 'Take it again.' })).kind).toBe('judged');
    expect(completions()).not.toContain(TASK);
    const page = (await ask('lio', DOOR)).main;
    expect(page).toContain('Take it again.');
    expect(page).toMatch(/<textarea[^>]*>Mostly a security light\.<\/textarea>/);
    await handIn('lio', 'Better.');
    const report = await learnerReport(trivet, greta, { course: COURSE, person: 'lio', day: null }, now);
    const activity = report?.units.flatMap(({ activities }) => activities).find(({ id }) => id === TASK);
    expect(activity?.state).toBe('waiting');
    expect(activity?.handedIn.map(({ state }) => state)).toEqual(['given back', 'waiting']);
  });

  it('looks once: not at what was replaced, accepted, of another course, or by one who may not', async () => {
    await handIn('lio', 'One');
    const [first] = await waiting();
    await handIn('lio', 'Two');
    const input = { course: COURSE, handIn: first?.id ?? '', accepts: true };
    expect(await judge(trivet, greta, input, now)).toMatchObject({
      message: expect.stringContaining('no longer waits'),
    });
    const both = await Promise.all([judgeLast({}), judgeLast({ score: 10 })]);
    expect(both.map(({ kind }) => kind).sort()).toEqual(['judged', 'wrong']);
    await handIn('sunniva', 'Ours');
    const [ours] = await waiting();
    const elsewhere = { course: 'dome-induction', handIn: ours?.id ?? '', accepts: true };
    expect((await judge(trivet, greta, elsewhere, now)).kind).toBe('wrong');
    expect(completions('sunniva')).not.toContain(TASK);
    for (const over of [
      { score: 101 },
      { score: Number.NaN },
      { handIn: 'none' },
      { words: 'x'.repeat(5001) },
    ])
      expect((await judgeLast(over)).kind).toBe('wrong');
  });
});

it('shows a walk the form, nobody’s work, and what handing in would do', async () => {
  await handIn('lio', 'Private words of mine.');
  const signed = await signedInAt(trivet, 'greta');
  const walk = await startWalk(
    trivet,
    administratorOf(signed.visitor) as Administrator,
    { standIn: { person: 'lio' }, side: 'live' },
    now,
  );
  if (walk.kind !== 'walk') throw new Error(walk.kind);
  tokens.set('walker', signed.token);
  const page = await ask('walker', `/walk/${walk.token}${DOOR}`);
  expect(page.main).toContain('Hand in');
  expect(page.text).not.toContain('Private words');
  const would = await ask('walker', `/walk/${walk.token}${DOOR}`, form('From the walk'));
  expect(would.text).toContain('hand in a version of Your picture, and how it came about for Lio Farrow');
  expect(await versions()).toHaveLength(1);
});
