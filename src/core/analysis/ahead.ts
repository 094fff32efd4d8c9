/**
 * What will change by itself: the days on which something can be otherwise than the day before, for one visitor, because of
 * days in conditions and of dates that somebody has. Days of the week are left out: they come back.
 */
import { listOf, operatorOf, type Test, TODAY, testsIn, typeOf } from '../condition';
import { expanded } from '../condition/audience';
import { casesIn } from '../gate';
import type { CompiledPolicy } from '../policy';
import { addDays, type Day, isDay, type VisitorFacts, type Vocabulary } from '../site';

/** What a policy asks of days. */
export interface AskedOfDays {
  /** The days that are named, and those of items. */
  readonly named: readonly Day[];
  /** By how many days dates are told from today, 0 among them. */
  readonly counts: readonly number[];
}

/** Gathers what a policy asks of days. */
export function askedOfDays({ policy, vocabulary, outline }: CompiledPolicy): AskedOfDays {
  const tests = policy.gates
    .flatMap((gate) => [gate.who, ...casesIn(gate)])
    .flatMap((condition) => testsIn(expanded(condition, vocabulary.audiences)))
    .filter((test) => typeOf(test, vocabulary) === 'date');
  const asksItems = tests.some(({ fact }) => fact === 'item date');
  const ofItems = asksItems ? [...outline.items.values()].flatMap(({ facts }) => facts?.date ?? []) : [];
  return {
    named: [...new Set([...tests.flatMap(({ value }) => listOf(value).filter(isDay)), ...ofItems])],
    counts: [...new Set([0, ...tests.flatMap((test) => countOf(test, vocabulary))])],
  };
}

/** How many days after a date a test of it can change; before it, if negative. */
function countOf(test: Test, vocabulary: Vocabulary): readonly number[] {
  if (operatorOf(test, vocabulary)?.takes === 'days') {
    const count = Number(test.value);
    return test.op === 'within the next' ? [-count] : [count];
  }
  return listOf(test.value).includes(TODAY) ? [0] : [];
}

/** Every date that is known of somebody. */
function datesOf({
  purchases,
  granted,
  enrolments,
  profile,
  joined,
  completions,
}: VisitorFacts): readonly Day[] {
  const dates: (Day | null)[] = [
    joined,
    ...(purchases ?? []).flatMap(({ on, until, order }) => [
      on,
      until,
      ...(order ? [order.paidUntil, order.trialUntil, order.renews] : []),
    ]),
    ...granted.flatMap(({ on, until }) => [on, until]),
    ...(enrolments ?? []).flatMap(({ on, until }) => [on, until]),
    ...(completions ?? []).map(({ on }) => on),
    ...Object.values(profile ?? {}).map((value) => (isDay(value) ? value : null)),
  ];
  return dates.filter((day): day is Day => day !== null);
}

/** The days after one, up to another, on which something can be otherwise for somebody than the day before; in order. */
export function changeDays(
  { named, counts }: AskedOfDays,
  visitor: VisitorFacts,
  after: Day,
  last: Day,
): readonly Day[] {
  const days = new Set<Day>();
  const add = (day: Day) => {
    if (day > after && day <= last) days.add(day);
  };
  for (const day of named) for (const count of counts) for (const by of [0, 1]) add(addDays(day, count + by));
  // What is far away can't come near by any count.
  for (const day of new Set(datesOf(visitor)))
    for (const count of counts) for (const by of [0, 1]) add(addDays(day, count + by));
  return [...days].toSorted();
}
