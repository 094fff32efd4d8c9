/** How the site stands: what is being written, what changed last, and what is wrong. */
import { changedIn, type ItemId } from '@/core';
import { readDraftedItems, readLastChanged } from '@/store';
import { type Administrator, requirePermission, type Trivet } from '../running';
import { type Fault, faultsIn } from './faults';
import { type UnledPage, unledPages } from './unled-pages';

export interface SiteOverview {
  /** What is written and not on the site, with who wrote on it last, and when (ISO 8601). */
  readonly drafts: readonly { readonly item: ItemId; readonly by: string; readonly at: string }[];
  /** What somebody changed last, with when. */
  readonly changed: readonly { readonly item: ItemId; readonly at: string }[];
  readonly faults: readonly Fault[];
  /** How many faults there are beyond those that are told. */
  readonly more: number;
  /** Pages to which nothing leads, for some or for all who may open them, the first of them; and how many there are. */
  readonly unled: { readonly count: number; readonly first: readonly UnledPage[] };
}

const MOST_CHANGED = 8;
const MOST_FAULTS = 100;
const MOST_UNLED = 12;
/** So many rows are read for those few: parts of one page are one change. */
const MOST_READ = 200;

export async function siteOverview(
  trivet: Trivet,
  administrator: Administrator,
  now: Date,
): Promise<SiteOverview> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const { outline } = state;
  const [drafts, rows, faults] = await Promise.all([
    readDraftedItems(trivet.db),
    readLastChanged(trivet.db, MOST_READ),
    faultsIn(state, now),
  ]);
  // Their texts have been read for the faults.
  const unled = await unledPages(state, now);
  const changed = new Map<ItemId, Date>();
  for (const { item, at } of rows) {
    const there = outline.items.get(item);
    const whole = there && changedIn(outline, there);
    if (whole && !changed.has(whole.id)) changed.set(whole.id, at);
  }
  return {
    drafts: drafts.map(({ item, by, at }) => ({ item, by, at: at.toISOString() })),
    changed: [...changed].slice(0, MOST_CHANGED).map(([item, at]) => ({ item, at: at.toISOString() })),
    faults: faults.slice(0, MOST_FAULTS),
    more: Math.max(0, faults.length - MOST_FAULTS),
    unled: { count: unled.length, first: unled.slice(0, MOST_UNLED) },
  };
}
