/** What would no longer be as it is expected once a step is made. */
import { type BrokenExpectation, brokenIn } from '../policy';
import { momentAt, type SiteState } from '../running';
import type { After } from './after';

/** The expectations that a step breaks; those that are broken already are no reason against it. */
export async function newlyBroken(
  { compiled, outline, names }: After,
  state: SiteState,
  now: Date,
): Promise<readonly BrokenExpectation[]> {
  const { today } = momentAt(state, now);
  const after = await brokenIn(compiled, { ...state, outline, names }, today);
  if (after.length === 0) return [];
  const before = await brokenIn(state.live.compiled, state, today);
  const known = new Set(before.map(({ expected }) => expected));
  return after.filter(({ expected }) => !known.has(expected));
}
