/** Sending what waits in the outbox, for as long as the server runs. */

import { createHash } from 'node:crypto';
import { siteTitleOf } from '@/core';
import { keepWaitingLetters, type Mail, noteDelivery, takeDueLetters } from '@/store';
import type { Trivet } from '../running';
import { messageOf } from './letter';
import type { Mailer } from './mailer';

const MINUTE_MS = 60_000;

/** How long a letter waits after each try, in minutes: longer each time, for about three days. */
const WAITS = [1, 5, 15, 60, 180, 360, 720, 720, 720, 720, 720];

/** So many are taken at once, and nobody else takes them for so long. */
const AT_ONCE = 20;
const LEASE_MS = 15 * MINUTE_MS;

export interface Post {
  readonly mailer: Mailer;
  /** The mail address that letters come from. */
  readonly from: string;
}

/**
 * Tries every letter that is due, once. Without a mail server, what waits stays here from now on. Answers how many letters
 * were tried.
 */
export async function tendMail(trivet: Trivet, post: Post | null, now: () => Date): Promise<number> {
  if (!trivet.hasSite) return 0;
  if (post === null) {
    await keepWaitingLetters(trivet.db);
    return 0;
  }
  const due = await takeDueLetters(trivet.db, now(), AT_ONCE, LEASE_MS);
  await Promise.all(due.map((letter) => send(trivet, post, letter, now)));
  return due.length;
}

async function send(trivet: Trivet, { mailer, from }: Post, letter: Mail, now: () => Date): Promise<void> {
  if (letter.goodUntil !== null && letter.goodUntil <= now())
    return noteDelivery(trivet.db, letter, {
      state: 'failed',
      problem: `${letter.problem} It would have come too late to be of use.`.trim(),
    });
  const { outline, settings } = trivet.state;
  const name = siteTitleOf(outline);
  const mark = createHash('sha256').update(`letters of ${settings.shareKey}`).digest('hex').slice(0, 16);
  const answer = await mailer.send(
    messageOf(letter, { name, address: from, mark, language: settings.language }),
  );
  if (answer.kind === 'sent')
    return noteDelivery(trivet.db, letter, { state: 'sent', sentAt: now(), problem: '' });
  const wait = WAITS[letter.tries - 1];
  return noteDelivery(
    trivet.db,
    letter,
    answer.kind === 'refused' || wait === undefined
      ? { state: 'failed', problem: answer.problem }
      : { nextTry: new Date(now().getTime() + wait * MINUTE_MS), problem: answer.problem },
  );
}
