import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { decide, guest, type ItemId, type PersonId, type Policy } from '@/core';
import { noContent, updateItem } from '@/store';
import {
  type Administrator,
  bringBack,
  changeItem,
  type Document,
  dropWriting,
  previewRemoval,
  previewWriting,
  putLive,
  readWriting,
  saveDraft,
  saveWriting,
  search,
  sendWriting,
  type Trivet,
  uploadFile,
  viewPage,
} from '..';
import { gretaAt, liveContext, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterEach(() => trivet.close());

const factsFor = (name: string | null) =>
  name === null ? guest : (trivet.state.people.get(name as PersonId)?.facts ?? guest);
const view = (path: string, name: string | null = null) =>
  viewPage(liveContext(trivet.state, factsFor(name)), path);
const shown = (path: string, name: string | null = null) => JSON.stringify(view(path, name));
const writing = async (id: string) => {
  const read = await readWriting(trivet, greta, id);
  if (!read || !('sections' in read.live)) throw new Error(id);
  return { ...read, live: read.live };
};
const save = (id: string, document: object, version = 0) =>
  saveWriting(trivet, greta, id, { version, document }, now);
/** Writes something and puts it on the site. */
const put = async (id: string, over: (live: Document) => object) => {
  const { live, version } = await writing(id);
  await save(id, { ...live, ...over(live) });
  return sendWriting(trivet, greta, id, { version, draft: 1 });
};
const textOf = (document: Document): string =>
  document.sections.map((one) => ('text' in one ? one.text : '')).join('\n');
const withText = (live: Document, text: string) => ({
  sections: live.sections.map((one, at) => (at === 0 && 'text' in one ? { ...one, text } : one)),
});
const make = async (edit: object): Promise<ItemId> => {
  const answer = await changeItem(trivet, greta, edit, now);
  if (answer.kind !== 'done') throw new Error(answer.message);
  return answer.item;
};
const problemWith = async (edit: object) => {
  const answer = await changeItem(trivet, greta, edit, now);
  return answer.kind === 'wrong' ? answer.message : null;
};

describe('writing', () => {
  it('is kept as one types and not on the site before one says so', async () => {
    const { live } = await writing('visit');
    expect(await save('visit', { ...live, title: 'Come and see us' })).toEqual({ kind: 'saved', version: 1 });
    expect(shown('/visit')).not.toContain('Come and see us');
    expect((await writing('visit')).draft).toMatchObject({
      version: 1,
      by: 'Greta Holm',
      document: { title: 'Come and see us' },
    });
    const { version } = await writing('visit');
    expect(await sendWriting(trivet, greta, 'visit', { version, draft: 1 })).toMatchObject({ kind: 'sent' });
    expect(shown('/visit')).toContain('Come and see us');
    expect((await writing('visit')).draft).toBeNull();
  });

  it('keeps anything while it is being written, however unfinished, and can be dropped', async () => {
    expect(await save('visit', { title: '', sections: [{ half: true }] })).toMatchObject({ kind: 'saved' });
    expect(await sendWriting(trivet, greta, 'visit', { version: 1, draft: 1 })).toMatchObject({
      kind: 'wrong',
    });
    await dropWriting(trivet, greta, 'visit');
    expect((await writing('visit')).draft).toBeNull();
    expect(await save('nowhere', {})).toEqual({ kind: 'missing' });
  });

  it('does not overwrite what somebody else wrote meanwhile', async () => {
    const { live } = await writing('visit');
    await save('visit', { ...live, title: 'Mine' });
    expect(await save('visit', { ...live, title: 'Theirs' })).toMatchObject({
      kind: 'stale',
      draft: { document: { title: 'Mine' } },
    });
    expect(await save('visit', { ...live, title: 'Theirs' }, 1)).toEqual({ kind: 'saved', version: 2 });
    // What was looked at is not what would go to the site.
    expect(await sendWriting(trivet, greta, 'visit', { version: 1, draft: 1 })).toMatchObject({
      kind: 'stale',
    });
    const at = await Promise.all([save('visit', live, 2), save('visit', live, 2)]);
    expect(at.map(({ kind }) => kind).sort()).toEqual(['saved', 'stale']);
  });

  it('says what is wrong, and where, before anything goes to the site', async () => {
    const answer = await put('visit', (live) => ({
      title: '',
      address: '/desk/x',
      ...withText(live, 'fine\n\n:::for level at leest "Observer"\nSECRET\n:::'),
    }));
    expect(answer).toMatchObject({ kind: 'wrong' });
    const second = await put('join', (live) => ({
      address: '/visit',
      ...withText(live, 'fine\n\n:::for signed in\nSECRET'),
    }));
    if (second.kind !== 'wrong') throw new Error(second.kind);
    expect(second.problems).toEqual(
      expect.arrayContaining([
        { path: 'address', line: null, message: '“Visit us” has this address. Choose another.' },
        { path: 'sections.0', line: 3, message: expect.stringContaining('never closed') },
      ]),
    );
    expect(shown('/join')).not.toContain('SECRET');
  });

  it('keeps the conditions of regions by ids, and shows them by today’s names', async () => {
    await put('visit', (live) =>
      withText(live, ':::for in group "Dome crew"\nThe key is under the stone.\n:::'),
    );
    expect(trivet.state.contents.get('visit-text' as ItemId)?.body).toContain('id "dome-crew"');
    expect(textOf((await writing('visit')).live)).toContain(':::for in group "Dome crew"');
    expect(shown('/visit', 'ines')).toContain('under the stone');
    expect(shown('/visit', 'marek')).not.toContain('under the stone');
    const found = async (name: string) =>
      (await search(liveContext(trivet.state, factsFor(name)), trivet.db, 'stone')).hits.length;
    expect([await found('ines'), await found('marek')]).toEqual([1, 0]);
  });

  it('leads from an old address to the new one, and nobody to where there is nothing for them', async () => {
    await put('rota', () => ({ address: '/crew/who-opens' }));
    expect(view('/crew/rota', 'ines')).toEqual({ kind: 'moved', to: '/crew/who-opens' });
    expect(view('/crew/rota', 'marek')).toEqual(view('/never-there', 'marek'));
    await put('visit', () => ({ address: '/COME//up/' }));
    expect(view('/visit')).toEqual({ kind: 'moved', to: '/come/up' });
    // Whoever takes an old address has it.
    await put('join', () => ({ address: '/visit' }));
    expect(view('/visit')).toMatchObject({ kind: 'page', facts: { title: 'Join us' } });
  });

  it('takes a section out with the files in it, and brings both back', async () => {
    const before = trivet.state.outline.items.size;
    const answer = await put('home', (live) => ({
      sections: live.sections.filter(({ type }) => type !== 'picture'),
    }));
    expect(answer.kind).toBe('sent');
    expect(trivet.state.outline.items.has('hill-picture' as ItemId)).toBe(false);
    expect(trivet.state.outline.items.size).toBe(before - 2);
  });

  it('shows a page as it will look, to whom it will look so, without anything being on the site', async () => {
    const { live } = await writing('visit');
    const document = { ...live, ...withText(live, 'For all.\n\n:::for signed in\nFor members.\n:::') };
    const context = async (standIn: unknown) =>
      JSON.stringify(await previewWriting(trivet, greta, 'visit', { standIn, document }, now));
    expect(await context('guest')).not.toContain('For members.');
    expect(await context({ person: 'marek' })).toContain('For members.');
    expect(shown('/visit', 'marek')).not.toContain('For members.');
    const linked = { ...live, ...withText(live, 'Our [*charts* & more](/observers/charts), and [home](/).') };
    const withheldFrom = async (standIn: unknown) =>
      await previewWriting(trivet, greta, 'visit', { standIn, document: linked }, now);
    expect(await withheldFrom('guest')).toMatchObject({
      withheld: [{ kind: 'link', words: 'charts & more', title: 'Charts' }],
    });
    expect(await withheldFrom({ person: 'tobin' })).toMatchObject({ withheld: [] });
    const wrong = { ...live, ...withText(live, ':::for signed in\nx') };
    expect(
      await previewWriting(trivet, greta, 'visit', { standIn: 'guest', document: wrong }, now),
    ).toMatchObject({
      kind: 'wrong',
      problems: [{ line: 1 }],
    });
  });
});

describe('making and moving', () => {
  it('makes a page that nobody sees yet, at an address that is free', async () => {
    const first = await make({ kind: 'new page', parent: 'observers', title: 'Finder Charts' });
    const second = await make({ kind: 'new page', parent: 'observers', title: 'Finder charts!' });
    expect([first, second].map((id) => trivet.state.outline.items.get(id))).toMatchObject([
      { address: '/observers/finder-charts', published: false },
      { address: '/observers/finder-charts-2', published: false },
    ]);
    expect(view('/observers/finder-charts', 'greta').kind).toBe('missing');
    expect(await problemWith({ kind: 'new page', parent: 'observers', title: ' ' })).toMatch(/title/);
    expect(await problemWith({ kind: 'new page', parent: 'top', title: 'x' })).toMatch(/belongs below/);
  });

  it('gates a new post of a category from its first second', async () => {
    const id = await make({ kind: 'new post', title: 'Tomorrow', category: 'Night logs' });
    await put(id, () => ({ published: true }));
    expect(view('/night-logs/tomorrow').kind).toBe('teaser');
    expect(view('/night-logs/tomorrow', 'odile').kind).toBe('page');
  });

  it('starts new items with the gates that items of their kind start with, in the draft and live', async () => {
    const { live, draft } = trivet.state;
    const policy: Policy = {
      ...live.policy,
      defaults: [{ kind: 'page', category: null, gate: 'trustees' as never }],
    };
    const saved = await saveDraft(trivet, greta, { version: draft.version, policy });
    if (saved.kind !== 'saved') throw new Error(saved.kind);
    await putLive(trivet, greta, { version: saved.version, revision: live.revision, note: '' }, now);
    const id = await make({ kind: 'new page', parent: 'site', title: 'Papers' });
    await put(id, () => ({ published: true }));
    for (const side of ['draft', 'live'] as const) {
      const decision = decide(trivet.state[side].compiled, id, guest, {
        today: '2026-11-20',
        minute: 0,
        weekday: 'Friday',
      } as never);
      expect(decision.kind).toBe('turned away');
    }
    expect(view('/papers').kind).toBe('message');
    expect(view('/papers', 'priya').kind).toBe('page');
  });

  it('moves what can be moved, and nothing into itself or below its own child', async () => {
    await make({
      kind: 'move',
      moves: [{ item: 'link-visit', parent: 'link-observers', before: 'link-booking' }],
    });
    const below = trivet.state.outline.children.get('link-observers' as ItemId) ?? [];
    expect(below.map(({ id }) => id)).toEqual(['link-charts', 'link-visit', 'link-booking']);
    expect(
      await problemWith({
        kind: 'move',
        moves: [{ item: 'link-observers', parent: 'link-observers', before: null }],
      }),
    ).toMatch(/in itself/);
    expect(
      await problemWith({
        kind: 'move',
        moves: [{ item: 'link-observers', parent: 'link-charts', before: null }],
      }),
    ).toMatch(/below itself/);
    expect(
      await problemWith({
        kind: 'move',
        moves: [{ item: 'observers', parent: 'sample-chart', before: null }],
      }),
    ).toMatch(/below itself/);
    expect(
      await problemWith({ kind: 'move', moves: [{ item: 'top', parent: 'partners', before: null }] }),
    ).toMatch(/belongs below/);
    expect(
      await problemWith({ kind: 'move', moves: [{ item: 'gone', parent: 'top', before: null }] }),
    ).toMatch(/no longer there/);
  });

  it('refuses a link that leads to nothing, or where it could run something', async () => {
    const link = (target: object) => problemWith({ kind: 'new link', parent: 'top', title: 'x', target });
    expect(await link({ kind: 'item', item: 'gone' })).toMatch(/leads to nothing/);
    expect(await link({ kind: 'outside', url: 'javascript:alert(1)' })).toMatch(/whole address/);
    expect(await link({ kind: 'outside', url: 'https://moor.example/' })).toBeNull();
  });
});

describe('taking away', () => {
  it('says first what goes with it, what covers it and what leads there', () => {
    expect(previewRemoval(trivet, greta, 'join')).toMatchObject({
      gone: ['Join us', 'Ways to belong', 'Passes', 'For less'],
      links: ['Join'],
      gates: expect.arrayContaining([expect.stringContaining('Join us')]),
      leads: expect.arrayContaining([expect.stringContaining('Kit reviews')]),
    });
    expect(previewRemoval(trivet, greta, 'hollin-school')?.leads).toEqual([
      'a landing rule after signing in',
    ]);
    expect(previewRemoval(trivet, greta, 'site')).toBeNull();
  });

  it('can be taken back, with everything that went', async () => {
    const before = [...trivet.state.outline.items.keys()].sort();
    const answer = await changeItem(trivet, greta, { kind: 'remove', item: 'observers' }, now);
    if (answer.kind !== 'done') throw new Error(answer.message);
    expect(view('/observers/charts', 'tobin').kind).toBe('missing');
    // A gate over nothing, and a draft that still names it, are no obstacle.
    const { draft } = trivet.state;
    expect(await saveDraft(trivet, greta, { version: draft.version, policy: draft.policy })).toMatchObject({
      kind: 'saved',
    });
    expect(await bringBack(trivet, greta, answer.removal)).toMatchObject({ kind: 'done' });
    expect([...trivet.state.outline.items.keys()].sort()).toEqual(before);
    expect(view('/observers/charts', 'tobin').kind).toBe('page');
    expect(await bringBack(trivet, greta, answer.removal)).toMatchObject({ kind: 'wrong' });
  });

  it('leaves the draft to be saved as it is, with landing rules and turn-aways that lead nowhere now', async () => {
    for (const item of ['hollin-school', 'join']) await make({ kind: 'remove', item });
    const { draft } = trivet.state;
    expect(await saveDraft(trivet, greta, { version: draft.version, policy: draft.policy })).toMatchObject({
      kind: 'saved',
    });
    expect(view('/observers', 'marek')).toMatchObject({ kind: 'teaser', step: null });
  });

  it('does not bring back what has no place any more, and keeps it', async () => {
    const answer = await changeItem(trivet, greta, { kind: 'remove', item: 'booking' }, now);
    await put('charts', () => ({ address: '/observers/booking' }));
    const removal = answer.kind === 'done' ? answer.removal : null;
    expect(await bringBack(trivet, greta, removal)).toMatchObject({
      kind: 'wrong',
      message: expect.stringContaining('share the address'),
    });
    await put('charts', () => ({ address: '/observers/charts' }));
    expect(await bringBack(trivet, greta, removal)).toMatchObject({ kind: 'done' });
    expect(await problemWith({ kind: 'remove', item: 'home' })).toMatch(/first page/);
  });
});

describe('files', () => {
  const text = new TextEncoder().encode('Notes of the night.');

  it('are taken in where they belong, and are closed when that is', async () => {
    const answer = await uploadFile(trivet, greta, { name: 'notes.txt', parent: 'first-light' }, text, now);
    if (answer.kind !== 'done') throw new Error(answer.message);
    const decided = (name: string | null) =>
      decide(trivet.state.live.compiled, answer.item, factsFor(name), { today: '2026-11-20' } as never).kind;
    expect([decided(null), decided('odile')]).toEqual(['turned away', 'open']);
    expect(await uploadFile(trivet, greta, { name: 'a.txt', parent: 'top' }, text, now)).toMatchObject({
      kind: 'wrong',
    });
  });

  it('belong to somebody, and are seen by them and the crew alone', async () => {
    const answer = await uploadFile(trivet, greta, { name: 'mine.txt', parent: 'site' }, text, now);
    if (answer.kind !== 'done') throw new Error(answer.message);
    const edit = { kind: 'file', item: answer.item, title: 'Mine', category: 'Raw frames', owner: 'marek' };
    await make(edit);
    const decided = (name: string) =>
      decide(trivet.state.live.compiled, answer.item, factsFor(name), { today: '2026-11-20' } as never).kind;
    expect(['marek', 'ines', 'tobin'].map(decided)).toEqual(['open', 'open', 'turned away']);
    expect(await problemWith({ ...edit, owner: 'nobody' })).toMatch(/nobody here/);
  });

  it('lose nothing that gates ask for by a new title: not their tags, nor a group that is gone', async () => {
    const answer = await uploadFile(trivet, greta, { name: 'old.txt', parent: 'site' }, text, now);
    if (answer.kind !== 'done') throw new Error(answer.message);
    const item = trivet.state.outline.items.get(answer.item);
    if (!item) throw new Error('It is not there.');
    const facts = { ...item.facts, tags: ['winter'], author: 'Ines', group: 'gone', owner: 'gone' } as never;
    await updateItem(trivet.db, { item: { ...item, facts }, content: noContent });
    await trivet.reload();
    await make({ kind: 'file', item: answer.item, title: 'New title', owner: 'gone', group: 'gone' });
    expect(trivet.state.outline.items.get(answer.item)).toMatchObject({ title: 'New title', facts });
    expect(
      await problemWith({ kind: 'file', item: answer.item, title: 'x', owner: null, group: 'never' }),
    ).toMatch(/no such group/);
  });
});
