/** Where somebody arrives after signing in or out: where they were going, or where the site's landing rules say. */
import { conditionCompiler, decide, isAddressed, type RequestFacts, type VisitorFacts } from '@/core';
import type { SiteState } from '../running';
import { plainRequest } from '../running';

/**
 * The path to go to. Rules are asked in order, those that hold of everybody on their way (*always*) even when there is
 * somewhere to go back to; a rule whose page the visitor can't open is passed over.
 */
export function landingFor(
  state: SiteState,
  after: 'sign in' | 'sign out',
  facts: VisitorFacts,
  next: string,
  now: Date,
): string {
  const { compiled } = state.live;
  const request: RequestFacts = plainRequest(state, now);
  const onTheWay = next !== '/';
  const holds = conditionCompiler(compiled.vocabulary);
  for (const landing of compiled.policy.landings) {
    if (landing.after !== after || (onTheWay && !landing.always)) continue;
    const target = compiled.outline.items.get(landing.to);
    if (!isAddressed(target) || !holds(landing.when)(facts, null, request)) continue;
    if (decide(compiled, target.id, facts, request).kind === 'open') return encodeURI(target.address);
  }
  return next;
}
