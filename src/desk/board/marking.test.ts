import { expect, it } from 'vitest';
import { asId, type ItemId } from '@/core';
import { markAll, markOne, markRange, unmarked } from './marking';

const rows = ['home', 'visit', 'join', 'partners'].map((id) => asId<ItemId>(id));
const id = (name: string) => asId<ItemId>(name);
const marks = ({ marked }: typeof unmarked) => [...marked];

it('marks a row and takes the mark away again', () => {
  const one = markOne(unmarked, id('visit'));
  expect(marks(one)).toEqual(['visit']);
  expect(marks(markOne(one, id('visit')))).toEqual([]);
});

it.each([
  ['down', 'visit', 'partners', ['visit', 'join', 'partners']],
  ['up', 'join', 'home', ['join', 'home', 'visit']],
])('marks everything between two rows, %s, beside what is marked already', (_, from, to, expected) => {
  const both = markRange(markOne(unmarked, id(from)), rows, id(to));
  expect(marks(both)).toEqual(expected);
  expect(both.from).toBe(from);
});

it('grows and shrinks nothing: a second range begins where the first did', () => {
  const first = markRange(markOne(unmarked, id('visit')), rows, id('join'));
  expect(marks(markRange(first, rows, id('home')))).toEqual(['visit', 'join', 'home']);
});

it('marks the row alone when that from which a range would begin is filtered away', () => {
  const marking = markOne(unmarked, id('gone'));
  expect(markRange(marking, rows, id('join'))).toEqual({
    marked: new Set(['gone', 'join']),
    from: 'join',
  });
  expect(markRange(unmarked, rows, id('join')).from).toBeNull();
});

it('marks every row in view', () => {
  expect(marks(markAll(markOne(unmarked, id('gone')), rows))).toEqual(['gone', ...rows]);
});
