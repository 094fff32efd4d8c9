/** Telling a database that is not there just now from one that refuses what it was asked. */

/** Classes and codes of PostgreSQL’s (SQLSTATE), and of the network’s. */
const AWAY = /^(?:08...|57P0[1-5]|E(?:CONN|PIPE|TIMEDOUT|NOTFOUND|AI_AGAIN|NETUNREACH|HOSTUNREACH).*)$/;
/** What the driver says without a code. */
const SAID =
  /^(?:Connection terminated|Client has encountered a connection error|Client was closed|timeout exceeded when trying to connect|Query read timeout)/;
/** A lock was waited for too long (SQLSTATE). */
const LOCKED = '55P03';

const codeOf = (error: unknown): string => {
  const { code } = (error ?? {}) as { readonly code?: unknown };
  return typeof code === 'string' ? code : '';
};

/** What an error is called that has lost the rest of itself: its code, or that the connection was lost. */
export function codeOfFailure(error: unknown): string {
  const code = codeOf(error);
  if (code !== '') return code;
  return error instanceof Error && SAID.test(error.message) ? CONNECTION_LOST : 'unknown';
}

/** PostgreSQL’s own code for it: connection failure. */
const CONNECTION_LOST = '08006';

/** Whether the database was not there. Of what was being written when it went nobody knows whether it was. */
export const isAway = (error: unknown): boolean => AWAY.test(codeOfFailure(error));

/** Whether something was not begun because others were at it for too long. */
export const isLocked = (error: unknown): boolean => codeOf(error) === LOCKED;
