import { expect, it } from 'vitest';
import { compile, type Item, type ItemId, isShared, type Policy, requestAt } from '@/core';
import { readSiteFile } from '@/services';
import { larkfell } from '../../../demo/larkfell';
import { cellOf, gatesOnRow, rowsOf } from './rows';

const site = await readSiteFile(larkfell);
if ('problems' in site) throw new Error(site.problems.join('\n'));
const { outline, names, policy } = site;
const items = [...outline.items.values()];
const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });
const compiled = (of: Policy) => compile(of, outline, names);
const itemOf = (id: string) => outline.items.get(id as ItemId) as Item;
const guest = { kind: 'guest' } as const;

it('has a row for everything but the site, what stands below being deeper', () => {
  const rows = rowsOf(outline);
  expect(rows).toHaveLength(items.length - 1);
  const depth = (id: string) => rows.find(({ item }) => item.id === id)?.depth;
  expect([depth('observers'), depth('charts'), depth('sample-chart'), depth('link-charts')]).toEqual([
    0, 1, 2, 2,
  ]);
  const order = rows.map(({ item }) => item.id as string);
  expect(order.indexOf('charts')).toBe(order.indexOf('observers-text') + 1);
  const folded = rowsOf(outline, new Set());
  expect(folded.some(({ item }) => item.kind === 'section' && !isShared(item))).toBe(false);
  expect(folded.find(({ item }) => item.id === 'home')).toMatchObject({ parts: 6, unfolded: false });
  expect([...new Set(rows.flatMap(({ heading }) => heading ?? []))]).toEqual([
    'Posts: Crew bulletins',
    'Posts: Field notes',
    'Posts: Kit reviews',
    'Posts: Night logs',
    'On many pages',
    'Files',
  ]);
  expect(order.indexOf('top')).toBeGreaterThan(order.indexOf('keepers'));
});

it('folds a shared section out to what it stands on, when somebody asks for that one', () => {
  const live = compiled(policy);
  const on = (unfolded: ReadonlySet<ItemId>) =>
    rowsOf(outline, unfolded, live.places).flatMap((row) =>
      row.on ? [[row.item.id, row.on.id, row.depth]] : [],
    );
  expect(on(new Set())).toEqual([]);
  const hosts = on(new Set(['lending-shelf' as ItemId]));
  expect(hosts).toHaveLength(4);
  expect(hosts[0]).toEqual([`lending-shelf@${hosts[0]?.[1]}`, hosts[0]?.[1], 1]);
  expect(rowsOf(outline, 'all', live.places).some((row) => row.on)).toBe(false);
  expect(
    rowsOf(outline, new Set(), live.places).find(({ item }) => item.id === 'lending-shelf'),
  ).toMatchObject({
    parts: 4,
    unfolded: false,
  });
});

it('counts on how many of its hosts somebody gets a shared section', () => {
  const live = compiled(policy);
  const cell = cellOf(itemOf('no-picture-yet'), guest, request, { live, draft: live });
  const posts = items.filter((one) => one.kind === 'post');
  expect(cell.hosts?.live.of).toBe(posts.length);
  expect(cell.hosts?.live.open).toBeGreaterThan(0);
  expect(cell.hosts?.live.open).toBeLessThan(posts.filter((one) => !one.facts?.picture).length + 1);
  expect(cellOf(itemOf('home'), guest, request, { live, draft: live }).hosts).toBeNull();
  // A change that takes it from some of them is a change.
  const without = { ...policy, gates: policy.gates.filter(({ id }) => id !== 'no-picture-yet') };
  const draft = compiled(without);
  expect(cellOf(itemOf('no-picture-yet'), guest, request, { live, draft })).toMatchObject({ changes: true });
});

it('tells a gate of the row’s own from one that reaches it, sets others aside, or is set aside', () => {
  const live = compiled(policy);
  const standings = (id: string) => gatesOnRow(live, itemOf(id)).map(({ standing }) => standing);
  expect(standings('home')).toEqual([]);
  expect(standings('observers')).toEqual(['own']);
  expect(standings('charts')).toEqual(['inherited']);
  expect(standings('sample-chart')).toEqual(['set aside', 'instead']);
});

it('marks a cell only where the visitor would notice', () => {
  const without = { ...policy, gates: policy.gates.filter(({ id }) => id !== 'trustees') };
  const both = { live: compiled(policy), draft: compiled(without) };
  expect([cellOf(itemOf('trustees'), guest, request, both)]).toMatchObject([
    { changes: true, draft: { kind: 'open' } },
  ]);
  expect(cellOf(itemOf('crew'), guest, request, both)).toMatchObject({ changes: false });
});
