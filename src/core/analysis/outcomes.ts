/** Who gets what at an item: the set of all visitors and requests there could be, for each outcome. */
import { fitTo, missing, resolveGiven } from '../gate';
import type { ItemId } from '../ids';
import { hurdlesOf, type Outcome } from '../policy';
import { type ItemKind, itemAt } from '../site';
import { type Diagram, NONE, orElse, Undecided } from './diagram';
import type { Reach } from './reach';

export type Outcomes = ReadonlyMap<Outcome, Diagram>;

/** Answers for items, or for shared sections on hosts; items that go one way are worked out once. Throws `Undecided`. */
export function outcomesIn(reach: Reach): (item: ItemId) => Outcomes {
  const known = new Map<string, Outcomes | Undecided>();
  return (id) => {
    const kind = itemAt(reach.compiled.outline, id)?.kind ?? 'page';
    const key = `${kind} ${reach.wayTo(id)}`;
    const found =
      known.get(key) ??
      orElse<Outcomes, Undecided>(
        () => workedOut(reach, id, kind),
        (reason) => reason,
      );
    known.set(key, found);
    if (found instanceof Undecided) throw found;
    return found;
  };
}

function workedOut(
  { compiled, space, possible, passing, meeting }: Reach,
  id: ItemId,
  kind: ItemKind,
): Outcomes {
  const outcomes = new Map<Outcome, Diagram>();
  const get = (outcome: Outcome, set: Diagram) => {
    if (set !== NONE) outcomes.set(outcome, space.or(outcomes.get(outcome) ?? NONE, set));
  };
  const closed = fitTo(kind, missing).kind;
  const hurdles = hurdlesOf(compiled, id);
  if (hurdles === null) return new Map([[closed, possible]]);
  // Each is tried out by itself, before they are put together.
  const all = hurdles.map((hurdle) => ({ hurdle, passed: passing(hurdle) }));
  return space.attempt(() => {
    let left = possible;
    for (const { hurdle, passed } of all) {
      let away = space.and(left, space.not(passed));
      left = space.and(left, passed);
      if (hurdle.gate === null) get(closed, away);
      else {
        const { cases, last } = hurdle.gate.otherwise;
        for (const { when, give } of cases) {
          const here = space.and(away, meeting(when, hurdle.at));
          get(fitTo(kind, resolveGiven(give, compiled.policy.turnAways)).kind, here);
          away = space.and(away, space.not(here));
        }
        get(fitTo(kind, resolveGiven(last, compiled.policy.turnAways)).kind, away);
      }
      if (left === NONE) break;
    }
    get('open', left);
    return outcomes;
  });
}
