/** What the workbench beside the board can hold: one entry each, with what stands for it in the address. */
import { type GateId, type ItemId, keysOf } from '@/core';

type Text = (name: string) => string | undefined;

interface Entry<State> {
  /** What the address says it holds; null where it says nothing of it. */
  read(text: Text): State | null;
  write(state: State): Readonly<Record<string, string>>;
}

const entry = <State extends object>(one: Entry<State>): Entry<State> => one;

const MOST_IN_AN_ADDRESS = 40;

const listIn = (text = ''): string[] => text.split(',').filter((one) => one !== '');

/** In the order in which an address is asked. The last one is there when it says nothing. */
export const BENCHES = {
  gate: entry<{ readonly gate: GateId }>({
    read: (text) => (text('gate') ? { gate: text('gate') as GateId } : null),
    write: ({ gate }) => ({ gate }),
  }),
  /** A made-up visitor of the board. */
  'stand-in': entry<{ readonly standIn: string }>({
    read: (text) => (text('stand-in') ? { standIn: text('stand-in') ?? '' } : null),
    write: ({ standIn }) => ({ 'stand-in': standIn }),
  }),
  why: entry<{ readonly item: ItemId; readonly standIn: string }>({
    read: (text) =>
      text('why') && text('as') ? { item: text('why') as ItemId, standIn: text('as') ?? '' } : null,
    write: ({ item, standIn }) => ({ why: item, as: standIn }),
  }),
  /** Several cells of the board that are to be otherwise. More than an address has room for are not told in it. */
  'make so': entry<{ readonly items: readonly ItemId[]; readonly standIns: readonly string[] }>({
    read: (text) =>
      text('make') ? { items: listIn(text('make')) as ItemId[], standIns: listIn(text('as')) } : null,
    write: ({ items, standIns }) =>
      items.length > MOST_IN_AN_ADDRESS ? {} : { make: items.join(), as: standIns.join() },
  }),
  /** What is set for the site as a whole: sign-in, turn-aways with names, landing rules, defaults. */
  rules: entry({
    read: (text) => (text('rules') === undefined ? null : {}),
    write: () => ({ rules: 'all' }),
  }),
  'put live': entry({
    read: (text) => (text('put') === 'live' ? {} : null),
    write: () => ({ put: 'live' }),
  }),
  gates: entry({ read: () => ({}), write: () => ({}) }),
};

export type BenchKind = keyof typeof BENCHES;

type State<K extends BenchKind> = (typeof BENCHES)[K] extends Entry<infer S> ? S : never;

/** What the workbench holds. */
export type BenchOf<K extends BenchKind> = { readonly kind: K } & State<K>;
export type Bench = { [K in BenchKind]: BenchOf<K> }[BenchKind];

export function readBench(text: Text): Bench {
  for (const kind of keysOf(BENCHES)) {
    const state = benchNamed(kind).read(text);
    if (state !== null) return { kind, ...state } as Bench;
  }
  return { kind: 'gates' };
}

const benchNamed = (kind: BenchKind): Entry<object> => BENCHES[kind];

export const addressOfBench = (bench: Bench): Readonly<Record<string, string>> =>
  benchNamed(bench.kind).write(bench);
