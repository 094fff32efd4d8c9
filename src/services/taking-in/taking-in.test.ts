/** A folder of pages taken in: what comes of it, what stays out and why, who gets it, and back to the very site that was there. */
import { strToU8, type Zippable, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import {
  asId,
  type Condition,
  decide,
  type Gate,
  guest,
  hasRole,
  type ItemId,
  openPolicy,
  type PersonId,
  type Policy,
  pathOf,
  type RoleId,
} from '@/core';
import { readFileBytes, writeBothPolicies } from '@/store';
import {
  type Administrator,
  administratorOf,
  changeItem,
  importSite,
  plainRequest,
  READY_MADE,
  search,
  sendFolder,
  type TakingAnswer,
  type TakingReport,
  type Trivet,
  takeBackIn,
  takeIn,
  viewOf,
  viewPage,
} from '..';
import { siteAsFile } from '../site-file';
import { now, openUnkept } from '../testing';
import { keep, putBack } from '../testing-database';
import { contentOf } from '../view';

const start = { title: 'Hazel & Co', timeZone: 'Europe/Stockholm', today: '2026-11-20' };
const una = {
  id: 'una',
  name: 'Una Fairweather',
  email: 'una@hazel.example',
  desk: { right: 'owner' as const, branch: null },
  roles: ['colleague'],
};

let trivet: Trivet;
let administrator: Administrator;
let picture: Uint8Array;

beforeAll(async () => {
  trivet = await openUnkept();
  expect(
    await importSite(
      trivet,
      { ...READY_MADE.empty.site(start), roles: [{ id: 'colleague', name: 'Colleague' }], people: [una] },
      'Una',
    ),
  ).toEqual([]);
  const person = trivet.state.people.get(asId<PersonId>('una'));
  const may = person && administratorOf({ person, facts: person.facts, session: 'here' });
  if (!may) throw new Error('Una may not use the desk.');
  administrator = may;
  picture = new Uint8Array(
    await sharp({ create: { width: 40, height: 30, channels: 3, background: '#456' } })
      .png()
      .toBuffer(),
  );
  await keep(trivet.db);
});
afterEach(async () => {
  await putBack(trivet.db);
  await trivet.reload();
});
afterAll(() => trivet.close());

const zipOf = (files: Readonly<Record<string, string | Uint8Array>>): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([path, one]) => [path, typeof one === 'string' ? strToU8(one) : one]),
    ),
  );

const streamOf = (bytes: Uint8Array): ReadableStream<Uint8Array> =>
  new Blob([new Uint8Array(bytes)]).stream() as never;

async function send(archive: Uint8Array): Promise<string> {
  const sent = await sendFolder(trivet, administrator, streamOf(archive), 'old site');
  if (sent.kind !== 'sent') throw new Error(sent.message);
  return sent.source;
}

const refusal = async (archive: Uint8Array): Promise<string> => {
  const sent = await sendFolder(trivet, administrator, streamOf(archive), 'old site');
  return sent.kind === 'wrong' ? sent.message : 'It was taken.';
};

const plainly = { posts: true, published: true, first: true, menu: null };

const asked = (source: unknown, basis: string | null, wishes: object = {}) => ({
  source,
  wishes: { above: trivet.state.outline.root, ...plainly, ...wishes },
  basis,
});

const following = (signal = new AbortController().signal) => ({ onProgress: () => undefined, signal });

const ask = (input: unknown, signal?: AbortSignal): Promise<TakingAnswer> =>
  takeIn(trivet, administrator, input, now, following(signal));

async function look(source: string, wishes: object = {}): Promise<TakingReport> {
  const answer = await ask(asked(source, null, wishes));
  if (answer.kind !== 'report') throw new Error(JSON.stringify(answer));
  return answer.report;
}

async function taken(files: Readonly<Record<string, string | Uint8Array>>, wishes: object = {}) {
  const source = await send(zipOf(files));
  const report = await look(source, wishes);
  const answer = await ask(asked(source, report.basis, wishes));
  if (answer.kind !== 'taken') throw new Error(JSON.stringify(answer));
  return { report, taking: answer.taking };
}

const tree = (report: TakingReport) =>
  report.pages.map(
    ({ depth, title, address, kind }) =>
      `${'  '.repeat(depth)}${title} ${address}${kind === 'post' ? ' (post)' : ''}`,
  );

const notesOf = (report: TakingReport, address: string) =>
  report.pages.find((one) => one.address === address)?.notes.map(({ message }) => message) ?? [];

const asGuest = () =>
  viewOf({
    state: trivet.state,
    compiled: trivet.state.live.compiled,
    facts: guest,
    person: null,
    request: plainRequest(trivet.state, now),
    base: '',
  });

const at = (address: string) => {
  const item = trivet.state.outline.addressed.get(address as never);
  if (!item) throw new Error(`Nothing is at ${address}.`);
  return item;
};

const textAt = (address: string): string =>
  (trivet.state.outline.children.get(at(address).id) ?? [])
    .filter(({ kind }) => kind === 'section')
    .map(({ id }) => contentOf(trivet.state, id).body)
    .join('\n\n');

const OLD_SITE = {
  'site/index.md':
    '# Welcome\n\nWe are [here](visit/How%20to%20find%20us.md#by-train) and [there](posts/).\n',
  'site/visit/index.md':
    '---\ntitle: Visit us\nsummary: Where we are\n---\nCome. ![The house](../pictures/house.png)\n\nSee [the plan](../papers/plan.txt) or [home](/index.md).',
  'site/visit/How to find us.md':
    '# How to find us\n\n## By train\n\n[Back](./) or [up](../). [Nowhere](gone.md). ![Again](/pictures/house.png)',
  'site/posts/2024-05-01-first-night.md': '---\ntags: [sky]\nauthor: Ada\n---\n# First night\n\nDark.',
  'site/about/team.html':
    '<title>Team</title><main><h1 id="t">The team</h1><h2 id="who">Who is who</h2><p><a href="../visit/index.md">Visit</a> <a href="#who">who</a></p><form></form></main>',
  'site/pictures/house.png': new Uint8Array(),
  'site/pictures/unused.png': new Uint8Array(),
  'site/papers/plan.txt': 'The plan.',
  'site/notes.docx': 'PK',
  'site/.git/config': 'x',
};
const oldSite = () => ({
  ...OLD_SITE,
  'site/pictures/house.png': picture,
  'site/pictures/unused.png': picture,
});

/** Two pages, one of which is gated with all beneath it; posts start under a gate; and nobody but colleagues opens what is below the other. */
async function putGates(): Promise<void> {
  const page = (parent: string, title: string) =>
    changeItem(trivet, administrator, { kind: 'new page', parent, title }, now);
  const my = await page(trivet.state.outline.root, 'My');
  if (my.kind !== 'done') throw new Error('There is no page.');
  const team = await page(my.item, 'Team');
  if (team.kind !== 'done') throw new Error('There is no page.');
  const who = inRole('colleague');
  const policy: Policy = {
    ...openPolicy,
    gates: [
      gateOver('team', [{ kind: 'branch', item: team.item }], who),
      gateOver('posts', [{ kind: 'item', item: at('/').id }], who),
      gateOver('mine', [{ kind: 'item', item: my.item }], who),
    ],
    defaults: [{ kind: 'post', category: null, gate: asId('posts') }],
    expectations: [
      {
        id: asId('only-ours'),
        who,
        claim: { kind: 'only opens' },
        what: { targets: [{ kind: 'branch', item: my.item }], except: [] },
      },
    ],
  };
  await trivet.change(async () => {
    await writeBothPolicies(trivet.db, { draft: policy, live: policy, author: 'Una', note: '' });
  });
}

const inRole = (role: string): Condition => hasRole(asId<RoleId>(role));

const gateOver = (id: string, targets: Gate['what']['targets'], who: Condition): Gate => ({
  id: asId(id),
  what: { targets, except: [] },
  who,
  otherwise: { cases: [], last: { kind: 'missing' } },
  stance: 'also',
});

describe('a folder', () => {
  it('is told as a tree, with what stays out and why', async () => {
    const report = await look(await send(zipOf(oldSite())));
    expect(tree(report)).toEqual([
      'Home /',
      'About /about',
      '  The team /about/team',
      'Posts /posts',
      '  First night /posts/first-night (post)',
      'Visit us /visit',
      '  How to find us /visit/how-to-find-us',
    ]);
    expect(report.pages.map(({ from }) => from)).toContain('about/team.html');
    expect(report.pages.filter(({ from }) => from === null).map(({ title }) => title)).toEqual([
      'About',
      'Posts',
    ]);
    expect(report.files).toMatchObject({ count: 2, atTop: 0 });
    expect(notesOf(report, '/visit/how-to-find-us')).toEqual(['It leads to what is not there: gone.md.']);
    expect(notesOf(report, '/about/team')).toEqual(['1 form was left out.']);
    expect(report.leftOut.map(({ path, why }) => `${path}: ${why}`)).toEqual([
      '1 hidden file: What an operating system or a tool keeps for itself.',
      'pictures/unused.png: No page shows it or links to it.',
      'notes.docx: No page shows it or links to it.',
    ]);
    expect(trivet.state.outline.addressed.has('/visit' as never)).toBe(false);
  });

  it('comes in with its links, pictures, addresses of before and words', async () => {
    await taken(oldSite());
    expect(textAt('/')).toBe(
      '# Welcome\n\nWe are [here](/visit/how-to-find-us#by-train) and [there](/posts).',
    );
    const house = [...trivet.state.outline.items.values()].find(({ title }) => title === 'house');
    expect(pathOf(house)).toMatch(/^\/files\/.+\/house\.webp$/);
    expect(house?.parent).toBe(at('/visit').id);
    expect(contentOf(trivet.state, house?.id as ItemId).picture).toMatchObject({
      width: 40,
      height: 30,
      alt: 'The house',
    });
    expect(await readFileBytes(trivet.db, house?.id as ItemId)).not.toBeNull();
    expect(textAt('/visit')).toContain(`![The house](${pathOf(house)})`);
    expect(textAt('/visit')).toMatch(/\[the plan\]\(\/files\/.+\/plan\.txt\) or \[home\]\(\/\)/);
    expect(textAt('/about/team')).toContain('[Visit](/visit) [who](#who-is-who)');
    expect(at('/posts/first-night')).toMatchObject({
      kind: 'post',
      facts: { date: '2024-05-01', tags: ['sky'], author: 'Ada', category: 'Posts' },
    });
    const { oldAddresses } = trivet.state;
    expect(oldAddresses.get('/about/team.html' as never)).toBe(at('/about/team').id);
    expect(oldAddresses.get('/visit/how to find us' as never)).toBe(at('/visit/how-to-find-us').id);
    expect(oldAddresses.get('/posts/2024-05-01-first-night' as never)).toBe(at('/posts/first-night').id);
    expect(textAt('/visit/how-to-find-us')).toContain('[Nowhere](/visit/gone.md)');
    const found = await search(asGuest(), trivet.db, 'dark');
    expect(JSON.stringify(found)).toContain('/posts/first-night');
    const moved = await viewPage(asGuest(), '/visit/How%20to%20find%20us');
    expect(moved).toMatchObject({ kind: 'moved', to: '/visit/how-to-find-us' });
  });

  it('goes back to the very site that was there', async () => {
    const before = await siteAsFile(trivet, 'people');
    const { taking } = await taken(oldSite());
    expect(await takeBackIn(trivet, administrator, taking, now)).toMatchObject({ kind: 'done' });
    expect(await siteAsFile(trivet, 'people')).toEqual(before);
    expect(await takeBackIn(trivet, administrator, taking, now)).toMatchObject({ kind: 'wrong' });
  });

  it('stays once somebody has changed something of it', async () => {
    const { taking } = await taken(oldSite());
    await changeItem(trivet, administrator, { kind: 'rename', item: at('/visit').id, title: 'Find us' }, now);
    expect(await takeBackIn(trivet, administrator, taking, now)).toEqual({
      kind: 'wrong',
      message: '“Find us” was changed since. Nothing was taken back.',
    });
    await changeItem(
      trivet,
      administrator,
      { kind: 'new page', parent: at('/about').id, title: 'More' },
      now,
    );
    expect(trivet.state.outline.addressed.has('/about/more' as never)).toBe(true);
  });

  it('is open to whom it says before it comes in', async () => {
    const { state } = trivet;
    const report = await look(await send(zipOf({ 'a.md': 'A', 'b.md': '---\ndraft: true\n---\nB' })), {
      published: true,
    });
    expect(report.pages.map(({ title, opens }) => `${title} ${opens}`)).toEqual(['A everybody', 'B nobody']);
    const hidden = await look(await send(zipOf({ 'a.md': 'A' })), { published: false });
    expect(hidden.pages.map(({ opens }) => opens)).toEqual(['nobody']);
    expect(decide(state.live.compiled, at('/').id, guest, plainRequest(state, now)).kind).toBe('open');
  });

  it('brings links to its topmost pages, and takes them back with the rest', async () => {
    const menu = [...trivet.state.outline.items.values()].find(({ kind }) => kind === 'menu');
    const links = () =>
      (trivet.state.outline.children.get(menu?.id as ItemId) ?? []).map(({ title }) => title);
    const before = links();
    const { taking } = await taken(
      { 'index.md': 'Hi', 'a/b.md': 'B', 'c.md': 'C' },
      { menu: menu?.id ?? null },
    );
    expect(links()).toEqual([...before, 'A', 'C']);
    expect(await takeBackIn(trivet, administrator, taking, now)).toMatchObject({ kind: 'done' });
    expect(links()).toEqual(before);
    const source = await send(zipOf({ 'a.md': 'A' }));
    expect(await ask(asked(source, null, { menu: at('/').id }))).toMatchObject({ kind: 'wrong' });
    expect(await ask(asked(source, null, { above: menu?.id }))).toMatchObject({ kind: 'wrong' });
  });

  it('stands under the gates that new items start with, and under those over its place', async () => {
    await putGates();
    const { report } = await taken(
      { 'a.md': 'A', 'b.md': '---\ndate: 2026-01-01\n---\nB' },
      { above: at('/my/team').id },
    );
    expect(report.pages.map(({ title, opens }) => `${title} ${opens}`)).toEqual(['A some', 'B some']);
    expect(report.gates).toHaveLength(2);
  });

  it('stands below its first page where that stands below another', async () => {
    await putGates();
    const report = await look(await send(zipOf({ 'index.md': '# Letters', 'a/b.md': '[up](../)' })), {
      above: at('/my').id,
      published: false,
    });
    expect(tree(report)).toEqual(['Letters /my/letters', '  A /my/letters/a', '    B /my/letters/a/b']);
  });

  it('is not taken in where something would no longer be as it is expected', async () => {
    await putGates();
    const source = await send(zipOf({ 'secret.md': 'S' }));
    const { basis, broken } = await look(source, { above: at('/my').id });
    expect(broken).toHaveLength(1);
    expect(await ask(asked(source, basis, { above: at('/my').id }))).toMatchObject({ kind: 'wrong' });
    expect(trivet.state.outline.addressed.has('/my/secret' as never)).toBe(false);
  });

  it('leaves the first page alone when that is wished, or when it is more than one text', async () => {
    const own = textAt('/');
    const { report } = await taken({ 'index.md': '# Welcome', 'a.md': 'A' }, { first: false });
    expect(tree(report)).toEqual(['Welcome /welcome', 'A /a']);
    expect(textAt('/')).toBe(own);
  });

  it('takes nothing in when the site was changed since it was looked at, or what was sent is gone', async () => {
    const source = await send(zipOf({ 'a.md': 'A' }));
    const { basis } = await look(source);
    await changeItem(
      trivet,
      administrator,
      { kind: 'new page', parent: trivet.state.outline.root, title: 'Other' },
      now,
    );
    expect(await ask(asked(source, basis))).toMatchObject({ kind: 'stale' });
    expect(await ask(asked('nothing', basis))).toMatchObject({ kind: 'gone' });
    const again = await look(source);
    await send(zipOf({ 'b.md': 'B' }));
    expect(await ask(asked(source, again.basis))).toMatchObject({ kind: 'gone' });
  });

  it('is stopped between two pages, and can be looked at again', async () => {
    const source = await send(zipOf({ 'a.md': 'A', 'b.md': 'B' }));
    const stop = new AbortController();
    const stopped = await takeIn(trivet, administrator, asked(source, null), now, {
      onProgress: () => stop.abort(),
      signal: stop.signal,
    });
    expect(stopped).toEqual({ kind: 'stopped' });
    expect((await look(source)).pages).toHaveLength(2);
  });

  it('is looked at by one after the other, and read once', async () => {
    const source = await send(zipOf({ 'a.md': 'A', 'b.md': 'B' }));
    const told: unknown[] = [];
    const follow = {
      onProgress: (progress: unknown) => void told.push(progress),
      signal: new AbortController().signal,
    };
    const both = await Promise.all(
      [true, false].map((published) =>
        takeIn(trivet, administrator, asked(source, null, { published }), now, follow),
      ),
    );
    expect(both.map(({ kind }) => kind)).toEqual(['report', 'report']);
    // Once before the first page, and once for each.
    expect(told).toHaveLength(3);
  });
});

describe('two that want one address', () => {
  it('each get one, and it is said', async () => {
    const report = await look(
      await send(
        zipOf({
          'About.md': 'A',
          'about.html': '<p>B</p>',
          'search.md': 'S',
          'about/README.md': 'C',
          'x.md': '---\naddress: /about\n---\nX',
        }),
      ),
    );
    expect(tree(report)).toEqual([
      'About /about',
      'About /about-2',
      'About /about-3',
      'Search /search-2',
      'X /about-4',
    ]);
    expect(notesOf(report, '/search-2')).toEqual(['It can’t have the address /search, so it has /search-2.']);
  });

  it('and what stands on the site keeps its own', async () => {
    await taken({ 'a.md': 'A' });
    const report = await look(await send(zipOf({ 'a.md': 'Other' })));
    expect(notesOf(report, '/a-2')).toEqual(['“A” has the address /a, so it has /a-2.']);
  });
});

describe('parents', () => {
  it('that a text names are followed, and circles broken', async () => {
    const report = await look(
      await send(
        zipOf({
          'a.md': '---\nparent: b\n---\nA',
          'b.md': '---\nparent: c\n---\nB',
          'c.md': '---\nparent: a.md\n---\nC',
          'd.md': '---\nparent: Nobody\n---\nD',
          'e.md': '---\nparent: e\n---\nE',
        }),
      ),
    );
    expect(tree(report)).toEqual(['C /c', '  B /b', '    A /a', 'D /d', 'E /e']);
    expect(notesOf(report, '/c')).toEqual([
      'It is to stand below “a.md”, which stands below it. It stands below its folder.',
    ]);
    expect(notesOf(report, '/d')).toEqual([
      'It is to stand below “Nobody”, and there is no such page. It stands below its folder.',
    ]);
    expect(notesOf(report, '/e')).toHaveLength(1);
  });
});

describe('archives that are none', () => {
  it('are refused with why, and leave nothing behind', async () => {
    expect(await refusal(strToU8('no archive'))).toBe('That can’t be read as a ZIP archive.');
    expect(await refusal(zipOf({ 'a.txt': 'x' }))).toMatch(/There is no page in it/);
    expect(await refusal(zipOf({ '../a.md': 'x' }))).toBe(
      'The archive holds a path that leads out of it: ../a.md. Nothing of it is taken.',
    );
    expect(await refusal(zipOf({ '/etc/a.md': 'x' }))).toMatch(/leads out of it/);
    expect(
      await refusal(
        zipSync(
          Object.fromEntries(Array.from({ length: 20_001 }, (_, one) => [`${one}.md`, new Uint8Array()])),
        ),
      ),
    ).toMatch(/at most 20000/);
    const huge = zipOf(
      Object.fromEntries(Array.from({ length: 3 }, (_, one) => [`${one}.md`, 'x'.repeat(100)])),
    );
    // What the list of files says of their sizes (APPNOTE 4.3.12): four bytes, 24 after the signature.
    const buffer = Buffer.from(huge);
    for (
      let place = buffer.indexOf('PK\x01\x02');
      place >= 0;
      place = buffer.indexOf('PK\x01\x02', place + 1)
    )
      buffer.writeUInt32LE(4_000_000_000, place + 24);
    expect(await refusal(new Uint8Array(buffer))).toMatch(/larger than 1000 MB/);
    expect(await refusal(zipOf({ 'a.md': 'x' }).subarray(0, 60))).toMatch(/can’t be read|damaged/);
  });

  it('in which nothing is whole say why', async () => {
    const source = await send(zipOf({ 'deep.md': '['.repeat(50_000), 'none.md': Uint8Array.from([0, 1]) }));
    expect(await ask(asked(source, null))).toEqual({
      kind: 'wrong',
      message: expect.stringMatching(
        /^Nothing of it can be taken in\. deep\.md: Line 1: .*none\.md: That is no text\./,
      ),
    });
  });

  it('give what is whole in them, and say of the rest what it is', async () => {
    const files: Zippable = {
      'a.md': strToU8('A'),
      'link.md': [strToU8('a.md'), { os: 3, attrs: 0o120777 << 16 }],
      'latin.md': Uint8Array.from([...'# Fjäll'].map((one) => one.charCodeAt(0))),
      'none.md': Uint8Array.from([0, 1, 2]),
      'deep.md': strToU8('['.repeat(50_000)),
    };
    const lies = Buffer.from(zipSync({ ...files, 'lies.md': strToU8('x'.repeat(5000)) }));
    const last = lies.lastIndexOf('PK\x01\x02');
    lies.writeUInt32LE(10, last + 24);
    const report = await look(await send(new Uint8Array(lies)));
    expect(tree(report)).toEqual(['A /a', 'Fjäll /latin']);
    expect(notesOf(report, '/latin')).toEqual([expect.stringMatching(/Latin-1/)]);
    expect(report.leftOut.map(({ path }) => path).toSorted()).toEqual([
      'deep.md',
      'lies.md',
      'link.md',
      'none.md',
    ]);
  });
});

describe('names that nobody gives', () => {
  it('are cut where a character ends, and none of them stops the rest', async () => {
    const moon = '🌙';
    const { report } = await taken({
      [`${'x'.repeat(1100)}.md`]: 'A',
      'ä\u0001b.md': 'A',
      [`${moon.repeat(120)}.md`]: 'M',
      'long.md': `---\ntags: ["${moon.repeat(150)}"]\nsummary: a${moon.repeat(1500)}\n---\n# ${'a'}${moon.repeat(150)}\n`,
      'odd/?#%&.md': 'O',
      'empty.md': '',
    });
    expect(report.leftOut.map(({ why }) => why).toSorted()).toEqual([
      'Its name holds characters that no address has.',
      'Its path has more than 1000 letters.',
    ]);
    expect(report.pages.map(({ address }) => address)).toContain('/long');
    expect(trivet.state.outline.addressed.get('/long' as never)?.title.isWellFormed()).toBe(true);
  });

  it('of folders in folders are too many before they are all made', async () => {
    const deep = Object.fromEntries(
      Array.from({ length: 400 }, (_, one) => [
        `${Array.from({ length: 60 }, (__, at) => `${one}-${at}`).join('/')}.md`,
        'A',
      ]),
    );
    const source = await send(zipOf(deep));
    expect(await ask(asked(source, null))).toEqual({
      kind: 'wrong',
      message: expect.stringMatching(/more than 20000 pages/),
    });
    const nested = await send(
      zipOf({ [`${Array.from({ length: 120 }, (_, at) => at).join('/')}/x.md`]: 'A', 'b.md': 'B' }),
    );
    expect(await ask(asked(nested, null))).toEqual({
      kind: 'wrong',
      message: expect.stringMatching(/100 deep/),
    });
  });

  it('that thousands share are told apart', async () => {
    const letters = [...'abcdefghij'];
    const alike = Object.fromEntries(
      Array.from({ length: 2 ** letters.length }, (_, one) => [
        `${letters.map((letter, at) => ((one >> at) & 1 ? letter.toUpperCase() : letter)).join('')}.md`,
        '',
      ]),
    );
    const report = await look(await send(zipOf(alike)));
    expect(new Set(report.pages.map(({ address }) => address)).size).toBe(report.pages.length);
  });
});

it('needs the right to change everything', async () => {
  const tutor = { ...administrator, desk: { right: 'author', branch: null } } as unknown as Administrator;
  await expect(sendFolder(trivet, tutor, streamOf(zipOf({ 'a.md': 'A' })), 'x')).rejects.toThrow();
});
