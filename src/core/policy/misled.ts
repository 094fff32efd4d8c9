/** Redirects that lead visitors astray: to what they can't open either, or round in a circle. */
import type { Gate } from '../gate';
import type { ItemId } from '../ids';
import { type RequestFacts, type StandIn, standInFacts } from '../site';
import { arrivalFrom } from './arrival';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';

/** Somebody whom a gate sends on, and who does not arrive. */
export interface Misled {
  readonly standIn: StandIn;
  /** Where the gate turned them away. */
  readonly from: ItemId;
  /** Where their way ends. */
  readonly at: ItemId;
  readonly how: 'circle' | 'closed';
}

/**
 * Those of some stand-ins whom a gate's redirects lead astray, each once. Being sent to sign in or to an address elsewhere
 * is an arrival.
 */
export function misledBy(
  compiled: CompiledPolicy,
  gate: Gate,
  standIns: readonly StandIn[],
  request: RequestFacts,
): readonly Misled[] {
  const covered = [...compiled.covering].flatMap(([id, gates]) =>
    gates.some((one) => one.gate.id === gate.id && !one.setAside) ? [id] : [],
  );
  return standIns.flatMap((standIn): readonly Misled[] => {
    const facts = standInFacts(standIn);
    for (const from of covered) {
      const decision = decide(compiled, from, facts, request);
      if (decision.kind === 'open' || decision.because.kind !== 'gate' || decision.because.gate !== gate.id)
        continue;
      const { turnAway } = decision;
      if (turnAway.kind !== 'redirect' || turnAway.to.kind !== 'item') continue;
      const { path, end } = arrivalFrom(compiled, from, facts, request);
      const at = path.at(-1) ?? from;
      if (end === null) return [{ standIn, from, at, how: 'circle' }];
      const leadsOut = end.kind === 'turned away' && end.turnAway.kind === 'redirect';
      if (end.kind === 'turned away' && !leadsOut) return [{ standIn, from, at, how: 'closed' }];
    }
    return [];
  });
}
