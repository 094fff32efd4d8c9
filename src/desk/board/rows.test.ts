import { expect, it } from 'vitest';
import { compile, type Item, type ItemId, type Policy, requestAt } from '@/core';
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
  expect(folded.some(({ item }) => item.kind === 'section')).toBe(false);
  expect(folded.find(({ item }) => item.id === 'home')).toMatchObject({ parts: 6, unfolded: false });
  expect([...new Set(rows.flatMap(({ heading }) => heading ?? []))]).toEqual([
    'Posts: Crew bulletins',
    'Posts: Field notes',
    'Posts: Kit reviews',
    'Posts: Night logs',
    'Files',
  ]);
  expect(order.indexOf('top')).toBeGreaterThan(order.indexOf('keepers'));
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
