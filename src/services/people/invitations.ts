/** Inviting people by mail: whoever can't sign in yet gets a link, good for a week, with which they choose a password. */
import { z } from 'zod';
import { momentIn, type PersonId } from '@/core';
import { type Database, putIntoOutbox, readUnanswered, readWithoutPassword, writeInvitations } from '@/store';
import { id } from '../forms';
import { writtenLetter } from '../mail';
import type { Person, SiteState, Trivet } from '../running';
import {
  type Administrator,
  environment,
  hashToken,
  memberOf,
  messagesOf,
  newToken,
  requirePermission,
} from '../running';
import { type Crowd, MOST_NAMED } from './columns';
import { peopleChosen } from './find-people';

/** How long an invitation is good for, in milliseconds. */
export const INVITED_MS = 7 * 24 * 60 * 60_000;

/** So many letters are written at once. */
const MOST_INVITED = 1000;

const request = z.union([
  z.strictObject({ ids: z.array(id).min(1, 'Choose somebody first.').max(100_000) }),
  z.strictObject({ text: z.string().max(200), condition: z.string() }),
]);

export type InviteAnswer =
  | { readonly kind: 'preview' | 'invited'; readonly people: Crowd; readonly withPassword: number }
  | { readonly kind: 'wrong'; readonly message: string };

/** Invites those of some people who have no password, or says whom that would be. */
export async function invitePeople(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  preview: boolean,
  now: Date,
): Promise<InviteAnswer> {
  requirePermission(administrator, 'people');
  const parsed = request.safeParse(input);
  if (!parsed.success) return { kind: 'wrong', message: 'Choose somebody first.' };
  const { state } = trivet;
  const found = await peopleChosen(state, parsed.data, now);
  if ('error' in found) return { kind: 'wrong', message: found.error.message };
  const chosen = [...found.people()];
  const without = await readWithoutPassword(
    trivet.db,
    chosen.map((one) => one.id),
  );
  const people = chosen.filter((one) => without.has(one.id));
  if (people.length > MOST_INVITED)
    return { kind: 'wrong', message: `At most ${MOST_INVITED} are invited at once. Choose fewer.` };
  const crowd = { count: people.length, first: people.slice(0, MOST_NAMED).map(memberOf) };
  const withPassword = chosen.length - people.length;
  if (preview) return { kind: 'preview', people: crowd, withPassword };
  if (people.length === 0)
    return { kind: 'wrong', message: 'All of them have a password already. There is nobody to invite.' };
  await trivet.db.transaction((tx) => putInvitations(tx, state, administrator, people, now));
  return { kind: 'invited', people: crowd, withPassword };
}

/** Invites people who are there, and puts the letters into the outbox, in the transaction of what they belong to. */
export async function putInvitations(
  tx: Database,
  state: SiteState,
  by: Pick<Administrator, 'name' | 'email'>,
  people: readonly Pick<Person, 'id' | 'name' | 'email'>[],
  now: Date,
): Promise<void> {
  const until = new Date(now.getTime() + INVITED_MS);
  const last = messagesOf(state).day(momentIn(state.settings.timeZone, until).today);
  const invited = people.map((person) => ({ person, token: newToken() }));
  await writeInvitations(
    tx,
    invited.map(({ person: { id: person, email }, token }) => ({
      person,
      email,
      at: now,
      until,
      tokenHash: hashToken(token),
    })),
  );
  await putIntoOutbox(
    tx,
    ...invited.map(({ person: { name, email }, token }) => ({
      to: email,
      replyTo: by.email,
      ...writtenLetter(state, 'invitation', {
        name,
        by: by.name,
        link: new URL(`/sign-up/invited/${token}`, environment().publicUrl).href,
        until: last,
      }),
      at: now,
      goodUntil: until,
    })),
  );
}

/** Somebody who was invited and did not answer yet. */
export interface Unanswered {
  readonly id: PersonId;
  readonly name: string;
  readonly email: string;
  readonly at: Date;
  /** Whether the link can still be used. */
  readonly open: boolean;
}

const MOST_TOLD = 500;

/** Those who were invited and have no password yet, whoever waits longest first. */
export async function unanswered(
  trivet: Trivet,
  administrator: Administrator,
  now: Date,
): Promise<readonly Unanswered[]> {
  requirePermission(administrator, 'people');
  const { people } = trivet.state;
  return (await readUnanswered(trivet.db, MOST_TOLD)).flatMap(({ person, at, until }) => {
    const found = people.get(person);
    return found ? [{ id: person, name: found.name, email: found.email, at, open: until > now }] : [];
  });
}
