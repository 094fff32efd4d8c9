/** Who gains and who loses between two policies, over the whole membership and for guests. */
import type { ItemId } from '../ids';
import { containerOf, guest, type Item, type Member, type Outline, type RequestFacts } from '../site';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import { type Decision, sameToVisitor } from './decision';

/** What changes at one item. */
export interface ItemEffect {
  readonly item: Item;
  readonly gains: readonly Member[];
  readonly loses: readonly Member[];
  /** Members who were and stay turned away, but now get something else. */
  readonly sees: readonly Member[];
  /** What guests got and will get, when a guest would notice a difference. */
  readonly guests: { readonly before: Decision; readonly after: Decision } | null;
}

/** What changes on the whole site. */
export interface Effect {
  readonly items: readonly ItemEffect[];
  /** Everyone who gains or loses something, each once. */
  readonly gains: readonly Member[];
  readonly loses: readonly Member[];
}

/**
 * Compares two compiled policies of one site for all its members, at a moment. Items at which nothing changes are left
 * out, and so are sections and files that only follow what they are in.
 */
export function effectOf(
  before: CompiledPolicy,
  after: CompiledPolicy,
  members: readonly Member[],
  request: RequestFacts,
): Effect {
  const items: ItemEffect[] = [];
  const gains = new Set<Member>();
  const loses = new Set<Member>();
  const compare = (id: ItemId, facts: Member['facts']) => {
    const pair = { before: decide(before, id, facts, request), after: decide(after, id, facts, request) };
    return sameToVisitor(pair.before, pair.after) ? null : pair;
  };
  for (const item of after.outline.items.values()) {
    const effect = { item, gains: [] as Member[], loses: [] as Member[], sees: [] as Member[] };
    for (const person of members) {
      const change = compare(item.id, person.facts);
      if (!change) continue;
      if (change.after.kind === 'open') {
        effect.gains.push(person);
        gains.add(person);
      } else if (change.before.kind === 'open') {
        effect.loses.push(person);
        loses.add(person);
      } else effect.sees.push(person);
    }
    const guests = compare(item.id, guest);
    if (guests || effect.gains.length + effect.loses.length + effect.sees.length > 0)
      items.push({ ...effect, guests });
  }
  return { items: withoutFollowers(items, after.outline), gains: [...gains], loses: [...loses] };
}

function withoutFollowers(items: readonly ItemEffect[], outline: Outline): readonly ItemEffect[] {
  const byItem = new Map(items.map((effect) => [effect.item.id, effect]));
  const alike = (a: readonly Member[], b: readonly Member[]) =>
    a.length === b.length && a.every((member, at) => member === b[at]);
  return items.filter((effect) => {
    const { item } = effect;
    const container = item.kind === 'section' || item.kind === 'file' ? containerOf(outline, item) : null;
    const above = container && byItem.get(container.id);
    if (!above) return true;
    return !(
      alike(above.gains, effect.gains) &&
      alike(above.loses, effect.loses) &&
      (above.guests === null) === (effect.guests === null)
    );
  });
}
