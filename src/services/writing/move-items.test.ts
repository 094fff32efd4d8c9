import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { asId, decide, guest, type Item, type ItemId, mayHold } from '@/core';
import {
  type Administrator,
  changeItem,
  type ItemEdit,
  previewRemoval,
  readWriting,
  saveWriting,
  sendWriting,
  type Trivet,
  viewPage,
} from '..';
import { gretaAt, liveContext, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;

const id = (name: string) => asId<ItemId>(name);
const item = (name: string) => {
  const found = trivet.state.outline.items.get(id(name));
  if (!found) throw new Error(`no ${name}`);
  return found;
};
const below = (name: string) =>
  (trivet.state.outline.children.get(id(name)) ?? []).map(({ id: one }) => one as string);
const move = (...moves: [item: string, parent: string, before?: string][]): ItemEdit => ({
  kind: 'move',
  moves: moves.map(([which, parent, before = null]) => ({ item: which, parent, before })),
});
const change = (edit: object, who = greta) => changeItem(trivet, who, edit, now);
const done = async (edit: object) => {
  const answer = await change(edit);
  if (answer.kind !== 'done') throw new Error(answer.message);
  return answer;
};
const writer = (): Administrator => ({ ...greta, desk: { right: 'writer', branch: null } });

beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterEach(() => trivet.close());

describe('moving several items', () => {
  it('puts them one after the other, in one step, and back where they were', async () => {
    const before = ['site', 'contact'].map(below);
    const answer = await done(
      move(['visit', 'contact'], ['home', 'contact', 'visit'], ['field-notes', 'contact']),
    );
    expect(below('contact').slice(-3)).toEqual(['home', 'visit', 'field-notes']);
    expect(answer.summary).toBe('Moved: 3 items');
    await done(answer.undo ?? {});
    expect(['site', 'contact'].map(below)).toEqual(before);
  });

  it('does nothing at all when one of them can’t be moved', async () => {
    const answer = await change(move(['visit', 'contact'], ['contact', 'visit']));
    expect(answer).toEqual({ kind: 'wrong', message: '“Contact” can’t stand in itself or below itself.' });
    expect(item('visit').parent).toBe(trivet.state.outline.root);
  });

  it('asks before something comes out from under a gate', async () => {
    const out = move(['charts', trivet.state.outline.root]);
    expect(await change(out)).toEqual({
      kind: 'opens',
      message:
        'Moved there, Charts would no longer be under the gate over Observers’ room and everything below it.',
    });
    expect(item('charts').parent).toBe('observers');
    await done({ ...out, leaving: true });
    expect(item('charts').parent).toBe(trivet.state.outline.root);
  });

  it('asks before a part of an activity comes into one that opens sooner', async () => {
    const { outline } = trivet.state;
    const [part] = outline.children.get(asId('first-opening-quiz')) ?? [];
    const sooner = move([part?.id ?? '', 'ladder-safety']);
    expect(await change(sooner)).toEqual({
      kind: 'opens',
      message: 'Moved there, text in Before your first opening would no longer wait for Night drill.',
    });
    expect(await change(sooner, writer())).toMatchObject({ kind: 'wrong' });
    const { undo } = await done({ ...sooner, leaving: true });
    await done(undo ?? {});
  });

  it('says what comes under a gate', async () => {
    const { summary } = await done(move(['tonight', 'observers']));
    expect(summary).toBe(
      'Moved: Tonight’s sky. Now under the gate over Observers’ room and everything below it: Tonight’s sky',
    );
  });

  it('lets nobody take something out from under a gate who may not change gates', async () => {
    const out = { ...move(['charts', trivet.state.outline.root]), leaving: true };
    expect(await change(out, writer())).toMatchObject({
      kind: 'wrong',
      message: expect.stringContaining('Only those who may change gates'),
    });
    expect(item('charts').parent).toBe('observers');
  });

  it('offers a way back to those alone who can go it', async () => {
    const into = move(['contact', 'observers']);
    const answer = await change(into, writer());
    expect(answer).toMatchObject({ kind: 'done', summary: expect.stringMatching(/can move it back$/) });
    expect(answer).not.toHaveProperty('undo');
    await done({ ...move(['contact', trivet.state.outline.root]), leaving: true });
    expect(await done(into)).toHaveProperty('undo');
  });

  it.each([
    ['too many', move(...Array.from({ length: 501 }, (): [string, string] => ['visit', 'contact']))],
    ['none', move()],
    ['what is not there', move(['gone', 'contact'])],
    ['the site itself', move(['site', 'contact'])],
  ])('refuses %s', async (_, edit) => expect(await change(edit)).toMatchObject({ kind: 'wrong' }));

  it('says how many can be moved at once', async () => {
    const many = Array.from({ length: 501 }, (): [string, string] => ['visit', 'contact']);
    expect(await change(move(...many))).toEqual({
      kind: 'wrong',
      message: 'At most 500 items change together. Mark fewer.',
    });
  });

  it('opens nothing to anybody that was not asked about, and the way back leads back', async () => {
    const { outline } = trivet.state;
    const movable = [...outline.items.values()].filter(({ parent }) => parent !== null);
    const anybody = [...trivet.state.people.values()].slice(0, 12).map(({ facts }) => facts);
    const open = () => {
      const { compiled } = trivet.state.live;
      const { request } = liveContext(trivet.state, guest);
      return new Set(
        [guest, ...anybody].flatMap((facts, who) =>
          [...trivet.state.outline.items.keys()].flatMap((at) =>
            decide(compiled, at, facts, request).kind === 'open' ? [`${who} ${at}`] : [],
          ),
        ),
      );
    };
    const standing = () =>
      Object.fromEntries([...trivet.state.outline.items.keys()].map((one) => [one, below(one)]));
    const before = { open: open(), standing: standing() };
    const places = (one: Item) => [...outline.items.values()].filter(({ kind }) => mayHold(kind, one.kind));
    await fc.assert(
      fc.asyncProperty(
        fc
          .constantFrom(...movable)
          .chain((one) => fc.tuple(fc.constant(one), fc.constantFrom(...places(one)))),
        async ([one, place]) => {
          const answer = await change(move([one.id, place.id]));
          if (answer.kind !== 'done') return;
          const now = open();
          expect([...now].filter((pair) => !before.open.has(pair))).toEqual([]);
          await done(answer.undo ?? {});
          expect(standing()).toEqual(before.standing);
        },
      ),
      { numRuns: 40, endOnFailure: true },
    );
  });
});

describe('publishing several items', () => {
  it('takes them off the site and puts them back, those alone that are not so yet', async () => {
    const off = await done({ kind: 'publish', items: ['visit', 'contact'], published: false });
    expect(off.summary).toBe('No longer published: 2 items');
    expect(viewPage(liveContext(trivet.state, guest), '/visit').kind).toBe('missing');
    const on = await done({ kind: 'publish', items: ['visit', 'home'], published: true });
    expect(on).toMatchObject({
      summary: 'Published: Visit us',
      undo: { kind: 'publish', items: ['visit'], published: false },
    });
    await done(off.undo ?? {});
    expect([item('visit').published, item('contact').published]).toEqual([true, true]);
  });

  it('says when there is nothing to do, and changes nothing when one of them is gone', async () => {
    expect(await change({ kind: 'publish', items: ['visit'], published: true })).toEqual({
      kind: 'wrong',
      message: 'That is published already.',
    });
    expect(await change({ kind: 'publish', items: ['visit', 'gone'], published: false })).toMatchObject({
      kind: 'wrong',
    });
    expect(item('visit').published).toBe(true);
  });

  it('of a section is another version of its page for whoever is writing that', async () => {
    const section = below('visit')[0] ?? '';
    const { live, version } = (await readWriting(trivet, greta, 'visit')) ?? {};
    await saveWriting(trivet, greta, 'visit', { version: 0, document: live }, now);
    await done({ kind: 'publish', items: [section], published: false });
    expect(await sendWriting(trivet, greta, 'visit', { version, draft: 1 })).toMatchObject({ kind: 'stale' });
  });

  it('reaches the branch of whoever is limited to one', async () => {
    const keeper: Administrator = { ...writer(), desk: { right: 'writer', branch: id('crew') } };
    await expect(
      change({ kind: 'publish', items: ['rota', 'visit'], published: false }, keeper),
    ).rejects.toThrow(/Your right reaches/);
    await expect(change(move(['rota', 'visit']), keeper)).rejects.toThrow(/Your right reaches/);
  });
});

describe('what opens one after the other', () => {
  const opened = {
    kind: 'opens',
    message: expect.stringContaining('Red light, and none would no longer wait for Ladder safety'),
  };

  it('is asked about before an activity comes first, goes, or is hidden', async () => {
    expect(await change(move(['red-light', 'before-you-climb', 'ladder-safety']))).toMatchObject(opened);
    expect(await change({ kind: 'publish', items: ['ladder-safety'], published: false })).toMatchObject(
      opened,
    );
    expect(await change({ kind: 'remove', item: 'ladder-safety' })).toMatchObject(opened);
    expect(previewRemoval(trivet, greta, 'ladder-safety')?.opens).toHaveLength(1);
    expect(below('before-you-climb').filter((one) => one !== 'gone')).toHaveLength(5);
  });

  it('is not hidden by writing, where nothing is asked', async () => {
    const writing = await readWriting(trivet, greta, 'ladder-safety');
    if (!writing) throw new Error('gone');
    const document = { ...writing.live, published: false };
    await saveWriting(trivet, greta, 'ladder-safety', { version: 0, document }, now);
    const { version } = writing;
    expect(await sendWriting(trivet, greta, 'ladder-safety', { version, draft: 1 })).toEqual({
      kind: 'wrong',
      problems: [{ path: 'published', line: null, message: expect.stringContaining('no longer wait for') }],
    });
    expect(item('ladder-safety').published).toBe(true);
  });

  it('is for those who may change gates', async () => {
    const edit = { kind: 'remove', item: 'ladder-safety', leaving: true };
    expect(await change(edit, writer())).toMatchObject({ kind: 'wrong' });
    expect(await change(edit)).toMatchObject({ kind: 'done' });
    expect(item('red-light').within?.before).toBeNull();
  });

  it('is moved as one likes where nothing waits', async () => {
    await done(move(['collimation', 'optics-bench', 'clean-hands']));
    expect(below('optics-bench').slice(0, 3)).toEqual(['collimation', 'clean-hands', 'unattended-opening']);
  });
});
