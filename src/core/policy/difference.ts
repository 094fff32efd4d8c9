/** What differs between two policies, gate by gate, and how to bring two people's edits of one draft together. */
import type { Gate } from '../gate';
import type { GateId } from '../ids';
import { same } from '../same';
import type { Policy } from './policy';

/** One difference. A gate that was both changed and moved is two. */
export type PolicyChange =
  | { readonly kind: 'added'; readonly after: Gate }
  | { readonly kind: 'removed'; readonly before: Gate }
  | { readonly kind: 'changed'; readonly before: Gate; readonly after: Gate }
  | { readonly kind: 'moved'; readonly after: Gate };

/** The differences from one policy to another, in the order of the newer one, removals last. */
export function difference(before: Policy, after: Policy): readonly PolicyChange[] {
  const old = byId(before);
  const current = byId(after);
  const stayed = longestCommonOrder(idsOf(before), idsOf(after));
  const changes: PolicyChange[] = [];
  for (const gate of after.gates) {
    const previous = old.get(gate.id);
    if (!previous) changes.push({ kind: 'added', after: gate });
    else {
      if (!sameGate(previous, gate)) changes.push({ kind: 'changed', before: previous, after: gate });
      if (!stayed.has(gate.id)) changes.push({ kind: 'moved', after: gate });
    }
  }
  for (const gate of before.gates) if (!current.has(gate.id)) changes.push({ kind: 'removed', before: gate });
  return changes;
}

/** Whether two gates are written the same. */
export const sameGate = (a: Gate, b: Gate): boolean => same(a, b);

/**
 * Puts my edits of a common base on top of theirs, gate by gate. Where both changed the same gate, mine stands; my order
 * is taken only if they left the order alone.
 */
export function rebase(base: Policy, mine: Policy, theirs: Policy): Policy {
  const edits = new Map<GateId, Gate | null>();
  const order = [];
  for (const change of difference(base, mine)) {
    if (change.kind === 'removed') edits.set(change.before.id, null);
    else if (change.kind === 'moved') order.push(change.after.id);
    else edits.set(change.after.id, change.after);
  }
  const merged = theirs.gates.flatMap((gate) => {
    const edit = edits.get(gate.id);
    return edit === undefined ? [gate] : edit === null ? [] : [edit];
  });
  const present = new Set(theirs.gates.map((gate) => gate.id));
  for (const [id, edit] of edits) if (edit && !present.has(id)) merged.push(edit);
  const theyMoved = difference(base, theirs).some((change) => change.kind === 'moved');
  if (order.length === 0 || theyMoved) return { gates: merged };
  const place = new Map(mine.gates.map((gate, index) => [gate.id, index]));
  const last = mine.gates.length;
  return { gates: merged.toSorted((a, b) => (place.get(a.id) ?? last) - (place.get(b.id) ?? last)) };
}

const idsOf = (policy: Policy): GateId[] => policy.gates.map((gate) => gate.id);
const byId = (policy: Policy): ReadonlyMap<GateId, Gate> =>
  new Map(policy.gates.map((gate) => [gate.id, gate]));

/**
 * The ids that kept their order: a longest increasing run of old places, read in the new order (patience sorting), so
 * that one gate moved across many counts as one move.
 */
function longestCommonOrder(before: readonly GateId[], after: readonly GateId[]): ReadonlySet<GateId> {
  const oldPlace = new Map(before.map((id, index) => [id, index]));
  interface Card {
    readonly id: GateId;
    readonly place: number;
    readonly left: Card | undefined;
  }
  const piles: Card[] = [];
  for (const id of after) {
    const place = oldPlace.get(id);
    if (place === undefined) continue;
    let at = piles.findIndex((top) => top.place >= place);
    if (at < 0) at = piles.length;
    piles[at] = { id, place, left: piles[at - 1] };
  }
  const kept = new Set<GateId>();
  for (let card = piles.at(-1); card; card = card.left) kept.add(card.id);
  return kept;
}
