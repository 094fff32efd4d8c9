import { expect, it } from 'vitest';
import {
  compile,
  type ItemId,
  keyOfStandIn,
  type Policy,
  requestAt,
  type StandIn,
  standInFacts,
} from '@/core';
import { personOf, readSiteFile } from '@/services';
import { larkfell } from '../../../demo/larkfell';
import { type BoardFilter, everyRow } from '../board-filter';
import { boardCsv } from './board-table';
import { boardKeeper } from './board-worker';
import { filteredRows } from './filter-rows';
import { linesOf } from './lines';
import { rowsOf } from './rows';

const site = await readSiteFile(larkfell);
if ('problems' in site) throw new Error(site.problems.join('\n'));
const { outline, names, policy } = site;
const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });
const memberNamed = (id: string): StandIn => {
  const record = site.people?.find((one) => one.id === id);
  if (!record) throw new Error(`no ${id}`);
  const { name, facts } = personOf(record, {
    ...site,
    settings: { shareKey: '00' },
    bought: new Map(),
    unconfirmed: new Set(),
  });
  return { kind: 'member', member: { id: record.id, name, facts } };
};
const standIns: readonly StandIn[] = [{ kind: 'guest' }, memberNamed('marek'), memberNamed('odile')];
const draft: Policy = { ...policy, gates: policy.gates.filter(({ id }) => id !== 'trustees') };
const items = [...outline.items.values()];
const { matrix } = boardKeeper()({
  number: 1,
  site: { items, names },
  draft,
  live: policy,
  visitors: standIns.map(standInFacts),
  request,
});
const decided = {
  matrix,
  rowOf: new Map(items.map(({ id }, row) => [id, row])),
  columnOf: new Map(standIns.map((one, column) => [keyOfStandIn(one), column])),
};
const all = rowsOf(outline);
const live = compile(policy, outline, names);
const filtered = (filter: Partial<BoardFilter>, side: 'live' | 'draft' = 'live') =>
  filteredRows(all, { ...everyRow, ...filter }, live, side, decided);
const ids = (filter: Partial<BoardFilter>, side: 'live' | 'draft' = 'live') =>
  filtered(filter, side).map(({ item }) => item.id as string);

it('leaves everything when nothing is asked', () => expect(filtered({})).toBe(all));

it('finds rows by words of titles and addresses, in any order', () => {
  expect(ids({ text: 'KEEPERS' })).toEqual(['keepers']);
  expect(ids({ text: 'chart sample' })).toContain('sample-chart');
  expect(ids({ text: '/partners/hollin' })).toEqual(['hollin-school', 'hollin-notes']);
  expect(ids({ text: 'nothing like this' })).toEqual([]);
});

it('finds rows by kind and by gate', () => {
  expect(new Set(filtered({ kind: 'menu' }).map(({ item }) => item.kind))).toEqual(new Set(['menu']));
  expect(ids({ gate: 'trustees' })).toContain('trustees');
  expect(ids({ gate: 'none' })).toContain('visit');
  expect(ids({ gate: 'none' })).not.toContain('trustees');
});

it('answers what somebody does not get, without the parts that only follow', () => {
  const marek = ids({ who: 'member:marek', gets: 'not open' });
  expect(marek).toContain('observers');
  expect(marek).not.toContain('observers-text');
  expect(marek).not.toContain('visit');
  const alone = filtered({ who: 'member:marek', gets: 'not open' }).find(
    ({ item }) => item.title === 'The Sky diary, for its followers',
  );
  expect(alone?.within).toBe('Home');
});

it('answers where two differ, and what one kind of answer is given for', () => {
  const differ = filtered({ who: 'member:marek', gets: 'unlike', other: 'member:odile' });
  expect(differ.map(({ item }) => item.title)).toContain('The Sky diary, for its followers');
  expect(differ.map(({ item }) => item.id)).not.toContain('observers');
  const more = ids({ who: 'member:odile', gets: 'more', other: 'member:marek' });
  const less = ids({ who: 'member:marek', gets: 'more', other: 'member:odile' });
  expect(more.length + less.length).toBeGreaterThan(0);
  expect(more.filter((id) => less.includes(id))).toEqual([]);
  expect(ids({ gets: 'teaser' })).toContain('observers');
  expect(ids({ who: 'guest', gets: 'teaser' })).not.toContain('observers');
});

it('answers where something changes for anybody, or for one', () => {
  expect(ids({ gets: 'a change' }, 'draft')).toEqual(['trustees']);
  expect(ids({ who: 'guest', gets: 'a change' }, 'draft')).toEqual(['trustees']);
});

it('lets rows by until the decisions are there', () => {
  expect(filteredRows(all, { ...everyRow, gets: 'not open' }, live, 'live', null).length).toBeGreaterThan(
    ids({ gets: 'not open' }).length,
  );
});

it('keeps a heading as long as anything of it is left', () => {
  const headings = linesOf(filtered({ text: 'comet' })).flatMap((line) =>
    line.kind === 'heading' ? [line.text] : [],
  );
  expect(headings.length).toBeGreaterThan(0);
  expect(linesOf(all).filter(({ kind }) => kind === 'heading')).toHaveLength(6);
});

it('goes out as a table that a spreadsheet reads and never runs', () => {
  const rows = all
    .filter(({ item }) => ['visit', 'trustees'].includes(item.id))
    .map((row) =>
      row.item.id === 'visit'
        ? { ...row, item: { ...row.item, title: '=HYPERLINK("http://moor.example")' } }
        : row,
    );
  const csv = boardCsv(rows, standIns, decided, 'difference');
  expect(csv.startsWith('\uFEFFKind,Title,Address,Guest,Marek Dunmore,Odile Marsh\r\n')).toBe(true);
  expect(csv).toContain(`page,"'=HYPERLINK(""http://moor.example"")",/visit,open,open,open\r\n`);
  expect(csv).toContain(
    'page,Trustees,/trustees,open (now message),open (now message),open (now message)\r\n',
  );
  expect(boardCsv(rows, standIns, decided, 'live')).toContain('/trustees,message,message,message');
});

it('keeps what it was told, so that the next question can leave it out', () => {
  const keeper = boardKeeper();
  const visitors = standIns.map(standInFacts);
  const first = keeper({ number: 1, site: { items, names }, draft, live: policy, visitors, request });
  const second = keeper({ number: 2, draft: policy, visitors, request });
  expect(first.matrix.changes.some((one) => one === 1)).toBe(true);
  expect(second.matrix.changes.every((one) => one === 0)).toBe(true);
  expect(() => boardKeeper()({ number: 1, visitors, request })).toThrow();
  expect(decided.rowOf.get('visit' as ItemId)).toBeDefined();
});
