/** Which page is the site's first. */
import slugify from '@sindresorhus/slugify';
import { type Address, type Addressed, asId, type Item, type ItemId } from '@/core';
import { type Database, noteOldAddress, updateItem } from '@/store';
import type { SiteState } from '../running';
import { contentOf } from '../view';
import { addressesFor } from './change-items';

type Page = Extract<Item, { kind: 'page' }>;

const FIRST = '/' as Address;

/** The site's first page; null where there is none. */
export const homePage = ({ outline }: SiteState): Page | null => {
  const page = outline.addressed.get(FIRST);
  return page?.kind === 'page' ? page : null;
};

/** Why a page can't be the first one; null where it can. */
export function homeProblem({ outline }: SiteState, id: string): string | null {
  const page = outline.items.get(asId<ItemId>(id));
  if (page?.kind !== 'page') return 'There is no such page any more. Choose another.';
  return page.published ? null : `“${page.title}” is not published. Publish it first, or choose another.`;
}

/**
 * Makes a page the first one. The one that was gets an address made of its title; where the other was leads to it from now on.
 * Whoever may open either stays as it was.
 */
export async function makeHome(tx: Database, state: SiteState, id: string): Promise<void> {
  const page = state.outline.items.get(asId<ItemId>(id));
  const before = state.outline.addressed.get(FIRST);
  if (page?.kind !== 'page' || page.id === before?.id) return;
  const move = (item: Addressed, address: Address) =>
    updateItem(tx, { item: { ...item, address }, content: contentOf(state, item.id) });
  // Two are never at one address, not even in between.
  if (before) await move(before, addressesFor(state)(`/${slugify(before.title)}`));
  await move(page, FIRST);
  await noteOldAddress(tx, page.address, page.id);
}
