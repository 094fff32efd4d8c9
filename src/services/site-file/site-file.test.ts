/** A site out as a file and in again: the same site, or nothing. */
import { readFileSync } from 'node:fs';
import Ajv from 'ajv/dist/2020';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asId, type ItemId, type PersonId } from '@/core';
import { readCode, readPassphraseHashes, readPasswordHashes, setPasswordHash, writeCode } from '@/store';
import { larkfell } from '../../../demo/larkfell';
import {
  type Administrator,
  editNames,
  exportSite,
  importSite,
  readSiteFile,
  replaceSite,
  type SiteFile,
  saveDraft,
  siteFileSchema,
  type Trivet,
  visitorOf,
} from '..';
import { gretaAt, now, openEmpty, openLarkfell, signedInAt, withOpened } from '../testing';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

/** Pictures are drawn anew when they come from elsewhere, which takes their bytes along. */
const withoutDrawing = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value, (key, part) => (['size', 'coarse', 'data'].includes(key) ? undefined : part)),
  );

/** What a site is, without what is its own: versions, keys, revisions. */
const essence = ({ state }: Trivet) => ({
  items: [...state.outline.items.values()]
    .map(({ rank: _, ...item }) => item)
    .sort((a, b) => (a.id < b.id ? -1 : 1)),
  order: Object.fromEntries(
    [...state.outline.children].map(([parent, children]) => [parent, children.map(({ id }) => id)]),
  ),
  contents: Object.fromEntries([...state.contents].sort(([a], [b]) => (a < b ? -1 : 1))),
  names: state.names,
  live: state.live.policy,
  draft: state.draft.policy,
  oldAddresses: Object.fromEntries([...state.oldAddresses].sort()),
});
const peopleOf = ({ state }: Trivet) =>
  [...state.people.values()].map(({ facts: { share: _, ...facts }, ...one }) => ({ ...one, facts }));
const dryRun = async (file: unknown) => replaceSite(trivet, greta, { file, basis: null }, now);

describe('a site as a file', () => {
  it('comes to another folder as the same site, with its people when they are in it', async () => {
    await saveDraft(trivet, greta, {
      version: trivet.state.draft.version,
      policy: withOpened(trivet, 'crew'),
    });
    const file = JSON.parse(JSON.stringify(await exportSite(trivet, greta, 'people')));
    const other = await openEmpty();
    expect(await importSite(other, file, 'Somebody')).toEqual([]);
    expect(withoutDrawing(essence(other))).toEqual(withoutDrawing(essence(trivet)));
    expect(peopleOf(other)).toEqual(peopleOf(trivet));
    // And out again: the same text.
    const { people: _, ...mine } = await exportSite(trivet, greta, 'people');
    const { people: __, ...theirs } = await exportSite(other, greta, 'people');
    expect(withoutDrawing(theirs)).toEqual(withoutDrawing(mine));
    await other.close();
    const { draft, live } = trivet.state;
    await saveDraft(trivet, greta, { version: draft.version, policy: live.policy });
  });

  it('holds nothing that could be used to sign in', async () => {
    const text = JSON.stringify(await exportSite(trivet, greta, 'people'));
    expect(text).not.toMatch(/\$argon2|larkfell-demo"|"password"/);
    const { shareKey, passphraseSalt } = trivet.state.settings;
    expect(text).not.toContain(shareKey);
    expect(text).not.toContain(passphraseSalt);
  });

  it('holds what is kept of passwords when that is asked for, and a site that is there takes it', async () => {
    const file = JSON.parse(JSON.stringify(await exportSite(trivet, greta, 'people who can sign in')));
    const kept = file.people.filter((one: object) => 'passwordHash' in one);
    expect(kept).toHaveLength(12);
    expect(file.passphrases[0].hash).toMatch(/^[0-9a-f]{64}$/);
    const wren = file.people.find(({ id }: { id: string }) => id === 'wren');
    const marek = file.people.find(({ id }: { id: string }) => id === 'marek');
    const before = await readPasswordHashes(trivet.db, [asId('marek')]);
    marek.passwordHash = wren.passwordHash;
    const [his, hers] = [await signedInAt(trivet, 'marek'), await signedInAt(trivet, 'wren')];
    // Of a passphrase, what was made with another salt could be typed by nobody.
    file.passphraseSalt = '0'.repeat(32);
    file.passphrases[0].hash = '0'.repeat(64);
    const passphrase = await readPassphraseHashes(trivet.db, [asId('comet-mail')]);
    const looked = await dryRun(file);
    if (looked.kind !== 'report') throw new Error(JSON.stringify(looked));
    await replaceSite(trivet, greta, { file, basis: looked.report.basis }, now);
    expect(await readPasswordHashes(trivet.db, [asId('marek')])).toEqual({ marek: wren.passwordHash });
    expect(await readPassphraseHashes(trivet.db, [asId('comet-mail')])).toEqual(passphrase);
    // Whoever has another password is signed out, and nobody else.
    expect((await visitorOf(trivet, his.token, now)).person).toBeNull();
    expect((await visitorOf(trivet, hers.token, now)).person?.id).toBe('wren');
    await setPasswordHash(trivet.db, asId('marek'), before.marek ?? '');
  });

  it('takes no hash that would cost more than a sign-in may, or that is none', async () => {
    const hash = (await readPasswordHashes(trivet.db, [asId('marek')])).marek ?? '';
    const problemsWith = async (passwordHash: string) => {
      const people = larkfell.people?.map((one) => (one.id === 'marek' ? { ...one, passwordHash } : one));
      const read = await readSiteFile({ ...larkfell, people });
      return 'problems' in read ? read.problems : [];
    };
    expect(await problemsWith(hash)).toEqual([]);
    for (const wrong of [
      hash.replace('m=19456', 'm=4194304'),
      hash.replace('t=2', 't=900'),
      hash.replace('p=1', 'p=64'),
      hash.replace('argon2id', 'argon2i'),
      hash.replace('m=19456', 'm=0'),
      `${hash}$`,
      'larkfell-demo',
    ])
      expect(await problemsWith(wrong)).toEqual([expect.stringContaining('no argon2id hash')]);
  });

  it('fits the schema that is published, and so does the demo', async () => {
    const schema = siteFileSchema();
    expect(JSON.parse(readFileSync('docs/site-file.schema.json', 'utf8'))).toEqual(schema);
    // As the strictest of readers: nothing in it that the standard does not know.
    const validate = new Ajv({ strict: true, strictTypes: false, strictTuples: false }).compile(schema);
    for (const file of [await exportSite(trivet, greta, 'people'), larkfell]) {
      validate(JSON.parse(JSON.stringify(file)));
      expect(validate.errors).toBeNull();
    }
    expect(validate({ ...larkfell, colour: 'red' })).toBe(false);
  });

  it('takes a site in again whose gates name what is gone', async () => {
    const site = await openLarkfell();
    const owner = await gretaAt(site);
    const remove = (of: string, id: string) => editNames(site, owner, { kind: 'remove', of, id }, false, now);
    for (const [of, id] of [
      ['group', 'dome-crew'],
      ['product', 'winter-atlas'],
      ['field', 'hours-logged'],
    ] as const)
      expect((await remove(of, id)).kind).toBe('changed');
    const team = {
      kind: 'field',
      id: 'team',
      type: 'choice',
      choices: ['Visits'],
      private: false,
      editable: false,
    };
    expect((await editNames(site, owner, team, false, now)).kind).toBe('changed');
    const file = JSON.parse(JSON.stringify(await exportSite(site, owner, 'people')));
    expect(file.gone).toEqual(
      expect.arrayContaining(['group dome-crew', 'field hours-logged', 'choice team Optics']),
    );
    const other = await openEmpty();
    expect(await importSite(other, file, 'Somebody')).toEqual([]);
    expect(other.state.live.policy).toEqual(site.state.live.policy);
    // What is not listed is a mistake.
    expect('problems' in (await readSiteFile({ ...file, gone: [] }))).toBe(true);
    await other.close();
    await site.close();
  }, 60_000);
});

describe('a file over the site', () => {
  const out = async (): Promise<SiteFile> =>
    JSON.parse(JSON.stringify(await exportSite(trivet, greta, 'nobody')));

  it('changes nothing when it is the site itself', async () => {
    expect(await dryRun(await out())).toMatchObject({
      kind: 'report',
      report: {
        items: { added: [], changed: [], removed: [] },
        names: { added: [], removed: [] },
        people: null,
        changes: 0,
      },
    });
  });

  it('says first what it would do, and then does all of it', async () => {
    const file = await out();
    const people = [
      { id: 'new-one', name: 'New One', email: 'new@larkfell.example', level: 'friend' },
      {
        ...JSON.parse(JSON.stringify(peopleOf(trivet).find(({ id }) => id === 'marek'))),
        facts: undefined,
        level: 'friend',
      },
    ];
    const changed = {
      ...file,
      roles: [...file.roles, { id: 'scribe', name: 'Scribe' }],
      items: [
        ...file.items
          .filter(({ id }) => id !== 'trustees')
          .map((one) => (one.id === 'visit' ? { ...one, title: 'Come and see' } : one)),
        { kind: 'page', id: 'fresh', parent: 'site', title: 'Fresh', address: '/fresh', body: 'New here.' },
      ],
      policy: {
        ...(file.policy as object),
        gates: (file.policy as { gates: { id: string }[] }).gates.filter(({ id }) => id !== 'trustees'),
      },
      people: JSON.parse(JSON.stringify(people)),
    };
    const before = essence(trivet);
    const looked = await dryRun(changed);
    if (looked.kind !== 'report') throw new Error(JSON.stringify(looked));
    expect(looked.report.items.added).toEqual(['Fresh (page)', 'Text (section)']);
    expect(looked.report.items.changed).toEqual(['Come and see (page)']);
    expect(looked.report.items.removed).toContain('Trustees (page)');
    expect(looked.report.names).toEqual({ added: ['Scribe (role)'], removed: [] });
    expect(looked.report.people).toEqual({ added: ['New One'], changed: ['Marek Dunmore'] });
    expect(looked.report.changes).toBe(1);
    expect(looked.report.opens.map(({ title, to }) => [title, to])).toEqual(
      [
        'First light of the long refractor',
        'The comet from the lawn',
        'L-14 is fading early',
        'Six belts and a division',
      ].map((title) => [title, '1 member (Marek Dunmore)']),
    );
    expect(essence(trivet)).toEqual(before);
    const revision = trivet.state.live.revision;
    expect(
      await replaceSite(trivet, greta, { file: changed, basis: looked.report.basis }, now),
    ).toMatchObject({ kind: 'done' });
    expect(trivet.state.outline.items.get(asId<ItemId>('visit'))?.title).toBe('Come and see');
    expect(trivet.state.outline.items.has(asId<ItemId>('trustees'))).toBe(false);
    expect(trivet.state.people.get(asId<PersonId>('marek'))?.level).toBe('friend');
    expect(trivet.state.people.get(asId<PersonId>('wren'))?.level).toBe('observer');
    expect(trivet.state.live.revision).toBe(revision + 1);
  });

  it('says which items it would open, and to whom', async () => {
    const file = await out();
    const { gates } = file.policy as { gates: { id: string }[] };
    const looked = await dryRun({
      ...file,
      policy: { ...(file.policy as object), gates: gates.filter(({ id }) => id !== 'crew') },
    });
    if (looked.kind !== 'report') throw new Error(JSON.stringify(looked));
    const rota = looked.report.opens.find(({ title, kind }) => kind === 'page' && title === 'Rota');
    expect(rota).toMatchObject({ guests: true, to: expect.stringMatching(/^guests and \d+ members \(/) });
    expect(rota?.first).not.toContain('Wren Halloran');
    const joins = await dryRun({
      ...file,
      people: [
        {
          ...JSON.parse(
            JSON.stringify({ ...peopleOf(trivet).find(({ id }) => id === 'tobin'), facts: undefined }),
          ),
          groups: ['dome-crew'],
        },
      ],
    });
    if (joins.kind !== 'report') throw new Error(JSON.stringify(joins));
    expect(joins.report.opens.find(({ title }) => title === 'Rota')?.to).toBe('1 member (Tobin Aske)');
  });

  it('is refused when the site was changed since the dry run', async () => {
    const looked = await dryRun(await out());
    if (looked.kind !== 'report') throw new Error('refused');
    await saveDraft(trivet, greta, {
      version: trivet.state.draft.version,
      policy: withOpened(trivet, 'crew'),
    });
    expect(
      await replaceSite(trivet, greta, { file: await out(), basis: looked.report.basis }, now),
    ).toMatchObject({ kind: 'stale' });
  });

  it.each<[string, (file: SiteFile) => unknown, RegExp]>([
    ['a later version', (file) => ({ ...file, version: 7 }), /of version 7, and this Trivet reads version 1/],
    ['another format', () => ({ hello: 1 }), /no site file/],
    ['no object at all', () => 'a text', /no site file/],
    ['an unknown key', (file) => ({ ...file, colour: 'red' }), /the file: "colour" is not known here/],
    [
      'an unknown key far inside',
      (file) => ({
        ...file,
        items: file.items.map((one) => (one.id === 'visit' ? { ...one, gate: 'x' } : one)),
      }),
      /items\.\d+ \(visit\): "gate" is not known here/,
    ],
    [
      'a circle',
      (file) => ({
        ...file,
        items: file.items.map((one) =>
          one.id === 'visit'
            ? { ...one, parent: 'join' }
            : one.id === 'join'
              ? { ...one, parent: 'visit' }
              : one,
        ),
      }),
      /stands below itself/,
    ],
    [
      'a parent that is nowhere',
      (file) => ({
        ...file,
        items: file.items.map((one) => (one.id === 'visit' ? { ...one, parent: 'nowhere' } : one)),
      }),
      /nowhere/,
    ],
    [
      'a link to nothing',
      (file) => ({
        ...file,
        items: [
          ...file.items,
          {
            kind: 'link',
            id: 'astray',
            parent: 'top',
            title: 'Astray',
            target: { kind: 'item', item: 'nowhere' },
          },
        ],
      }),
      /leads to nothing that can be opened/,
    ],
    [
      'an id twice',
      (file) => ({ ...file, items: [...file.items, file.items.find(({ id }) => id === 'visit')] }),
      /Two items have the id "visit"/,
    ],
    [
      'a gate on nothing',
      (file) => ({
        ...file,
        policy: {
          gates: [
            {
              id: 'g',
              what: { targets: [{ kind: 'item', item: 'nowhere' }], except: [] },
              who: 'signed in',
              otherwise: { cases: [], last: { kind: 'missing' } },
              stance: 'also',
            },
          ],
        },
      }),
      /There is no item "nowhere"/,
    ],
    [
      'a group that people are in left out',
      (file) => ({ ...file, groups: file.groups.filter(({ id }) => id !== 'suspended') }),
      /Suspended/,
    ],
    ['text where a list should be', (file) => ({ ...file, items: 'none' }), /items: /],
  ])('with %s is refused with the place, and nothing is done', async (_, spoil, said) => {
    const before = essence(trivet);
    const answer = await dryRun(spoil(await out()));
    expect(answer.kind).toBe('wrong');
    if (answer.kind === 'wrong') {
      expect(answer.problems.length).toBeGreaterThan(0);
      expect(answer.problems.join('\n')).toMatch(said);
    }
    expect(essence(trivet)).toEqual(before);
  });

  it('with another mail address for somebody ends what was sent to the old one', async () => {
    const wren = peopleOf(trivet).find(({ id }) => id === 'wren');
    const code = {
      tokenHash: 'of-wren',
      purpose: 'reset' as const,
      email: wren?.email ?? '',
      codeHash: 'x',
      expiresAt: new Date(now.getTime() + 60_000),
    };
    await writeCode(trivet.db, code, now);
    const file = {
      ...(await out()),
      people: JSON.parse(JSON.stringify([{ ...wren, facts: undefined, email: 'wren@elsewhere.example' }])),
    };
    const looked = await dryRun(file);
    if (looked.kind !== 'report') throw new Error(JSON.stringify(looked));
    const { basis } = looked.report;
    expect(await replaceSite(trivet, greta, { file, basis }, now)).toMatchObject({ kind: 'done' });
    expect(trivet.state.people.get(asId<PersonId>('wren'))?.email).toBe('wren@elsewhere.example');
    expect(await readCode(trivet.db, code.tokenHash)).toBeNull();
  });

  it('never leaves the site without an owner, or two people with one mail address', async () => {
    const file = await out();
    const person = (id: string, more: object) => ({
      ...file,
      people: [{ id, name: 'X', email: `${id}@larkfell.example`, ...more }],
    });
    expect(await dryRun(person('greta', {}))).toMatchObject({
      kind: 'wrong',
      problems: [expect.stringContaining('own the site')],
    });
    expect(await dryRun(person('other', { email: 'priya@larkfell.example' }))).toMatchObject({
      kind: 'wrong',
      problems: [expect.stringContaining('one mail address')],
    });
  });
});
