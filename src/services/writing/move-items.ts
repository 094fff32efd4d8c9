/** Items that are moved or published, several at once: one transaction, and the way back comes with the answer. */
import {
  asId,
  type CompiledPolicy,
  compile,
  describeWhat,
  type Gate,
  type Item,
  type ItemId,
  KINDS,
  listed,
  type Outline,
  outlineOf,
} from '@/core';
import { updateItem } from '@/store';
import type { SiteState, Trivet } from '../running';
import { contentOf } from '../view';
import type { ItemAnswer, ItemEdit } from './change-items';
import { turnsLost } from './in-turn';
import { problemIn } from './problem-in';

type Moving = Extract<ItemEdit, { kind: 'move' }>;
type Publishing = Extract<ItemEdit, { kind: 'publish' }>;

const GONE = { kind: 'wrong', message: 'That is no longer there.' } as const;

/** Makes moves one after the other: each before a sibling, or last when there is none. */
export async function moveItems(
  trivet: Trivet,
  state: SiteState,
  { moves, leaving }: Moving,
  /** Whether whoever asks may change gates. */
  gates: boolean,
): Promise<ItemAnswer> {
  const { outline } = state;
  const moved = new Map<ItemId, Item>();
  const now = (id: ItemId) => moved.get(id) ?? outline.items.get(id);
  const children = new Map<ItemId, Item[]>();
  const below = (id: ItemId): Item[] => {
    const found = children.get(id) ?? [...(outline.children.get(id) ?? [])];
    children.set(id, found);
    return found;
  };
  for (const move of moves) {
    const [which, parent] = [asId<ItemId>(move.item), asId<ItemId>(move.parent)];
    const item = now(which);
    if (!item || item.kind === 'site' || item.parent === null || !outline.items.has(parent)) return GONE;
    for (let above = now(parent); above; above = above.parent === null ? undefined : now(above.parent))
      if (above.id === which)
        return { kind: 'wrong', message: `“${item.title}” can’t stand in itself or below itself.` };
    children.set(
      item.parent,
      below(item.parent).filter(({ id }) => id !== which),
    );
    const siblings = below(parent);
    const at = siblings.findIndex(({ id }) => id === move.before);
    const placed = { ...item, parent } as Item;
    siblings.splice(at < 0 ? siblings.length : at, 0, placed);
    moved.set(which, placed);
  }
  const placed = new Map<ItemId, Item>();
  for (const [parent, siblings] of children)
    for (const [rank, one] of siblings.entries()) {
      const old = outline.items.get(one.id);
      if (old?.rank !== rank || old.parent !== parent) placed.set(one.id, { ...one, rank, parent } as Item);
    }
  const items = [...outline.items.values()].map((one) => placed.get(one.id) ?? one);
  const wrong = problemIn(items);
  if (wrong !== null) return { kind: 'wrong', message: wrong };
  // What only changes its turn stands where it stood.
  const elsewhere = [...moved.values()].some(({ id, parent }) => outline.items.get(id)?.parent !== parent);
  const { left, come } = elsewhere ? gatesBetween(state, items) : { left: [], come: [] };
  const opens = [...left, ...turnsLost(state, items)];
  const held = heldBack(`Moved there, ${listed(opens)}.`, opens, { gates, leaving }, 'move it there');
  if (held) return held;
  await trivet.db.transaction(async (tx) => {
    // Those that make room are where somebody put them before.
    for (const item of placed.values())
      await updateItem(
        tx,
        { item, content: contentOf(state, item.id) },
        moved.has(item.id) ? 'changed' : 'follows',
      );
  });
  const [first] = moved.values();
  if (!first) return GONE;
  // The way back leads out from under what it came under, which only those who may change gates can ask for.
  const canGoBack = gates || come.length === 0;
  return {
    kind: 'done',
    item: first.id,
    removal: null,
    summary: [
      `Moved: ${named([...moved.values()])}`,
      ...come,
      ...(canGoBack ? [] : ['Only those who may change gates can move it back']),
    ].join('. '),
    ...(canGoBack && { undo: { kind: 'move', moves: wayBack(outline, [...moved.keys()]), leaving: true } }),
  };
}

/** What is answered in place of a change that opens something: to ask whether it is meant, or that it is not theirs to do. */
export function heldBack(
  message: string,
  opens: readonly string[],
  { gates, leaving }: { readonly gates: boolean; readonly leaving: boolean | undefined },
  doing: string,
): ItemAnswer | null {
  if (opens.length === 0 || (gates && leaving)) return null;
  return gates
    ? { kind: 'opens', message }
    : { kind: 'wrong', message: `${message} Only those who may change gates can ${doing}.` };
}

/** Moves that put items back where they stood: the last of a row first, because the others stand before it. */
const wayBack = (outline: Outline, ids: readonly ItemId[]): Moving['moves'] =>
  ids
    .flatMap((id) => outline.items.get(id) ?? [])
    .sort((a, b) => b.rank - a.rank)
    .flatMap(({ id, parent }) => {
      if (parent === null) return [];
      const siblings = outline.children.get(parent) ?? [];
      const next = siblings[siblings.findIndex((one) => one.id === id) + 1];
      return [{ item: id, parent, before: next?.id ?? null }];
    });

/** What would come out from under a gate, or out of something that is not published, and what under one, in words. */
function gatesBetween(state: SiteState, items: readonly Item[]) {
  const outline = outlineOf(items);
  if ('problems' in outline) throw new Error('Items that are no site have no gates.');
  const { compiled } = state.live;
  const then = compile(compiled.policy, outline, state.names);
  const of = (gate: Gate | null) =>
    gate === null
      ? 'in something that is not published'
      : `under the gate over ${describeWhat(gate.what, compiled.outline, compiled.vocabulary)}`;
  const left = new Map<Gate | null, Item[]>();
  const come = new Map<Gate | null, Item[]>();
  for (const item of items) {
    const [before, after] = [gatesOver(compiled, item.id), gatesOver(then, item.id)];
    for (const gate of before) if (!after.has(gate)) left.set(gate, [...(left.get(gate) ?? []), item]);
    for (const gate of after) if (!before.has(gate)) come.set(gate, [...(come.get(gate) ?? []), item]);
  }
  return {
    left: [...left].map(([gate, from]) => `${said(from)} would no longer be ${of(gate)}`),
    come: [...come].map(([gate, under]) => `Now ${of(gate)}: ${said(under)}`),
  };
}

/** Items by their titles, without what is in them or below them, and the links that follow them; of many, their number. */
function said(items: readonly Item[]): string {
  const themselves = items.filter(({ kind }) => !KINDS[kind].contained);
  const ids = new Set(items.map(({ id }) => id));
  const tops = themselves.filter(({ parent }) => parent === null || !ids.has(parent));
  const told = tops.length > 0 ? tops : items;
  return told.length > 3 ? `${told.length} items` : listed(told.map(({ title }) => title));
}

const gatesOver = ({ hurdles }: CompiledPolicy, id: ItemId): ReadonlySet<Gate | null> =>
  new Set((hurdles(id) ?? []).map(({ gate }) => gate));

/** Puts items on the site, or takes them off it without taking them away. */
export async function publishItems(
  trivet: Trivet,
  state: SiteState,
  { items: asked, published, leaving }: Publishing,
  /** Whether whoever asks may change gates. */
  gates: boolean,
): Promise<ItemAnswer> {
  const { outline } = state;
  const ids = [...new Set(asked.map((id) => asId<ItemId>(id)))];
  const items = ids.flatMap((id) => outline.items.get(id) ?? []);
  const changed = items.filter((item) => item.kind !== 'site' && item.published !== published);
  const [first] = changed;
  if (items.length < ids.length) return GONE;
  if (!first)
    return { kind: 'wrong', message: `That is ${published ? 'published' : 'unpublished'} already.` };
  const written = new Map(changed.map((item) => [item.id, { ...item, published }]));
  const opens = turnsLost(
    state,
    [...outline.items.values()].map((item) => written.get(item.id) ?? item),
  );
  const held = heldBack(`With that, ${listed(opens)}.`, opens, { gates, leaving }, 'do that');
  if (held) return held;
  // Whoever is writing the page that a part is in hears that it is another now.
  for (const { parent } of changed.filter(({ kind }) => KINDS[kind].part)) {
    const whole = parent === null ? undefined : outline.items.get(parent);
    if (whole && whole.kind !== 'site' && !written.has(whole.id)) written.set(whole.id, { ...whole });
  }
  await trivet.db.transaction(async (tx) => {
    for (const item of written.values()) await updateItem(tx, { item, content: contentOf(state, item.id) });
  });
  return {
    kind: 'done',
    item: first.id,
    removal: null,
    summary: `${published ? 'Published' : 'No longer published'}: ${named(changed)}`,
    undo: { kind: 'publish', items: changed.map(({ id }) => id), published: !published, leaving: true },
  };
}

/** One by its title, more by their number. */
const named = (items: readonly Item[]): string =>
  items.length === 1 && items[0] ? items[0].title : `${items.length} items`;
