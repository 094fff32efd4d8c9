/** What the desk needs to show the board: the outline, the names, both policies and the stand-ins. */

import type {
  ByGroup,
  DeskGrant,
  Grants,
  GroupId,
  Item,
  OnSale,
  Policy,
  ProductId,
  RequestFacts,
  SiteNames,
  StandIn,
} from '@/core';
import { siteTitleOf } from '@/core';
import { boardOf } from '../people';
import type { Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission } from '../running';
import { type FirstSteps, firstStepsOf } from './first-steps';

/** The desk's data, plain enough to travel to the browser. */
export interface DeskData {
  readonly administrator: string;
  /** What they may do at the desk. */
  readonly desk: DeskGrant;
  readonly siteTitle: string;
  readonly items: readonly Item[];
  /** The summary of each page, for drawing teasers. */
  readonly summaries: Readonly<Record<string, string>>;
  /** What pictures show, by file. */
  readonly pictures: Readonly<Record<string, string>>;
  /** The names of those who own something. */
  readonly owners: Readonly<Record<string, string>>;
  readonly names: SiteNames;
  /** What being in a group brings, by group. */
  readonly byGroup: readonly (readonly [GroupId, NonNullable<ReturnType<ByGroup['get']>>])[];
  /** What is sold, and for how much. */
  readonly onSale: readonly OnSale[];
  /** What products give. */
  readonly byProduct: readonly (readonly [ProductId, Grants])[];
  /** The moment for which the board decides. */
  readonly request: RequestFacts;
  readonly draft: { readonly policy: Policy; readonly version: number; readonly by: string };
  readonly live: { readonly policy: Policy; readonly revision: number };
  readonly standIns: readonly StandIn[];
  readonly memberCount: number;
  /** What is done first on a site that has hardly begun; null for any other. */
  readonly firstSteps: FirstSteps | null;
}

export async function readDesk(trivet: Trivet, administrator: Administrator, now: Date): Promise<DeskData> {
  requirePermission(administrator, 'look');
  const { outline, names, byGroup, byProduct, shop, contents, draft, live, people } = trivet.state;
  return {
    administrator: administrator.name,
    desk: administrator.desk,
    siteTitle: siteTitleOf(outline),
    items: [...outline.items.values()],
    summaries: Object.fromEntries(
      [...contents].filter(([, { summary }]) => summary).map(([id, { summary }]) => [id, summary]),
    ),
    pictures: Object.fromEntries(
      [...contents].flatMap(([id, { picture }]) => (picture?.alt ? [[id, picture.alt]] : [])),
    ),
    owners: Object.fromEntries(
      [...outline.items.values()].flatMap(({ facts }) => {
        const owner = facts?.owner && people.get(facts.owner);
        return owner ? [[owner.id, owner.name]] : [];
      }),
    ),
    names,
    byGroup: [...byGroup],
    byProduct: [...byProduct],
    onSale: [...shop.values()].map(({ product, terms }) => ({ product, terms })),
    request: plainRequest(trivet.state, now),
    draft: { policy: draft.policy, version: draft.version, by: draft.by },
    live: { policy: live.policy, revision: live.revision },
    standIns: await boardOf(trivet, administrator),
    memberCount: people.size,
    firstSteps: firstStepsOf(trivet.state),
  };
}
