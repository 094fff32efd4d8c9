import { expect, it } from 'vitest';
import type { GateId, ItemId } from '@/core';
import { addressOfPlace, type Place, readPlace } from './place';

const read = (address: string) =>
  readPlace(Object.fromEntries(new URL(address, 'http://here.example').searchParams));

it.each<Place>([
  { side: 'draft', bench: { kind: 'gates' } },
  { side: 'live', bench: { kind: 'gate', gate: 'crew' as GateId } },
  { side: 'difference', bench: { kind: 'put live' } },
  { side: 'draft', bench: { kind: 'why', item: 'charts' as ItemId, standIn: 'member:marek' } },
])('reads back the view that it wrote: %j', (place) => expect(read(addressOfPlace(place))).toEqual(place));

it('begins at the beginning when the address says nothing it knows', () => {
  const beginning = { side: 'draft', bench: { kind: 'gates' } };
  expect(readPlace({})).toEqual(beginning);
  expect(readPlace({ show: 'everything', why: 'charts' })).toEqual(beginning);
  expect(readPlace({ show: ['live', 'draft'], gate: ['a', 'b'] })).toEqual(beginning);
});
