import { expect, it } from 'vitest';
import { id, items, outline, soundOutline } from '../testing/larkfell';
import { groupsOf } from './groups';
import { KINDS } from './kinds';
import { nameInContext } from './name-in-context';

const titled = (of = outline) => groupsOf(of).map(({ title, items: list }) => [title, list.length]);

it('puts what stands at the top into groups, posts by category', () => {
  expect(titled()).toEqual([
    ['Pages', 7],
    ['Posts without a category', 1],
    ['Posts: Field notes', 1],
    ['Posts: Night logs', 1],
    ['Courses', 1],
    ['Menus', 1],
    ['Files', 1],
  ]);
});

it('finds posts by their category wherever they stand, the latest first', () => {
  const [log] = items.filter((item) => item.id === 'first-light');
  if (log?.kind !== 'post') throw new Error('no log');
  const older = { ...log, id: id('older'), parent: id('crew'), address: '/older' as typeof log.address };
  const facts = { ...log.facts, date: '2026-01-01' };
  const group = groupsOf(soundOutline([...items, { ...older, facts }])).find(
    ({ title }) => title === 'Posts: Night logs',
  );
  expect(group?.items.map((item) => item.id)).toEqual(['first-light', 'older']);
});

it('knows what is a tree: what holds others that are no parts and not found by category', () => {
  const trees = groupsOf(outline).filter(({ tree }) => tree);
  expect(trees.map(({ kind }) => kind)).toEqual(['page', 'course', 'menu']);
});

it('names no kind that can’t stand at the top', () => {
  for (const { kind } of groupsOf(outline)) expect(KINDS[kind].parents).toContain('site');
});

it('calls a section without a name of its own by what it is in', () => {
  const [welcome] = items.filter((item) => item.id === 'welcome');
  if (!welcome) throw new Error('no section');
  expect(nameInContext(welcome, outline)).toBe('Welcome, guest');
  expect(nameInContext({ ...welcome, title: 'Text' }, outline)).toBe('text in Home');
  const [home] = items.filter((item) => item.id === 'home');
  if (home) expect(nameInContext({ ...home, title: 'Text' }, outline)).toBe('Text');
});
