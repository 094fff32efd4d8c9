/** What having something, or having it no longer, would do to one person: what opens and closes, what they get, lose and keep. */
import {
  addDays,
  asId,
  type Day,
  factsOf,
  type ItemId,
  nameOfId,
  type Origin,
  originsOf,
  type ProductId,
  type Purchase,
  reachDifference,
} from '@/core';
import type { Order } from '@/store';
import { type Person, plainRequest, type SiteState } from '../running';
import { type NamedItem, standsAlone } from './shop-desk';

/** What ending an order would do to whoever has it. */
export interface IfEnded {
  readonly closes: readonly NamedItem[];
  readonly opens: readonly NamedItem[];
  /** What they lose: "level Observer". */
  readonly loses: readonly string[];
  /** What they keep although the order gives it too, and by what: "level Friend, by hand". */
  readonly keeps: readonly string[];
}

/** What giving somebody a product would do to them. */
export interface IfGiven {
  readonly opens: readonly NamedItem[];
  readonly closes: readonly NamedItem[];
  /** What they get: "level Observer". */
  readonly gets: readonly string[];
}

/** What ending an order today would take from whoever has it, and what it leaves them; null where nobody has it. */
export function ifEnded(state: SiteState, order: Order, now: Date): IfEnded | null {
  const person = order.person && state.people.get(order.person);
  if (!person || !state.bought.get(person.id)?.some((one) => one.order?.id === order.id)) return null;
  const yesterday = addDays(plainRequest(state, now).today, -1);
  const { opens, closes, has, later } = effectOf(state, person, now, (purchases) =>
    purchases.map((one) =>
      one.order?.id === order.id ? { ...one, until: yesterday, state: 'refunded' as const } : one,
    ),
  );
  const given = has.filter(({ through }) => through === order.product);
  return {
    closes,
    opens,
    loses: given.filter((one) => !isAmong(later, one)).map((one) => inWords(state, one)),
    keeps: given.flatMap((one) => {
      const kept = later.find((other) => isThat(other, one));
      return kept ? [`${inWords(state, one)}, ${byWhat(state, kept)}`] : [];
    }),
  };
}

/** What somebody would get today by having a product from one day until another. */
export function ifGiven(
  state: SiteState,
  person: Person,
  product: ProductId,
  { from, until }: { readonly from: Day; readonly until: Day | null },
  now: Date,
): IfGiven {
  const { opens, closes, has, later } = effectOf(state, person, now, (purchases) => [
    ...purchases,
    { product, on: from, until, state: 'paid' },
  ]);
  const news = later.filter((one) => one.through === product && !isAmong(has, one));
  return { opens, closes, gets: news.map((one) => inWords(state, one)) };
}

/** What other purchases would do to somebody today. */
function effectOf(
  state: SiteState,
  person: Person,
  now: Date,
  change: (purchases: readonly Purchase[]) => readonly Purchase[],
) {
  const request = plainRequest(state, now);
  const { facts, groupsSince, enrolments } = person;
  const after = factsOf(
    { ...facts, groupsSince, enrolments, purchases: change(facts.purchases ?? []) },
    state,
  );
  const { opens, closes } = reachDifference(state.live.compiled, facts, after, request);
  return {
    opens: named(state, opens),
    closes: named(state, closes),
    has: originsOf(facts, request.today),
    later: originsOf(after, request.today),
  };
}

function named(state: SiteState, ids: readonly string[]): readonly NamedItem[] {
  return ids
    .map((one) => asId<ItemId>(one))
    .filter((one) => standsAlone(state, one))
    .map((id) => ({ id, title: state.outline.items.get(id)?.title ?? '' }));
}

const isThat = (one: Origin, other: Origin): boolean => one.kind === other.kind && one.id === other.id;
const isAmong = (list: readonly Origin[], one: Origin): boolean => list.some((other) => isThat(other, one));

const inWords = ({ live: { compiled } }: SiteState, { kind, id }: Origin): string =>
  `${kind} ${nameOfId(compiled.vocabulary, kind, id) ?? ''}`;

function byWhat({ live: { compiled } }: SiteState, { through }: Origin): string {
  if (through === null) return 'by hand';
  const { vocabulary } = compiled;
  return `by ${nameOfId(vocabulary, 'product', through) ?? nameOfId(vocabulary, 'group', through) ?? 'something else'}`;
}
