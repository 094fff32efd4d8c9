'use client';
/** The cell that is pointed at, as a sentence with its reason. */
import { useMemo } from 'react';
import {
  describeBecause,
  describeDecision,
  explain,
  type Item,
  nameOf,
  outcomeName,
  outcomeOf,
  type StandIn,
  standInFacts,
} from '@/core';
import { useDesk } from '../context';
import { type Cell, cellOf } from './rows';
import type { BoardMatrix } from './use-matrix';

export function useDecisionLine(
  item: Item | undefined,
  standIn: StandIn | undefined,
  decided: BoardMatrix | null,
): string {
  const { compiled, side, request, outline } = useDesk();
  const someChange = useMemo(() => decided?.matrix.changes.some((one) => one === 1) ?? true, [decided]);
  return useMemo(() => {
    if (!item || !standIn) return '';
    const cell = cellOf(item, standIn, request, compiled);
    const tell = (which: 'draft' | 'live') => {
      const policy = compiled[which];
      const why = describeBecause(
        explain(policy, item.id, standInFacts(standIn), request),
        item,
        policy.vocabulary,
      );
      return `${describeDecision(cell[which], nameOf(standIn), item, outline)}${why ? `: ${why}` : ''}.`;
    };
    if (side !== 'difference') return tell(side);
    if (!someChange)
      return 'None of the visitors on the board notices a difference. The panel names those who do, if anybody does.';
    if (cell.changes && outcomeOf(cell.live) === outcomeOf(cell.draft))
      return tellSame(cell, nameOf(standIn));
    return cell.changes
      ? `Now: ${tell('live')} In the draft: ${tell('draft')}`
      : `Unchanged. ${tell('draft')}`;
  }, [item, standIn, side, compiled, request, outline, someChange]);
}

/** A change that leaves the kind of answer as it was: what reads differently, as far as there are words for it. */
function tellSame({ live, draft }: Cell, who: string): string {
  const kind = outcomeName(outcomeOf(draft));
  const [before, after] = [live, draft].map((one) => (one.kind === 'turned away' ? one.reason : null));
  const words =
    before !== after ? ` Now: “${before ?? 'no reason'}” In the draft: “${after ?? 'no reason'}”` : '';
  return `${who} still gets this turn-away (${kind}), but not the same one.${words}`;
}
