/**
 * People written down as memory keeps them, so that a site of very many is there in a fraction of the time; and held against
 * the tables afterwards, so that nobody has longer than that what they have not.
 */
import { linesOf, type PersonId, same } from '@/core';
import {
  countPeople,
  type Database,
  forgetSnapshots,
  isSnapshotOld,
  packedPeople,
  readPackedSlice,
  readPeopleAnew,
  type Slice,
  unpackPerson,
  writeSnapshot,
} from '@/store';
import type { SiteState } from './site-state';
import type { Trivet } from './trivet';
import { noteTrouble } from './trouble';

/** Fewer are read from the tables in no time. */
const MANY = 50_000;
/** So many are looked at at once. */
const AT_ONCE = 500;
/** So many times as long as looking takes, others have the database to themselves. */
const RESTS = 3;

const rest = (ms: number): Promise<void> => new Promise((resolve) => void setTimeout(resolve, ms).unref());

/** Looks after what is written down: holds it against the tables where memory began with it, and writes it anew where it is old. */
export async function tendSnapshot(trivet: Trivet, many = MANY): Promise<void> {
  if (!trivet.hasSite) return;
  // Whoever is gone is in nothing that nobody needs any more.
  if (trivet.state.people.size < many) return forgetSnapshots(trivet.db);
  if (trivet.unheld) await holdAgainstTables(trivet, trivet.unheld);
  await trivet.unlessAnother('snapshot', () => writeDown(trivet));
}

async function writeDown(trivet: Trivet): Promise<void> {
  const { state, number } = trivet.known;
  if (trivet.unheld || !(await isSnapshotOld(trivet.db, number))) return;
  const texts = state.people.parts().map(({ text }) => text);
  await writeSnapshot(trivet.db, number, texts, () => !trivet.isClosed);
}

/**
 * What is written past the log, as by whoever brings back rows with triggers switched off, is in no snapshot: where memory
 * began with one that is not what the tables hold, everything is read from them.
 */
async function holdAgainstTables(trivet: Trivet, reading: symbol): Promise<void> {
  for (let after: string | null = ''; after !== null; ) {
    if (trivet.isClosed) return;
    const start = performance.now();
    const slice: Slice = await readPackedSlice(trivet.db, after, AT_ONCE);
    if (!(await holds(trivet, othersThan(trivet.state, slice)))) return readTables(trivet);
    after = slice.last;
    await rest(RESTS * (performance.now() - start));
  }
  // Counting takes its time, and nothing is taken in while it is looked at in a turn of its own.
  if ((await countPeople(trivet.db)) !== trivet.state.people.size && !(await trivet.whileCurrent(isAll)))
    return readTables(trivet);
  trivet.holds(reading);
}

const isAll = async (db: Database, { people }: SiteState): Promise<boolean> =>
  (await countPeople(db)) === people.size;

/** Those of a slice of the tables who are not the same in memory. */
const othersThan = ({ people }: SiteState, { text }: Slice): readonly PersonId[] =>
  linesOf(text ?? '').flatMap((line) => {
    const id = packedPeople.keyAt(line, 0);
    const known = people.line(id);
    return known === line || (known !== undefined && same(unpackPerson(known), unpackPerson(line))) ? [] : id;
  });

/** Whether they are after all: somebody may have been changed between the looks at the tables and at memory. */
const holds = async (trivet: Trivet, ids: readonly PersonId[]): Promise<boolean> =>
  ids.length === 0 ||
  trivet.whileCurrent(async (db, { people }) =>
    (await readPeopleAnew(db, ids)).every(({ id, record }) => {
      const line = people.line(id);
      return same(record, line === undefined ? null : unpackPerson(line));
    }),
  );

async function readTables(trivet: Trivet): Promise<void> {
  noteTrouble(
    'People were changed past the log of changes; everything is read anew.',
    new Error('What was written down of people is not what the tables hold.'),
  );
  await forgetSnapshots(trivet.db);
  await trivet.reload();
}
