/** What the desk needs to show the board: the outline, the names, both policies and the stand-ins. */
import type { Item, Policy, StandIn, Vocabulary } from '@/core';
import type { Administrator } from './desk-right';
import { boardOf } from './stand-ins';
import type { Trivet } from './trivet';

/** The desk's data, plain enough to travel to the browser. */
export interface DeskData {
  readonly administrator: string;
  readonly siteTitle: string;
  readonly items: readonly Item[];
  /** The summary of each page, for drawing teasers. */
  readonly summaries: Readonly<Record<string, string>>;
  readonly vocabulary: Vocabulary;
  readonly draft: { readonly policy: Policy; readonly version: number; readonly by: string };
  readonly live: { readonly policy: Policy; readonly revision: number };
  readonly standIns: readonly StandIn[];
  readonly memberCount: number;
}

export async function readDesk(trivet: Trivet, administrator: Administrator): Promise<DeskData> {
  const { outline, vocabulary, contents, draft, live, people } = trivet.state;
  return {
    administrator: administrator.name,
    siteTitle: outline.items.get(outline.root)?.title ?? '',
    items: [...outline.items.values()],
    summaries: Object.fromEntries(
      [...contents].filter(([, { summary }]) => summary).map(([id, { summary }]) => [id, summary]),
    ),
    vocabulary,
    draft: { policy: draft.policy, version: draft.version, by: draft.by },
    live: { policy: live.policy, revision: live.revision },
    standIns: await boardOf(trivet, administrator),
    memberCount: people.size,
  };
}
