/** Seats, and uses of vouchers: each one row, held while somebody pays and theirs afterwards. */
import { and, asc, count, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import { asId, type OrderId, type PersonId } from '@/core';
import type { Database } from './database';
import { orders, places } from './schema';

/**
 * Holds one of so many places for an order until a moment, in one statement: one that it has already, one that nobody has,
 * or one that was held for too long. Answers its number, or null where none is left.
 */
export async function holdPlace(
  db: Database,
  of: string,
  most: number,
  order: OrderId,
  until: Date,
  now: Date,
): Promise<number | null> {
  const [held] = await db
    .update(places)
    .set({
      heldUntil: sql`case when ${places.heldUntil} is null then null else ${until.toISOString()}::timestamptz end`,
    })
    .where(and(eq(places.of, of), eq(places.order, order)))
    .returning({ number: places.number });
  if (held) return held.number;
  // Of two who want the same at once, the second waits for the first and tries the next.
  for (let attempts = 0; attempts < 50; attempts++) {
    await db.delete(places).where(and(eq(places.of, of), lt(places.heldUntil, now)));
    const [taken] = await db
      .insert(places)
      .select(
        sql`select ${of}, free, ${order}, ${until.toISOString()}::timestamptz from generate_series(1, ${most}::integer) free
            where not exists (select from places where "of" = ${of} and number = free) order by free limit 1`,
      )
      .onConflictDoNothing()
      .returning({ number: places.number });
    if (taken) return taken.number;
    if ((await takenPlaces(db, of)) >= most) return null;
  }
  return null;
}

/** Makes a place that is held an order's own. Answers false where it holds none any more. */
export async function keepPlace(db: Database, of: string, order: OrderId): Promise<boolean> {
  const rows = await db
    .update(places)
    .set({ heldUntil: null })
    .where(and(eq(places.of, of), eq(places.order, order)))
    .returning({ number: places.number });
  return rows.length > 0;
}

/** Gives back a place that an order only held, or every place that it has. */
export async function freePlaces(db: Database, order: OrderId, held: 'held' | 'all'): Promise<void> {
  await db
    .delete(places)
    .where(and(eq(places.order, order), held === 'held' ? isNotNull(places.heldUntil) : undefined));
}

/** How many places are taken or held. */
export async function takenPlaces(db: Database, of: string): Promise<number> {
  const [row] = await db.select({ count: count() }).from(places).where(eq(places.of, of));
  return row?.count ?? 0;
}

/** Everybody who has a place, or holds one, by its number. */
export async function readSeats(
  db: Database,
  of: string,
): Promise<
  readonly {
    readonly number: number;
    readonly order: OrderId;
    readonly person: PersonId | null;
    readonly name: string;
    readonly email: string;
    readonly paid: boolean;
  }[]
> {
  const rows = await db
    .select({
      number: places.number,
      order: orders.id,
      person: orders.person,
      name: orders.name,
      email: orders.email,
      heldUntil: places.heldUntil,
    })
    .from(places)
    .innerJoin(orders, eq(orders.id, places.order))
    .where(eq(places.of, of))
    .orderBy(asc(places.number));
  return rows.map(({ heldUntil, ...row }) => ({
    ...row,
    order: asId<OrderId>(row.order),
    person: row.person === null ? null : asId<PersonId>(row.person),
    paid: heldUntil === null,
  }));
}

/** How many places of each are somebody's own. */
export async function readSoldPlaces(db: Database): Promise<ReadonlyMap<string, number>> {
  const rows = await db
    .select({ of: places.of, count: count() })
    .from(places)
    .where(isNull(places.heldUntil))
    .groupBy(places.of);
  return new Map(rows.map(({ of, count: number }) => [of, number]));
}
