/** Who is looking at the live site, with what their request brings. */
import { requestFactsOf, type Trivet, type ViewContext, type Visitor, viewOf } from '@/services';
import { addressOf } from './request';
import type { SiteRequest } from './site-request';

export function contextOf(trivet: Trivet, visitor: Visitor, request: SiteRequest, now: Date): ViewContext {
  const { state } = trivet;
  const raw = {
    url: () => new URL(request.url),
    header: (name: string) => request.headers.get(name),
    from: () => addressOf(request),
  };
  return viewOf({
    state,
    compiled: state.live.compiled,
    facts: visitor.facts,
    person: visitor.person,
    request: requestFactsOf(state, raw, now),
    base: '',
  });
}
