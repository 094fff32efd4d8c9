/** Answering an invitation: whoever has its link chooses a password, and is in. */
import { z } from 'zod';
import type { PassphraseId } from '@/core';
import { readInvitation, spendInvitation } from '@/store';
import { accountForm } from '../forms';
import { applyChange } from '../people';
import { hashPassword, hashToken, messagesOf, type Trivet } from '../running';
import { type Started, startAnew } from './start-session';

/** Whom an invitation is for. */
export interface Invited {
  readonly name: string;
  readonly email: string;
}

/** The invitation of a link; null when there is none, or none any more. */
export async function invitationAt(trivet: Trivet, token: string, now: Date): Promise<Invited | null> {
  const found = await readInvitation(trivet.db, hashToken(token), now);
  const person = found && trivet.state.people.get(found.person);
  return person ? { name: person.name, email: person.email } : null;
}

export type InvitationAnswer =
  | { readonly kind: 'done'; readonly started: Started }
  | { readonly kind: 'wrong'; readonly problem: string }
  | { readonly kind: 'over' };

class Spent extends Error {}

/** Sets the password that somebody chose, and signs them in. Of two who send it in the same moment one is too late. */
export async function answerInvitation(
  trivet: Trivet,
  token: string,
  fields: Readonly<Record<string, unknown>>,
  passphrases: readonly PassphraseId[],
  now: Date,
): Promise<InvitationAnswer> {
  const tokenHash = hashToken(token);
  const found = await readInvitation(trivet.db, tokenHash, now);
  const person = found && trivet.state.people.get(found.person);
  if (!person) return { kind: 'over' };
  const { newPassword } = accountForm(messagesOf(trivet.state));
  const parsed = z.object({ password: newPassword }).safeParse(fields);
  if (!parsed.success) return { kind: 'wrong', problem: parsed.error.issues[0]?.message ?? '' };
  const hash = await hashPassword(parsed.data.password);
  try {
    await applyChange(
      trivet,
      { name: person.name },
      () => ({
        summary: `${person.name} answered the invitation`,
        people: [],
        names: null,
        password: { person: person.id, hash },
        alongside: async (tx) => {
          if (!(await spendInvitation(tx, tokenHash))) throw new Spent();
        },
      }),
      now,
    );
  } catch (error) {
    if (error instanceof Spent) return { kind: 'over' };
    throw error;
  }
  return { kind: 'done', started: await startAnew(trivet, person.id, passphrases, '/', now) };
}
