/** A site from where it lives to somewhere else: from a data folder onto a PostgreSQL server, or the other way. */
import { existsSync, renameSync, rmSync } from 'node:fs';
import { copyDatabase, countOthers, differingTables, isEmptyDatabase } from '@/store';
import { databaseIn, Trivet } from '../running';

/** Why a site was not moved, in a sentence. Nothing was changed. */
export class NotMoved extends Error {}

/** What was moved. */
export interface Moved {
  readonly rows: number;
  readonly items: number;
  readonly people: number;
}

/**
 * Moves everything into a Trivet that holds nothing: pages with every file, people with what they sign in with, orders, history.
 * What is there afterwards is held against what was here, table by table. Throws {@link NotMoved}.
 */
export async function moveSite(
  from: Trivet,
  to: Trivet,
  told: (rows: number, of: number) => void,
): Promise<Moved> {
  if (!from.hasSite) throw new NotMoved('There is no site to move.');
  for (const side of [from, to]) {
    const others = side.currency === null ? 0 : await countOthers(side.db);
    if (others > 0)
      throw new NotMoved(
        `${others === 1 ? 'A process serves' : `${others} processes serve`} ${side === from ? 'this site' : 'the other database'} now. Stop ${others === 1 ? 'it' : 'them'} first.`,
      );
  }
  if (!(await isEmptyDatabase(to.db))) throw new NotMoved('There is something already where it is to go.');
  let rows = 0;
  await copyDatabase(from.db, to.db, (done, all) => {
    rows = done;
    told(done, all);
  });
  const differing = await differingTables(from.db, to.db);
  if (differing.length > 0)
    throw new Error(`It is not the same there: ${differing.join(', ')}. Don’t use what is there.`);
  await to.reload();
  return { rows, items: to.state.outline.items.size, people: to.state.people.size };
}

/**
 * Moves everything into a data folder that holds no site yet, and that nobody else uses meanwhile. It is there whole or not at
 * all, whatever happens on the way. Throws {@link NotMoved}.
 */
export async function moveIntoFolder(
  from: Trivet,
  folder: string,
  told: (rows: number, of: number) => void,
): Promise<Moved> {
  const database = databaseIn(folder);
  if (existsSync(database)) throw new NotMoved(`The data folder ${folder} holds something already.`);
  const coming = `${database}-coming`;
  // What one has left that did not get to its end.
  rmSync(coming, { recursive: true, force: true });
  const to = await Trivet.open(coming);
  try {
    const moved = await moveSite(from, to, told).finally(() => to.close());
    renameSync(coming, database);
    return moved;
  } finally {
    rmSync(coming, { recursive: true, force: true });
  }
}
