/** Taking items away, with what goes with them, and bringing them back. */
import { randomUUID } from 'node:crypto';
import {
  asId,
  below,
  describeWhat,
  type Gate,
  givenBy,
  type Item,
  type ItemId,
  isAddressed,
  leadsTo,
  listed,
  type Outline,
  pointedIn,
} from '@/core';
import {
  deleteItems,
  insertItems,
  insertRemoval,
  markRemovalUndone,
  readRemoval,
  readRemovals,
} from '@/store';
import type { SiteState, Trivet } from '../running';
import { type Administrator, requirePermission, requirePermissionAt } from '../running';
import { indexItems } from '../texts';
import { contentOf } from '../view';
import type { ItemAnswer } from './change-items';
import { turnsLost } from './in-turn';
import { heldBack } from './move-items';
import { problemIn } from './problem-in';

/** What taking an item away would mean: what goes with it, and what leads to it or covers it. */
export interface RemovalPreview {
  readonly title: string;
  /** The titles of everything that goes, the item itself first. */
  readonly gone: readonly string[];
  /** Gates that cover something of it by name. */
  readonly gates: readonly string[];
  /** Gates whose turn-aways lead to it, and landing rules. */
  readonly leads: readonly string[];
  /** Menu links that go with it because they lead to it. */
  readonly links: readonly string[];
  /** What would no longer wait for it. */
  readonly opens: readonly string[];
}

/** Looks before an item is taken away; null when it is not there. */
export function previewRemoval(
  trivet: Trivet,
  administrator: Administrator,
  which: string,
): RemovalPreview | null {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const { outline, draft, live } = state;
  const item = outline.items.get(asId<ItemId>(which));
  if (!item || item.kind === 'site') return null;
  const going = goingWith(outline, item.id);
  const ids = new Set(going.map(({ id: one }) => one));
  const tell = (gate: Gate) => `the gate over ${describeWhat(gate.what, outline, draft.compiled.vocabulary)}`;
  const gates = new Map([...live.policy.gates, ...draft.policy.gates].map((gate) => [gate.id, gate]));
  const leadsThere = (gate: Gate) =>
    givenBy(gate).some((give) => {
      const to = leadsTo(give);
      return to !== null && ids.has(to);
    });
  return {
    title: item.title,
    gone: going
      .filter(({ kind }) => kind !== 'link' || item.kind === 'menu' || item.kind === 'link')
      .map((one) => one.title),
    gates: [...gates.values()].filter((gate) => pointedIn(gate).some((one) => ids.has(one))).map(tell),
    leads: [
      ...[...gates.values()].filter(leadsThere).map(tell),
      ...draft.policy.landings
        .filter(({ to }) => ids.has(to))
        .map(({ after }) => `a landing rule after ${after === 'sign in' ? 'signing in' : 'signing out'}`),
    ],
    links: going
      .filter(({ kind }) => kind === 'link' && item.kind !== 'menu' && item.kind !== 'link')
      .map((one) => one.title),
    opens: turnsLost(state, without(outline, ids)),
  };
}

const without = ({ items }: Outline, gone: ReadonlySet<ItemId>): readonly Item[] =>
  [...items.values()].filter(({ id }) => !gone.has(id));

/** Items with everything beneath them, and the menu links (with theirs) that lead to any of it. */
export function goingWith(outline: Outline, ...which: readonly ItemId[]): readonly Item[] {
  const going = new Map(which.flatMap((one) => below(outline, one)).map((item) => [item.id, item]));
  for (const item of outline.items.values()) {
    if (item.kind === 'link' && item.target.kind === 'item' && going.has(item.target.item))
      for (const one of below(outline, item.id)) going.set(one.id, one);
  }
  return [...going.values()];
}

/** Takes an item away with everything that goes with it. */
export async function removeItem(
  trivet: Trivet,
  by: string,
  state: SiteState,
  which: ItemId,
  /** Whether whoever asks may change gates, and has said that what opens by it is meant. */
  asked: { readonly gates: boolean; readonly leaving: boolean },
): Promise<ItemAnswer> {
  const item = state.outline.items.get(which);
  if (!item || item.kind === 'site') return { kind: 'wrong', message: 'That is no longer there.' };
  if (isAddressed(item) && item.address === '/')
    return {
      kind: 'wrong',
      message: 'A site has a first page. Give another page the address / before this one goes.',
    };
  const going = goingWith(state.outline, which);
  const opens = turnsLost(state, without(state.outline, new Set(going.map(({ id }) => id))));
  const held = heldBack(`Without it, ${listed(opens)}.`, opens, asked, 'take it away');
  if (held) return held;
  const removal = randomUUID();
  const rest = going.length - 1;
  const summary = rest === 0 ? item.title : `${item.title} and ${rest} more`;
  await trivet.db.transaction(async (tx) => {
    const removed = { items: going.map((one) => ({ item: one, content: contentOf(state, one.id) })) };
    await insertRemoval(tx, { id: removal, by, summary, removed });
    await deleteItems(
      tx,
      going.map((one) => one.id),
    );
  });
  return { kind: 'done', item: which, removal, summary: `Taken away: ${summary}` };
}

/** Brings back what was taken away, if there is still a place for it. */
export function bringBack(trivet: Trivet, administrator: Administrator, input: unknown): Promise<ItemAnswer> {
  requirePermission(administrator, 'content');
  return trivet.change(async (state): Promise<ItemAnswer> => {
    const which = typeof input === 'string' ? input.slice(0, 100) : '';
    const removal = await readRemoval(trivet.db, which);
    const [first] = removal?.removed.items ?? [];
    if (!removal || !first || removal.undone)
      return { kind: 'wrong', message: 'That was brought back already.' };
    requirePermissionAt(administrator, state.outline, first.item.parent === null ? [] : [first.item.parent]);
    const back = removal.removed.items;
    const taken = back.filter(({ item }) => state.outline.items.has(item.id));
    const wrong =
      taken.length > 0
        ? `${listed(taken.map(({ item }) => item.title))} can’t come back: something has taken the place.`
        : problemIn([...state.outline.items.values(), ...back.map(({ item }) => item)]);
    if (wrong !== null) return { kind: 'wrong', message: wrong };
    await trivet.db.transaction(async (tx) => {
      await markRemovalUndone(tx, which);
      await insertItems(tx, back);
      await indexItems(tx, back, state.live.compiled.vocabulary);
    });
    return { kind: 'done', item: first.item.id, removal: null, summary: `Brought back: ${removal.summary}` };
  });
}

const MOST_LATEST = 10;

/** What was taken away lately and can be brought back. */
export function latestRemovals(trivet: Trivet, administrator: Administrator) {
  requirePermission(administrator, 'look');
  return readRemovals(trivet.db, MOST_LATEST);
}
