/** A folder of pages taken in: what comes of it, what stays out and why, who gets it, and back to the very site that was there. */
import { describe, expect, it } from 'vitest';
import {
  asId,
  type Condition,
  decide,
  type Gate,
  guest,
  hasRole,
  type ItemId,
  openPolicy,
  type Policy,
  pathOf,
  type RoleId,
} from '@/core';
import { readFileBytes, writeBothPolicies } from '@/store';
import {
  type Administrator,
  changeItem,
  plainRequest,
  search,
  sendFolder,
  takeBackIn,
  takeIn,
  viewOf,
  viewPage,
} from '..';
import { siteAsFile } from '../site-file';
import { now } from '../testing';
import { contentOf } from '../view';
import { emptySite, notesOf, streamOf, tree, zipOf } from './testing';

const { site, ask, asked, look, send, taken } = emptySite();

const asGuest = () =>
  viewOf({
    state: site.trivet.state,
    compiled: site.trivet.state.live.compiled,
    facts: guest,
    person: null,
    request: plainRequest(site.trivet.state, now),
    base: '',
  });

const at = (address: string) => {
  const item = site.trivet.state.outline.addressed.get(address as never);
  if (!item) throw new Error(`Nothing is at ${address}.`);
  return item;
};

const textAt = (address: string): string =>
  (site.trivet.state.outline.children.get(at(address).id) ?? [])
    .filter(({ kind }) => kind === 'section')
    .map(({ id }) => contentOf(site.trivet.state, id).body)
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
  'site/pictures/house.png': site.picture,
  'site/pictures/unused.png': site.picture,
});

/** Two pages, one of which is gated with all beneath it; posts start under a gate; and nobody but colleagues opens what is below the other. */
async function putGates(): Promise<void> {
  const page = (parent: string, title: string) =>
    changeItem(site.trivet, site.administrator, { kind: 'new page', parent, title }, now);
  const my = await page(site.trivet.state.outline.root, 'My');
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
  await site.trivet.change(async () => {
    await writeBothPolicies(site.trivet.db, { draft: policy, live: policy, author: 'Una', note: '' });
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
    expect(site.trivet.state.outline.addressed.has('/visit' as never)).toBe(false);
  });

  it('comes in with its links, pictures, addresses of before and words', async () => {
    await taken(oldSite());
    expect(textAt('/')).toBe(
      '# Welcome\n\nWe are [here](/visit/how-to-find-us#by-train) and [there](/posts).',
    );
    const house = [...site.trivet.state.outline.items.values()].find(({ title }) => title === 'house');
    expect(pathOf(house)).toMatch(/^\/files\/.+\/house\.webp$/);
    expect(house?.parent).toBe(at('/visit').id);
    expect(contentOf(site.trivet.state, house?.id as ItemId).picture).toMatchObject({
      width: 40,
      height: 30,
      alt: 'The house',
    });
    expect(await readFileBytes(site.trivet.db, house?.id as ItemId)).not.toBeNull();
    expect(textAt('/visit')).toContain(`![The house](${pathOf(house)})`);
    expect(textAt('/visit')).toMatch(/\[the plan\]\(\/files\/.+\/plan\.txt\) or \[home\]\(\/\)/);
    expect(textAt('/about/team')).toContain('[Visit](/visit) [who](#who-is-who)');
    expect(at('/posts/first-night')).toMatchObject({
      kind: 'post',
      facts: { date: '2024-05-01', tags: ['sky'], author: 'Ada', category: 'Posts' },
    });
    const { oldAddresses } = site.trivet.state;
    expect(oldAddresses.get('/about/team.html' as never)).toBe(at('/about/team').id);
    expect(oldAddresses.get('/visit/how to find us' as never)).toBe(at('/visit/how-to-find-us').id);
    expect(oldAddresses.get('/posts/2024-05-01-first-night' as never)).toBe(at('/posts/first-night').id);
    expect(textAt('/visit/how-to-find-us')).toContain('[Nowhere](/visit/gone.md)');
    const found = await search(asGuest(), site.trivet.db, 'dark');
    expect(JSON.stringify(found)).toContain('/posts/first-night');
    const moved = await viewPage(asGuest(), '/visit/How%20to%20find%20us');
    expect(moved).toMatchObject({ kind: 'moved', to: '/visit/how-to-find-us' });
  });

  it('goes back to the very site that was there', async () => {
    const before = await siteAsFile(site.trivet, 'people');
    const { taking } = await taken(oldSite());
    expect(await takeBackIn(site.trivet, site.administrator, taking, now)).toMatchObject({ kind: 'done' });
    expect(await siteAsFile(site.trivet, 'people')).toEqual(before);
    expect(await takeBackIn(site.trivet, site.administrator, taking, now)).toMatchObject({ kind: 'wrong' });
  });

  it('stays once somebody has changed something of it', async () => {
    const { taking } = await taken(oldSite());
    await changeItem(
      site.trivet,
      site.administrator,
      { kind: 'rename', item: at('/visit').id, title: 'Find us' },
      now,
    );
    expect(await takeBackIn(site.trivet, site.administrator, taking, now)).toEqual({
      kind: 'wrong',
      message: '“Find us” was changed since. Nothing was taken back.',
    });
    await changeItem(
      site.trivet,
      site.administrator,
      { kind: 'new page', parent: at('/about').id, title: 'More' },
      now,
    );
    expect(site.trivet.state.outline.addressed.has('/about/more' as never)).toBe(true);
  });

  it('is open to whom it says before it comes in', async () => {
    const { state } = site.trivet;
    const report = await look(await send(zipOf({ 'a.md': 'A', 'b.md': '---\ndraft: true\n---\nB' })), {
      published: true,
    });
    expect(report.pages.map(({ title, opens }) => `${title} ${opens}`)).toEqual(['A everybody', 'B nobody']);
    const hidden = await look(await send(zipOf({ 'a.md': 'A' })), { published: false });
    expect(hidden.pages.map(({ opens }) => opens)).toEqual(['nobody']);
    expect(decide(state.live.compiled, at('/').id, guest, plainRequest(state, now)).kind).toBe('open');
  });

  it('brings links to its topmost pages, and takes them back with the rest', async () => {
    const menu = [...site.trivet.state.outline.items.values()].find(({ kind }) => kind === 'menu');
    const links = () =>
      (site.trivet.state.outline.children.get(menu?.id as ItemId) ?? []).map(({ title }) => title);
    const before = links();
    const { taking } = await taken(
      { 'index.md': 'Hi', 'a/b.md': 'B', 'c.md': 'C' },
      { menu: menu?.id ?? null },
    );
    expect(links()).toEqual([...before, 'A', 'C']);
    expect(await takeBackIn(site.trivet, site.administrator, taking, now)).toMatchObject({ kind: 'done' });
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
    expect(site.trivet.state.outline.addressed.has('/my/secret' as never)).toBe(false);
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
      site.trivet,
      site.administrator,
      { kind: 'new page', parent: site.trivet.state.outline.root, title: 'Other' },
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
    const stopped = await takeIn(site.trivet, site.administrator, asked(source, null), now, {
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
        takeIn(site.trivet, site.administrator, asked(source, null, { published }), now, follow),
      ),
    );
    expect(both.map(({ kind }) => kind)).toEqual(['report', 'report']);
    // Once before the first page, and once for each.
    expect(told).toHaveLength(3);
  });
});

it('needs the right to change everything', async () => {
  const tutor = {
    ...site.administrator,
    desk: { right: 'author', branch: null },
  } as unknown as Administrator;
  await expect(sendFolder(site.trivet, tutor, streamOf(zipOf({ 'a.md': 'A' })), 'x')).rejects.toThrow();
});
