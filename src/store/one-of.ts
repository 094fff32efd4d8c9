/** Being one of a list of texts, however long it is: a question may have at most 65,535 parameters, and this is one. */
import { type SQL, type SQLWrapper, sql } from 'drizzle-orm';

export const oneOf = (column: SQLWrapper, texts: Iterable<string>): SQL =>
  sql`${column} = any(array(select jsonb_array_elements_text(${JSON.stringify([...texts])}::jsonb)))`;
