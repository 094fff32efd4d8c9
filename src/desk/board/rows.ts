/** The board's rows and what each cell holds. */
import {
  type CompiledPolicy,
  type Decision,
  decide,
  factsOf,
  type Gate,
  type Item,
  type ItemId,
  KINDS,
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
  /** What stands above it: where posts of another category, menus or files begin. */
  readonly heading: string | null;
  /** How many parts (sections, and files in it) can fold out below it. */
  readonly parts: number;
  readonly unfolded: boolean;
  /** The title of what it is in, where that has no row of its own above it. */
  readonly within?: string;
}

/** The rows with everything folded out, or with what was. */
export type Unfolded = 'all' | ReadonlySet<ItemId>;

/**
 * The outline from top to bottom: pages in their tree, posts by category, menus, files. Sections and files in something
 * fold out under it. The site itself has no row.
 */
export function rowsOf(outline: Outline, unfolded: Unfolded = 'all'): readonly Row[] {
  const rows: Row[] = [];
  const childrenOf = (id: ItemId) => outline.children.get(id) ?? [];
  const visit = (item: Item, depth: number, heading: string | null = null) => {
    const parts = childrenOf(item.id).filter(({ kind }) => KINDS[kind].part);
    const open = unfolded === 'all' || unfolded.has(item.id);
    rows.push({ item, depth, heading, parts: parts.length, unfolded: open && parts.length > 0 });
    if (open) for (const part of parts) visit(part, depth + 1);
    for (const child of childrenOf(item.id))
      if (!KINDS[child.kind].part && child.kind !== 'post') visit(child, depth + 1);
  };
  const top = childrenOf(outline.root);
  for (const item of top) if (item.kind === 'page') visit(item, 0);
  const posts = [...outline.addressed.values()].filter((item) => item.kind === 'post');
  const categories = [...new Set(posts.map(({ facts }) => facts?.category ?? ''))].sort();
  for (const category of categories) {
    const inIt = posts
      .filter(({ facts }) => (facts?.category ?? '') === category)
      .sort((a, b) => (b.facts?.date ?? '').localeCompare(a.facts?.date ?? ''));
    for (const [index, post] of inIt.entries())
      visit(post, 0, index > 0 ? null : category === '' ? 'Posts without a category' : `Posts: ${category}`);
  }
  for (const item of top) if (item.kind === 'menu') visit(item, 0);
  for (const [index, file] of top.filter(({ kind }) => kind === 'file').entries())
    visit(file, 0, index === 0 ? 'Files' : null);
  return rows;
}

/** The sections and files in an item, and in those. */
export const partsBelow = (outline: Outline, id: ItemId): readonly Item[] =>
  (outline.children.get(id) ?? [])
    .filter(({ kind }) => KINDS[kind].part)
    .flatMap((part) => [part, ...partsBelow(outline, part.id)]);

/** Whether a gate names an item, as opposed to reaching it from above or describing it. */
export const pointsAt = ({ what }: Gate, id: ItemId): boolean =>
  what.targets.some((target) => target.kind !== 'selection' && target.item === id);

/** What a row has to fold out for an item to be among the rows. */
export function foldsAbove(outline: Outline, item: Item | undefined): readonly ItemId[] {
  const parent = !item || item.parent === null ? undefined : outline.items.get(item.parent);
  if (!item || !parent || !KINDS[item.kind].part) return [];
  return [parent.id, ...foldsAbove(outline, parent)];
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

/** What a stand-in gets for an item. */
export function cellOf(
  item: Item,
  standIn: StandIn,
  request: RequestFacts,
  compiled: { readonly draft: CompiledPolicy; readonly live: CompiledPolicy },
): Cell {
  const facts = factsOf(standIn);
  const draft = decide(compiled.draft, item.id, facts, request);
  const live = decide(compiled.live, item.id, facts, request);
  return { draft, live, changes: !sameToVisitor(draft, live) };
}

/** A gate over a row, with how it stands there. */
export interface Standing {
  readonly gate: Gate;
  readonly standing: GateStanding;
}

/** The gates over an item in order: those that name it, those that reach it from above or describe it, those set aside. */
export const standingsOf = (compiled: CompiledPolicy, item: Item): readonly Standing[] =>
  (compiled.covering.get(item.id) ?? []).map(({ gate, setAside }) => {
    const own = pointsAt(gate, item.id);
    return {
      gate,
      standing: setAside ? 'set aside' : gate.stance === 'instead' ? 'instead' : own ? 'own' : 'inherited',
    };
  });
