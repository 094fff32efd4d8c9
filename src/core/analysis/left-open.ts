/**
 * What is closed around it and open itself, because the gate leaves it out by a branch or a description: whatever comes
 * there later is open as well, and nobody says so. What is left out by name is meant.
 */
import { everyone, expanded, testsIn } from '../condition';
import { coveredBy, type Gate } from '../gate';
import type { ItemId } from '../ids';
import { type CompiledPolicy, decide } from '../policy';
import { same } from '../same';
import { type Item, isOpenable } from '../site';
import type { Finding, Witness } from './finding';
import { shownBy, sure } from './leading';
import { type Reach, tellingApart } from './reach';
import type { Asked } from './things';

/** The pages, posts, activities and files that a gate would be over if it were not for a branch or a description. */
function leftOutOf(gate: Gate, { outline, vocabulary, covering }: CompiledPolicy): readonly Item[] {
  const { targets, except } = gate.what;
  if (same(gate.who, everyone) || except.every(({ kind }) => kind === 'item')) return [];
  const named = new Set(except.flatMap((target) => (target.kind === 'selection' ? [] : [target.item])));
  const all = coveredBy({ what: { targets, except: [] }, stance: gate.stance }, outline, vocabulary);
  return [...all].flatMap((id) => {
    const item = outline.items.get(id);
    return item &&
      isOpenable(item) &&
      item.published &&
      !named.has(id) &&
      !covering.get(id)?.some((one) => one.gate === gate)
      ? [item]
      : [];
  });
}

/** What gates ask, about what they leave out. */
export function* askedOfLeftOut(compiled: CompiledPolicy): Iterable<Asked> {
  const told = tellingApart(compiled.vocabulary);
  for (const gate of compiled.policy.gates) {
    const seen = new Set<string>();
    for (const item of leftOutOf(gate, compiled)) {
      const key = told(gate, item);
      if (seen.has(key)) continue;
      seen.add(key);
      for (const test of testsIn(expanded(gate.who, compiled.vocabulary.audiences))) yield { test, item };
    }
  }
}

/** Items that a gate leaves out, and that are open to somebody whom it would turn away. */
export function leftOpen(reach: Reach, gate: Gate): readonly Finding[] {
  const { compiled, space } = reach;
  const told = tellingApart(compiled.vocabulary);
  // Where the same is asked of the same way, the same people get it.
  const shown = new Map<string, Witness | null>();
  const witnessAt = (item: Item): Witness | null => {
    const key = `${reach.wayTo(item.id)} ${told(gate, item)}`;
    const known = shown.get(key);
    if (known !== undefined) return known;
    const outside = space.attempt(() =>
      space.and(reach.openTo(item.id), space.not(reach.meeting(gate.who, item))),
    );
    const witness = shownBy(outside, reach);
    if (witness) sure(opensTo(reach, item.id, witness));
    shown.set(key, witness);
    return witness;
  };
  const found = leftOutOf(gate, compiled).flatMap((item) => {
    const witness = witnessAt(item);
    return witness ? [{ item: item.id, witness }] : [];
  });
  const [first] = found;
  return first
    ? [{ gate: gate.id, kind: 'left open', items: found.map(({ item }) => item), witness: first.witness }]
    : [];
}

const opensTo = ({ compiled }: Reach, item: ItemId, { visitor, request }: Witness): boolean =>
  decide(compiled, item, visitor, request).kind === 'open';
