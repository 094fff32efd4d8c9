/** The names that the site keeps beside its items: levels, roles, groups, products, fields, passphrases. */
import { eq, inArray, sql } from 'drizzle-orm';
import { asId, type KeptNames, type PassphraseId } from '@/core';
import type { Database } from './database';
import { fields, groups, levels, passphrases, products, roles } from './schema';

/** All names; levels lowest first, fields in their order, the others by name. */
export async function readNames(db: Database): Promise<KeptNames> {
  const withIds = <T extends { id: string }>(rows: readonly T[]) =>
    rows.map((row) => ({ ...row, id: asId<never>(row.id) }));
  const unranked = <T extends { rank: number }>(rows: readonly T[]) => rows.map(({ rank: _, ...row }) => row);
  return {
    levels: withIds(unranked(await db.select().from(levels).orderBy(levels.rank))),
    roles: withIds(await db.select().from(roles).orderBy(roles.name)),
    groups: withIds(await db.select().from(groups).orderBy(groups.name)),
    products: withIds(await db.select().from(products).orderBy(products.name)),
    fields: withIds(unranked(await db.select().from(fields).orderBy(fields.rank))),
    passphrases: withIds(
      await db
        .select({ id: passphrases.id, name: passphrases.name })
        .from(passphrases)
        .orderBy(passphrases.name),
    ),
  };
}

const TABLES = { levels, roles, groups, products, fields, passphrases };
const COLUMNS: Readonly<Record<keyof KeptNames, readonly string[]>> = {
  levels: ['name', 'rank'],
  roles: ['name'],
  groups: ['name', 'private', 'open'],
  products: ['name', 'kind'],
  fields: ['name', 'rank', 'type', 'choices', 'private', 'editable'],
  passphrases: ['name'],
};
const KINDS = Object.keys(COLUMNS) as (keyof KeptNames)[];

// Seen as the plainest of them: an id, a name, and columns that are named by text.
const tableOf = (kind: keyof KeptNames) => TABLES[kind] as unknown as typeof roles;

/** Writes these names, new ones and those there were. Belongs in a transaction. */
export async function writeNames(db: Database, names: KeptNames): Promise<void> {
  for (const kind of KINDS) {
    const ranked = COLUMNS[kind].includes('rank');
    const rows = names[kind].map((one, rank) => ({ ...one, ...(ranked && { rank }) }));
    if (rows.length === 0) continue;
    await db
      .insert(tableOf(kind))
      .values(rows)
      .onConflictDoUpdate({
        target: tableOf(kind).id,
        set: Object.fromEntries(COLUMNS[kind].map((column) => [column, sql.raw(`excluded."${column}"`)])),
      });
  }
}

/** Takes away the names that are no longer there. Nobody may have them any more. Belongs in a transaction. */
export async function dropNames(db: Database, before: KeptNames, after: KeptNames): Promise<void> {
  for (const kind of KINDS) {
    const kept = new Set<string>(after[kind].map(({ id }) => id));
    const gone = before[kind].map(({ id }) => id as string).filter((id) => !kept.has(id));
    if (gone.length > 0) await db.delete(tableOf(kind)).where(inArray(tableOf(kind).id, gone));
  }
}

/** The passphrase with this hash, or null when there is none. */
export async function findPassphrase(db: Database, hash: string): Promise<PassphraseId | null> {
  const [row] = await db.select({ id: passphrases.id }).from(passphrases).where(eq(passphrases.hash, hash));
  return row ? asId<PassphraseId>(row.id) : null;
}

/** What is kept of some passphrases, by id; those for which nothing was chosen are left out. */
export async function readPassphraseHashes(
  db: Database,
  ids: readonly PassphraseId[],
): Promise<Readonly<Record<string, string>>> {
  if (ids.length === 0) return {};
  const rows = await db
    .select()
    .from(passphrases)
    .where(inArray(passphrases.id, [...ids]));
  return Object.fromEntries(rows.flatMap(({ id, hash }) => (hash === null ? [] : [[id, hash]])));
}

/** Sets what is to be typed for a passphrase. */
export async function setPassphraseHash(db: Database, id: PassphraseId, hash: string): Promise<void> {
  await db.update(passphrases).set({ hash }).where(eq(passphrases.id, id));
}
