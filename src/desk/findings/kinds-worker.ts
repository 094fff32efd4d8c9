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

/** The worker's own side of the window; typed here, because the rest of the desk is typed for pages. */
interface WorkerSide {
  onmessage: ((event: MessageEvent<KindsQuestion>) => void) | null;
  readonly postMessage: (answer: Kinds) => void;
}

if (typeof document === 'undefined' && typeof self !== 'undefined') {
  const side = self as unknown as WorkerSide;
  side.onmessage = ({ data }) => side.postMessage(kindsIn(data));
}
