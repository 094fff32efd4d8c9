/** Shared sections from the desk to the doors: written, looked at on a host, put on the site, and got by those who may. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, decide, guest, type ItemId, placeId, sharedIn } from '@/core';
import {
  type Administrator,
  bringBack,
  changeItem,
  latestRemovals,
  plainRequest,
  previewWriting,
  putLive,
  readWriting,
  saveDraft,
  saveWriting,
  sendWriting,
  siteOverview,
  type Trivet,
} from '@/services';
import { gretaAt, now, openLarkfell, signedInAt } from '@/services/testing';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const ask = async (path: string, name: string | null = null) => {
  const headers: Record<string, string> =
    name === null ? {} : { cookie: `${SESSION_COOKIE}=${(await signedInAt(trivet, name)).token}` };
  const answer = await siteAnswer(trivet, new Request(`http://localhost:3000${path}`, { headers }), now);
  return {
    status: answer.status,
    cache: String(answer.headers['Cache-Control']),
    text: textOf(answer) ?? '',
  };
};
const shows = async (path: string, words: string, name: string | null = null) =>
  (await ask(path, name)).text.includes(words);

const everywhere = { targets: [{ kind: 'branch' as const, item: 'site' }], except: [] };
const posts = (where: string) => ({ targets: [{ kind: 'selection' as const, where }], except: [] });

/** A new shared section, written and put on the site. */
async function sharing(over: object, text = 'Mind the ladder.') {
  const made = await changeItem(trivet, greta, { kind: 'new shared', title: 'Ladder' }, now);
  if (made.kind !== 'done') throw new Error(JSON.stringify(made));
  return { item: made.item, answer: await written(made.item, over, text) };
}
async function written(item: ItemId, over: object, text = 'Mind the ladder.') {
  const read = await readWriting(trivet, greta, item);
  if (!read || !('section' in read.live)) throw new Error(item);
  const { live, version, draft } = read;
  const section = { ...live.section, published: true, text };
  const saved = await saveWriting(
    trivet,
    greta,
    item,
    { version: draft?.version ?? 0, document: { ...live, section, ...over } },
    now,
  );
  if (saved.kind !== 'saved') throw new Error(JSON.stringify(saved));
  return sendWriting(trivet, greta, item, { version, draft: saved.version });
}

describe('a shared section', () => {
  it('stands at its spot on everything that is meant, and where no page is only if that is meant too', async () => {
    const { item, answer } = await sharing({ spot: 'top', on: everywhere });
    expect(answer.kind).toBe('sent');
    for (const path of ['/', '/visit', '/field-notes/halo'])
      expect(await shows(path, 'Mind the ladder.')).toBe(true);
    for (const path of ['/search', '/category/field-notes', '/sign-in', '/never-there'])
      expect(await shows(path, 'Mind the ladder.')).toBe(false);
    expect((await written(item, { elsewhere: true })).kind).toBe('sent');
    for (const path of ['/search', '/category/field-notes', '/sign-in', '/sign-up', '/reset', '/never-there'])
      expect(await shows(path, 'Mind the ladder.')).toBe(true);
  });

  it('is in each of its hosts: whoever is turned away from one gets nothing of it there', async () => {
    await sharing({ spot: 'after', on: everywhere });
    expect(await shows('/crew', 'Mind the ladder.', 'marek')).toBe(false);
    expect(await shows('/crew', 'Mind the ladder.', 'ines')).toBe(true);
    expect(await shows('/observers', 'Mind the ladder.', 'marek')).toBe(false);
    // A page in the place of one is no page that it stands on.
    expect((await ask('/observers', 'marek')).text).toContain('This opens to');
  });

  it('leaves a missing page and an address that was never there the same', async () => {
    await sharing({ spot: 'foot', on: everywhere, elsewhere: true }, ':::for signed in\nFor members.\n:::');
    const [missing, never] = [await ask('/crew', 'marek'), await ask('/never-there', 'marek')];
    expect(missing).toEqual(never);
    expect(missing.status).toBe(404);
    expect(missing.text).toContain('For members.');
  });

  it('asks its host what its regions ask of the item, and nobody where there is none', async () => {
    const text =
      ':::for item category is "Field notes"\nOf the field.\n:::otherwise\nOf something else.\n:::\n\n:::for item picture is not set\nWithout a picture.\n:::';
    const { answer } = await sharing({ spot: 'before', on: everywhere, elsewhere: true }, text);
    expect(answer).toMatchObject({ kind: 'sent' });
    expect(await shows('/field-notes/halo', 'Of the field.')).toBe(true);
    expect(await shows('/visit', 'Of something else.')).toBe(true);
    expect(await shows('/visit', 'Without a picture.')).toBe(true);
    expect(await shows('/never-there', 'Without a picture.')).toBe(false);
    // The same page twice, so that what was kept of one host is not another's.
    expect(await shows('/visit', 'Of the field.')).toBe(false);
    expect(await shows('/field-notes/halo', 'Of the field.')).toBe(true);
  });

  it('is for some as its gate says, and for all once the gate is gone', async () => {
    expect(await shows('/visit', 'Thursday is open night', 'marek')).toBe(false);
    const { draft, live } = trivet.state;
    const gates = draft.policy.gates.filter(({ id }) => id !== 'thursday-notice');
    await saveDraft(trivet, greta, { version: draft.version, policy: { ...draft.policy, gates } });
    await putLive(trivet, greta, { version: trivet.state.draft.version, revision: live.revision }, now);
    expect(await shows('/visit', 'Thursday is open night', 'marek')).toBe(true);
  });

  it('is neither found by search nor part of the API’s pages nor of feeds', async () => {
    await sharing({ spot: 'beside', on: everywhere }, 'Zanthoxylum.');
    expect((await ask('/search?q=zanthoxylum')).text).toContain('Nothing');
    expect(await shows('/feed.xml', 'Zanthoxylum')).toBe(false);
  });
});

describe('writing one', () => {
  it('begins unpublished, on nothing, and says so once it is published', async () => {
    const made = await changeItem(trivet, greta, { kind: 'new shared', title: 'Ladder' }, now);
    if (made.kind !== 'done') throw new Error('not made');
    expect(decide(trivet.state.live.compiled, made.item, guest, plainRequest(trivet.state, now)).kind).toBe(
      'turned away',
    );
    await written(made.item, {});
    const { faults } = await siteOverview(trivet, greta, now);
    expect(faults).toContainEqual(
      expect.objectContaining({ item: made.item, message: expect.stringMatching(/stands on nothing/) }),
    );
  });

  it('is looked at on a host that one chooses, as whom one chooses, with nothing on the site', async () => {
    const read = await readWriting(trivet, greta, 'lending-shelf');
    if (!read) throw new Error('gone');
    const document = {
      ...read.live,
      on: posts('item category is "Kit reviews" or item category is "Field notes"'),
    };
    const seen = async (standIn: unknown, host?: string) =>
      JSON.stringify(
        await previewWriting(
          trivet,
          greta,
          'lending-shelf',
          { standIn, document, ...(host && { host }) },
          now,
        ),
      );
    expect(await seen({ person: 'wren' }, 'halo')).toMatch(
      /lending shelf.*A ring around|A ring around.*lending shelf/s,
    );
    expect(await seen({ person: 'marek' }, 'halo')).not.toContain('red book');
    expect(await shows('/field-notes/halo', 'red book', 'wren')).toBe(false);
    const nowhere = { ...document, on: posts('item category is "Nothing of the kind"') };
    expect(
      await previewWriting(trivet, greta, 'lending-shelf', { standIn: 'guest', document: nowhere }, now),
    ).toMatchObject({ kind: 'wrong', problems: [{ path: 'on' }] });
  });

  it('says what is wrong, where, and changes nothing', async () => {
    const before = trivet.state.contents.get(asId<ItemId>('lending-shelf'))?.body;
    const wrong = async (over: object, text?: string) => {
      const answer = await written(asId('lending-shelf'), over, text);
      return answer.kind === 'wrong' ? answer.problems : answer.kind;
    };
    expect(await wrong({ on: posts('item categry is "x"') })).toMatchObject([{ path: 'on' }]);
    expect(await wrong({ on: posts('signed in') })).toMatchObject([
      { path: 'on', message: expect.stringContaining('no fact of an item') },
    ]);
    const many = {
      kind: 'any',
      of: Array(150).fill({ kind: 'test', fact: 'item kind', op: 'is', value: 'post' }),
    };
    expect(
      await wrong({
        on: {
          targets: [
            { kind: 'selection', where: many },
            { kind: 'selection', where: many },
          ],
          except: [],
        },
      }),
    ).toMatchObject([{ path: 'on', message: expect.stringContaining('at most 200 tests') }]);
    let deep: object = { kind: 'any', of: [] };
    for (let at = 0; at < 200; at++) deep = { kind: 'not', of: deep };
    expect(await wrong({ on: { targets: [{ kind: 'selection', where: deep }], except: [] } })).toMatchObject([
      { path: 'on', message: expect.stringContaining('too deep') },
    ]);
    expect(await wrong({ spot: 'ceiling' })).toMatchObject([{ path: 'spot' }]);
    expect(await wrong({}, 'a\n:::for signed out\nb\n:::')).toMatchObject([{ path: 'section', line: 2 }]);
    expect(await wrong({}, ':own[nme]')).toMatchObject([{ path: 'section', line: 1 }]);
    expect(trivet.state.contents.get(asId<ItemId>('lending-shelf'))?.body).toBe(before);
  });

  it('is refused when somebody else was quicker, with theirs', async () => {
    const read = await readWriting(trivet, greta, 'colophon');
    const save = (version: number) =>
      saveWriting(trivet, greta, 'colophon', { version, document: { ...read?.live } }, now);
    expect(await save(0)).toMatchObject({ kind: 'saved', version: 1 });
    expect(await save(0)).toMatchObject({ kind: 'stale', draft: { version: 1 } });
  });

  it('is taken away and brought back where it stood', async () => {
    const before = sharedIn(trivet.state.outline);
    expect(await changeItem(trivet, greta, { kind: 'remove', item: 'colophon' }, now)).toMatchObject({
      kind: 'done',
    });
    expect(await shows('/', 'the kettle is on')).toBe(false);
    const [removal] = await latestRemovals(trivet, greta);
    await bringBack(trivet, greta, removal?.id ?? '');
    expect(await shows('/', 'the kettle is on')).toBe(true);
    expect(sharedIn(trivet.state.outline)).toEqual(before);
  });

  it('stands on a host or not, and is nothing anywhere else', () => {
    const { places } = trivet.state.live.compiled;
    const [first] = sharedIn(trivet.state.outline);
    if (!first) throw new Error('There is none.');
    expect(places.at(placeId(first.id, asId<ItemId>('visit')))).not.toBeNull();
    expect(places.at(placeId(first.id, asId<ItemId>('join')))).toBeNull();
    expect(places.at(placeId(first.id, asId<ItemId>('gone')))).toBeNull();
    expect(places.at(placeId(asId<ItemId>('visit'), asId<ItemId>('home')))).toBeNull();
  });
});
