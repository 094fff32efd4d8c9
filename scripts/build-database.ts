/** Makes what a new database begins as, so that neither a first start nor a copy to check has to. */
import { readdirSync, rmSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { newDatabaseFile, openEmbedded } from '@/store';

const FOLDER = '.next';
// Not from one that is there: it would be its copy, with all that one had been through.
for (const name of readdirSync(FOLDER).filter((one) => one.startsWith('new-database-')))
  rmSync(`${FOLDER}/${name}`);
const { db, dump, close } = await openEmbedded(null);
// What was written is in its place, and nothing has to be read again from the log.
await db.execute('CHECKPOINT');
writeFileSync(newDatabaseFile(), gzipSync(new Uint8Array(await (await dump()).arrayBuffer())));
await close();
