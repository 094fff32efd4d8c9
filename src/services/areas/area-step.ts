/** One step over areas: written whole or not at all, together with the record by which it can be taken back. */
import { randomUUID } from 'node:crypto';
import { type ItemId, keptNames, type PersonId, vocabularyOf } from '@/core';
import {
  type AreaStep,
  copyFileBytes,
  type Database,
  deleteItems,
  insertAreaStep,
  insertChange,
  insertItems,
  type PeopleChange,
  type PersonRecord,
  readPasswordHashes,
  type StoredItem,
  updateItem,
  writeBothPolicies,
} from '@/store';
import { writeChange } from '../people';
import { recordOf, type SiteState, type Trivet } from '../running';
import { indexItems } from '../texts';
import { namesAfter } from './after';

/** What is written with a step. */
export interface Writing {
  /** Of the record of what it does to people. */
  readonly id: string;
  readonly summary: string;
  readonly by: string;
  readonly now: Date;
  /** Originals of files by copy. */
  readonly files?: ReadonlyMap<ItemId, ItemId>;
  readonly alongside?: (tx: Database) => Promise<void>;
}

/** Writes a step within a transaction. What it takes away is gone with it, and what it adds is there; policies are put live. */
export async function writeStep(
  tx: Database,
  state: SiteState,
  step: AreaStep,
  { id, summary, by, now, files, alongside }: Writing,
): Promise<void> {
  const people = peopleIn(state, step);
  const before = keptNames(state.names);
  const after = keptNames(namesAfter(state, step));
  const names = step.groups.length === 0 ? null : { before, after };
  const hashes = {
    people: await readPasswordHashes(
      tx,
      people.flatMap((one) => (one.before && !one.after ? [one.before.id] : [])),
    ),
    passphrases: {},
  };
  await writeChange(tx, people, names);
  await deleteItems(
    tx,
    step.items.flatMap((one) => (one.before && !one.after ? [one.before.item.id] : [])),
  );
  const added: StoredItem[] = [];
  for (const { before: was, after: is } of step.items) {
    if (!is) continue;
    if (was) await updateItem(tx, is);
    else added.push(is);
  }
  await insertItems(tx, added, 'changed');
  if (files) await copyFileBytes(tx, files);
  const written = step.items.flatMap((one) => one.after ?? []);
  await indexItems(tx, written, vocabularyOf(namesAfter(state, step), step.live.after));
  await writeBothPolicies(tx, { draft: step.draft.after, live: step.live.after, author: by, note: summary });
  if (people.length > 0 || names !== null)
    await insertChange(tx, { id, by, summary, why: '', people, names, hashes, undone: false }, now);
  await alongside?.(tx);
}

/** The same, with the record by which it can be taken back; answers its id. */
export async function makeStep(
  trivet: Trivet,
  state: SiteState,
  step: AreaStep,
  writing: Omit<Writing, 'id'>,
): Promise<string> {
  const id = randomUUID();
  await trivet.db.transaction(async (tx) => {
    await writeStep(tx, state, step, { ...writing, id });
    await insertAreaStep(tx, { id, at: writing.now, by: writing.by, summary: writing.summary, step });
  });
  return id;
}

/** The people whom a step changes, before and after. */
export function peopleIn(
  state: SiteState,
  { accounts, members }: Pick<AreaStep, 'accounts' | 'members'>,
): readonly PeopleChange[] {
  const changes = new Map<PersonId, { before: PersonRecord | null; after: PersonRecord | null }>();
  for (const { before, after } of accounts) {
    const id = (after ?? before)?.id;
    if (id !== undefined) changes.set(id, { before, after });
  }
  for (const one of members) {
    const there = state.people.get(one.person);
    const before = there ? recordOf(there) : null;
    const change = changes.get(one.person) ?? { before, after: before };
    if (change.after) changes.set(one.person, { ...change, after: inGroupOrNot(change.after, one) });
  }
  return [...changes.values()].filter(({ before, after }) => before !== after);
}

function inGroupOrNot(
  person: PersonRecord,
  { group, in: comes, since }: AreaStep['members'][number],
): PersonRecord {
  if (person.groups.includes(group) === comes) return person;
  const { [group]: _, ...others } = person.groupsSince;
  return comes
    ? {
        ...person,
        groups: [...person.groups, group],
        groupsSince: since === null ? others : { ...others, [group]: since },
      }
    : { ...person, groups: person.groups.filter((one) => one !== group), groupsSince: others };
}
