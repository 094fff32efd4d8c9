/** What changes by itself: a gate that closes for good, one that opens on a day to come. */
import { expanded, listOf, testsIn } from '../condition';
import type { Gate } from '../gate';
import { type Day, isDay } from '../site';
import { type Diagram, NONE } from './diagram';
import type { Finding } from './finding';
import { hurdlesOf, passing, type Way } from './gate-findings';
import { shownBy } from './leading';
import type { Reach } from './reach';
import { DAY } from './things';

/** When every day that anybody names is over. */
export const LONG_AFTER: Day = '9000-01-01';

/** `later` is who can get what when every day that is named is over. */
export function byItself(
  reach: Reach,
  later: () => Reach,
  gate: Gate,
  own: readonly Way[],
): readonly Finding[] {
  const { space, cells, compiled } = reach;
  const named = testsIn(expanded(gate.who, compiled.vocabulary.audiences))
    .filter(({ fact }) => fact === 'date')
    .flatMap(({ value }) => listOf(value).filter(isDay));
  const variable = cells.things.findIndex(({ thing }) => thing.kind === DAY);
  const last = named.toSorted().at(-1);
  const those = (who: Reach): readonly Diagram[] => own.map((way) => passing(who, hurdlesOf(gate, way)));
  const somebody = those(reach).find((set) => set !== NONE);
  if (last === undefined || variable < 0 || somebody === undefined) return [];
  // The first day that is looked at is in the first cell.
  const today = space.where(variable, cells.things[variable]?.cells.map((_, cell) => cell === 0) ?? []);
  if (those(reach).every((set) => space.and(set, today) === NONE)) {
    const witness = shownBy(somebody, reach);
    return witness ? [{ gate: gate.id, kind: 'opens by itself', witness }] : [];
  }
  return those(later()).every((set) => set === NONE)
    ? [{ gate: gate.id, kind: 'closes for good', after: last }]
    : [];
}
