import { describe, expect, it } from 'vitest';
import { type Address, asId, type Item, type ItemId, type Outline, outlineOf } from '@/core';
import { isStep, placeOneStep } from './place';

const entry = (kind: 'page' | 'post', id: string, parent: string, rank: number): Item => ({
  kind,
  id: asId<ItemId>(id),
  parent: asId<ItemId>(parent),
  rank,
  title: id,
  published: true,
  address: `/${id}` as Address,
});
const page = (id: string, parent: string, rank: number) => entry('page', id, parent, rank);
const made = outlineOf([
  { kind: 'site', id: asId<ItemId>('site'), parent: null, rank: 0, title: 'Site', published: true },
  page('home', 'site', 0),
  page('visit', 'site', 1),
  entry('post', 'night', 'site', 2),
  page('join', 'site', 3),
  page('dome', 'visit', 0),
  page('rota', 'visit', 1),
]);
if ('problems' in made) throw new Error('no outline');
const outline: Outline = made;
const step = (id: string, key: string) => {
  const item = outline.items.get(asId<ItemId>(id));
  if (!item || !isStep(key)) throw new Error('no step');
  return placeOneStep(outline, item, key);
};

describe('a step with the keys', () => {
  it.each([
    ['up', 'visit', 'ArrowUp', { parent: 'site', before: 'home' }],
    ['down, past what is of another kind', 'visit', 'ArrowDown', { parent: 'site', before: null }],
    ['down by one', 'home', 'ArrowDown', { parent: 'site', before: 'join' }],
    ['into what it stands after', 'join', 'ArrowRight', { parent: 'visit', before: null }],
    ['out, after what it stood below', 'rota', 'ArrowLeft', { parent: 'site', before: 'join' }],
  ])('leads %s', (_, id, key, place) => expect(step(id, key)).toEqual(place));

  it.each([
    ['above the first', 'home', 'ArrowUp'],
    ['below the last', 'join', 'ArrowDown'],
    ['into nothing', 'dome', 'ArrowRight'],
    ['out of the site', 'visit', 'ArrowLeft'],
  ])('does not lead %s', (_, id, key) => expect(step(id, key)).toBeNull());

  it('is one of the arrows', () => expect(isStep('Enter')).toBe(false));
});
