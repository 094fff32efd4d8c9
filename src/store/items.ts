/** The site's items and their content. */
import { type Address, asId, type Item, type ItemId } from '@/core';
import type { Database } from './database';
import { items } from './schema';

/** What an item says, as opposed to where it stands: not part of any policy. */
export interface Content {
  readonly summary: string;
  /** Markdown. */
  readonly body: string;
}

/** An item with its content. */
export interface StoredItem {
  readonly item: Item;
  readonly content: Content;
}

/** Every item of the site. */
export async function readItems(db: Database): Promise<readonly StoredItem[]> {
  return (await db.select().from(items)).map(({ summary, body, ...row }) => ({
    item: itemOf(row),
    content: { summary, body },
  }));
}

type Row = Omit<typeof items.$inferSelect, 'summary' | 'body'>;

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
      return { ...base, kind: 'page', address: needed(row.address, row) as Address };
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

/** Writes the items of a site into an empty table. */
export async function insertItems(db: Database, list: readonly StoredItem[]): Promise<void> {
  if (list.length > 0)
    await db.insert(items).values(list.map(({ item, content }) => ({ ...item, ...content })));
}
