import { expect, it } from 'vitest';
import { id, items, outline } from '../testing/larkfell';
import { type Address, below, type Item, outlineOf } from '.';

const problems = (...extra: Item[]) => {
  const made = outlineOf([...items, ...extra]);
  return 'problems' in made ? made.problems.map((problem) => problem.message).join(' ') : '';
};
const page = (over: Partial<Item>): Item =>
  ({
    id: id('new'),
    kind: 'page',
    parent: id('site'),
    rank: 9,
    title: 'New',
    published: true,
    address: '/new',
    ...over,
  }) as Item;

it('finds items by id, by address and downwards', () => {
  expect(outline.addressed.get('/crew/rota' as Address)?.title).toBe('Rota');
  expect(below(outline, id('observers')).map((item) => item.id)).toEqual([
    'observers',
    'charts',
    'sample',
    'forecast',
  ]);
});

it('refuses what is not a tree of the right kinds, and says which item and what to do', () => {
  expect(problems(page({ address: '/crew' as Address }))).toMatch(/share the address \/crew/);
  expect(problems(page({ id: id('crew'), address: '/other' as Address }))).toMatch(
    /Two items have the id "crew"/,
  );
  expect(problems(page({ parent: id('nowhere') }))).toMatch(/belongs below the site or a page/);
  expect(problems(page({ parent: id('top') }))).toMatch(/belongs below the site or a page/);
  expect(problems(page({ parent: id('new') }))).toMatch(/stands below itself/);
  expect(
    problems({
      ...page({}),
      kind: 'link',
      parent: id('top'),
      target: { kind: 'item', item: id('gone') },
    } as Item),
  ).toMatch(/leads to nothing that can be opened/);
  expect(outlineOf([])).toHaveProperty('problems');
});
