/** Moving the clock on: in a demo, so that the whole life of a subscription can be watched in a minute. */
import { z } from 'zod';
import { addDays, addMonths, dayInWords, momentIn } from '@/core';
import { extendSessions, updateSettings } from '@/store';
import type { Trivet } from '../running';
import { type Administrator, requirePermission, setClockAhead } from '../running';
import { type Till, TillTrouble } from '../till';
import { tendOrders } from './ask-till';

const STEPS = ['a day later', 'a week later', 'a month later'] as const;
const step = z.enum(STEPS);

export type ClockMoved =
  | { readonly kind: 'moved'; readonly to: string }
  | { readonly kind: 'wrong'; readonly message: string };

const wrong = (message: string): ClockMoved => ({ kind: 'wrong', message });

/** How far the clock can be moved in all. */
const MOST_DAYS = 3650;

/**
 * Moves the site's clock and the stand-in till's on together. The site goes first, so that what the till tells comes from no
 * future; sessions move along, since nobody was away.
 */
export async function moveClock(
  trivet: Trivet,
  till: Till | null,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<ClockMoved> {
  requirePermission(administrator, 'everything');
  const parsed = step.safeParse(input);
  if (!parsed.success) return wrong('The clock goes on by a day, a week or a month.');
  if (!till?.standIn)
    return wrong('Only the clock of a demo can be moved on, together with the till that stands in.');
  const { settings } = trivet.state;
  const { today } = momentIn(settings.timeZone, now);
  const day =
    parsed.data === 'a month later'
      ? addMonths(today, 1)
      : addDays(today, parsed.data === 'a week later' ? 7 : 1);
  const seconds = Math.round((Date.parse(day) - Date.parse(today)) / 1000);
  const clockAhead = settings.clockAhead + seconds;
  if (clockAhead > MOST_DAYS * 86_400)
    return wrong('The clock has been moved on by ten years. Load the demo again.');
  await trivet.change(async () => {
    await trivet.db.transaction(async (tx) => {
      await updateSettings(tx, { clockAhead });
      await extendSessions(tx, seconds);
    });
  });
  trivet.readSessionsAgain();
  setClockAhead(clockAhead);
  const to = new Date(now.getTime() + seconds * 1000);
  try {
    await till.moveOn(to, now);
  } catch (error) {
    if (!(error instanceof TillTrouble)) throw error;
    return wrong('The site’s clock was moved on, and the till does not answer: it is asked again.');
  }
  await tendOrders(trivet, till, to);
  return { kind: 'moved', to: dayInWords(day) };
}
