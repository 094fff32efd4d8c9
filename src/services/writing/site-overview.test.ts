import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { asId, decide, guest, type Item, type ItemId, type VisitorFacts } from '@/core';
import { noContent, updateItem } from '@/store';
import { type Administrator, changeItem, readWriting, saveWriting, siteOverview, type Trivet } from '..';
import { plainRequest } from '../running';
import { gretaAt, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterEach(() => trivet.close());

const overview = () => siteOverview(trivet, greta, now);
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
  expect(await overview()).toMatchObject({ drafts: [], changed: [], faults: [], more: 0 });
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

it('lists the pages to which nothing leads, until something does', async () => {
  const unled = async () => {
    const { first, count } = (await overview()).unled;
    expect(count).toBe(first.length);
    return new Map(first.map(({ item: id, to }) => [id as string, to]));
  };
  const before = await unled();
  expect(before.get('keepers')).toBeNull();
  expect(before.has('home')).toBe(false);
  expect(before.has('visit')).toBe(false);
  // In a region, where those who may open it get it; then where not all of them do.
  await write(':::for signed in\n[The evening](/keepers)\n:::');
  expect([...(await unled()).keys()]).toEqual([...before.keys()].filter((id) => id !== 'keepers'));
  await write(':::for in group "Dome crew"\n[The evening](/keepers)\n:::');
  expect((await unled()).get('keepers')).toMatch(/^\d+ members?$/);
  // Who is neither to join nor in the Observers’ room is told of the chart nowhere.
  expect(before.get('sample-chart')).toMatch(/^\d+ members?$/);
  await write('[A chart](/sample-chart)');
  expect((await unled()).has('sample-chart')).toBe(false);
  const page = item('crew');
  await updateItem(trivet.db, { item: { ...page, published: false }, content: noContent }, 'follows');
  await trivet.reload();
  expect((await unled()).has('crew')).toBe(false);
});

describe('files', () => {
  const file = (id: string) => {
    const found = item(id);
    if (found.kind !== 'file') throw new Error(`${id} is no file.`);
    return found;
  };
  const address = (id: string) => `/files/${id}/${file(id).name}`;
  const toTheSite = async (id: string) => {
    const found = file(id);
    await updateItem(
      trivet.db,
      {
        item: { ...found, parent: asId<ItemId>('site'), rank: 1000 },
        content: trivet.state.contents.get(found.id) ?? noContent,
      },
      'follows',
    );
    await trivet.reload();
  };
  const opens = (id: string, facts: VisitorFacts) =>
    decide(trivet.state.live.compiled, asId<ItemId>(id), facts, plainRequest(trivet.state, now)).kind ===
    'open';
  const members = () => [...trivet.state.people.values()].map(({ facts }) => facts);
  /** The picture of a post that some members get, and guests don't. */
  const gated = () => {
    const found = trivet.state.posts.find(
      ({ id, facts }) =>
        facts?.picture &&
        !opens(id, guest) &&
        members().some((one) => opens(id, one)) &&
        !members().every((one) => opens(id, one)),
    );
    if (!found?.facts?.picture) throw new Error('No post with a picture is gated.');
    return { post: found.id, picture: found.facts.picture as string };
  };

  it('are as open as what shows them, or it is said to whom they are open by their address alone', async () => {
    const { post, picture } = gated();
    const closed = members().filter((one) => !opens(post, one)).length;
    await toTheSite(picture);
    expect(await messages()).toEqual([
      `${picture}: It is open at its address to guests and ${closed} members, who get nothing that shows it.`,
    ]);
    // Whoever gets it somewhere else may know that it is there.
    await write(`[It](${address(picture)})`);
    expect(await messages()).toEqual([]);
  });

  it('that a text links within a region are meant for those who get that', async () => {
    const { picture, post } = gated();
    await toTheSite(picture);
    const inCrew = members().filter(
      (one) => one.groups?.some((group) => group === 'dome-crew') || opens(post, one),
    );
    const left = trivet.state.people.size - inCrew.length;
    await write(`All.\n\n:::for in group "Dome crew"\n[It](${address(picture)})\n:::`);
    expect(await messages()).toEqual([
      `${picture}: It is open at its address to guests and ${left} members, who get nothing that shows it.`,
    ]);
    await write(`:::for in group "Dome crew"\nCrew.\n:::otherwise\n[It](${address(picture)})\n:::`);
    const noCrew = inCrew.filter((one) => !opens(post, one)).length;
    expect(await messages()).toEqual(
      noCrew === 0
        ? []
        : [
            `${picture}: It is open at its address to ${noCrew} member${noCrew === 1 ? '' : 's'}, who get nothing that shows it.`,
          ],
    );
  });

  it('that are seen somewhere are missed by those to whom they are closed; a link is not', async () => {
    const { post, picture } = gated();
    const closed = members().filter((one) => !opens(post, one)).length;
    await write(`![It](${address(picture)})`);
    expect(await messages()).toEqual([
      `visit: It shows “${file(picture).title}”, which is closed to guests and ${closed} members who get the rest.`,
    ]);
    await write(`[It](${address(picture)})`);
    expect(await messages()).toEqual([]);
  });
});
