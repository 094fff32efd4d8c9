/** The language of a site and its first page, as an owner sets them. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { asId, guest, type ItemId } from '@/core';
import { updateItem } from '@/store';
import {
  type Administrator,
  editSettings,
  frameFor,
  type OpenSettings,
  openSettings,
  type Trivet,
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

const keep = (over: Partial<OpenSettings> | object) => {
  const { given: _, home: __, ...settings } = openSettings(trivet, greta);
  return editSettings(trivet, greta, { ...settings, ...over }, now);
};
const pageAt = (path: string) => viewPage(liveContext(trivet.state, guest), path);
const addressOf = (id: string) => {
  const item = trivet.state.outline.items.get(asId<ItemId>(id));
  return item && 'address' in item ? item.address : null;
};

describe('the first page', () => {
  it('is another from the moment it is chosen; where it was leads to it, and the one before has an address', async () => {
    const before = openSettings(trivet, greta).home;
    const other = [...trivet.state.outline.items.values()].find(
      (item) => item.kind === 'page' && item.address === '/visit',
    );
    if (!other || before === null) throw new Error('The demo has changed.');
    expect(await keep({ home: other.id })).toBeNull();
    expect(openSettings(trivet, greta).home).toBe(other.id);
    expect(addressOf(other.id)).toBe('/');
    expect(pageAt('/')).toMatchObject({ kind: 'page', facts: { title: other.title } });
    expect(pageAt('/visit')).toEqual({ kind: 'moved', to: '/' });
    expect(addressOf(before)).toBe('/home');
    expect(pageAt('/home')).toMatchObject({ kind: 'page' });
    // And back: nothing is where two could be.
    expect(await keep({ home: before })).toBeNull();
    expect(addressOf(before)).toBe('/');
    expect(pageAt('/home')).toEqual({ kind: 'moved', to: '/' });
    expect(addressOf(other.id)).toMatch(/^\/visit/);
  });

  it('stays where nobody says otherwise, and where the same is chosen again', async () => {
    const { home } = openSettings(trivet, greta);
    const addresses = () => [...trivet.state.outline.addressed.keys()];
    const before = addresses();
    expect(await keep({})).toBeNull();
    expect(await keep({ home })).toBeNull();
    expect(await keep({ home: null })).toBeNull();
    expect(addresses()).toEqual(before);
  });

  it('is no page that is not there, not published or none', async () => {
    expect(await keep({ home: 'gone' })).toEqual({ home: expect.stringMatching(/no such page/) });
    const file = [...trivet.state.outline.items.values()].find(({ kind }) => kind === 'file');
    expect(await keep({ home: file?.id })).toEqual({ home: expect.stringMatching(/no such page/) });
    const page = [...trivet.state.outline.items.values()].find(
      (item) => item.kind === 'page' && item.address === '/visit',
    );
    if (page?.kind !== 'page') throw new Error('The demo has changed.');
    await trivet.change(() =>
      updateItem(trivet.db, { item: { ...page, published: false }, content: { summary: '', body: '' } }),
    );
    expect(await keep({ home: page.id, timeZone: 'Asia/Tokyo' })).toEqual({
      home: expect.stringMatching(/not published/),
    });
    expect(openSettings(trivet, greta).timeZone).not.toBe('Asia/Tokyo');
  });

  it('of two that are chosen at the same moment is one of them, and both are somewhere', async () => {
    const pages = [...trivet.state.outline.items.values()].flatMap((item) =>
      item.kind === 'page' && item.published && item.address !== '/' ? [item.id] : [],
    );
    await Promise.all(pages.slice(0, 2).map((home) => keep({ home })));
    const addresses = [...trivet.state.outline.items.values()].flatMap((item) =>
      'address' in item ? [item.address] : [],
    );
    expect(new Set(addresses).size).toBe(addresses.length);
    expect(pages.slice(0, 2)).toContain(openSettings(trivet, greta).home);
  });
});

describe('the language', () => {
  const shown = () => frameFor(liveContext(trivet.state, guest), null).language;
  it('is a tag, written as tags are', async () => {
    expect(shown()).toBe('en');
    expect(await keep({ language: ' DE-at ' })).toBeNull();
    expect([shown(), openSettings(trivet, greta).language]).toEqual(['de-AT', 'de-AT']);
  });

  it.each(['', 'plain english', '"><b>', 'x'.repeat(500), 7])('is not %j', async (language) => {
    expect(await keep({ language })).toEqual({ language: expect.any(String) });
    expect(shown()).toBe('en');
  });
});
