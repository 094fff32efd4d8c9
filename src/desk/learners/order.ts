/** In which order learners are listed. */
import { type Progress, statesIn } from '@/core';
import type { ProgressOfLearner } from '@/services';

/** By name, by when they were enrolled, by how much they have done, or by an activity's place. */
export type Order = 'name' | 'enrolled' | 'done' | number;

const FURTHER: Readonly<Record<Progress, number>> = { closed: 0, 'to do': 1, begun: 2, waiting: 3, done: 4 };

export const doneIn = ({ states }: Pick<ProgressOfLearner, 'states'>): number =>
  statesIn(states).filter((state) => state === 'done').length;

/** Learners in an order; those alike stay as they come, which is by name. Those who got least far come first. */
export function inOrder(learners: readonly ProgressOfLearner[], order: Order): readonly ProgressOfLearner[] {
  if (order === 'name') return learners;
  const rank = (one: ProgressOfLearner): number | string => {
    if (order === 'enrolled') return one.enrolled?.on ?? '';
    if (order === 'done') return doneIn(one);
    const state = statesIn(one.states)[order] ?? 'closed';
    return FURTHER[state] * 1000 + (one.scores[order] ?? 0);
  };
  return learners
    .map((one) => ({ one, rank: rank(one) }))
    .toSorted((a, b) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0))
    .map(({ one }) => one);
}

/** Those whose name has this in it. */
export const named = (learners: readonly ProgressOfLearner[], text: string): readonly ProgressOfLearner[] => {
  const wanted = text.trim().toLowerCase();
  return wanted === '' ? learners : learners.filter(({ name }) => name.toLowerCase().includes(wanted));
};
