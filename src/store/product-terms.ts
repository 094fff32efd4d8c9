/** What products are sold for and give. */
import { and, eq, notInArray, sql } from 'drizzle-orm';
import { asId, type ProductId, type ProductTerms } from '@/core';
import type { Database } from './database';
import { productTerms } from './schema';

export interface StoredTerms {
  readonly product: ProductId;
  readonly terms: ProductTerms;
  readonly version: number;
}

export async function readTerms(db: Database): Promise<readonly StoredTerms[]> {
  const rows = await db.select().from(productTerms);
  return rows.map((row) => ({ ...row, product: asId<ProductId>(row.product) }));
}

/** Writes terms over the version that they are based on: 0 where there are none yet. Answers whether that still stood. */
export async function writeTerms(db: Database, { product, terms, version }: StoredTerms): Promise<boolean> {
  const rows =
    version === 0
      ? await db.insert(productTerms).values({ product, terms }).onConflictDoNothing().returning()
      : await db
          .update(productTerms)
          .set({ terms, version: sql`${productTerms.version} + 1` })
          .where(and(eq(productTerms.product, product), eq(productTerms.version, version)))
          .returning();
  return rows.length > 0;
}

/** Makes these the terms of all products. Belongs in a transaction. */
export async function replaceTerms(
  tx: Database,
  list: readonly Pick<StoredTerms, 'product' | 'terms'>[],
): Promise<void> {
  const products = list.map(({ product }) => product);
  await tx
    .delete(productTerms)
    .where(products.length === 0 ? undefined : notInArray(productTerms.product, products));
  for (const { product, terms } of list)
    await tx
      .insert(productTerms)
      .values({ product, terms })
      .onConflictDoUpdate({
        target: productTerms.product,
        set: { terms, version: sql`${productTerms.version} + 1` },
      });
}
