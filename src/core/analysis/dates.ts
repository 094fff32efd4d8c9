/** Days for tests of dates: on which one asks, and which somebody has, told from that or not. */
import { listOf, operatorOf, TODAY, typeOf } from '../condition';
import { addDays, type Day, isDay, type Vocabulary, WEEKDAYS } from '../site';
import { atMost } from './diagram';
import { BESIDE, MOST_SAMPLES } from './samples';
import type { Asked, Asking } from './things';

/** What samples are made from: the site's names, and the first day that is looked at. */
export interface Ground {
  readonly vocabulary: Vocabulary;
  readonly from: Day;
}

/** The days that tests name, and those that they reckon from today, as so many days later. */
interface Dated {
  readonly named: readonly Day[];
  readonly counted: readonly number[];
}

function datedBy(asked: readonly Asked[], vocabulary: Vocabulary): Dated {
  const dated = asked.filter(({ test }) => typeOf(test, vocabulary) === 'date');
  const counts = ({ test }: Asked): readonly number[] => {
    if (operatorOf(test, vocabulary)?.takes !== 'days') return listOf(test.value).includes(TODAY) ? [0] : [];
    const count = Number(test.value);
    return test.op === 'within the next' ? [0, count] : [0, -count];
  };
  return {
    named: dated.flatMap(({ test, item }) => [
      ...listOf(test.value).filter(isDay),
      ...(test.fact === 'item date' && item?.facts?.date !== undefined ? [item.facts.date] : []),
    ]),
    counted: [...new Set(dated.flatMap(counts))],
  };
}

/** The days on which something that tests tell apart is otherwise than the day before, and some beside them. */
export function daySamples(
  byThing: Iterable<readonly Asked[]>,
  { vocabulary, from }: Ground,
): readonly Day[] {
  const edges = new Set<Day>([from]);
  let weekdays = false;
  for (const asked of byThing) {
    const { named, counted } = datedBy(asked, vocabulary);
    for (const day of named) {
      edges.add(day);
      for (const count of counted) edges.add(addDays(day, -count));
      atMost(MOST_SAMPLES, edges.size);
    }
    weekdays ||= asked.some(({ test }) => test.fact === 'weekday');
  }
  // A whole week of days that are alike but for their names, where there is room for one.
  const beside = weekdays ? [...BESIDE, ...WEEKDAYS.map((_, by) => by + 3)] : BESIDE;
  const days = [...edges].flatMap((day) => beside.map((by) => addDays(day, by)));
  return [...new Set([from, ...days])].filter((day) => day >= from);
}

/** A day that somebody has, which may be told from the day on which they ask. */
export type DayOf = (asking: Asking) => Day;

/** Days for tests of one date: beside each that is named, and beside each that is reckoned from today. */
export function dayOfSamples(asked: readonly Asked[], vocabulary: Vocabulary): readonly DayOf[] {
  const { named, counted } = datedBy(asked, vocabulary);
  return [...new Set(named.flatMap((day) => BESIDE.map((by) => addDays(day, by))))]
    .map(
      (day): DayOf =>
        () =>
          day,
    )
    .concat(
      [...new Set(counted.flatMap((count) => BESIDE.map((by) => count + by)))].map(
        (count): DayOf =>
          ({ request: { today } }) =>
            addDays(today, count),
      ),
    );
}

export const always =
  (day: Day): DayOf =>
  () =>
    day;
