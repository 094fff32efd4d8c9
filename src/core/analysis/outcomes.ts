/** Who gets what at an item: the set of all visitors and requests there could be, for each outcome. */
import { fitTo, type Given as GateGives, missing, resolveGiven, type TurnAway } from '../gate';
import type { ItemId } from '../ids';
import { type Hurdle, hurdlesOf, type Outcome } from '../policy';
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

/** Whom the hurdles on a way turn away, with what, and who is left. */
export interface Given {
  readonly left: Diagram;
  readonly away: readonly {
    readonly hurdle: Hurdle;
    /** Null where something is not published, or stands nowhere that is open. */
    readonly give: TurnAway | null;
    readonly set: Diagram;
  }[];
}

/** Goes along hurdles with everybody there could be: each speaks to those whom the ones before it let by. */
export function givenAlong(
  { compiled, space, possible, passing, meeting }: Reach,
  hurdles: readonly Hurdle[],
): Given {
  // Each is tried out by itself, before they are put together.
  const all = hurdles.map((hurdle) => ({ hurdle, passed: passing(hurdle) }));
  return space.attempt(() => {
    const away: Given['away'][number][] = [];
    let left = possible;
    for (const { hurdle, passed } of all) {
      let rest = space.and(left, space.not(passed));
      left = space.and(left, passed);
      const give = (set: Diagram, given: GateGives | null) => {
        if (set !== NONE)
          away.push({ hurdle, set, give: given && resolveGiven(given, compiled.policy.turnAways) });
      };
      for (const { when, give: given } of hurdle.gate?.otherwise.cases ?? []) {
        const here = space.and(rest, meeting(when, hurdle.at));
        give(here, given);
        rest = space.and(rest, space.not(here));
      }
      give(rest, hurdle.gate?.otherwise.last ?? null);
      if (left === NONE) break;
    }
    return { left, away };
  });
}

function workedOut(reach: Reach, id: ItemId, kind: ItemKind): Outcomes {
  const { space, possible, compiled } = reach;
  const hurdles = hurdlesOf(compiled, id);
  if (hurdles === null) return new Map([[fitTo(kind, missing).kind, possible]]);
  const { left, away } = givenAlong(reach, hurdles);
  const outcomes = new Map<Outcome, Diagram>(left === NONE ? [] : [['open', left]]);
  return space.attempt(() => {
    for (const { give, set } of away) {
      const outcome = fitTo(kind, give ?? missing).kind;
      outcomes.set(outcome, space.or(outcomes.get(outcome) ?? NONE, set));
    }
    return outcomes;
  });
}
