import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asId, type Gate, type GateId, type ItemId, nobody, type PersonId, pathOf } from '@/core';
import {
  describeReport,
  type LeakReport,
  leakCheck,
  putLive,
  saveDraft,
  saveTerms,
  type Trivet,
} from '@/services';
import { gretaAt, now, openLarkfell } from '@/services/testing';
import { readFileBytes, updateItem } from '@/store';
import { SESSION_COOKIE } from '../_http/session-cookie';
import { siteResponse } from '.';

/** Those with a story: everybody on whom some gate turns. */
const PEOPLE = [
  'greta',
  'marek',
  'odile',
  'tobin',
  'ines',
  'wren',
  'priya',
  'sunniva',
  'jonah',
  'lio',
  'edda',
  'basil',
];

let trivet: Trivet;
beforeAll(async () => {
  trivet = await openLarkfell();
  // One product is for Trustees alone.
  const course = trivet.state.shop.get(asId('astro-course'));
  const terms = { ...course?.terms, page: 'trustees' };
  const edit = { product: 'astro-course', version: course?.version, terms };
  await saveTerms(trivet, await gretaAt(trivet), edit, false, now);
});
afterAll(() => trivet.close());

interface Checking {
  readonly people?: readonly string[];
  readonly keptBytes?: number;
  /** The doors that it is about; everything else is answered with nothing. */
  readonly only?: RegExp;
}

const check = (
  spoil: (response: Response, request: Request, copy: Trivet) => Response | Promise<Response> = (response) =>
    response,
  { people = PEOPLE, keptBytes, only = /./ }: Checking = {},
): Promise<LeakReport> =>
  leakCheck({
    ...(keptBytes !== undefined && { keptBytes }),
    source: trivet.state,
    people: people as PersonId[],
    cookieName: SESSION_COOKIE,
    now,
    knock: async (copy, request) =>
      only.test(new URL(request.url).pathname)
        ? spoil(await siteResponse(copy, request, now), request, copy)
        : new Response(''),
  });

describe('the doors of Larkfell', () => {
  it('let nothing through that is withheld, to anybody', async () => {
    const report = await check();
    expect(describeReport(report)).toMatch(/^Nothing came through/);
    expect(report.visitors).toBe(PEOPLE.length + 1);
    expect(report.marks).toBeGreaterThan(300);
  }, 120_000);

  it('let nothing through when nothing is kept either', async () => {
    expect(
      describeReport(await check(undefined, { people: ['marek', 'wren', 'basil'], keptBytes: 0 })),
    ).toMatch(/^Nothing came through/);
  }, 120_000);
});

describe('the check itself', () => {
  const withheld = (copy: Trivet, id: string) => {
    const { outline, contents } = copy.state;
    const item = outline.items.get(id as ItemId);
    if (!item) throw new Error(id);
    return { item, content: contents.get(item.id) };
  };
  /** What each door lets through when it forgets to ask. */
  const HOLES: readonly (readonly [
    door: string,
    path: RegExp,
    part: string,
    text: (copy: Trivet) => unknown,
  ])[] = [
    ['page', /^\/tonight/, 'text', (copy) => withheld(copy, 'seeing-forecast').content?.body],
    [
      'page',
      /^\/category/,
      'coarse picture',
      (copy) => withheld(copy, 'first-light-picture').content?.picture?.coarse,
    ],
    ['feed', /^\/feed/, 'title', (copy) => withheld(copy, 'ladder-lamp').item.title],
    ['sitemap', /^\/sitemap/, 'address', (copy) => pathOf(withheld(copy, 'rota').item)],
    ['API', /^\/api/, 'text', (copy) => withheld(copy, 'trustees-text').content?.body],
    ['search', /^\/search/, 'text', (copy) => withheld(copy, 'rota-text').content?.body],
    ['walk', /^\/walk/, 'text', (copy) => withheld(copy, 'handover-text').content?.body],
    [
      'quiz',
      /^\/me\/quiz/,
      'right answer',
      (copy) => JSON.stringify(withheld(copy, 'first-opening-quiz').content?.quiz),
    ],
    ['shop', /^\/shop$/, 'product', (copy) => JSON.stringify([...copy.state.shop.values()])],
    [
      'form',
      /^\/forms/,
      'section part',
      (copy) => JSON.stringify(withheld(copy, 'home-guests').content?.section),
    ],
  ];

  it('finds a hole in every door, for everybody to whom it is one', async () => {
    const { leaks } = await check(
      async (response, request, copy) => {
        const { pathname } = new URL(request.url);
        const [, , id = ''] = pathname.split('/');
        if (pathname.startsWith('/files/frame-')) {
          const bytes = await readFileBytes(copy.db, id as ItemId);
          if (bytes) return new Response(Buffer.from(bytes));
        }
        const hole = HOLES.find(([, path]) => path.test(pathname));
        return hole ? new Response(`${await response.text()}${hole[3](copy)}`, response) : response;
      },
      { people: ['marek'] },
    );
    const found = (visitor: string) =>
      new Set(leaks.filter((leak) => leak.visitor === visitor).map(({ door, part }) => `${door}: ${part}`));
    const wanted = [...HOLES.map(([door, , part]) => `${door}: ${part}`), 'file: file'];
    expect([...found('Marek Dunmore')]).toEqual(expect.arrayContaining(wanted));
    // A guest may have what is for guests.
    const forGuests = wanted.filter((one) => one !== 'form: section part');
    expect([...found('Guest')]).toEqual(expect.arrayContaining(forGuests));
  }, 60_000);

  it('finds what was made for another visitor, and what may stand on another page alone', async () => {
    let first: string | null = null;
    let work: string | null = null;
    let receipt: string | null = null;
    const { leaks } = await check(
      async (response, request, copy) => {
        const { pathname } = new URL(request.url);
        if (pathname.startsWith('/visit'))
          return new Response(
            `${await response.text()}${withheld(copy, 'lending-shelf').content?.body}`,
            response,
          );
        if (response.status !== 200) return response;
        if (pathname.startsWith('/me/hand-in/')) {
          work ??= await response.clone().text();
          return new Response(work, response);
        }
        if (pathname.startsWith('/me/receipt/')) {
          receipt ??= await response.clone().text();
          return new Response(receipt, response);
        }
        if (!pathname.startsWith('/account')) return response;
        first ??= await response.clone().text();
        return new Response(first, response);
      },
      { people: ['marek', 'wren'], only: /^\/(visit|account|me|walk)/ },
    );
    const handedIn = leaks.filter(({ door }) => door === 'what was handed in');
    expect(handedIn.map(({ visitor, part }) => `${visitor}: ${part}`)).toContain('Wren Halloran: own word');
    expect(handedIn.map(({ visitor }) => visitor)).not.toContain('Marek Dunmore');
    const bought = leaks.filter(({ door }) => door === 'what was bought');
    expect(bought.map(({ visitor, part }) => `${visitor}: ${part}`)).toContain('Wren Halloran: own word');
    expect(bought.map(({ visitor }) => visitor)).not.toContain('Marek Dunmore');
    const found = leaks.map(({ visitor, part }) => `${visitor}: ${part}`);
    expect(found).toContain('Wren Halloran: own word');
    expect(found).not.toContain('Marek Dunmore: own word');
    // She gets it beside reviews, and nowhere else.
    const shelf = leaks.filter(
      ({ item, visitor }) => item === 'lending-shelf' && visitor === 'Wren Halloran',
    );
    expect(shelf.length).toBeGreaterThan(0);
    expect(shelf.every(({ path }) => path.includes('/visit'))).toBe(true);
  }, 60_000);

  it('knocks at private feeds as those whose they are', async () => {
    const { leaks } = await check(
      async (response, request, copy) =>
        new URL(request.url).searchParams.has('key')
          ? new Response(`${await response.text()}${withheld(copy, 'ladder-lamp').item.title}`, response)
          : response,
      { people: ['marek'], only: /^\/feed/ },
    );
    // Nobody who has no key has a private feed.
    expect(new Set(leaks.map(({ visitor, door }) => `${visitor}: ${door}`))).toEqual(
      new Set(['Marek Dunmore: private feed']),
    );
  }, 60_000);

  it('finds a search that answers otherwise for what is withheld than for what is nowhere', async () => {
    const { leaks } = await check(
      async (response, request, copy) => {
        const asked = new URL(request.url).searchParams.get('q') ?? '';
        const hit = [...copy.state.outline.items.values()].some(({ title }) => title.includes(asked));
        return hit && asked !== ''
          ? new Response(`${await response.text()}<p>1 more</p>`, response)
          : response;
      },
      { people: ['marek'], only: /^\/search/ },
    );
    expect(leaks.some(({ door }) => door === 'search')).toBe(true);
  }, 60_000);
});

describe('a section that is open and does not stand on the page, because what it shows is closed', () => {
  beforeAll(async () => {
    const { state } = trivet;
    const greta = await gretaAt(trivet);
    const closed: Gate = {
      id: asId<GateId>('picture'),
      what: { targets: [{ kind: 'item', item: asId<ItemId>('hill-picture') }], except: [] },
      who: nobody,
      otherwise: { cases: [], last: { kind: 'missing' } },
      stance: 'also',
    };
    const policy = { ...state.live.policy, gates: [...state.live.policy.gates, closed] };
    const saved = await saveDraft(trivet, greta, { version: state.draft.version, policy });
    if (saved.kind !== 'saved') throw new Error(saved.kind);
    await putLive(trivet, greta, { version: saved.version, revision: state.live.revision }, now);
    const call = asId<ItemId>('home-guests');
    const item = state.outline.items.get(call);
    const content = state.contents.get(call);
    if (!item || content?.section?.type !== 'call') throw new Error('There is no call.');
    const section = { ...content.section, to: { kind: 'item', item: asId<ItemId>('crew') } } as const;
    await updateItem(trivet.db, { item, content: { ...content, section } });
    await trivet.reload();
  });

  it('is found by no search', async () => {
    expect(describeReport(await check(undefined, { people: ['marek'], only: /search/ }))).toMatch(
      /^Nothing came through/,
    );
  }, 60_000);

  it('is seen by the check when a search finds it', async () => {
    const { leaks } = await check(
      async (response, request, copy) => {
        if (new URL(request.url).pathname !== '/search') return response;
        const told = ['home-picture', 'home-guests'].map((id) => copy.state.contents.get(asId<ItemId>(id)));
        return new Response(`${await response.text()}${JSON.stringify(told)}`, response);
      },
      { people: ['marek'], only: /^\/search/ },
    );
    const found = leaks.filter(({ door, visitor }) => door === 'search' && visitor === 'Marek Dunmore');
    expect(new Set(found.map(({ item, part }) => `${item} ${part}`))).toEqual(
      new Set(['home-picture section part', 'home-guests section part', 'home-guests text']),
    );
  }, 60_000);
});
