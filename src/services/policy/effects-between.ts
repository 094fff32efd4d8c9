/** What each of a few changes of a policy would do by itself, compared with that policy. */
import { z } from 'zod';
import { type GuestChange, guestChangeOf } from '@/core';
import { type Crowd, crowdsOf } from '../people';
import type { Trivet } from '../running';
import { type Administrator, requirePermission, yielder } from '../running';
import { effectUnder } from './effect-of-draft';
import { type PolicyProblem, readPolicy } from './read-policy';

/** What one change would do. */
export interface EffectBetween {
  readonly gains: Crowd;
  readonly loses: Crowd;
  readonly guests: GuestChange;
}

const asked = z.strictObject({
  before: z.unknown(),
  after: z
    .array(z.unknown())
    .min(1, 'Send what it is compared with.')
    .max(6, 'At most six are compared at once.'),
});

export async function effectsBetween(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<
  | { readonly of: number; readonly effects: readonly EffectBetween[] }
  | { readonly problems: readonly PolicyProblem[] }
> {
  requirePermission(administrator, 'look');
  const parsed = asked.safeParse(input);
  if (!parsed.success)
    return { problems: [{ gate: null, message: parsed.error.issues[0]?.message ?? 'Send two policies.' }] };
  const { state } = trivet;
  const before = readPolicy(parsed.data.before, state);
  if ('problems' in before) return before;
  const { crowd, size } = crowdsOf(state);
  const effects: EffectBetween[] = [];
  const rest = yielder();
  for (const one of parsed.data.after) {
    await rest();
    const after = readPolicy(one, state);
    if ('problems' in after) return after;
    await rest();
    const effect = await effectUnder(state, before.policy, after.policy, now, {});
    if (effect === null) throw new Error('Nobody could have stopped this.');
    effects.push({
      gains: crowd(effect.gains),
      loses: crowd(effect.loses),
      guests: guestChangeOf(effect.shifts),
    });
  }
  return { of: size, effects };
}
