/** Where an item stands among those of its kind, and where the keys take it. */
import { type Item, type ItemId, isShared, mayHold, type Outline, sharedIn } from '@/core';

/** Below something: before a sibling, or last. */
export interface Place {
  readonly parent: ItemId;
  readonly before: ItemId | null;
}

const STEPS = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'] as const;
type Step = (typeof STEPS)[number];

export const isStep = (key: string): key is Step => (STEPS as readonly string[]).includes(key);

/** The place one step up, down, out of what the item stands below, or into what it stands after; null at an edge. */
export function placeOneStep(outline: Outline, item: Item, step: Step): Place | null {
  const { parent } = item;
  if (parent === null) return null;
  const siblings = alike(outline, parent, item);
  const at = siblings.findIndex(({ id }) => id === item.id);
  const before = siblings[at - 1];
  if (step === 'ArrowUp') return before ? { parent, before: before.id } : null;
  if (step === 'ArrowDown')
    return at + 1 < siblings.length ? { parent, before: siblings[at + 2]?.id ?? null } : null;
  if (step === 'ArrowRight')
    return before && mayHold(before.kind, item.kind) ? { parent: before.id, before: null } : null;
  const above = outline.items.get(parent);
  const out = above?.parent == null ? undefined : outline.items.get(above.parent);
  if (!above || !out || !mayHold(out.kind, item.kind)) return null;
  const uncles = alike(outline, out.id, item);
  const next = uncles[uncles.findIndex(({ id }) => id === above.id) + 1];
  return { parent: out.id, before: next?.id ?? null };
}

/** Those of its kind there; of shared sections those at the same spot. */
const alike = (outline: Outline, parent: ItemId, item: Item): readonly Item[] =>
  isShared(item)
    ? sharedIn(outline).filter(({ shared }) => shared.spot === item.shared.spot)
    : (outline.children.get(parent) ?? []).filter((one) => one.kind === item.kind);
