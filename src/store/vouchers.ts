/** Vouchers: codes that buy for less. */
import { asc, eq } from 'drizzle-orm';
import { asId, type ProductId, type VoucherId } from '@/core';
import type { Database } from './database';
import { vouchers } from './schema';

export interface Voucher {
  readonly id: VoucherId;
  /** In capitals. */
  readonly code: string;
  /** The products it is for; all of them where it names none. */
  readonly products: readonly ProductId[];
  /** How much less, in percent: 1 to 100. */
  readonly percent: number;
  readonly times: number;
  readonly until: string | null;
  readonly note: string;
  readonly open: boolean;
}

const voucherIn = (row: typeof vouchers.$inferSelect): Voucher => ({
  ...row,
  id: asId(row.id),
  products: row.products.map((id) => asId(id)),
});

export async function readVouchers(db: Database): Promise<readonly Voucher[]> {
  return (await db.select().from(vouchers).orderBy(asc(vouchers.code))).map(voucherIn);
}

export async function findVoucher(db: Database, code: string): Promise<Voucher | null> {
  const [row] = await db.select().from(vouchers).where(eq(vouchers.code, code));
  return row ? voucherIn(row) : null;
}

/** Writes a voucher, a new one or one that there is. Answers false where another has its code. */
export async function writeVoucher(db: Database, voucher: Voucher): Promise<boolean> {
  const other = await findVoucher(db, voucher.code);
  if (other && other.id !== voucher.id) return false;
  const { id, ...values } = voucher;
  const rows = await db
    .insert(vouchers)
    .values({ id, ...values })
    .onConflictDoUpdate({ target: vouchers.id, set: values })
    .returning({ id: vouchers.id });
  return rows.length > 0;
}
