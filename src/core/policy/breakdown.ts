/** How a whole membership stands to an item: who is let in, who gets what, and which gate turned whom away. */
import {
  addTo,
  type Bitset,
  both,
  type Columns,
  countOf,
  emptyBitset,
  fullBitset,
  isEmpty,
  type Subset,
  without,
} from '../columns';
import { keyOf, nobody } from '../condition';
import type { GateId, ItemId } from '../ids';
import { type Item, isShared, type RequestFacts, type SharedSection } from '../site';
import type { CompiledPolicy, Hurdle } from './compile';
import type { Outcome } from './decision';
import { type GateTerms, type Numbering, numbering, termsIn, unpublishedKey } from './gate-terms';
import type { Fitted } from './turn-away-at';

/** A hurdle of an item with what its gate says; null where something is not published. */
export interface HurdleTerms {
  readonly item: Item;
  readonly hurdle: Hurdle;
  readonly terms: GateTerms | null;
}

/** What the gates over an item say, with a key by which items can be compared; of some hurdles of it, if they are given. */
export function itemTerms(compiled: CompiledPolicy, numberOf: Numbering) {
  const termsOf = termsIn(compiled, numberOf);
  return (item: Item, hurdles: readonly Hurdle[] = compiled.hurdles(item.id) ?? []) => {
    const terms = ({ gate, hostless }: Hurdle) => {
      const said = gate && termsOf(gate, item.kind);
      return said && hostless ? { ...said, who: nobody, number: numberOf(`hostless ${said.number}`) } : said;
    };
    return {
      key: hurdles.map((hurdle) => keyOfHurdle(hurdle, terms(hurdle))).join(' '),
      gates: () => hurdles.map(({ gate }) => ` ${gate?.id}`).join(''),
      told: () => hurdles.map((hurdle) => ({ item, hurdle, terms: terms(hurdle) })),
    };
  };
}

const keyOfHurdle = (hurdle: Hurdle, terms: GateTerms | null): string =>
  terms === null ? 'closed' : `${terms.number}${terms.aspect(hurdle.at)}`;

/** How everybody stands to items: who is let in, who gets what, and which gate turned whom away. */
export interface Breakdown {
  readonly open: Bitset;
  /** By what a visitor would tell apart. */
  readonly given: ReadonlyMap<string, Bitset>;
  readonly by: ReadonlyMap<GateId, Bitset>;
}

/** Works out how everybody stands to what is told of items; conditions that come again are asked once. */
export function breakdowns(
  columns: Columns,
  request: RequestFacts,
): (told: readonly HurdleTerms[]) => Breakdown {
  const selected = new Map<string, Bitset>();
  const select = (condition: GateTerms['who'], { hurdle, terms }: HurdleTerms): Bitset => {
    const key = `${terms?.aspect(hurdle.at)} ${keyOf(condition)}`;
    const bits = selected.get(key) ?? columns.select(condition, hurdle.at, request).bits;
    selected.set(key, bits);
    return bits;
  };
  return (told) => {
    let open = fullBitset(columns.size);
    const given = new Map<string, Bitset>();
    const by = new Map<GateId, Bitset>();
    const collect = <K>(into: Map<K, Bitset>, key: K, bits: Bitset) => {
      const there = into.get(key);
      if (there) addTo(there, bits);
      else into.set(key, bits.slice());
    };
    for (const one of told) {
      const { terms, hurdle } = one;
      if (terms === null || hurdle.gate === null) {
        collect(given, unpublishedKey(one.item), open);
        open = emptyBitset(columns.size);
        break;
      }
      const passed = select(terms.who, one);
      let left = without(open, passed);
      open = both(open, passed);
      if (isEmpty(left)) continue;
      collect(by, hurdle.gate.id, left);
      for (const { when, key } of terms.answers) {
        const taken = when === null ? left : both(left, select(when, one));
        collect(given, key, taken);
        left = without(left, taken);
      }
    }
    return { open, given, by };
  };
}

/** How many get an item, and how many get what instead. */
export interface ItemBreakdown {
  readonly open: Subset;
  readonly away: readonly {
    readonly outcome: Outcome;
    readonly reason: string | null;
    readonly people: Subset;
  }[];
}

/** Who of a membership gets an item, at a moment. */
export function breakdownOf(
  compiled: CompiledPolicy,
  id: ItemId,
  columns: Columns,
  request: RequestFacts,
): ItemBreakdown | null {
  const item = compiled.outline.items.get(id);
  if (!item) return null;
  const { open, given } = isShared(item)
    ? anywhere(compiled, item, columns, request)
    : breakdowns(columns, request)(itemTerms(compiled, numbering())(item).told());
  const selection = (bits: Bitset): Subset => ({ bits, count: countOf(bits) });
  return {
    open: selection(open),
    away: [...given].flatMap(([key, bits]) => {
      const people = selection(bits);
      const { turnAway, reason } = JSON.parse(key) as Fitted;
      return people.count === 0 ? [] : [{ outcome: turnAway.kind, reason, people }];
    }),
  };
}

/** The people who get each outcome at an item; null when there is no such item. */
export function peopleByOutcome(
  compiled: CompiledPolicy,
  id: ItemId,
  columns: Columns,
  request: RequestFacts,
): ReadonlyMap<Outcome, Bitset> | null {
  const found = breakdownOf(compiled, id, columns, request);
  if (!found) return null;
  const sets = new Map<Outcome, Bitset>([['open', found.open.bits]]);
  for (const { outcome, people } of found.away) {
    const known = sets.get(outcome);
    if (known) addTo(known, people.bits);
    else sets.set(outcome, people.bits);
  }
  return sets;
}

/** Who gets a shared section on some host, and what those get who get it on none: what the first kind of host gives. */
function anywhere(
  compiled: CompiledPolicy,
  section: SharedSection,
  columns: Columns,
  request: RequestFacts,
): Pick<Breakdown, 'open' | 'given'> {
  const { places } = compiled;
  const terms = itemTerms(compiled, numbering());
  const breakdown = breakdowns(columns, request);
  const lists = [
    ...(section.shared.elsewhere ? [places.hurdlesAt(section, null)] : []),
    ...places.kindsOf(section).map(({ hurdles }) => hurdles),
  ];
  const open = emptyBitset(columns.size);
  const given = new Map<string, Bitset>();
  const all = lists.map((hurdles) => breakdown(terms(section, hurdles).told()));
  for (const one of all) addTo(open, one.open);
  let left = without(fullBitset(columns.size), open);
  for (const one of all)
    for (const [key, bits] of one.given) {
      const here = both(bits, left);
      if (isEmpty(here)) continue;
      const there = given.get(key);
      if (there) addTo(there, here);
      else given.set(key, here);
      left = without(left, here);
    }
  if (!isEmpty(left)) given.set(unpublishedKey(section), left);
  return { open, given };
}
