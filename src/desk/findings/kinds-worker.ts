/** Says who is of which kind of visitor, away from the screen. */
import {
  compile,
  type Kinds,
  kindsOf,
  type Outcome,
  outlineOf,
  type Policy,
  type RequestFacts,
} from '@/core';
import { answering } from '../worker-side';
import type { AnalysedSite } from './analysis-worker';

export interface KindsQuestion {
  readonly site: AnalysedSite;
  readonly policy: Policy;
  readonly request: RequestFacts;
  /** What the kinds that members are of get at each representative. */
  readonly wanted: readonly (readonly Outcome[])[];
}

/** Answers one question. */
export function kindsIn({ site, policy, request, wanted }: KindsQuestion): Kinds {
  const outline = outlineOf(site.items);
  if ('problems' in outline) throw new Error('The site’s outline can’t be read.');
  return kindsOf(compile(policy, outline, site.names), site.following, request, wanted);
}

answering(kindsIn);
