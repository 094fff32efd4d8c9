/** The doors of the site: everything a visitor can ask for, with what every answer is made of. */
import type { Trivet, ViewContext, Visitor } from '@/services';
import type { Delivery } from '@/site';
import type { Answer } from '../_http/answer';
import type { SiteRequest } from '../_http/site-request';

/** Who asks for what, and in which light. */
export interface Asking {
  readonly trivet: Trivet;
  readonly request: SiteRequest;
  /** The path below the walk's address on a walk, and the whole path on the site; as it came. */
  readonly path: string;
  readonly visitor: Visitor;
  readonly context: ViewContext;
  readonly delivery: Delivery;
  readonly now: Date;
}

/** The same as a door has it, read whole. */
export interface Ask extends Asking {
  readonly url: URL;
  /** The parts of the path behind the first, decoded. */
  readonly rest: readonly string[];
}

export type Handler = (ask: Ask) => Answer | Promise<Answer>;

/** What a door does by method. On a walk only `GET` is answered. */
export interface Door {
  readonly GET?: Handler;
  readonly POST?: Handler;
}
