/** What the next days bring somebody: what they will have, lose and get into, and when, if nothing else happens. */
import {
  addDays,
  type Day,
  listed,
  nameOfId,
  type Origin,
  originsOf,
  reachDifference,
  type VisitorFacts,
  type Vocabulary,
} from '@/core';
import { type Person, plainRequest, type SiteState } from '../running';

/** A day on which something changes for somebody. */
export interface DayAhead {
  readonly on: Day;
  /** What happens: "Observer pass ends". */
  readonly what: readonly string[];
  readonly loses: readonly string[];
  readonly gets: readonly string[];
  readonly closes: readonly string[];
  readonly opens: readonly string[];
}

const DAYS = 90;
const MOST_DAYS = 20;

/** Every day of the next months on which something that somebody has begins or ends. */
export function aheadOf(state: SiteState, { facts }: Person, now: Date): readonly DayAhead[] {
  const request = plainRequest(state, now);
  const { today } = request;
  const last = addDays(today, DAYS);
  const { compiled } = state.live;
  const { vocabulary, outline } = compiled;
  const happens = happeningsOf(facts, vocabulary);
  const days = [...new Set(happens.map(({ on }) => on))]
    .filter((day) => day > today && day <= last)
    .toSorted()
    .slice(0, MOST_DAYS);
  const titles = (ids: readonly string[]) =>
    ids.flatMap((id) => {
      const item = outline.items.get(id as never);
      return item === undefined || (item.kind === 'file' && item.parent !== outline.root) ? [] : [item.title];
    });
  return days.map((on) => {
    const before = addDays(on, -1);
    const [had, has] = [before, on].map((day) => originsOf(facts, day));
    const { opens, closes } = reachDifference(
      compiled,
      facts,
      facts,
      { ...request, today: on },
      { ...request, today: before },
    );
    return {
      on,
      what: happens.filter((one) => one.on === on).map(({ words }) => words),
      loses: lacking(had ?? [], has ?? [], vocabulary),
      gets: lacking(has ?? [], had ?? [], vocabulary),
      closes: titles(closes),
      opens: titles(opens),
    };
  });
}

/** Of what is in one list, what is not in the other in any way. */
const lacking = (list: readonly Origin[], other: readonly Origin[], vocabulary: Vocabulary) => [
  ...new Set(
    list
      .filter((one) => !other.some(({ kind, id }) => kind === one.kind && id === one.id))
      .map(({ kind, id }) => `${kind} ${nameOfId(vocabulary, kind, id) ?? ''}`),
  ),
];

function happeningsOf(
  facts: VisitorFacts,
  vocabulary: Vocabulary,
): readonly { readonly on: Day; readonly words: string }[] {
  const product = (id: string) => nameOfId(vocabulary, 'product', id) ?? 'a product';
  const course = (id: string) => nameOfId(vocabulary, 'course', id) ?? 'a course';
  return [
    ...(facts.purchases ?? [])
      .filter(({ state }) => state === 'paid')
      .flatMap(({ product: id, on, until, order }) => [
        { on, words: `${product(id)} begins` },
        ...(order?.renews ? [{ on: order.renews, words: `${product(id)} is paid again` }] : []),
        ...(until === null
          ? []
          : [
              {
                on: addDays(until, 1),
                words: order?.renews ? `${product(id)} ends, if it is not paid` : `${product(id)} ends`,
              },
            ]),
      ]),
    ...(facts.enrolments ?? []).flatMap(({ course: id, on, until }) => [
      { on, words: `${course(id)} begins` },
      ...(until === null ? [] : [{ on: addDays(until, 1), words: `${course(id)} ends` }]),
    ]),
  ];
}

/** Everything that somebody has today, in words, with where it comes from. */
export function hasInWords(state: SiteState, { facts }: Person, now: Date): readonly string[] {
  const { today } = plainRequest(state, now);
  const { vocabulary } = state.live.compiled;
  const byThing = new Map<string, string[]>();
  for (const { kind, id, through, until } of originsOf(facts, today)) {
    const thing = `${kind} ${nameOfId(vocabulary, kind, id) ?? ''}`;
    const by =
      through === null
        ? 'by hand'
        : `by ${nameOfId(vocabulary, 'product', through) ?? nameOfId(vocabulary, 'group', through) ?? 'something that is gone'}`;
    byThing.set(thing, [...(byThing.get(thing) ?? []), until === null ? by : `${by} until ${until}`]);
  }
  return [...byThing].map(([thing, by]) => `${thing}, ${listed(by)}`);
}
