/**
 * A query that failed, without the values it was asked with: what is sent to the database is what people typed, and hashes of
 * what they did not want anybody to know, and errors are written to logs.
 */
import { DrizzleQueryError } from 'drizzle-orm/errors';
import { PgPreparedQuery } from 'drizzle-orm/pg-core';
import { codeOfFailure } from './away';

export class QueryFailed extends Error {
  /** PostgreSQL's code for what went wrong (SQLSTATE). */
  readonly code: string;

  constructor(query: string, cause: unknown) {
    const { constraint } = (cause ?? {}) as { readonly constraint?: unknown };
    const known = codeOfFailure(cause);
    super(
      `A query failed (${known}${typeof constraint === 'string' ? `, ${constraint}` : ''}): ${query.slice(0, 500)}`,
    );
    this.name = 'QueryFailed';
    this.code = known;
  }
}

interface Prepared {
  queryWithCache: (this: unknown, query: string, ...rest: unknown[]) => Promise<unknown>;
}

// The library writes the values into the error's message as it throws, so this is the one place where they can be kept back.
const prepared = PgPreparedQuery.prototype as unknown as Prepared;
const run = prepared.queryWithCache;
prepared.queryWithCache = function (query, ...rest) {
  return run.call(this, query, ...rest).catch((error: unknown) => {
    throw error instanceof DrizzleQueryError ? new QueryFailed(error.query, error.cause) : error;
  });
};
