/** Who is looking at the live site, with what their request brings. */
import { requestFactsOf, type Trivet, type ViewContext, type Visitor } from '@/services';
import { addressOf } from './request';

export function contextOf(trivet: Trivet, visitor: Visitor, request: Request, now = new Date()): ViewContext {
  const { state } = trivet;
  const raw = {
    url: new URL(request.url),
    header: (name: string) => request.headers.get(name),
    from: addressOf(request),
  };
  return {
    state,
    compiled: state.live.compiled,
    facts: visitor.facts,
    person: visitor.person,
    request: requestFactsOf(state, raw, now),
    base: '',
  };
}
