/** Some people as they are now: everything that memory keeps of each, in one question for every thousand. */
import { sql } from 'drizzle-orm';
import { PgDialect } from 'drizzle-orm/pg-core';
import { asId, type PersonId } from '@/core';
import type { Database } from './database';
import { type Bought, boughtBy, isUnconfirmed } from './orders';
import { packedLine, unpackPerson } from './packed-person';
import type { PersonRecord } from './person-record';
import { people } from './schema';
import { slices } from './slices';

export interface PersonAnew {
  readonly id: PersonId;
  /** Null for somebody who is gone. */
  readonly record: PersonRecord | null;
  /** Orders that give something to them, or gave; of whoever is gone as well. */
  readonly bought: readonly Bought[];
  /** Whether buying made the account, and nobody showed that the mailbox is theirs. */
  readonly unconfirmed: boolean;
}

/** What is asked of each, put together once: there is much of it. */
const COLUMNS = sql.raw(
  new PgDialect().sqlToQuery(sql`
    asked.id, case when p.id is not null then ${packedLine()} end as line,
    ${boughtBy(sql`asked.id`)} as bought, ${isUnconfirmed()} as unconfirmed`).sql,
);

/** Whoever is asked about, each once, in no order. */
export async function readPeopleAnew(db: Database, ids: readonly PersonId[]): Promise<readonly PersonAnew[]> {
  const found: PersonAnew[] = [];
  for (const slice of slices([...new Set(ids)])) {
    const { rows } = await db.execute<{
      readonly id: string;
      readonly line: string | null;
      readonly bought: readonly Bought[];
      readonly unconfirmed: boolean;
    }>(sql`
      select ${COLUMNS}
      from jsonb_array_elements_text(${JSON.stringify(slice)}::jsonb) asked(id)
        left join lateral (select * from ${people} where ${people.id} = asked.id offset 0) p on true`);
    for (const { id, line, ...rest } of rows)
      found.push({ id: asId(id), record: line === null ? null : unpackPerson(line), ...rest });
  }
  return found;
}
