/**
 * Changing people and the names that describe them: every change is one value with both sides of everything it touches,
 * written in one transaction together with the record of itself, so that it happened whole or not at all and can be taken
 * back.
 */
import { randomUUID } from 'node:crypto';
import { asId, type KeptNames, keptNames, type PassphraseId, type PersonId, permits, same } from '@/core';
import {
  type Database,
  deleteCodesTo,
  deletePeople,
  dropNames,
  forgetPassphrase,
  type Hashes,
  insertChange,
  markUndone,
  type PeopleChange,
  readAreaStep,
  readChange,
  readLatestChanges,
  readPassphraseHashes,
  readPasswordHashes,
  setPassphraseHash,
  setPasswordHash,
  writeNames,
  writePeople,
} from '@/store';
import type { SiteState, Trivet } from '../running';
import { type Administrator, momentAt, NotAllowed, recordOf, requirePermission } from '../running';
import { withSince } from './since';

/** A change about to be made. */
export interface SiteChange {
  readonly summary: string;
  /** In the words of whoever makes it. */
  readonly why?: string;
  readonly people: readonly PeopleChange[];
  readonly names: { readonly before: KeptNames; readonly after: KeptNames } | null;
  /** What is to be typed for a passphrase, hashed; never recorded. */
  readonly passphrase?: { readonly id: KeptNames['passphrases'][number]['id']; readonly hash: string };
  /** What somebody signs in with, hashed; never recorded. */
  readonly password?: { readonly person: PersonId; readonly hash: string };
  /** What is written in the same transaction, and done even where nothing changes; what it throws undoes all of it. */
  readonly alongside?: (tx: Database) => Promise<void>;
}

/** Who makes a change: an administrator, or somebody who changes their own account. */
export type Author = Pick<Administrator, 'name'> & { readonly session?: string; readonly desk?: unknown };

export type ChangeAnswer =
  | { readonly kind: 'changed'; readonly change: string; readonly people: number; readonly summary: string }
  | { readonly kind: 'nothing to do' }
  | { readonly kind: 'wrong'; readonly message: string };

/** Makes a change of the site as it is when its turn comes. What the maker answers with a message is not done. */
export async function applyChange(
  trivet: Trivet,
  author: Author,
  make: (state: SiteState) => SiteChange | string | Promise<SiteChange | string>,
  now: Date,
): Promise<ChangeAnswer> {
  return trivet.change(async (state): Promise<ChangeAnswer> => {
    const made = await make(state);
    if (typeof made === 'string') return { kind: 'wrong', message: made };
    const { today } = momentAt(state, now);
    const people = made.people
      .map((change) => withSince(change, today))
      .filter(({ before, after }) => !same(before, after));
    const names = made.names && !same(made.names.before, made.names.after) ? made.names : null;
    if (
      people.length === 0 &&
      names === null &&
      made.passphrase === undefined &&
      made.password === undefined
    ) {
      if (made.alongside) await trivet.db.transaction(made.alongside);
      return { kind: 'nothing to do' };
    }
    if (author.session !== undefined) requireOwnerForRights(author as Administrator, people);
    const orphaned = ownerProblem(state, people) ?? payingProblem(state, people);
    if (orphaned !== null) return { kind: 'wrong', message: orphaned };
    const id = randomUUID();
    await trivet.db.transaction(async (tx) => {
      const hashes = await hashesOfGone(tx, people, names);
      await writeChange(tx, people, names);
      if (made.passphrase) await setPassphraseHash(tx, made.passphrase.id, made.passphrase.hash);
      if (made.passphrase) await forgetPassphrase(tx, made.passphrase.id);
      if (made.password) await setPasswordHash(tx, made.password.person, made.password.hash);
      await made.alongside?.(tx);
      const { summary, why = '' } = made;
      const by = author.name;
      await insertChange(tx, { id, by, summary, why, people, names, hashes, undone: false }, now);
    });
    forgetWhoWent(trivet, people);
    if (made.passphrase) trivet.forgetSessionsKnowing(made.passphrase.id);
    return { kind: 'changed', change: id, people: people.length, summary: made.summary };
  });
}

/** Takes a change back, if nothing that it touched has changed since. */
export async function undoChange(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<ChangeAnswer> {
  requirePermission(administrator, 'people');
  const id = typeof input === 'string' && input.length <= 100 ? input : '';
  return trivet.change(async (state): Promise<ChangeAnswer> => {
    const wrong = (message: string): ChangeAnswer => ({ kind: 'wrong', message });
    const change = await readChange(trivet.db, id);
    if (!change || change.undone) return wrong('That was taken back already.');
    if (await readAreaStep(trivet.db, id)) return wrong('That came with areas. Take it back under Areas.');
    if (change.people.length === 0 && change.names === null)
      return wrong('That is changed back where it was made. Nothing was taken back.');
    const moved = change.people.find(({ before, after }) => {
      const key = (after ?? before)?.id as PersonId;
      const current = state.people.get(key);
      return !same(current ? recordOf(current) : null, after);
    });
    const who = moved && (moved.after ?? moved.before)?.name;
    if (moved) return wrong(`${who} was changed again since. Nothing was taken back.`);
    if (change.names && !same(keptNames(state.names), change.names.after))
      return wrong('The site’s names were changed again since. Nothing was taken back.');
    const people = change.people.map(({ before, after }) => ({ before: after, after: before }));
    requireOwnerForRights(administrator, people);
    const orphaned = ownerProblem(state, people) ?? payingProblem(state, people);
    if (orphaned !== null) return wrong(orphaned);
    const names = change.names && { before: change.names.after, after: change.names.before };
    await trivet.db.transaction(async (tx) => {
      await writeChange(tx, people, names);
      for (const [person, hash] of Object.entries(change.hashes.people))
        await setPasswordHash(tx, asId<PersonId>(person), hash);
      for (const [passphrase, hash] of Object.entries(change.hashes.passphrases))
        await setPassphraseHash(tx, asId<PassphraseId>(passphrase), hash);
      await markUndone(tx, id);
    });
    forgetWhoWent(trivet, people);
    const summary = `Taken back: ${change.summary}`;
    return { kind: 'changed', change: id, people: people.length, summary };
  });
}

/**
 * Who may use the desk is for owners to say, and so is the mail address of those who may: whoever can read the mail can take
 * the account.
 */
function requireOwnerForRights(administrator: Administrator, people: readonly PeopleChange[]): void {
  const touched = people.some(
    ({ before, after }) =>
      !same(before?.desk ?? null, after?.desk ?? null) ||
      (before?.desk && (after === null || before.email !== after.email)),
  );
  if (!touched || permits(administrator.desk, 'everything')) return;
  throw new NotAllowed(
    'Who may use the desk, and the mail addresses of those who may, are changed by owners. Nothing was changed.',
  );
}

/** A site always has an owner. */
function ownerProblem({ people }: SiteState, changes: readonly PeopleChange[]): string | null {
  const isOwner = (one: PeopleChange['after'] | undefined) => one?.desk?.right === 'owner';
  if (!changes.some(({ before, after }) => isOwner(before) && !isOwner(after))) return null;
  const owners = new Set(
    people.parts().flatMap(({ text, values }) =>
      text.includes('"owner"')
        ? values()
            .filter(isOwner)
            .map(({ id }) => id)
        : [],
    ),
  );
  for (const { before, after } of changes) {
    if (before && !isOwner(after)) owners.delete(before.id);
    if (after && isOwner(after)) owners.add(after.id);
  }
  return owners.size > 0
    ? null
    : 'Nobody would be left who owns the site. Make somebody else an owner first.';
}

/** Nobody goes on paying for what they can't have any more. */
function payingProblem({ bought }: SiteState, changes: readonly PeopleChange[]): string | null {
  for (const { before, after } of changes)
    if (before && !after && bought.get(before.id)?.some(({ order }) => order?.renews != null))
      return `${before.name} pays for a subscription. End it in Sales first.`;
  return null;
}

const MOST_LATEST = 10;

/** The latest changes of people and names, newest first. */
export function latestChanges(trivet: Trivet, administrator: Administrator) {
  requirePermission(administrator, 'look');
  return readLatestChanges(trivet.db, MOST_LATEST);
}

/** What those who are about to go can sign in with, and what can be typed for passphrases that go. */
async function hashesOfGone(
  tx: Parameters<typeof writePeople>[0],
  people: readonly PeopleChange[],
  names: SiteChange['names'],
): Promise<Hashes> {
  const gone = names?.before.passphrases.filter(
    ({ id }) => !names.after.passphrases.some((one) => one.id === id),
  );
  return {
    people: await readPasswordHashes(tx, goneIn(people)),
    passphrases: await readPassphraseHashes(
      tx,
      (gone ?? []).map(({ id }) => id),
    ),
  };
}

const goneIn = (people: readonly PeopleChange[]): readonly PersonId[] =>
  people.flatMap(({ before, after }) => (before && !after ? [before.id] : []));

/** An account that ends takes its sessions along; the database has ended them, and memory is not to know them longer. */
function forgetWhoWent(trivet: Trivet, people: readonly PeopleChange[]): void {
  for (const person of goneIn(people)) trivet.forgetSessionsOf(person);
}

/** The mail addresses that are no longer those of an account that had them. */
const leftAddresses = (people: readonly PeopleChange[]): readonly string[] =>
  people.flatMap(({ before, after }) => (before && before.email !== after?.email ? [before.email] : []));

/** Writes people and names as they are after a change, within its transaction. */
export async function writeChange(
  tx: Parameters<typeof writePeople>[0],
  people: readonly PeopleChange[],
  names: SiteChange['names'],
): Promise<void> {
  // Names that come are there before the people who have them, and those that go leave after.
  if (names) await writeNames(tx, names.after);
  await deletePeople(tx, goneIn(people));
  await deleteCodesTo(tx, leftAddresses(people));
  await writePeople(tx, people);
  if (names) await dropNames(tx, names.before, names.after);
}
