/** Ways: the gates before items. A site has many items and few ways, and whatever is asked of a way is asked once. */
import type { Gate } from '../gate';
import type { Hurdle } from '../policy';
import type { Item } from '../site';

/** Answers with a number that is the same for hurdles that ask the same of everybody. */
export function waysBy(told: (gate: Gate, item: Item) => string): (hurdles: readonly Hurdle[]) => number {
  const gates = new Map<Gate, number>();
  const ways = new Map<string, number>();
  const numbered = <K>(known: Map<K, number>, key: K): number => {
    const number = known.get(key) ?? known.size;
    known.set(key, number);
    return number;
  };
  return (hurdles) =>
    numbered(
      ways,
      JSON.stringify(
        hurdles.map(({ gate, at, over }) =>
          // What is not published closes to everybody; a shared section to those who get it nowhere.
          gate === null ? [over.published && over.id] : [numbered(gates, gate), told(gate, at)],
        ),
      ),
    );
}
