/** Looking at the site: who looks, at which site, under which policy. Everything a visitor gets is worked out of this. */
import {
  type CompiledPolicy,
  type Decision,
  decide,
  type ItemId,
  type RequestFacts,
  type VisitorFacts,
} from '@/core';
import type { Person, SiteState } from '../running';

export interface Look {
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
export const decisionOn = (look: Look, item: ItemId): Decision =>
  decide(look.compiled, item, look.facts, look.request);

/** Whether an item is this visitor's to see. */
export const opens = (look: Look, item: ItemId): boolean => decisionOn(look, item).kind === 'open';

/** An address of this site as this look sees it, fit for a link. */
export const addressIn = ({ base }: Pick<Look, 'base'>, path: string): string => base + encodeURI(path);
