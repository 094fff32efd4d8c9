/** A site with everything on it: pages per second of a list of posts, compiling a large policy, what items take of memory. */
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import {
  type Address,
  all,
  asId,
  type CompiledPolicy,
  compile,
  type Gate,
  type GateId,
  guest,
  type Item,
  type ItemId,
  type LevelId,
  level,
  member,
  noNames,
  type Outline,
  openPolicy,
  outlineOf,
  type Policy,
  type Post,
  redirectToSignIn,
  requestAt,
  SharingMap,
  type SiteNames,
  test,
} from '../src/core';
import { type ViewContext, viewOf, viewPage } from '../src/services';
import { renderAnswer } from '../src/site';
import type { Content } from '../src/store';

const observer = asId<LevelId>('observer');
export const names: SiteNames = {
  ...noNames,
  levels: [
    { id: asId('friend'), name: 'Friend' },
    { id: observer, name: 'Observer' },
  ],
};
const id = asId<ItemId>;
const base = (name: string, parent: string | null, rank = 0) => ({
  id: id(name),
  parent: parent === null ? null : id(parent),
  rank,
  title: `The ${name}`,
  published: true,
});

/** A home page with a list, and as many posts and pages as wanted, each with a section. */
export function siteOf(
  posts: number,
  pages: number,
): { readonly items: readonly Item[]; readonly outline: Outline } {
  const items: Item[] = [
    { ...base('site', null), kind: 'site' },
    { ...base('home', 'site'), kind: 'page', address: '/' as Address },
    { ...base('list', 'home'), kind: 'section', type: 'posts' },
    { ...base('top', 'site'), kind: 'menu', place: 'top' },
  ];
  const withText = (name: string, item: Item, rank: number) => {
    items.push(item, { ...base(`${name}-text`, name, rank), kind: 'section', type: 'text' });
  };
  for (let at = 0; at < posts; at++) {
    const name = `post-${at}`;
    const facts = {
      category: `Category ${at % 4}`,
      tags: ['sky'],
      author: 'Somebody',
      date: `2026-0${1 + (at % 9)}-11`,
    };
    withText(name, { ...base(name, 'site', at), kind: 'post', address: `/posts/${at}` as Address, facts }, 0);
  }
  for (let at = 0; at < pages; at++) {
    const name = `page-${at}`;
    const parent = at < 100 ? 'site' : `page-${at % 100}`;
    withText(name, { ...base(name, parent, at), kind: 'page', address: `/pages/${at}` as Address }, 0);
  }
  const outline = outlineOf(items);
  if ('problems' in outline) throw new Error(outline.problems[0]?.message);
  return { items, outline };
}

export const gate = (
  name: string,
  what: Gate['what'],
  who = level('at least', observer) as Gate['who'],
): Gate => ({
  id: asId<GateId>(name),
  what,
  who,
  otherwise: {
    cases: [
      {
        when: all(),
        give: {
          kind: 'teaser',
          show: { kind: 'summary' },
          preview: false,
          reason: { kind: 'written' },
          next: { kind: 'sign in' },
        },
      },
    ],
    last: redirectToSignIn,
  },
  stance: 'also',
});
const selecting = (where: ReturnType<typeof test>): Gate['what'] => ({
  targets: [{ kind: 'selection', where }],
  except: [],
});

const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });
const text = 'Words that say something of the night, the hill and the sky above it. '.repeat(12);

export function lookWith(outline: Outline, compiled: CompiledPolicy, facts = guest): ViewContext {
  const posts = [...outline.addressed.values()].filter((item): item is Post => item.kind === 'post');
  const contents = SharingMap.of<ItemId, Content>(
    [...outline.items.values()].map((item) => [
      item.id,
      {
        summary: item.kind === 'post' ? `Summary of ${item.title}.` : '',
        body: item.kind === 'section' && item.type === 'text' ? text : '',
        ...(item.id === 'list' && {
          section: { type: 'posts', category: null, tag: null, count: 20 } as const,
        }),
      },
    ]),
  );
  const state = {
    outline,
    contents,
    posts,
    names,
    oldAddresses: new Map(),
    settings: { look: null, words: { foot: '', missing: '' }, language: 'en' },
    live: { compiled },
  } as unknown as ViewContext['state'];
  return viewOf({ state, compiled, facts, person: null, request, base: '' });
}

export const delivery = {
  stylesheet: '/a.css',
  attemptScript: '/a.js',
  watchScript: '',
  watchDigest: '',
  origin: 'http://localhost',
  desk: false,
  walk: false,
};

/** Pages per second of the home page with 20 listed posts, gated as a guest and as a member gets it, and without gates. */
export async function benchList(
  milliseconds = 1500,
  rounds = 5,
): Promise<Record<'open' | 'guest' | 'member', number>> {
  const { outline } = siteOf(20, 0);
  const policy: Policy = {
    ...openPolicy,
    gates: [0, 1, 2].map((at) => gate(`g${at}`, selecting(test('item category', 'is', `Category ${at}`)))),
  };
  const compiled = compile(policy, outline, names);
  const looks = {
    open: lookWith(outline, compile(openPolicy, outline, names)),
    guest: lookWith(outline, compiled),
    member: lookWith(outline, compiled, member({ level: observer })),
  };
  const rates = { open: [] as number[], guest: [] as number[], member: [] as number[] };
  const kinds = ['open', 'guest', 'member'] as const;
  for (let round = 0; round <= rounds; round++) {
    for (const kind of kinds) {
      const start = performance.now();
      let made = 0;
      while (performance.now() - start < milliseconds / 3) {
        const answer = viewPage(looks[kind], '/');
        if (answer.kind !== 'page') throw new Error(answer.kind);
        const rendered = await renderAnswer(answer, delivery);
        if ('location' in rendered || (rendered.html.match(/class="entry"/g) ?? []).length !== 20)
          throw new Error('The list is not whole.');
        made += 1;
      }
      // The first round warms up.
      if (round > 0) rates[kind].push((made * 1000) / (performance.now() - start));
    }
  }
  const median = (list: readonly number[]) =>
    list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
  return { open: median(rates.open), guest: median(rates.guest), member: median(rates.member) };
}

/**
 * Milliseconds to compile a policy of many gates over many items (some describe, some point, some say instead), and with what
 * stands over each of the items, which is worked out when it is asked about.
 */
export function benchCompile(
  gates = 500,
  items = 10_000,
  turns = 5,
): { readonly compiling: number; readonly withAll: number } {
  const quarter = Math.floor(items / 4);
  const { outline } = siteOf(quarter, quarter);
  const policy: Policy = {
    ...openPolicy,
    gates: Array.from({ length: gates }, (_, at) => {
      const kind = at % 5;
      if (kind === 0) return gate(`g${at}`, selecting(test('item category', 'is', `Category ${at % 9}`)));
      if (kind === 1) return gate(`g${at}`, selecting(test('item address', 'starts with', `/pages/${at}`)));
      if (kind === 2)
        return {
          ...gate(`g${at}`, { targets: [{ kind: 'item', item: id(`page-${at}`) }], except: [] }),
          stance: 'instead',
        };
      return gate(`g${at}`, { targets: [{ kind: 'branch', item: id(`page-${at % 100}`) }], except: [] });
    }),
  };
  const best = { compiling: Number.POSITIVE_INFINITY, withAll: Number.POSITIVE_INFINITY };
  for (let turn = 0; turn < turns; turn++) {
    const start = performance.now();
    const compiled = compile(policy, outline, names);
    best.compiling = Math.min(best.compiling, performance.now() - start);
    for (const item of outline.items.keys()) compiled.hurdles(item);
    best.withAll = Math.min(best.withAll, performance.now() - start);
  }
  return best;
}

/** Bytes that a thousand items take, with their outline and under a policy of three gates. */
export function benchMemory(items = 20_000): number {
  setFlagsFromString('--expose_gc');
  const collect = runInNewContext('gc') as () => void;
  collect();
  const before = process.memoryUsage().heapUsed;
  const half = Math.floor(items / 4);
  const site = siteOf(half, half);
  const compiled = compile(
    {
      ...openPolicy,
      gates: [0, 1, 2].map((at) => gate(`g${at}`, selecting(test('item category', 'is', `Category ${at}`)))),
    },
    site.outline,
    names,
  );
  for (const item of site.outline.items.keys()) compiled.hurdles(item);
  collect();
  const after = process.memoryUsage().heapUsed;
  return ((after - before) / (compiled.outline.items.size || 1)) * 1000;
}
