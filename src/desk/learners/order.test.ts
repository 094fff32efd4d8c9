import { expect, it } from 'vitest';
import type { ProgressOfLearner } from '@/services';
import { doneIn, inOrder, named } from './order';

const learner = (name: string, states: string, over: Partial<ProgressOfLearner> = {}): ProgressOfLearner =>
  ({
    person: name,
    name,
    enrolled: { on: '2026-11-01', until: null, through: null, runs: true },
    completed: null,
    states,
    scores: {},
    ...over,
  }) as ProgressOfLearner;

const all = [
  learner('Alba', 'ddt'),
  learner('Bette', 'dcc', { enrolled: { on: '2026-10-01', until: null, through: null, runs: true } }),
  learner('Casper', 'dbt', { enrolled: null }),
  learner('Dorrit', 'ddd', { scores: { 1: 80 } }),
];
const names = (list: readonly ProgressOfLearner[]) => list.map(({ name }) => name).join(' ');

it('lists learners by name, by when they were enrolled, by how much they did, and by an activity', () => {
  expect(inOrder(all, 'name')).toBe(all);
  expect(names(inOrder(all, 'enrolled'))).toBe('Casper Bette Alba Dorrit');
  expect(names(inOrder(all, 'done'))).toBe('Bette Casper Alba Dorrit');
  // Those who got least far come first: closed, begun, done, done with a score.
  expect(names(inOrder(all, 1))).toBe('Bette Casper Alba Dorrit');
  expect(names(inOrder(all, 9))).toBe('Alba Bette Casper Dorrit');
  expect(all.map(doneIn)).toEqual([2, 1, 1, 3]);
});

it('finds them by a part of their name', () => {
  expect(names(named(all, ' RR '))).toBe('Dorrit');
  expect(named(all, '  ')).toBe(all);
});
