/** Opening a database where it is said to be. */
import type { OpenDatabase } from './database';
import { openEmbedded } from './embedded';
import { openServer } from './server';

/** Whether that names a database on a server, and no folder. */
export const isOnServer = (where: string | null): where is string =>
  where !== null && /^postgres(?:ql)?:\/\//.test(where);

/** Opens the database in a folder, on a PostgreSQL server by its address, or a fresh one in memory for `null`; migrated. */
export const openDatabase = (where: string | null): Promise<OpenDatabase> =>
  isOnServer(where) ? openServer(where) : openEmbedded(where);
