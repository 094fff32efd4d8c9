import { afterEach, beforeEach, expect, it } from 'vitest';
import { asId, type Item, type ItemId } from '@/core';
import { noContent, updateItem } from '@/store';
import { type Administrator, changeItem, readWriting, saveWriting, siteOverview, type Trivet } from '..';
import { gretaAt, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterEach(() => trivet.close());

const overview = () => siteOverview(trivet, greta);
const item = (id: string): Item => {
  const found = trivet.state.outline.items.get(asId<ItemId>(id));
  if (!found) throw new Error(`no ${id}`);
  return found;
};
/** Gives the first text of Visit us another body, as though it had been fine when it was written. */
const write = async (body: string) => {
  const text = [...trivet.state.outline.items.values()].find(
    ({ kind, parent }) => kind === 'section' && parent === 'visit',
  );
  if (!text) throw new Error('Visit us has no text.');
  await updateItem(trivet.db, { item: text, content: { ...noContent, body } }, 'follows');
  await trivet.reload();
};
const messages = async () => (await overview()).faults.map((fault) => `${fault.item}: ${fault.message}`);

it('finds nothing wrong with Larkfell, and nothing changed since it was loaded', async () => {
  expect(await overview()).toEqual({ drafts: [], changed: [], faults: [], more: 0 });
});

it.each([
  [
    'a link to nothing',
    'See [the crew](/crew) and [the moon](/moon?at=1#top).',
    'visit: “the moon” leads to /moon?at=1#top, where nothing is.',
  ],
  [
    'a file that is gone',
    'See [the plan](/files/gone/plan.pdf).',
    'visit: “the plan” leads to /files/gone/plan.pdf, where nothing is.',
  ],
  [
    'a picture that is gone',
    '![The hill](/files/gone/hill.webp)',
    'visit: It shows a picture from /files/gone/hill.webp, where none is.',
  ],
  [
    'a picture without words',
    '![](https://moor.example/hill.webp)',
    'visit: A picture has no words for those who don’t see it.',
  ],
  [
    'a region with a mistake',
    'All.\n\n:::for in group "Gone"\nThe key.\n:::',
    expect.stringMatching(/^visit: Line 3: /),
  ],
])('finds %s', async (_, body, message) => {
  await write(body);
  expect(await messages()).toEqual([message]);
  await write(
    'All is well: [sign in](/sign-in), [posts](/category/night-logs), [top](#top), [out](https://moor.example/).',
  );
  expect(await messages()).toEqual([]);
});

it('looks into regions, for somebody gets them', async () => {
  await write(':::for signed in\n[The moon](/moon)\n:::');
  expect((await overview()).faults).toEqual([
    {
      item: 'visit',
      section: expect.stringContaining('Visit us'),
      message: '“The moon” leads to /moon, where nothing is.',
    },
  ]);
});

it('tells a hundred faults and how many more there are', async () => {
  await write(Array.from({ length: 130 }, (_, at) => `[${at}](/moon/${at})`).join(' '));
  const { faults, more } = await overview();
  expect([faults.length, more]).toEqual([100, 30]);
});

it('finds a picture file without words', async () => {
  const picture = [...trivet.state.outline.items.values()].find(
    (one) => one.kind === 'file' && one.mediaType.startsWith('image/'),
  );
  if (!picture) throw new Error('Larkfell has no picture.');
  await updateItem(trivet.db, { item: picture, content: noContent }, 'follows');
  await trivet.reload();
  expect((await overview()).faults.filter((fault) => fault.section === null)).toEqual([
    { item: picture.id, section: null, message: 'It has no words for those who don’t see it.' },
  ]);
});

it('says what is being written and what was changed, the last one first; what made room was not changed', async () => {
  const { live } = (await readWriting(trivet, greta, 'visit')) ?? {};
  await saveWriting(trivet, greta, 'visit', { version: 0, document: live }, now);
  await changeItem(trivet, greta, { kind: 'rename', item: 'link-visit', title: 'Come' }, now);
  await changeItem(
    trivet,
    greta,
    { kind: 'move', moves: [{ item: 'contact', parent: 'site', before: 'visit' }] },
    now,
  );
  const { drafts, changed } = await overview();
  expect(drafts).toEqual([{ item: 'visit', by: 'Greta Holm', at: now.toISOString() }]);
  const menu = item('link-visit').parent;
  expect(changed.map((one) => one.item)).toEqual(['contact', menu]);
});
