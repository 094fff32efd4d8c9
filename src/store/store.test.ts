import { inspect } from 'node:util';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  asId,
  type KeptNames,
  keptNames,
  type LevelId,
  noNames,
  openPolicy,
  type PersonId,
  type Policy,
} from '@/core';
import {
  countAttempt,
  deleteItems,
  deletePeople,
  deleteSearchTexts,
  deleteSession,
  dropNames,
  findCredentials,
  forgetAttempts,
  forgetOldAddresses,
  insertFirstPolicy,
  insertItems,
  insertSession,
  insertWalk,
  type OpenDatabase,
  type PersonRecord,
  readBoard,
  readItems,
  readNames,
  readPeople,
  readPeopleAnew,
  readPolicies,
  readSession,
  readWalk,
  setPassphrases,
  setPasswordHash,
  switchLive,
  uncountAttempt,
  updateDraft,
  writeBoard,
  writeNames,
  writePeople,
} from '.';
import * as schema from './schema';
import { openFresh } from './testing';

let opened: OpenDatabase;
const db = () => opened.db;
const now = new Date('2026-11-20T20:00:00Z');
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const ines = asId<PersonId>('ines');

const names: KeptNames = {
  ...keptNames(noNames),
  levels: ['friend', 'observer', 'keeper'].map((id) => ({ id: asId<never>(id), name: id })),
  roles: [{ id: asId<never>('trustee'), name: 'Trustee' }],
  groups: [
    { id: asId<never>('dome-crew'), name: 'Dome crew', private: false, open: false },
    { id: asId<never>('suspended'), name: 'Suspended', private: true, open: false },
  ],
  products: [{ id: asId<never>('atlas'), name: 'Winter atlas', kind: 'one-off' }],
};

const record = (id: string, over: Partial<PersonRecord> = {}): PersonRecord => ({
  id: asId<PersonId>(id),
  name: id,
  email: `${id}@larkfell.example`,
  desk: null,
  level: null,
  roles: [],
  groups: [],
  groupsSince: {},
  profile: {},
  joined: null,
  purchases: [],
  enrolments: [],
  completions: [],
  ...over,
});

beforeAll(async () => {
  opened = await openFresh();
  await writeNames(db(), names);
  const people = [
    record('ines', { level: asId<LevelId>('keeper'), roles: [asId('trustee')], groups: [asId('dome-crew')] }),
    record('basil', { desk: { right: 'writer', branch: null } }),
  ];
  await writePeople(
    db(),
    people.map((after) => ({ before: null, after })),
  );
  await insertFirstPolicy(db(), openPolicy, 'The test');
});
afterAll(() => opened.close());

it('asks about more of anything than a question has parameters', async () => {
  const many = Array.from({ length: 70_000 }, (_, at) => asId<never>(`no-such-${at}`));
  const asked = [ines, ...many];
  expect(await readItems(db(), asked as never[])).toEqual([]);
  await db().transaction(async (tx) => {
    await deleteItems(tx, many);
    await deleteSearchTexts(tx, many);
    await forgetOldAddresses(tx, many);
  });
  const anew = await readPeopleAnew(db(), asked as never[]);
  expect(anew.length).toBe(asked.length);
  expect(anew.filter(({ record }) => record !== null).map(({ id }) => id)).toEqual([ines]);
});

describe('people', () => {
  it('come back with everything known of them, in the order of their names', async () => {
    const whole = record('wren', {
      level: asId<LevelId>('observer'),
      groups: [asId('dome-crew'), asId('suspended')],
      profile: { team: 'Grounds', hours: 12.5, certificate: true },
      joined: '2024-05-01',
      purchases: [
        { product: asId('atlas'), on: '2025-01-02', until: null, state: 'refunded' },
        { product: asId('atlas'), on: '2025-02-02', until: '2026-02-02', state: 'paid' },
      ],
      enrolments: [{ course: asId('induction'), on: '2025-03-03', until: '2026-03-03' }],
      completions: [{ item: asId('ladder'), on: '2025-04-04', score: 81.5 }],
    });
    await writePeople(db(), [{ before: null, after: whole }]);
    const read = await readPeople(db());
    expect(read.map(({ name }) => name)).toEqual(['basil', 'ines', 'wren']);
    expect(read[2]).toEqual(whole);
    await deletePeople(db(), [whole.id]);
    expect(await readPeople(db())).toHaveLength(2);
  });

  it('are written whole: what they no longer have is gone, their password stays', async () => {
    await setPasswordHash(db(), ines, 'hash');
    const [, before] = await readPeople(db());
    if (!before) throw new Error('no Ines');
    const after = { ...before, groups: [], level: null };
    await writePeople(db(), [{ before, after }]);
    expect((await readPeople(db()))[1]).toMatchObject({ groups: [], level: null, roles: ['trustee'] });
    expect(await findCredentials(db(), 'ines@larkfell.example')).toEqual({
      person: ines,
      passwordHash: 'hash',
    });
    await writePeople(db(), [{ before: after, after: before }]);
  });

  it('may swap their mail addresses, but not share one', async () => {
    const [basil, second] = await readPeople(db());
    if (!basil || !second) throw new Error('nobody there');
    const swapped = [
      { before: basil, after: { ...basil, email: second.email } },
      { before: second, after: { ...second, email: basil.email } },
    ];
    await writePeople(db(), swapped);
    expect((await readPeople(db()))[0]?.email).toBe('ines@larkfell.example');
    await writePeople(
      db(),
      swapped.map(({ before, after }) => ({ before: after, after: before })),
    );
    const sharing = db().transaction((tx) =>
      writePeople(tx, [{ before: null, after: record('other', { email: basil.email }) }]),
    );
    await expect(sharing).rejects.toThrow();
  });

  it('may leave their mail address to somebody new', async () => {
    const [basil] = await readPeople(db());
    if (!basil) throw new Error('nobody there');
    const heir = record('a-new-one', { email: basil.email });
    const moved = { ...basil, email: 'elsewhere@larkfell.example' };
    await writePeople(db(), [
      { before: null, after: heir },
      { before: basil, after: moved },
    ]);
    const anew = await readPeopleAnew(db(), [heir.id, basil.id]);
    expect(anew.map(({ id, record }) => [id, record?.email])).toEqual(
      expect.arrayContaining([
        [heir.id, basil.email],
        [basil.id, moved.email],
      ]),
    );
    await deletePeople(db(), [heir.id]);
    await writePeople(db(), [{ before: moved, after: basil }]);
  });
});

describe('names', () => {
  it('keep the rank of the levels and what is private', async () => {
    expect(await readNames(db())).toEqual(names);
    const turned = { ...names, levels: names.levels.toReversed() };
    await writeNames(db(), turned);
    expect((await readNames(db())).levels.map(({ id }) => id)).toEqual(['keeper', 'observer', 'friend']);
    await writeNames(db(), names);
  });

  it('go when they are dropped', async () => {
    const more = { ...names, roles: [...names.roles, { id: asId<never>('tutor'), name: 'Tutor' }] };
    await writeNames(db(), more);
    await dropNames(db(), more, names);
    expect((await readNames(db())).roles).toEqual(names.roles);
  });
});

describe('items', () => {
  it('come back as the kinds they are', async () => {
    const base = { rank: 0, published: true };
    const content = { summary: 'A summary', body: '*Body*' };
    const none = { summary: '', body: '' };
    const stored = [
      {
        item: { ...base, kind: 'site' as const, id: asId<never>('site'), parent: null, title: 'Site' },
        content: none,
      },
      {
        item: {
          ...base,
          kind: 'page' as const,
          id: asId<never>('home'),
          parent: asId<never>('site'),
          title: 'Home',
          address: '/' as never,
        },
        content,
      },
      {
        item: {
          ...base,
          kind: 'link' as const,
          id: asId<never>('to-home'),
          parent: asId<never>('top'),
          title: 'Home',
          target: { kind: 'item' as const, item: asId<never>('home') },
        },
        content: none,
      },
      {
        item: {
          ...base,
          kind: 'menu' as const,
          id: asId<never>('top'),
          parent: asId<never>('site'),
          title: 'Top',
          place: 'top' as const,
        },
        content: none,
      },
    ];
    await insertItems(db(), stored);
    const read = await readItems(db());
    expect(read).toHaveLength(4);
    for (const entry of stored) expect(read).toContainEqual({ ...entry, version: 1 });
  });
});

describe('policies', () => {
  const policy: Policy = openPolicy;

  it('save a draft once per version', async () => {
    const { draft } = (await readPolicies(db())) ?? {};
    const version = draft?.version ?? 0;
    expect(await updateDraft(db(), policy, version, 'Greta')).toBe(version + 1);
    expect(await updateDraft(db(), policy, version, 'Priya')).toBeNull();
    expect((await readPolicies(db()))?.draft).toMatchObject({ version: version + 1, by: 'Greta' });
  });

  it('switch live only from the state that was looked at, and number revisions in order', async () => {
    const before = await readPolicies(db());
    if (!before) throw new Error('no policies');
    const expected = { draftVersion: before.draft.version, live: before.live.revision };
    const revision = { policy, author: 'Greta', note: 'Why', gained: 1, lost: 2 };
    expect(
      await switchLive(db(), { ...expected, draftVersion: expected.draftVersion - 1 }, revision),
    ).toBeNull();
    expect(await switchLive(db(), expected, revision)).toBe(expected.live + 1);
    expect(await switchLive(db(), expected, revision)).toBeNull();
    expect((await readPolicies(db()))?.live).toMatchObject({
      revision: expected.live + 1,
      note: 'Why',
      author: 'Greta',
    });
  });
});

describe('attempts', () => {
  const minutes = 60_000;

  it('count up within a window and start again after it', async () => {
    const count = async (at: Date) => (await countAttempt(db(), 'a', at, 15 * minutes)).count;
    expect([await count(now), await count(later(5)), await count(later(14))]).toEqual([1, 2, 3]);
    expect(await count(later(15))).toBe(1);
  });

  it('can be taken back one by one, never below none, and forgotten', async () => {
    await countAttempt(db(), 'b', now, minutes);
    await uncountAttempt(db(), 'b');
    await uncountAttempt(db(), 'b');
    expect((await countAttempt(db(), 'b', now, minutes)).count).toBe(1);
    await forgetAttempts(db(), 'b', now);
    expect((await countAttempt(db(), 'b', now, minutes)).count).toBe(1);
  });
});

describe('sessions and what belongs to them', () => {
  const session = (tokenHash: string, expiresAt: Date) => ({
    tokenHash,
    person: ines,
    passphrases: [],
    expiresAt,
  });

  it('are found by their hash until they are ended; the expired are cleared away', async () => {
    await insertSession(db(), session('old', later(-1)), later(-10));
    await insertSession(db(), session('new', later(60)), now);
    expect(await readSession(db(), 'old')).toBeNull();
    expect(await readSession(db(), 'new')).toMatchObject({ person: 'ines' });
    await deleteSession(db(), 'new');
    expect(await readSession(db(), 'new')).toBeNull();
  });

  it('keep the passphrases typed in them; a guest has one without a person', async () => {
    await insertSession(db(), { ...session('guest', later(60)), person: null }, now);
    await setPassphrases(db(), 'guest', [asId('open-night')]);
    expect(await readSession(db(), 'guest')).toMatchObject({ person: null, passphrases: ['open-night'] });
  });

  it('a walk is found by its own session alone, in time, and ends with it', async () => {
    await insertSession(db(), session('mine', later(60)), now);
    const walk = {
      tokenHash: 'w',
      session: 'mine',
      standIn: 'guest' as const,
      side: 'draft' as const,
      scene: {},
      expiresAt: later(10),
    };
    await insertWalk(db(), walk, now);
    expect(await readWalk(db(), 'w', 'mine', now)).toMatchObject({ standIn: 'guest', side: 'draft' });
    expect(await readWalk(db(), 'w', 'other', now)).toBeNull();
    expect(await readWalk(db(), 'w', 'mine', later(11))).toBeNull();
    await deleteSession(db(), 'mine');
    expect(await readWalk(db(), 'w', 'mine', now)).toBeNull();
  });

  it('a board is kept by person and replaced whole', async () => {
    expect(await readBoard(db(), ines)).toBeNull();
    await writeBoard(db(), ines, ['guest', { person: 'basil' }]);
    await writeBoard(db(), ines, [{ person: 'basil' }]);
    expect(await readBoard(db(), ines)).toEqual([{ person: 'basil' }]);
  });
});

describe('a query that fails', () => {
  it('says what and not with which values', async () => {
    const secret = 'argon2id-of-somebody';
    const failing = [
      () => setPasswordHash(db(), ines, `${secret}\0`),
      () => db().execute(sql`select ${secret}::date`),
      () =>
        db()
          .insert(schema.roles)
          .values([
            { id: secret, name: secret },
            { id: secret, name: secret },
          ]),
      () => db().transaction((tx) => tx.execute(sql`select ${secret}::integer`)),
    ];
    for (const fail of failing) {
      const error = await Promise.resolve(fail()).then(
        () => null,
        (thrown: unknown) => thrown,
      );
      expect(inspect(error, { depth: 10, showHidden: true })).toMatch(/A query failed \(\w{5}/);
      expect(inspect(error, { depth: 10, showHidden: true })).not.toContain(secret);
    }
  });
});
