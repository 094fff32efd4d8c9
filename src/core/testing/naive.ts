/**
 * A second, slow and obvious reading of the model, written only to be compared with the real one. It shares no code
 * with `compile`, `decide` or `explain` beyond the types.
 */
import type { Condition } from '../condition';
import type { Gate, Target } from '../gate';
import type { ItemId } from '../ids';
import type { Policy } from '../policy';
import type { Item, Outline, VisitorFacts, Vocabulary } from '../site';

/** True, false, or undefined for unknown. */
export function holds(
  condition: Condition,
  visitor: VisitorFacts,
  vocabulary: Vocabulary,
): boolean | undefined {
  switch (condition.kind) {
    case 'all': {
      const values = condition.of.map((part) => holds(part, visitor, vocabulary));
      return values.includes(false) ? false : values.includes(undefined) ? undefined : true;
    }
    case 'any': {
      const values = condition.of.map((part) => holds(part, visitor, vocabulary));
      return values.includes(true) ? true : values.includes(undefined) ? undefined : false;
    }
    case 'not': {
      const value = holds(condition.of, visitor, vocabulary);
      return value === undefined ? undefined : !value;
    }
    case 'test':
      break;
  }
  if (condition.fact === 'signed in') return visitor.signedIn;
  if (condition.fact === 'role') {
    return visitor.roles && vocabulary.roles.some((role) => role.id === condition.value)
      ? visitor.roles.includes(condition.value)
      : undefined;
  }
  if (condition.fact === 'group') {
    return visitor.groups && vocabulary.groups.some((group) => group.id === condition.value)
      ? visitor.groups.includes(condition.value)
      : undefined;
  }
  if (!('value' in condition)) return (visitor.level !== null) === (condition.op === 'is set');
  const order: readonly string[] = vocabulary.levels.map((level) => level.id);
  if (visitor.level === null || !order.includes(visitor.level) || !order.includes(condition.value))
    return undefined;
  const difference = order.indexOf(visitor.level) - order.indexOf(condition.value);
  return condition.op === 'at least'
    ? difference >= 0
    : condition.op === 'exactly'
      ? difference === 0
      : difference <= 0;
}

/** The kind of answer: 'open', or the turn-away before fitting and the gate (or 'unpublished') that spoke. */
export function naiveDecision(
  policy: Policy,
  outline: Outline,
  vocabulary: Vocabulary,
  item: Item,
  visitor: VisitorFacts,
): 'open' | { readonly by: string } {
  if (!item.published) return { by: 'unpublished' };
  const covering = policy.gates.filter((gate) => covers(gate, item, outline));
  const lastInstead = covering.map((gate) => gate.stance).lastIndexOf('instead');
  for (const gate of covering.slice(Math.max(0, lastInstead))) {
    if (holds(gate.who, visitor, vocabulary) !== true) return { by: gate.id };
  }
  if (item.kind !== 'link') return 'open';
  const parent = item.parent && outline.items.get(item.parent);
  const above = parent ? naiveDecision(policy, outline, vocabulary, parent, visitor) : 'open';
  if (above !== 'open') return above;
  const target = item.target.kind === 'item' ? outline.items.get(item.target.item) : undefined;
  return target ? naiveDecision(policy, outline, vocabulary, target, visitor) : 'open';
}

function covers(gate: Gate, item: Item, outline: Outline): boolean {
  const ancestors = new Set<ItemId>();
  for (let at: Item | undefined = item; at; at = at.parent ? outline.items.get(at.parent) : undefined)
    ancestors.add(at.id);
  const hit = (target: Target) =>
    target.kind === 'branch' ? ancestors.has(target.item) : target.item === item.id;
  return gate.what.targets.some(hit) && !gate.what.except.some(hit);
}
