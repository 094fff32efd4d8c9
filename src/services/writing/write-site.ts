/** Writing a whole site into a database that has none: what a site file brings, and the copy that the leak check tries. */
import { type Address, type ItemId, type Policy, type SiteNames, vocabularyOf } from '@/core';
import {
  insertFirstPolicy,
  insertItems,
  insertSettings,
  noteEverything,
  noteOldAddress,
  type PersonRecord,
  type Settings,
  type StoredItem,
  writeFileBytes,
  writeNames,
  writePeople,
} from '@/store';
import { indexItems } from '../texts';

type Transaction = Parameters<typeof insertItems>[0];

/** Everything that stands on a site: its items with what they hold, the bytes of files, addresses of before. */
export interface SiteItems {
  readonly stored: readonly StoredItem[];
  readonly bytes: ReadonlyMap<ItemId, Uint8Array>;
  readonly formerly: ReadonlyMap<Address, ItemId>;
}

export interface WholeSite extends SiteItems {
  readonly settings: Settings;
  readonly names: SiteNames;
  readonly people: readonly PersonRecord[];
  readonly policy: Policy;
}

/** Writes all of a site. The author is who put its first policy live. */
export async function writeSite(tx: Transaction, site: WholeSite, author: string): Promise<void> {
  await noteEverything(tx);
  await insertSettings(tx, site.settings);
  await writeNames(tx, site.names);
  await writePeople(
    tx,
    site.people.map((after) => ({ before: null, after })),
  );
  await insertItems(tx, site.stored);
  await writeWhatItemsHold(tx, site, site.names, site.policy);
  await insertFirstPolicy(tx, site.policy, author);
}

/** What stands in tables of its own beside items that are there: bytes, addresses of before, words that can be searched. */
export async function writeWhatItemsHold(
  tx: Transaction,
  { stored, bytes, formerly }: SiteItems,
  names: SiteNames,
  policy: Policy,
): Promise<void> {
  for (const [item, file] of bytes) await writeFileBytes(tx, item, file);
  for (const [address, item] of formerly) await noteOldAddress(tx, address, item);
  await indexItems(tx, stored, vocabularyOf(names, policy));
}
