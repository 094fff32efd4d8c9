/** The outbox as administrators read it, and what they can do about a letter. */

import { z } from 'zod';
import { siteTitleOf } from '@/core';
import { type Mail, putIntoOutbox, readOutbox, sendLetterAgain } from '@/store';
import type { Trivet } from '../running';
import { type Administrator, environment, requirePermission } from '../running';

const MOST_MAILS = 200;

export interface Outbox {
  /** Whom letters come from; null where no mail leaves this machine. */
  readonly from: string | null;
  /** The newest first. */
  readonly letters: readonly Mail[];
}

/** With the codes in it a letter opens the account that it was sent to, so only owners read them. */
export async function latestMail(trivet: Trivet, administrator: Administrator): Promise<Outbox> {
  requirePermission(administrator, 'everything');
  return { from: environment().mail?.from ?? null, letters: await readOutbox(trivet.db, MOST_MAILS) };
}

const asked = z.union([
  z.strictObject({ kind: z.literal('again'), id: z.int().min(1).max(2_147_483_647) }),
  z.strictObject({ kind: z.literal('try') }),
]);

/** Lets a letter be sent again, or writes one to whoever asks, to see whether it comes. Answers what is wrong, or null. */
export async function sendFromOutbox(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<string | null> {
  requirePermission(administrator, 'everything');
  const parsed = asked.safeParse(input);
  if (!parsed.success) return 'Say which letter is to be sent.';
  if (parsed.data.kind === 'again')
    return (await sendLetterAgain(trivet.db, parsed.data.id, now)) ? null : 'That letter is not here.';
  const { outline, people } = trivet.state;
  const to = people.get(administrator.id)?.email;
  if (to === undefined) return 'You have no mail address.';
  const site = siteTitleOf(outline);
  await putIntoOutbox(trivet.db, {
    to,
    subject: `A letter from ${site}, to see whether it comes`,
    text: `${administrator.name}, you asked for this at the desk of ${site}.\n\nIf you read it in your mailbox, letters of the site arrive.`,
    at: now,
  });
  return null;
}
