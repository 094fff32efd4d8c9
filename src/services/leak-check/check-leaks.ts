/** The leak check as an administrator starts it: one at a time, as the visitors of their board or as everybody. */
import { z } from 'zod';
import { boardOf } from '../people';
import { type Administrator, requirePermission, type Trivet } from '../running';
import { type Knock, type LeakReport, leakCheck } from './leak-check';

const asking = z.strictObject({ everyone: z.boolean() });
let underWay = false;

interface Around {
  readonly now: Date;
  readonly cookieName: string;
  readonly knock: Knock;
  readonly signal: AbortSignal;
}

/** Checks the live site; null when a check is under way already. */
export async function checkLeaks(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  { now, cookieName, knock, signal }: Around,
): Promise<LeakReport | null> {
  requirePermission(administrator, 'look');
  if (underWay) return null;
  underWay = true;
  try {
    const parsed = asking.safeParse(input);
    const everyone = parsed.success && parsed.data.everyone;
    const standIns = await boardOf(trivet, administrator);
    const people = everyone
      ? [...trivet.state.people.keys()]
      : standIns.flatMap((one) => (one.kind === 'member' ? [one.member.id] : []));
    return await leakCheck({ source: trivet.state, people, now, cookieName, knock, signal });
  } finally {
    underWay = false;
  }
}
