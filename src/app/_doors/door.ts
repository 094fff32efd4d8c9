/** The doors of the site: everything a visitor can ask for, with what every answer is made of. */

import type { Trivet, ViewContext, Visitor } from '@/services';
import type { Delivery } from '@/site';
import type { Answer } from '../_http/answer';
import type { SiteRequest } from '../_http/site-request';

/** A request, read once. */
export interface Ask {
  readonly trivet: Trivet;
  readonly request: SiteRequest;
  readonly url: URL;
  /** The path below the walk's address on a walk, and the whole path on the site; as it came. */
  readonly path: string;
  /** The parts of the path behind the first, decoded. */
  readonly rest: readonly string[];
  readonly visitor: Visitor;
  readonly context: ViewContext;
  readonly delivery: Delivery;
  readonly now: Date;
}

export type Handler = (ask: Ask) => Answer | Promise<Answer>;

/** What a door does by method. On a walk only `GET` is answered. */
export interface Door {
  readonly GET?: Handler;
  readonly POST?: Handler;
}
