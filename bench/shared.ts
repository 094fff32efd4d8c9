/** Shared sections beside the same ones as a page's own, and what they add to compiling. */
import {
  all,
  any,
  asId,
  columnsOf,
  compile,
  effectOf,
  everyone,
  type Item,
  type ItemId,
  level,
  matrixOf,
  type Outline,
  openPolicy,
  outlineOf,
  type Policy,
  requestAt,
  test,
} from '../src/core';
import { viewPage } from '../src/services';
import { renderAnswer } from '../src/site';
import { policyOf } from './checking';
import { crowd, tests, vocabulary } from './conditions';
import { delivery, gate, lookWith, names, siteOf } from './site';

const { audiences: _, ...checked } = vocabulary;
const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });

const section = (name: string, parent: string, rank: number, over: object = {}): Item => ({
  kind: 'section',
  type: 'text',
  id: asId<ItemId>(name),
  parent: asId<ItemId>(parent),
  rank,
  title: name,
  published: true,
  ...over,
});
const onPosts = {
  spot: 'after',
  on: { targets: [{ kind: 'selection', where: test('item kind', 'is', 'post') }], except: [] },
  elsewhere: false,
};
/** Sections on every page and post. */
const sharedEverywhere = (count: number): readonly Item[] =>
  Array.from({ length: count }, (_, at) =>
    section(`shared-${at}`, 'site', at, {
      shared: {
        ...onPosts,
        on: { targets: [{ kind: 'branch', item: asId<ItemId>('site') }], except: [] },
      },
    }),
  );
const sound = (items: readonly Item[]): Outline => {
  const outline = outlineOf(items);
  if ('problems' in outline) throw new Error(outline.problems[0]?.message);
  return outline;
};
const ten = Array.from({ length: 10 }, (_, at) => at);
/** Every second of them is for some. */
const policyOver = (ids: readonly string[]): Policy => ({
  ...openPolicy,
  gates: ids.flatMap((id, at) =>
    at % 2 === 0
      ? [gate(`over-${id}`, { targets: [{ kind: 'item', item: asId<ItemId>(id) }], except: [] }, all())]
      : [],
  ),
});

/** Pages per second of a post with ten sections of its own, and with the same ten shared by twenty posts; taking turns. */
export async function benchSharedPage(
  milliseconds = 1000,
  rounds = 7,
): Promise<Record<'own' | 'shared', number>> {
  const { items } = siteOf(20, 0);
  const post = 'post-3';
  const sites = {
    own: sound([...items, ...ten.map((at) => section(`ten-${at}`, post, at + 1))]),
    shared: sound([...items, ...ten.map((at) => section(`ten-${at}`, 'site', at, { shared: onPosts }))]),
  };
  const policy = policyOver(ten.map((at) => `ten-${at}`));
  const looks = {
    own: lookWith(sites.own, compile(policy, sites.own, names)),
    shared: lookWith(sites.shared, compile(policy, sites.shared, names)),
  };
  const rates = { own: [] as number[], shared: [] as number[] };
  const kinds = ['own', 'shared'] as const;
  for (let round = 0; round <= rounds; round++)
    for (const kind of kinds) {
      const start = performance.now();
      let made = 0;
      while (performance.now() - start < milliseconds / 3) {
        // The page is made anew; what stands around it is kept by its vector, as on the site.
        const rendered = await renderAnswer(viewPage(looks[kind], '/posts/3'), delivery);
        if ('location' in rendered || (rendered.html.match(/class="prose"/g) ?? []).length !== 11)
          throw new Error('The page is not whole.');
        made += 1;
      }
      // The first round warms up.
      if (round > 0) rates[kind].push((made * 1000) / (performance.now() - start));
    }
  const median = (list: readonly number[]) =>
    list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
  return { own: median(rates.own), shared: median(rates.shared) };
}

/** Milliseconds to compile a site of posts and pages without and with shared sections, their hosts found. */
export function benchSharedCompile(
  sections = 20,
  hosts = 10_000,
  turns = 5,
): Record<'without' | 'with', number> {
  const { items } = siteOf(hosts / 2, hosts / 2);
  const shared = sharedEverywhere(sections);
  const [without, withShared] = [sound(items), sound([...items, ...shared])];
  const policy = policyOver(shared.map(({ id }) => id));
  const timed = (outline: Outline): number => {
    let best = Number.POSITIVE_INFINITY;
    for (let turn = 0; turn < turns; turn++) {
      const start = performance.now();
      const { places } = compile(policy, outline, names);
      if (places.on(asId<ItemId>('home')).length !== (outline === without ? 0 : sections))
        throw new Error('Not every section stands there.');
      best = Math.min(best, performance.now() - start);
    }
    return best;
  };
  return { without: timed(without), with: timed(withShared) };
}

/**
 * Milliseconds for the effect of a change, compiling included, on a site of posts and pages with 500 gates and 20 shared
 * sections on all of them, and for every decision of a board of 50; beside the same site without.
 */
export function benchSharedChecking(people = 1_000_000, hosts = 10_000, gates = 500, turns = 3) {
  const { items } = siteOf(hosts / 2, hosts / 2);
  const shared = sharedEverywhere(20);
  const plain = policyOf(gates, hosts / 2);
  const over = shared.slice(0, 10).map(({ id }, at) => ({
    ...gate(`over-${id}`, { targets: [{ kind: 'item', item: id }], except: [] }),
    // Every other one asks about its host as well.
    ...(at % 2 === 1 && {
      who: any(level('at least', asId('observer')), test('item category', 'is', 'Category 2')),
    }),
  }));
  const outlines = { without: sound(items), with: sound([...items, ...shared]) };
  const policies = { without: plain, with: { ...plain, gates: [...plain.gates, ...over] } };
  const facts = crowd(people);
  const columns = columnsOf(facts, { ...checked, audiences: [] }, request);
  for (const one of tests()) columns.select(one);
  const effect = (site: 'without' | 'with', opened: string): number => {
    const { gates: all, ...rest } = policies[site];
    const next = { ...rest, gates: all.map((one) => (one.id === opened ? { ...one, who: everyone } : one)) };
    const before = compile(policies[site], outlines[site], checked);
    let best = Number.POSITIVE_INFINITY;
    for (let turn = 0; turn < turns; turn++) {
      const start = performance.now();
      const found = effectOf(before, compile(next, outlines[site], checked), columns, request);
      best = Math.min(best, performance.now() - start);
      if (opened !== 'g0' && found.gains.count === 0) throw new Error('Nobody gains anything.');
    }
    return best;
  };
  const decisions = (site: 'without' | 'with'): number => {
    const compiled = compile(policies[site], outlines[site], checked);
    const start = performance.now();
    const list = [...outlines[site].items.values()];
    matrixOf({ draft: compiled, live: compiled }, list, facts.slice(0, 50), request);
    return performance.now() - start;
  };
  return {
    without: { page: effect('without', 'g0'), board: decisions('without') },
    with: {
      page: effect('with', 'g0'),
      section: effect('with', 'over-shared-0'),
      asking: effect('with', 'over-shared-1'),
      board: decisions('with'),
    },
  };
}
