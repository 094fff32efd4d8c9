import {
  compile,
  expectationsProved,
  type Following,
  type Item,
  outlineOf,
  type Policy,
  type SiteNames,
  type Verdict,
} from '@/core';

/** What a thread is told to prove expectations. */
export interface ProvingTask {
  readonly items: readonly Item[];
  readonly names: SiteNames;
  readonly policy: Policy;
  readonly today: string;
  readonly following: Following;
}

/** The verdict on each expectation of a policy. Takes its time: it is run in a thread. */
export function proveNow({ items, names, policy, today, following }: ProvingTask): readonly Verdict[] {
  const outline = outlineOf(items);
  if ('problems' in outline) throw new Error('The site’s outline can’t be read.');
  return expectationsProved(compile(policy, outline, names), today, following);
}
