import { expect, it } from 'vitest';
import type { AudienceId, GateId, ItemId } from '@/core';
import { everyRow } from './board-filter';
import { SCREEN_KINDS, type Screen, type ScreenKind, screenNamed, startOf } from './screens';
import { addressOfView, readView, titleOfView, type View, viewOf } from './view';

const read = (address: string) => {
  const url = new URL(address, 'http://here.example');
  const path = url.pathname.split('/').slice(2).filter(Boolean);
  return readView(path, Object.fromEntries(url.searchParams));
};
const board: Screen = { kind: 'board' };
const gates = { kind: 'gates' } as const;

it.each<Omit<View, 'filter'> & Partial<View>>([
  { screen: board, side: 'draft', bench: gates },
  { screen: board, side: 'live', bench: { kind: 'gate', gate: 'crew' as GateId } },
  { screen: board, side: 'difference', bench: { kind: 'put live' } },
  { screen: board, side: 'draft', bench: { kind: 'why', item: 'charts' as ItemId, standIn: 'member:marek' } },
  {
    screen: board,
    side: 'draft',
    bench: {
      kind: 'make so',
      items: ['charts' as ItemId, 'rota' as ItemId],
      standIns: ['guest', 'member:marek', 'made up:1'],
    },
  },
  { screen: { kind: 'people', text: 'é', condition: 'in group "A & B"' }, side: 'draft', bench: gates },
  { screen: { kind: 'person', person: 'ines' }, side: 'draft', bench: gates },
  { screen: { kind: 'person', person: 'a/b%' }, side: 'draft', bench: gates },
  { screen: { kind: 'person', person: null }, side: 'draft', bench: gates },
  { screen: { kind: 'names' }, side: 'draft', bench: gates },
  { screen: { kind: 'journal' }, side: 'draft', bench: gates },
  { screen: { kind: 'settings' }, side: 'draft', bench: gates },
  { screen: { kind: 'history', revision: null }, side: 'draft', bench: gates },
  { screen: { kind: 'history', revision: 12 }, side: 'draft', bench: gates },
  { screen: board, side: 'draft', bench: { kind: 'stand-in', standIn: 'made up:1' } },
  {
    screen: { kind: 'print' },
    side: 'live',
    bench: gates,
    filter: { text: 'a&b', kind: 'page', gate: 'none', who: 'guest', gets: 'unlike', other: 'member:marek' },
  },
  {
    screen: board,
    side: 'difference',
    bench: gates,
    filter: { ...everyRow, who: 'member:marek', gets: 'leave out' },
  },
  { screen: { kind: 'audiences', audience: null }, side: 'draft', bench: gates },
  { screen: { kind: 'audiences', audience: 'crew' as AudienceId }, side: 'draft', bench: gates },
])('reads back the view that it wrote: %j', (place) => {
  const whole = { filter: everyRow, ...place };
  expect(read(addressOfView(whole))).toEqual(whole);
});

it('tells of many rows in no address, which has no room for them', () => {
  const items = Array.from({ length: 500 }, (_, at) => `page-${at}` as ItemId);
  const bench = { kind: 'make so', items, standIns: ['guest'] } as const;
  const address = addressOfView({ screen: board, side: 'draft', bench, filter: everyRow });
  expect(address.length).toBeLessThan(100);
  expect(read(address)?.bench).toEqual(gates);
});

it('begins at the beginning when the address says nothing it knows', () => {
  const beginning = { screen: board, side: 'draft', bench: gates, filter: everyRow };
  expect(readView([], {})).toEqual(beginning);
  expect(readView([], { show: 'everything', why: 'charts' })).toEqual(beginning);
  expect(readView([], { kind: 'moon', gets: 'everything', who: 'guest', other: 'guest' })).toEqual(beginning);
  expect(readView([], { show: ['live', 'draft'], gate: ['a', 'b'] })).toEqual(beginning);
});

it('knows which screens there are', () => {
  expect(readView(['nowhere'], {})).toBeNull();
  expect(readView(['names', 'x'], {})).toBeNull();
  expect(readView(['people', 'a', 'b'], {})).toBeNull();
});

it.each(SCREEN_KINDS)('reads the screen %s back from its address', (kind) => {
  const screen = startOf(kind);
  expect(read(addressOfView(viewOf(screen)))?.screen).toEqual(screen);
  expect(titleOfView({ screen })).not.toBe('');
  const { under, tab } = screenNamed(kind);
  if (under !== undefined) expect(screenNamed(under as ScreenKind).tab).toBeDefined();
  expect(tab === undefined || under === undefined).toBe(true);
});

it('has no two screens at one address', () => {
  const addresses = SCREEN_KINDS.map((kind) => addressOfView(viewOf(startOf(kind))));
  expect(new Set(addresses).size).toBe(addresses.length);
});
