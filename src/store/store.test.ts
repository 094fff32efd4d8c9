import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asId, type LevelId, openPolicy, type PersonId, type Policy } from '@/core';
import {
  countAttempt,
  deleteSession,
  forgetAttempts,
  insertFirstPolicy,
  insertItems,
  insertPeople,
  insertSession,
  insertWalk,
  type OpenDatabase,
  openDatabase,
  readBoard,
  readItems,
  readPeople,
  readPolicies,
  readSession,
  readVocabulary,
  readWalk,
  switchLive,
  uncountAttempt,
  updateDraft,
  writeBoard,
} from '.';

let opened: OpenDatabase;
const db = () => opened.db;
const now = new Date('2026-11-20T20:00:00Z');
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const ines = asId<PersonId>('ines');

beforeAll(async () => {
  opened = await openDatabase(null);
  const vocabulary = {
    levels: ['friend', 'observer', 'keeper'].map((id) => ({ id: asId<never>(id), name: id })),
    roles: [{ id: asId<never>('trustee'), name: 'Trustee' }],
    groups: [
      { id: asId<never>('dome-crew'), name: 'Dome crew', private: false },
      { id: asId<never>('suspended'), name: 'Suspended', private: true },
    ],
  };
  await insertPeople(db(), vocabulary, [
    {
      id: ines,
      name: 'Ines Calloway',
      email: 'ines@larkfell.example',
      desk: false,
      passwordHash: null,
      facts: {
        signedIn: true,
        level: asId<LevelId>('keeper'),
        roles: [asId('trustee')],
        groups: [asId('dome-crew')],
      },
    },
    {
      id: asId('basil'),
      name: 'Basil Thorne',
      email: 'basil@larkfell.example',
      desk: true,
      passwordHash: 'hash',
      facts: { signedIn: true, level: null, roles: [], groups: [] },
    },
  ]);
  await insertFirstPolicy(db(), openPolicy, 'The test');
});
afterAll(() => opened.close());

describe('people', () => {
  it('come back with everything known of them, in the order of their names', async () => {
    const [basil, second] = await readPeople(db());
    expect(basil).toMatchObject({
      name: 'Basil Thorne',
      desk: true,
      facts: { level: null, roles: [], groups: [] },
    });
    expect(second?.facts).toEqual({
      signedIn: true,
      level: 'keeper',
      roles: ['trustee'],
      groups: ['dome-crew'],
    });
  });

  it('keep the rank of the levels and what is private', async () => {
    const { levels, groups } = await readVocabulary(db());
    expect(levels.map(({ id }) => id)).toEqual(['friend', 'observer', 'keeper']);
    expect(groups.find(({ id }) => id === 'suspended')?.private).toBe(true);
  });

  it('can’t share a mail address', async () => {
    const again = {
      id: asId<PersonId>('other'),
      name: 'Other',
      email: 'ines@larkfell.example',
      desk: false,
      passwordHash: null,
      facts: { signedIn: true, level: null, roles: [], groups: [] },
    };
    await expect(insertPeople(db(), { levels: [], roles: [], groups: [] }, [again])).rejects.toThrow();
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
    for (const entry of stored) expect(read).toContainEqual(entry);
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
  const session = (tokenHash: string, expiresAt: Date) => ({ tokenHash, person: ines, expiresAt });

  it('are found by their hash until they are ended; the expired are cleared away', async () => {
    await insertSession(db(), session('old', later(-1)), later(-10));
    await insertSession(db(), session('new', later(60)), now);
    expect(await readSession(db(), 'old')).toBeNull();
    expect(await readSession(db(), 'new')).toMatchObject({ person: 'ines' });
    await deleteSession(db(), 'new');
    expect(await readSession(db(), 'new')).toBeNull();
  });

  it('a walk is found by its own session alone, in time, and ends with it', async () => {
    await insertSession(db(), session('mine', later(60)), now);
    const walk = {
      tokenHash: 'w',
      session: 'mine',
      standIn: 'guest' as const,
      side: 'draft' as const,
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
