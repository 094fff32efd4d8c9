/** Says what some policies do to what is expected, away from the screen. */
import {
  compile,
  type Day,
  type ExpectationId,
  expectationsProved,
  outlineOf,
  type Policy,
  stands,
} from '@/core';
import { answering } from '../worker-side';
import type { AnalysedSite } from './analysis-worker';

export interface ExpectationsQuestion {
  readonly site: AnalysedSite;
  readonly policies: readonly Policy[];
  readonly today: Day;
}

/** For each of the policies the expectations that would keep it from going live. */
export function brokenIn({
  site,
  policies,
  today,
}: ExpectationsQuestion): readonly (readonly ExpectationId[])[] {
  const outline = outlineOf(site.items);
  if ('problems' in outline) throw new Error('The site’s outline can’t be read.');
  return policies.map((policy) => {
    const verdicts = expectationsProved(compile(policy, outline, site.names), today, site.following);
    return policy.expectations.flatMap(({ id }, at) => {
      const verdict = verdicts[at];
      return verdict && stands(verdict) ? [] : [id];
    });
  });
}

answering(brokenIn);
