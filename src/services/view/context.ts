/** What a view of the site is worked out of: who looks, at which site, under which policy, in what request. */
import {
  type CompiledPolicy,
  type Decision,
  decide,
  type ItemId,
  type RequestFacts,
  type VisitorFacts,
} from '@/core';
import type { Person, SiteState } from '../running';

export interface ViewContext {
  readonly state: SiteState;
  readonly compiled: CompiledPolicy;
  readonly facts: VisitorFacts;
  /** Who it is, for pages about themselves. */
  readonly person: Person | null;
  readonly request: RequestFacts;
  /** What stands before every address: nothing on the site, the walk's own address on a walk. */
  readonly base: string;
}

/** What this visitor gets for an item. */
export const decisionOn = (context: ViewContext, item: ItemId): Decision =>
  decide(context.compiled, item, context.facts, context.request);

/** Whether an item is this visitor's to see. */
export const opens = (context: ViewContext, item: ItemId): boolean =>
  decisionOn(context, item).kind === 'open';

/** An address of this site as this context sees it, fit for a link. */
export const addressIn = ({ base }: Pick<ViewContext, 'base'>, path: string): string =>
  base + encodeURI(path);
