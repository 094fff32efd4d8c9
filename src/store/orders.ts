/** Orders, and what the till told of them. */
import { and, asc, count, desc, eq, isNotNull, isNull, lt, ne, or, type SQL, sql } from 'drizzle-orm';
import {
  type Agreed,
  asId,
  type Notice,
  type OrderId,
  type OrderState,
  type PersonId,
  type PriceId,
  type ProductId,
  type VoucherId,
} from '@/core';
import type { Database } from './database';
import { notices, orderLetters, orders, people } from './schema';
import type { DueStep, FreeAtFirst, Replaced } from './types';

export interface Order {
  readonly id: OrderId;
  readonly product: ProductId;
  /** What the product was called. */
  readonly productName: string;
  readonly person: PersonId | null;
  readonly email: string;
  readonly name: string;
  readonly price: PriceId;
  readonly agreed: Agreed & FreeAtFirst;
  readonly voucher: VoucherId | null;
  readonly replaces: Replaced | null;
  readonly back: string;
  readonly session: string | null;
  readonly madeAccount: boolean;
  readonly notedBy: string | null;
  readonly reference: string | null;
  readonly payPage: string | null;
  readonly made: Date;
  readonly payUntil: Date;
  readonly askedAt: Date | null;
  readonly state: OrderState;
  readonly open: boolean;
  readonly due: readonly DueStep[];
}

const orderIn = (row: typeof orders.$inferSelect): Order => ({
  ...row,
  id: asId(row.id),
  product: asId(row.product),
  person: row.person === null ? null : asId<PersonId>(row.person),
  price: asId(row.price),
  voucher: row.voucher === null ? null : asId<VoucherId>(row.voucher),
});

/** Writes a new order. Answers false where somebody is on the way to buy the same already. */
export async function insertOrder(db: Database, order: Order): Promise<boolean> {
  const rows = await db.insert(orders).values(order).onConflictDoNothing().returning({ id: orders.id });
  return rows.length > 0;
}

export async function readOrder(db: Database, id: string): Promise<Order | null> {
  const [row] = await db.select().from(orders).where(eq(orders.id, id));
  return row ? orderIn(row) : null;
}

/** The same, for nobody else to change until the transaction is over. */
export async function lockOrder(tx: Database, id: string): Promise<Order | null> {
  const [row] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
  return row ? orderIn(row) : null;
}

export async function updateOrder(
  db: Database,
  id: OrderId,
  values: Partial<
    Pick<Order, 'person' | 'madeAccount' | 'reference' | 'payPage' | 'askedAt' | 'state' | 'open' | 'due'>
  >,
): Promise<void> {
  await db.update(orders).set(values).where(eq(orders.id, id));
}

/** The order of a product that somebody is on the way to buy. */
export async function readOpenOrder(db: Database, email: string, product: ProductId): Promise<Order | null> {
  const [row] = await db
    .select()
    .from(orders)
    .where(and(eq(orders.email, email), eq(orders.product, product), eq(orders.open, true)));
  return row ? orderIn(row) : null;
}

/** Whether somebody had a trial of a product before. */
export async function hadTrial(db: Database, email: string, product: ProductId): Promise<boolean> {
  const [row] = await db
    .select({ id: orders.id })
    .from(orders)
    .where(
      and(
        eq(orders.email, email),
        eq(orders.product, product),
        sql`${orders.state} ->> 'trialUntil' is not null`,
      ),
    )
    .limit(1);
  return row !== undefined;
}

/** Everything that somebody ordered, the latest first. */
export async function readOrdersOf(db: Database, person: PersonId): Promise<readonly Order[]> {
  const rows = await db.select().from(orders).where(eq(orders.person, person)).orderBy(desc(orders.made));
  return rows.map(orderIn);
}

/** What memory keeps of an order that gives something to somebody, or gave. */
export type Bought = Pick<Order, 'id' | 'product' | 'state'> & { readonly voucher: boolean };

/** Orders of which that is so. What was paid and can’t be given is nobody’s while it goes back. */
const gives = (): SQL =>
  sql`${orders.state} ->> 'began' is not null and not ${orders.due} @> '[{"kind": "give back"}]'::jsonb`;

/** The orders that give something to somebody, or gave: of everybody, or of one. */
export async function readBought(
  db: Database,
  person?: PersonId,
): Promise<readonly (Bought & { readonly person: PersonId })[]> {
  const rows = await db
    .select({
      id: orders.id,
      product: orders.product,
      person: orders.person,
      voucher: orders.voucher,
      state: orders.state,
    })
    .from(orders)
    .where(and(person === undefined ? isNotNull(orders.person) : eq(orders.person, person), gives()))
    .orderBy(asc(orders.made), asc(orders.id));
  return rows.map(({ id, product, person, voucher, state }) => ({
    id: asId<OrderId>(id),
    product: asId<ProductId>(product),
    person: asId<PersonId>(person ?? ''),
    voucher: voucher !== null,
    state,
  }));
}

/** The same of one person, as a list in JSON. */
export const boughtBy = (person: SQL): SQL => sql`
  (select coalesce(json_agg(json_build_object(
    'id', id, 'product', product, 'voucher', voucher is not null, 'state', state) order by made, id), '[]')
  from ${orders} where ${orders.person} = ${person} and ${gives()})`;

/**
 * Those whose account was made by buying and who never showed that the mailbox is theirs: they have no password, which comes
 * by a code that is mailed.
 */
export async function readUnconfirmed(db: Database): Promise<ReadonlySet<PersonId>> {
  const rows = await db
    .select({ id: people.id })
    .from(orders)
    .innerJoin(people, eq(people.id, orders.person))
    .where(and(eq(orders.madeAccount, true), isNull(people.passwordHash)));
  return new Set(rows.map(({ id }) => asId<PersonId>(id)));
}

/** Whether a person, in a row `p` of people, is one of them. */
export const isUnconfirmed = (): SQL => sql`
  (p.password_hash is null and coalesce((select true from ${orders} where ${orders.person} = p.id and ${orders.madeAccount} limit 1), false))`;

/** Orders that wait and were not asked about since then, the longest first. */
export async function readWaitingOrders(db: Database, since: Date, most: number): Promise<readonly Order[]> {
  const rows = await db
    .select()
    .from(orders)
    .where(
      and(
        eq(orders.open, true),
        lt(orders.made, since),
        or(sql`${orders.askedAt} is null`, lt(orders.askedAt, since)),
      ),
    )
    .orderBy(asc(orders.made))
    .limit(most);
  return rows.map(orderIn);
}

/** Paid orders that the till knows and was not asked about since then: those of longest ago first. */
export async function readPaidUnasked(db: Database, since: Date, most: number): Promise<readonly Order[]> {
  const asked = sql`coalesce(${orders.askedAt}, ${orders.made})`;
  const rows = await db
    .select()
    .from(orders)
    .where(
      and(
        eq(orders.open, false),
        isNotNull(orders.reference),
        sql`${orders.state} ->> 'outcome' = 'paid'`,
        sql`${asked} < ${since.toISOString()}::timestamptz`,
      ),
    )
    .orderBy(asc(asked))
    .limit(most);
  return rows.map(orderIn);
}

/** Orders about which something is left to ask of the till. */
export async function readDueOrders(db: Database, most: number): Promise<readonly Order[]> {
  const rows = await db
    .select()
    .from(orders)
    .where(sql`jsonb_array_length(${orders.due}) > 0`)
    .orderBy(asc(orders.made))
    .limit(most);
  return rows.map(orderIn);
}

/** A notice as it is kept. */
export interface KeptNotice {
  readonly id: string;
  /** In the order in which they came. */
  readonly number: number;
  readonly order: string;
  readonly came: Date;
  readonly said: unknown;
  /** Why it changes nothing; empty for those that count. */
  readonly problem: string;
}

/** Keeps a notice. Answers false where it was told before. */
export async function insertNotice(
  db: Database,
  notice: Pick<KeptNotice, 'id' | 'order' | 'came' | 'said' | 'problem'>,
): Promise<boolean> {
  const rows = await db.insert(notices).values(notice).onConflictDoNothing().returning({ id: notices.id });
  return rows.length > 0;
}

/** The order that a notice is about; null where there is no such notice. */
export async function orderOfNotice(db: Database, id: string): Promise<OrderId | null> {
  const [row] = await db.select({ order: notices.order }).from(notices).where(eq(notices.id, id));
  return row ? (row.order as OrderId) : null;
}

/** Every notice about an order, as they came. */
export const readNotices = (db: Database, order: string): Promise<readonly KeptNotice[]> =>
  db.select().from(notices).where(eq(notices.order, order)).orderBy(asc(notices.number));

/** Those that count, as they were read when they came. */
export async function readCounted(db: Database, order: OrderId): Promise<readonly Notice[]> {
  const rows = await db
    .select({ said: notices.said })
    .from(notices)
    .where(and(eq(notices.order, order), eq(notices.problem, '')));
  return rows.map(({ said }) => said as Notice);
}

/** Notices that change nothing, the latest first. */
export const readProblemNotices = (db: Database, most: number): Promise<readonly KeptNotice[]> =>
  db.select().from(notices).where(ne(notices.problem, '')).orderBy(desc(notices.number)).limit(most);

/** A page of orders, the latest first, and how many there are. */
export async function readOrders(
  db: Database,
  { product, from, most }: { readonly product: string | null; readonly from: number; readonly most: number },
): Promise<{ readonly list: readonly Order[]; readonly count: number }> {
  const where = product === null ? undefined : eq(orders.product, product);
  const rows = await db
    .select()
    .from(orders)
    .where(where)
    .orderBy(desc(orders.made), desc(orders.id))
    .offset(from)
    .limit(most);
  const [sum] = await db.select({ count: count() }).from(orders).where(where);
  return { list: rows.map(orderIn), count: sum?.count ?? 0 };
}

/** Orders of which the time that is paid for is over since some days, or that were ended in them. */
export async function readEndingOrders(db: Database, from: string, until: string): Promise<readonly Order[]> {
  const last = sql`coalesce(${orders.state} ->> 'ends', ${orders.state} ->> 'paidUntil')`;
  const rows = await db
    .select()
    .from(orders)
    .where(and(sql`${last} between ${from} and ${until}`, sql`${orders.state} ->> 'began' is not null`))
    .orderBy(asc(orders.made));
  return rows.map(orderIn);
}

/** Every order that was paid at some time: of everything, or of one product. */
export async function readPaidOrders(db: Database, product?: ProductId): Promise<readonly Order[]> {
  const rows = await db
    .select()
    .from(orders)
    .where(
      and(
        sql`${orders.state} ->> 'began' is not null`,
        product === undefined ? undefined : eq(orders.product, product),
      ),
    )
    .orderBy(asc(orders.made));
  return rows.map(orderIn);
}

/** Notes that a letter goes out; false where it went out before. */
export async function noteLetter(db: Database, order: OrderId, what: string, on: string): Promise<boolean> {
  const rows = await db
    .insert(orderLetters)
    .values({ order, what, on })
    .onConflictDoNothing()
    .returning({ what: orderLetters.what });
  return rows.length > 0;
}
