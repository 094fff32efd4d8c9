/** The site's items and their content. */
import { desc, eq, isNotNull, sql } from 'drizzle-orm';
import { type Address, asId, enrollingByHand, type Item, type ItemId } from '@/core';
import type { Content } from './content';
import type { Database } from './database';
import { oneOf } from './one-of';
import { items, oldAddresses } from './schema';

/** An item with its content. */
export interface StoredItem {
  readonly item: Item;
  readonly content: Content;
}

/** Every item of the site, or some by their ids: those there are. */
export async function readItems(
  db: Database,
  ids?: readonly ItemId[],
): Promise<readonly (StoredItem & { readonly version: number })[]> {
  const among = ids && oneOf(items.id, ids);
  return (await db.select().from(items).where(among).orderBy(items.id)).map(
    ({
      summary,
      body,
      section,
      enrolling,
      doneWhen,
      task,
      quiz,
      picture,
      version,
      changedAt: _,
      ...row
    }) => ({
      item: itemOf(row),
      content: {
        summary,
        body,
        ...(section && { section }),
        // What was kept before there was more to it lacks that.
        ...(enrolling && { enrolling: { ...enrollingByHand, ...enrolling } }),
        ...(doneWhen && { doneWhen }),
        ...(task && { task }),
        ...(quiz && { quiz }),
        ...(picture && { picture }),
      },
      version,
    }),
  );
}

type Row = Omit<
  typeof items.$inferSelect,
  | 'summary'
  | 'body'
  | 'section'
  | 'enrolling'
  | 'doneWhen'
  | 'task'
  | 'quiz'
  | 'picture'
  | 'version'
  | 'changedAt'
>;

function itemOf(row: Row): Item {
  const base = {
    id: asId<ItemId>(row.id),
    parent: row.parent === null ? null : asId<ItemId>(row.parent),
    rank: row.rank,
    title: row.title,
    published: row.published,
    ...(row.facts && { facts: row.facts }),
  };
  switch (row.kind) {
    case 'site':
      return { ...base, kind: 'site' };
    case 'page':
    case 'post':
    case 'course':
      return { ...base, kind: row.kind, address: needed(row.address, row) as Address };
    case 'unit':
      return { ...base, kind: 'unit' };
    case 'activity':
      return {
        ...base,
        kind: 'activity',
        address: needed(row.address, row) as Address,
        activity: needed(row.activity, row),
      };
    case 'section':
      return {
        ...base,
        kind: 'section',
        type: needed(row.type, row),
        ...(row.shared && { shared: row.shared }),
      };
    case 'file':
      return {
        ...base,
        kind: 'file',
        name: needed(row.name, row),
        mediaType: needed(row.mediaType, row),
        size: needed(row.size, row),
      };
    case 'menu':
      return { ...base, kind: 'menu', place: needed(row.place, row) };
    case 'link':
      return { ...base, kind: 'link', target: needed(row.target, row) };
    default:
      return row.kind satisfies never;
  }
}

function needed<T>(value: T | null, row: Row): T {
  if (value === null) throw new Error(`The stored ${row.kind} "${row.id}" is incomplete.`);
  return value;
}

/** The row of an item; what it does not have is null, so that a changed item leaves nothing behind. */
const rowOf = ({ item, content }: StoredItem) => ({
  id: item.id,
  kind: item.kind,
  parent: item.parent,
  rank: item.rank,
  title: item.title,
  published: item.published,
  address: 'address' in item ? item.address : null,
  activity: item.kind === 'activity' ? item.activity : null,
  place: item.kind === 'menu' ? item.place : null,
  target: item.kind === 'link' ? item.target : null,
  facts: item.facts ?? null,
  type: item.kind === 'section' ? item.type : null,
  shared: item.kind === 'section' ? (item.shared ?? null) : null,
  name: item.kind === 'file' ? item.name : null,
  mediaType: item.kind === 'file' ? item.mediaType : null,
  size: item.kind === 'file' ? item.size : null,
  summary: content.summary,
  body: content.body,
  section: content.section ?? null,
  enrolling: content.enrolling ?? null,
  doneWhen: content.doneWhen ?? null,
  task: content.task ?? null,
  quiz: content.quiz ?? null,
  picture: content.picture ?? null,
});

const AT_ONCE = 500;

/** Whether it is somebody's change of an item, and counts as the last one, or follows from something else. */
type Change = 'changed' | 'follows';

/** Writes items that are new, in pieces that fit into one statement. */
export async function insertItems(
  db: Database,
  list: readonly StoredItem[],
  change: Change = 'follows',
): Promise<void> {
  const changedAt = change === 'changed' ? sql`now()` : null;
  for (let at = 0; at < list.length; at += AT_ONCE)
    await db.insert(items).values(list.slice(at, at + AT_ONCE).map((one) => ({ ...rowOf(one), changedAt })));
}

/** Writes an item that is there already; its version goes up. */
export async function updateItem(
  db: Database,
  stored: StoredItem,
  change: Change = 'changed',
): Promise<void> {
  await db
    .update(items)
    .set({
      ...rowOf(stored),
      version: sql`${items.version} + 1`,
      ...(change === 'changed' && { changedAt: sql`now()` }),
    })
    .where(eq(items.id, stored.item.id));
}

/** The items that were changed last, with when; at most so many. */
export async function readLastChanged(
  db: Database,
  most: number,
): Promise<readonly { readonly item: ItemId; readonly at: Date }[]> {
  const rows = await db
    .select({ item: items.id, at: items.changedAt })
    .from(items)
    .where(isNotNull(items.changedAt))
    .orderBy(desc(items.changedAt))
    .limit(most);
  return rows.flatMap(({ item, at }) => (at === null ? [] : [{ item: asId<ItemId>(item), at }]));
}

export async function deleteItems(db: Database, ids: readonly ItemId[]): Promise<void> {
  if (ids.length > 0) await db.delete(items).where(oneOf(items.id, ids));
}

/** Every address that an item had before, with that item. */
export const readOldAddresses = async (db: Database): Promise<ReadonlyMap<Address, ItemId>> =>
  new Map(
    (await db.select().from(oldAddresses)).map(({ address, item }) => [
      address as Address,
      asId<ItemId>(item),
    ]),
  );

/** Notes that an item had an address. Whoever had it before has it no longer. */
export async function noteOldAddress(db: Database, address: Address, item: ItemId): Promise<void> {
  await db
    .insert(oldAddresses)
    .values({ address, item })
    .onConflictDoUpdate({ target: oldAddresses.address, set: { item } });
}

/** Forgets addresses that items had before. */
export async function forgetOldAddresses(db: Database, list: readonly string[]): Promise<void> {
  if (list.length > 0) await db.delete(oldAddresses).where(oneOf(oldAddresses.address, list));
}
