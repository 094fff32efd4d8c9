/** Texts that know their reader: who is shown what, by which door, and what is kept of it. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
  asId,
  type Gate,
  type GateId,
  type Item,
  type ItemId,
  nobody,
  type PersonId,
  sectionsOf,
} from '@/core';
import { administratorOf, makeKey, putLive, saveDraft, savePerson, startWalk, type Trivet } from '@/services';
import { gretaAt, now, openLarkfell, signedInAt } from '@/services/testing';
import { updateItem } from '@/store';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';

let trivet: Trivet;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

const ask = async (path: string, headers: Record<string, string> = {}) => {
  const answer = await siteAnswer(trivet, new Request(`http://localhost:3000${path}`, { headers }), now);
  return { cache: String(answer.headers['Cache-Control']), text: textOf(answer) ?? '' };
};
const cookieOf = async (name: string) => ({
  cookie: `${SESSION_COOKIE}=${(await signedInAt(trivet, name)).token}`,
});
const seenBy = async (name: string, path: string) => (await ask(path, await cookieOf(name))).text;

/** Lets a page or post say something, and nothing else. */
async function saying(id: ItemId, body: string): Promise<Item> {
  const { outline } = trivet.state;
  const item = outline.items.get(id);
  const section = sectionsOf(outline, id).find(({ type }) => type === 'text');
  if (!item || !section) throw new Error(id);
  await updateItem(trivet.db, { item, content: { summary: '', body: '' } });
  await updateItem(trivet.db, { item: section, content: { summary: '', body } });
  await trivet.reload();
  return item;
}

const home = asId<ItemId>('home');
const GREETING = 'Good evening, :own[name]{or="friend"}. You are at :own[level]{or="no level"}.';

describe('a page that knows its reader', () => {
  it('says to each what is theirs, and to guests what is said when nothing is known', async () => {
    await saying(home, GREETING);
    // Twice: the second is what would be kept of the first.
    for (const _ of [1, 2]) {
      expect(await seenBy('odile', '/')).toContain('Good evening, <bdi>Odile Marsh</bdi>. You are at');
      expect(await seenBy('ines', '/')).toMatch(/Good evening, <bdi>Ines [^<]+<\/bdi>/);
      expect((await ask('/')).text).toContain('Good evening, friend. You are at no level.');
    }
  });

  it('is kept by nobody on the way', async () => {
    await saying(home, GREETING);
    expect((await ask('/')).cache).toMatch(/private|no-store/);
    expect((await ask('/', await cookieOf('odile'))).cache).toMatch(/private|no-store/);
  });

  it('says nothing of anybody in its head, in lists and in other people’s feeds', async () => {
    await saying(home, GREETING);
    const head = /<head>.*<\/head>/s.exec(await seenBy('odile', '/'))?.[0];
    expect(head).toContain('Good evening, friend.');
    expect(head).not.toContain('Odile');
    const post = trivet.state.posts.find(({ facts }) => facts?.category === 'Field notes');
    if (!post) throw new Error('There is no post.');
    await saying(post.id, GREETING);
    expect((await ask('/feed.xml')).text).toContain('Good evening, friend.');
    const made = await makeKey(trivet, asId<PersonId>('odile'), { use: 'feed', name: 'Test' }, now);
    if (made.kind !== 'made') throw new Error(made.problem);
    expect((await ask(`/feed.xml?key=${made.key}`)).text).toContain('&lt;bdi&gt;Odile Marsh&lt;/bdi&gt;');
    expect(await seenBy('ines', '/category/field-notes')).not.toContain('Odile');
  });

  it('writes what a reader is called as text, whatever it is', async () => {
    await saying(home, GREETING);
    const odile = trivet.state.people.get(asId<PersonId>('odile'));
    if (!odile) throw new Error('Odile is gone.');
    const name = `<b>&"\u202eeliD*O* :own[mail] \uE001${'x'.repeat(150)}`;
    const { facts: _, ...known } = odile;
    const { id: __, ...person } = { ...known, name };
    await savePerson(trivet, await gretaAt(trivet), known.id, { based: known, person }, now);
    expect(trivet.state.people.get(known.id)?.name).toBe(name);
    const page = await seenBy('odile', '/');
    expect(page).toContain('<bdi>&lt;b&gt;&amp;&quot;\u202eeliD*O* :own[mail] ');
    expect(page).not.toContain('odile@larkfell.example');
  });

  it('shows them in headings, in links and in emphasis; in code and in addresses they are letters', async () => {
    await saying(
      home,
      '# Hello :own[name]\n\n**:own[name]** [for :own[name]](/visit?n=:own[name] ":own[name]") `:own[name]` \\:own[name]\n\n```\n:own[name]\n```',
    );
    const page = await seenBy('odile', '/');
    const body = page.slice(page.indexOf('<main'));
    expect(body).toContain('Hello <bdi>Odile Marsh</bdi></h1>');
    expect(body).toContain('<strong><bdi>Odile Marsh</bdi></strong>');
    expect(body).toMatch(/<a href="\/visit\?n=:own%5Bname%5D"[^>]*>for <bdi>Odile Marsh<\/bdi><\/a>/);
    expect(body).toContain('<code>:own[name]</code> :own[name]');
    expect(body).toContain('<code>:own[name]\n</code>');
  });

  it('shows nothing where an own word can’t be read, or what it names is gone', async () => {
    await saying(home, 'a:own[nonsense]b:own[profile id "gone"]{or="-"}c');
    expect(await seenBy('odile', '/')).toContain('<p>abc</p>');
    await saying(home, 'a:own[until id "gone"]{or="-"}c');
    expect(await seenBy('odile', '/')).toContain('<p>ac</p>');
  });

  describe('in what a gate puts in the place of a section', () => {
    const swapping = (text: string): Gate => ({
      id: asId<GateId>('swapping'),
      what: {
        targets: sectionsOf(trivet.state.outline, home).map(({ id }) => ({
          kind: 'item' as const,
          item: id,
        })),
        except: [],
      },
      who: nobody,
      otherwise: { cases: [], last: { kind: 'swap', text } },
      stance: 'instead',
    });
    const save = async (text: string) => {
      const { draft } = trivet.state;
      const policy = { ...draft.policy, gates: [...draft.policy.gates, swapping(text)] };
      return saveDraft(trivet, await gretaAt(trivet), { version: draft.version, policy });
    };

    it('says what is theirs, kept by ids', async () => {
      const saved = await save(
        'Come back, :own[name]{or="friend"}: :own[profile "Hours logged"]{or="no"} hours.',
      );
      expect(saved).toMatchObject({ kind: 'saved' });
      const { draft, live } = trivet.state;
      expect(draft.policy.gates.at(-1)?.otherwise.last).toEqual({
        kind: 'swap',
        text: 'Come back, :own[name]{or="friend"}: :own[profile id "hours-logged"]{or="no"} hours.',
      });
      await putLive(trivet, await gretaAt(trivet), { version: draft.version, revision: live.revision }, now);
      expect(await seenBy('wren', '/')).toMatch(
        /Come back, <bdi>Wren Halloran<\/bdi>: <bdi>\d+<\/bdi> hours\./,
      );
      const { cache, text } = await ask('/');
      expect(text).toContain('Come back, friend: no hours.');
      expect(cache).toMatch(/private|no-store/);
    });
  });

  it('shows the stand-in’s on a walk, and nothing of the administrator', async () => {
    await saying(home, GREETING);
    const session = await signedInAt(trivet, 'greta');
    const greta = administratorOf(session.visitor);
    if (!greta) throw new Error('Greta may not use the desk.');
    const walk = async (standIn: unknown) => {
      const begun = await startWalk(trivet, greta, { standIn, side: 'live' }, now);
      if (begun.kind !== 'walk') throw new Error(begun.kind);
      return (await ask(`/walk/${begun.token}/`, { cookie: `${SESSION_COOKIE}=${session.token}` })).text;
    };
    expect(await walk({ person: 'odile' })).toContain('<bdi>Odile Marsh</bdi>');
    expect(await walk('guest')).toContain('Good evening, friend.');
  });
});
