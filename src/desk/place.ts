/**
 * Where one is at the desk, as the query of its address: which policy is shown and what is on the workbench. So Back,
 * reload and a link to a colleague all lead to the same view.
 */
import type { GateId, ItemId } from '@/core';
import type { Bench, Side } from './context';

/** A view of the desk. */
export interface Place {
  readonly side: Side;
  readonly bench: Bench;
}

const SIDES: readonly Side[] = ['live', 'draft', 'difference'];

/** Reads a view from an address's query; what is not understood is left at its beginning. */
export function readPlace(query: Readonly<Record<string, string | string[] | undefined>>): Place {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name] : undefined);
  const side = SIDES.find((one) => one === text('show')) ?? 'draft';
  const [gate, why, as] = [text('gate'), text('why'), text('as')];
  if (gate) return { side, bench: { kind: 'gate', gate: gate as GateId } };
  if (why && as) return { side, bench: { kind: 'why', item: why as ItemId, standIn: as } };
  if (text('put') === 'live') return { side, bench: { kind: 'put live' } };
  return { side, bench: { kind: 'gates' } };
}

/** The address of a view. */
export function addressOfPlace({ side, bench }: Place): string {
  const query = new URLSearchParams();
  if (side !== 'draft') query.set('show', side);
  if (bench.kind === 'gate') query.set('gate', bench.gate);
  if (bench.kind === 'put live') query.set('put', 'live');
  if (bench.kind === 'why') {
    query.set('why', bench.item);
    query.set('as', bench.standIn);
  }
  return query.size === 0 ? '/desk' : `/desk?${query}`;
}
