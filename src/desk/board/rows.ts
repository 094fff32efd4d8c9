/** The board's rows and what each cell holds. */
import {
  type CompiledPolicy,
  type Decision,
  decide,
  factsOf,
  type Gate,
  type Item,
  type ItemId,
  type Outline,
  type RequestFacts,
  type StandIn,
  sameToVisitor,
} from '@/core';
import type { GateStanding } from '../marks';

/** One row: an item and how deep it stands in the outline. */
export interface Row {
  readonly item: Item;
  readonly depth: number;
}

/** The outline from top to bottom: pages first, then menus; the site itself has no row. */
export function rowsOf(outline: Outline): readonly Row[] {
  const rows: Row[] = [];
  const visit = (id: ItemId, depth: number) => {
    for (const item of outline.children.get(id) ?? []) {
      rows.push({ item, depth });
      visit(item.id, depth + 1);
    }
  };
  visit(outline.root, 0);
  return rows;
}

/** A cell by its place on the board. */
export interface CellAt {
  readonly row: number;
  readonly column: number;
}

/** What one stand-in gets for one item, in both policies. */
export interface Cell {
  readonly draft: Decision;
  readonly live: Decision;
  /** Whether the visitor would notice the draft going live. */
  readonly changes: boolean;
}

/** The cells of a row, one for each stand-in. */
export const cellsOf = (
  item: Item,
  standIns: readonly StandIn[],
  request: RequestFacts,
  compiled: { readonly draft: CompiledPolicy; readonly live: CompiledPolicy },
): readonly Cell[] =>
  standIns.map((standIn) => {
    const facts = factsOf(standIn);
    const draft = decide(compiled.draft, item.id, facts, request);
    const live = decide(compiled.live, item.id, facts, request);
    return { draft, live, changes: !sameToVisitor(draft, live) };
  });

/** A gate over a row, with how it stands there. */
export interface Standing {
  readonly gate: Gate;
  readonly standing: GateStanding;
}

/** The gates over an item in order: those that name it, those that reach it from above, and those set aside. */
export const standingsOf = (compiled: CompiledPolicy, item: Item): readonly Standing[] =>
  (compiled.covering.get(item.id) ?? []).map(({ gate, setAside }) => {
    const own = gate.what.targets.some((target) => target.item === item.id);
    return {
      gate,
      standing: setAside ? 'set aside' : gate.stance === 'instead' ? 'instead' : own ? 'own' : 'inherited',
    };
  });
