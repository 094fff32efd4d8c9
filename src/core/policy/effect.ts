/**
 * Who gains and who loses between two policies, over the whole membership and for guests. Items at which gates say the
 * same before and after are passed over; those at which they differ in the same way are worked out once, as sets of people
 * in columns.
 */
import {
  addTo,
  type Bitset,
  type Columns,
  countOf,
  emptyBitset,
  fullBitset,
  isEmpty,
  type Subset,
  sameBits,
  without,
} from '../columns';
import { drained } from '../drained';
import type { GateId, ItemId } from '../ids';
import type { GuestChange } from '../sentence';
import { containerOf, type Item, isShared, KINDS, type Outline, type RequestFacts, sharedIn } from '../site';
import { itemTerms } from './breakdown';
import type { CompiledPolicy } from './compile';
import type { Decision } from './decision';
import { numbering } from './gate-terms';
import { groupsOnHosts } from './host-shifts';
import { type Group, guestsAt, type Shift } from './shift';
import { type Select, transitionBetween } from './transition';

/** What one gate has to do with it: those it turned away before and no longer, and those it turns away now. */
export interface GateEffect {
  readonly gate: GateId;
  readonly gains: Subset;
  readonly loses: Subset;
}

/** What changes on the whole site. People are places in the columns. */
export interface Effect {
  readonly shifts: readonly Shift[];
  /** Everyone who gains or loses something, each once. */
  readonly gains: Subset;
  readonly loses: Subset;
  /** The gates that turned away those who gain, or turn away those who lose. */
  readonly byGate: readonly GateEffect[];
}

/**
 * Compares two compiled policies of one site for all its members, at a moment. Parts of pages and courses that only follow
 * what they are in are left out. The columns are those of the membership, made with the site's names.
 */
export function effectOf(
  before: CompiledPolicy,
  after: CompiledPolicy,
  columns: Columns,
  request: RequestFacts,
): Effect {
  return drained(effectSteps(before, after, columns, request));
}

/** The same a step at a time, for whoever wants to show how far it is, or to stop: each step tells how much is done, up to 1. */
export function* effectSteps(
  before: CompiledPolicy,
  after: CompiledPolicy,
  columns: Columns,
  request: RequestFacts,
): Generator<number, Effect> {
  const groups = groupsOf(before, after);
  const select = selector(columns, request);
  const { size } = columns;
  const membership = { size, none: emptyBitset(size), full: fullBitset(size) };
  const shifts: Shift[] = [];
  const gains = emptyBitset(columns.size);
  const loses = emptyBitset(columns.size);
  const tallies = new Map<GateId, { readonly gains: Bitset; readonly loses: Bitset }>();
  const byGate = {
    of: (gate: GateId) => {
      const known = tallies.get(gate) ?? {
        gains: emptyBitset(columns.size),
        loses: emptyBitset(columns.size),
      };
      tallies.set(gate, known);
      return known;
    },
  };
  let done = 0;
  for (const { items, shiftFor } of groups) {
    const shift = { items, ...shiftFor({ membership, select, tally: byGate, request }) };
    if (shift.gains.count > 0) addTo(gains, shift.gains.bits);
    if (shift.loses.count > 0) addTo(loses, shift.loses.bits);
    if (shift.guests || shift.gains.count + shift.loses.count + shift.sees.count > 0) shifts.push(shift);
    done += 1;
    yield done / groups.length;
  }
  return {
    shifts: merged(withoutFollowers(shifts, after.outline)),
    gains: selectionOf(gains),
    loses: selectionOf(loses),
    byGate: [...tallies].flatMap(([gate, one]) =>
      isEmpty(one.gains) && isEmpty(one.loses)
        ? []
        : [{ gate, gains: selectionOf(one.gains), loses: selectionOf(one.loses) }],
    ),
  };
}

const selectionOf = (bits: Bitset): Subset => ({ bits, count: countOf(bits) });

const NO_HOSTS: Shift['hosts'] = new Map();

function groupsOf(before: CompiledPolicy, after: CompiledPolicy): readonly Group[] {
  const numberOf = numbering();
  const tellBefore = itemTerms(before, numberOf);
  const tellAfter = itemTerms(after, numberOf);
  const groups = new Map<string, Group & { readonly items: Item[] }>();
  for (const item of after.outline.items.values()) {
    if (isShared(item)) continue;
    const was = tellBefore(item);
    const is = tellAfter(item);
    if (was.key === is.key) continue;
    const key = `${item.kind} ${was.key}${was.gates()} › ${is.key}${is.gates()}`;
    const group = groups.get(key) ?? {
      items: [],
      shiftFor: ({ membership, select, tally, request }) => ({
        ...transitionBetween(was.told(), is.told(), membership, select, tally),
        hosts: NO_HOSTS,
        guests: guestsAt(before, after, item.id, request),
      }),
    };
    group.items.push(item);
    groups.set(key, group);
  }
  return [
    ...groups.values(),
    ...sharedIn(after.outline).flatMap((section) =>
      groupsOnHosts(section, { policy: before, tell: tellBefore }, { policy: after, tell: tellAfter }),
    ),
  ];
}

/** Asks the columns for what is told; what comes again is asked once. */
function selector(columns: Columns, request: RequestFacts): Select {
  const known = new Map<string, Bitset>();
  return (told, part) => {
    const { terms, hurdle } = told;
    const condition = part === 'who' ? terms?.who : terms?.answers[part]?.when;
    if (!terms || !condition) throw new Error('There is nothing to ask for.');
    const key = `${terms.number} ${part} ${terms.aspect(hurdle.at)}`;
    const bits = known.get(key) ?? columns.select(condition, hurdle.at, request).bits;
    known.set(key, bits);
    return bits;
  };
}

/** Where guests gain, lose, or get something else. */
export function guestChangeOf(shifts: readonly Shift[]): GuestChange {
  const where = (wanted: (before: Decision, after: Decision) => boolean) =>
    shifts.flatMap(({ items, guests }) =>
      guests !== null && wanted(guests.before, guests.after) ? items.map(({ id }) => id) : [],
    );
  const isOpen = ({ kind }: Decision) => kind === 'open';
  return {
    gains: where((before, after) => !isOpen(before) && isOpen(after)),
    loses: where((before, after) => isOpen(before) && !isOpen(after)),
    sees: where((before, after) => !isOpen(before) && !isOpen(after)),
  };
}

/** Without the parts of pages and courses at which the same people notice the same as at what they are in. */
function withoutFollowers(shifts: readonly Shift[], outline: Outline): readonly Shift[] {
  const byItem = new Map(shifts.flatMap((shift) => shift.items.map((item) => [item.id, shift] as const)));
  const follows = (item: Item, shift: Shift): boolean => {
    const { part, afterAbove } = KINDS[item.kind];
    const container = part || afterAbove ? containerOf(outline, item) : null;
    const above = container && byItem.get(container.id);
    return (
      above !== null &&
      above !== undefined &&
      sameBits(above.gains.bits, shift.gains.bits) &&
      sameBits(above.loses.bits, shift.loses.bits) &&
      // Who gets something else in place of it does so in place of the page; and guests as they do there.
      isEmpty(without(shift.sees.bits, above.sees.bits)) &&
      (shift.guests === null || (above.guests !== null && alikeFor(above.guests) === alikeFor(shift.guests)))
    );
  };
  return shifts
    .map((shift) => ({ ...shift, items: shift.items.filter((item) => !follows(item, shift)) }))
    .filter(({ items }) => items.length > 0);
}

type Guests = NonNullable<Shift['guests']>;
/** Whether it opens, closes, or stays closed. */
const alikeFor = ({ before, after }: Guests): string => `${before.kind} ${after.kind}`;

/** Shifts of the same people, and of guests in the same way, put together. */
function merged(shifts: readonly Shift[]): readonly Shift[] {
  const found: { items: Item[]; hosts: Map<ItemId, number>; shift: Shift }[] = [];
  for (const shift of shifts) {
    const there = found.find(
      (one) =>
        guestsSay(one.shift) === guestsSay(shift) &&
        (['gains', 'loses', 'sees'] as const).every(
          (side) =>
            one.shift[side].count === shift[side].count && sameBits(one.shift[side].bits, shift[side].bits),
        ),
    );
    if (!there) {
      found.push({ items: [...shift.items], hosts: new Map(shift.hosts), shift });
      continue;
    }
    // A shared section on hosts of several kinds is one.
    there.items.push(...shift.items.filter((item) => !shift.hosts.has(item.id) || !there.hosts.has(item.id)));
    for (const [id, count] of shift.hosts) there.hosts.set(id, (there.hosts.get(id) ?? 0) + count);
  }
  return found.map(({ items, hosts, shift }) => ({ ...shift, items, hosts }));
}

const guestsSay = ({ guests }: Shift): string =>
  guests === null
    ? ''
    : [guests.before, guests.after]
        .map((decision) => (decision.kind === 'open' ? 'open' : decision.turnAway.kind))
        .join(' ');
