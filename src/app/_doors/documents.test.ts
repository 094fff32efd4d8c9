import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  asId,
  type Gate,
  type GateId,
  type ItemId,
  isAddressed,
  type Policy,
  parseCondition,
  sectionsOf,
  withWholeSite,
} from '@/core';
import { type Administrator, changeItem, changePeople, putLive, saveDraft, Trivet } from '@/services';
import { gretaAt, now, openLarkfell, signedInAt } from '@/services/testing';
import { updateItem } from '@/store';
import { textOf } from '../_http/answer';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteAnswer } from '.';
import { documentsOf } from './documents';

const PEOPLE = ['marek', 'tobin', 'ines', 'wren', 'basil', 'greta'];

/** A site that keeps what it made, and one over the same database that makes everything anew. */
let keeping: Trivet;
let anew: Trivet;
let greta: Administrator;
let before: Policy;
const cookies = new Map<string, string>();

beforeAll(async () => {
  keeping = await openLarkfell();
  greta = await gretaAt(keeping);
  before = keeping.state.live.policy;
  for (const name of PEOPLE)
    cookies.set(name, `${SESSION_COOKIE}=${(await signedInAt(keeping, name)).token}`);
  await withRegions();
  const opened = { db: keeping.db, close: () => Promise.resolve(), together: null };
  anew = await Trivet.over(opened, 0);
});
afterAll(() => keeping.close());

/** A text with a region for each kind of visitor and request, in a page that is in everybody's menu. */
async function withRegions(): Promise<void> {
  const section = sectionsOf(keeping.state.outline, asId<ItemId>('field-notes')).find(
    ({ type }) => type === 'text',
  );
  if (!section) throw new Error('There is no text.');
  const body = WHO.map((who) => `:::for ${who}\nFor ${who}.\n:::otherwise\nNot for ${who}.\n:::`).join('\n');
  await updateItem(keeping.db, { item: section, content: { summary: '', body } });
  const greeting = keeping.state.outline.items.get(asId<ItemId>('sky-diary-text'));
  if (greeting?.kind !== 'section') throw new Error('There is no text.');
  await updateItem(keeping.db, {
    item: greeting,
    content: { summary: '', body: 'Good evening, :own[name]{or="friend"}, at :own[level]{or="no level"}.' },
  });
  await keeping.reload();
}

async function live(policy: Policy): Promise<void> {
  const { draft, live: put } = keeping.state;
  const saved = await saveDraft(keeping, greta, { version: draft.version, policy });
  if (saved.kind !== 'saved') throw new Error(JSON.stringify(saved));
  await putLive(keeping, greta, { version: saved.version, revision: put.revision }, now);
}

interface Visit {
  readonly who: string | null;
  readonly path: string;
  readonly agent?: string;
  readonly at?: Date;
}

const got = async (trivet: Trivet, { who, path, agent = '', at = now }: Visit) => {
  const cookie = who === null ? '' : (cookies.get(who) ?? '');
  const request = new Request(`http://localhost${path}`, { headers: { cookie, 'user-agent': agent } });
  const answer = await siteAnswer(trivet, request, at);
  return { status: answer.status, headers: answer.headers, body: textOf(answer) };
};

const bytesKept = (trivet: Trivet): number =>
  Object.values(documentsOf(trivet)).reduce((sum, { bytes }) => sum + bytes, 0);

const everyPath = (): readonly string[] => [
  ...[...keeping.state.outline.items.values()].flatMap((item) =>
    isAddressed(item) ? [encodeURI(item.address)] : [],
  ),
  ...['/never-there', '/never/there', '/category/night-logs', '/category/field-notes', '/tag/winter'],
  ...['/category/night-logs?page=2', '/visit?door=blue', '/?door=blue', '/VISIT/', '/tonight?door=red'],
];

const gate = (
  id: string,
  item: ItemId,
  who: string,
  last: Gate['otherwise']['last'],
  stance: Gate['stance'] = 'also',
): Gate => {
  const read = parseCondition(who, keeping.state.live.compiled.vocabulary);
  if (!read.ok) throw new Error(read.error.message);
  const what = { targets: [{ kind: 'item' as const, item }], except: [] };
  return { id: asId<GateId>(id), what, who: read.condition, otherwise: { cases: [], last }, stance };
};

const WHO = [
  'everyone',
  'nobody',
  'signed in',
  'in group "Dome crew"',
  'level at least "Observer"',
  'parameter "door" is "blue"',
  'device is "phone" or not signed in',
  'date after 2026-12-01',
];

const GIVING: readonly Gate['otherwise']['last'][] = [
  { kind: 'missing' },
  { kind: 'message', reason: { kind: 'written' }, next: { kind: 'sign in' } },
  {
    kind: 'teaser',
    show: { kind: 'summary' },
    preview: true,
    reason: { kind: 'written' },
    next: { kind: 'none' },
  },
  { kind: 'redirect', to: { kind: 'sign in' } },
  { kind: 'redirect', to: { kind: 'item', item: asId<ItemId>('join') } },
];

const change = fc.oneof(
  fc.record({
    kind: fc.constant('gate' as const),
    item: fc.nat(),
    who: fc.constantFrom(...WHO),
    give: fc.constantFrom(...GIVING),
    stance: fc.constantFrom('also' as const, 'instead' as const),
  }),
  fc.record({ kind: fc.constantFrom('whole site' as const, 'no gates' as const) }),
  fc.record({ kind: fc.constant('people' as const), person: fc.constantFrom(...PEOPLE.slice(0, 5)) }),
  fc.record({ kind: fc.constant('publish' as const), item: fc.nat() }),
  fc.record({ kind: fc.constant('rename' as const), item: fc.nat(), to: fc.constantFrom('Another', '<i>') }),
);
type Change = typeof change extends fc.Arbitrary<infer One> ? One : never;

/** Makes a change, at one of the items that gates stand over. */
async function make(one: Change): Promise<void> {
  const items = [...keeping.state.outline.items.values()].filter(({ kind }) => kind !== 'site');
  const at = (number: number) => items[number % items.length] as (typeof items)[number];
  const { policy } = keeping.state.live;
  switch (one.kind) {
    case 'gate': {
      const made = gate(`made-${policy.gates.length}`, at(one.item).id, one.who, one.give, one.stance);
      return live({ ...policy, gates: [...policy.gates, made] });
    }
    case 'whole site':
      return live(withWholeSite(policy, true));
    case 'no gates':
      return live({ ...policy, gates: [] });
    case 'people': {
      const crew = keeping.state.people.get(one.person as never)?.groups.some((id) => id === 'dome-crew');
      const edit = { kind: crew ? 'leave' : 'join', group: 'dome-crew' };
      await changePeople(keeping, greta, { who: { ids: [one.person] }, edit }, false, now);
      return;
    }
    case 'publish': {
      const { id, published } = at(one.item);
      await changeItem(keeping, greta, { kind: 'publish', items: [id], published: !published }, now);
      return;
    }
    case 'rename':
      await changeItem(keeping, greta, { kind: 'rename', item: at(one.item).id, title: one.to }, now);
      return;
    default:
      return one satisfies never;
  }
}

const visits = fc.array(
  fc.record({
    who: fc.constantFrom(null, ...PEOPLE),
    // Often where it matters most.
    path: fc.oneof(fc.constantFrom('/field-notes', '/', '/field-notes?door=blue', '/join'), fc.nat()),
    agent: fc.constantFrom('', 'Mobile'),
    at: fc.constantFrom(now, new Date('2026-12-03T12:00:00Z')),
  }),
  { minLength: 20, maxLength: 50 },
);

describe('a document that is kept', () => {
  it('is one for all who get the same, and others for those who don’t', async () => {
    const { items } = documentsOf(keeping);
    await live({ ...before });
    await got(keeping, { who: 'marek', path: '/visit' });
    const one = items.bytes;
    for (const who of ['basil', 'marek']) await got(keeping, { who, path: '/VISIT/' });
    const marek = (await got(keeping, { who: 'marek', path: '/visit' })).body;
    const again = (await got(keeping, { who: 'marek', path: '/visit?from=here' })).body;
    expect(again).toBe(marek);
    await got(keeping, { who: null, path: '/visit' });
    expect(items.bytes).toBeGreaterThan(one);
    const both = items.bytes;
    await got(keeping, { who: null, path: '/visit' });
    expect(items.bytes).toBe(both);
  });

  it('knows whether one is signed in even where no gate asks', async () => {
    const { policy } = keeping.state.live;
    await live({ ...policy, gates: [] });
    for (const who of [null, 'marek', null, 'tobin'])
      expect((await got(keeping, { who, path: '/' })).body?.includes('Make an account')).toBe(who === null);
    await live(policy);
  });

  it('is dropped by what changes the site, and by nobody’s joining anything', async () => {
    const { items } = documentsOf(keeping);
    await got(keeping, { who: null, path: '/visit' });
    const kept = items.bytes;
    await changePeople(
      keeping,
      greta,
      { who: { ids: ['marek'] }, edit: { kind: 'join', group: 'tarn-survey' } },
      false,
      now,
    );
    await got(keeping, { who: null, path: '/visit' });
    expect(items.bytes).toBe(kept);
    const title = 'Come and see us';
    await changeItem(keeping, greta, { kind: 'rename', item: 'visit', title }, now);
    expect((await got(keeping, { who: null, path: '/visit' })).body).toContain(title);
  });

  it('says what is before and after in a course as it is called now, and what it is in', async () => {
    await live({ ...before });
    const { outline } = keeping.state;
    const course = [...outline.items.values()].filter(({ id, within }) =>
      [id, within?.course].includes(asId<ItemId>('dome-induction')),
    );
    const paths = course.filter(isAddressed).map(({ address }) => address);
    const pages = async (trivet: Trivet) => {
      const found: string[] = [];
      for (const who of ['wren', 'ines'])
        for (const path of paths) found.push((await got(trivet, { who, path })).body ?? '');
      return found;
    };
    let told = 0;
    for (const { id, kind, title: before } of course) {
      if (kind === 'section' || kind === 'file') continue;
      const on = (await pages(keeping)).filter((page) => page.includes(before)).length;
      const title = `The ${kind} is called ${id}`;
      await changeItem(keeping, greta, { kind: 'rename', item: id, title }, now);
      await anew.reload();
      const pagesNow = await pages(keeping);
      expect(pagesNow).toEqual(await pages(anew));
      expect(pagesNow.filter((page) => page.includes(title))).toHaveLength(on);
      told += on;
    }
    expect(told).toBeGreaterThan(30);
  });

  it('is never of somebody’s own: an account is made for whoever asks', async () => {
    const names = ['tobin', 'ines'].map(
      (id) => [...keeping.state.people.values()].find((person) => person.id === id)?.name ?? '',
    );
    for (const turn of [0, 1, 0])
      expect((await got(keeping, { who: turn === 0 ? 'tobin' : 'ines', path: '/account' })).body).toContain(
        names[turn],
      );
    const before = bytesKept(keeping);
    await got(keeping, { who: 'wren', path: '/account' });
    expect(bytesKept(keeping)).toBe(before);
  });

  it('is one where nothing is, for what is missing and what was never there', async () => {
    const { elsewhere } = documentsOf(keeping);
    const missing = await got(keeping, { who: null, path: '/crew' });
    const kept = elsewhere.bytes;
    for (let at = 0; at < 50; at++)
      expect(await got(keeping, { who: null, path: `/never/${at}` })).toEqual(missing);
    expect(elsewhere.bytes).toBe(kept);
  });

  it('fills no more than its part, however many addresses somebody thinks of', async () => {
    const site = keeping.state.live.policy;
    await live(withWholeSite(site, true));
    const small = await Trivet.over(
      { db: keeping.db, close: () => Promise.resolve(), together: null },
      400_000,
    );
    for (let at = 0; at < 60; at++) await got(small, { who: null, path: `/never/${at}/${'x'.repeat(at)}` });
    await got(small, { who: 'tobin', path: '/visit' });
    const { items, elsewhere } = documentsOf(small);
    expect(elsewhere.bytes).toBeLessThanOrEqual(50_000);
    expect(items.bytes).toBeGreaterThan(0);
    await live(site);
  });
});

// The last, because it leaves the site as its changes happened to make it.
describe('what is kept', () => {
  it('is what would be made anew: over changes, visitors and requests', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.record({ change, visits }), { minLength: 1, maxLength: 3 }),
        async (steps) => {
          await live(before);
          for (const step of steps) {
            await make(step.change);
            await anew.reload();
            const paths = everyPath();
            for (const { path, ...one } of step.visits) {
              const visit = {
                ...one,
                path: typeof path === 'string' ? path : (paths[path % paths.length] ?? '/'),
              };
              expect([visit, await got(keeping, visit)]).toEqual([visit, await got(anew, visit)]);
            }
            expect(bytesKept(keeping)).toBeGreaterThan(0);
            expect(bytesKept(anew)).toBe(0);
          }
        },
      ),
      { numRuns: 15, endOnFailure: true },
    );
    await live(before);
  }, 120_000);
});
