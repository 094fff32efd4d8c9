/** What conditions can tell of an item: items that are alike to them need to be asked about only once. */
import type { Item } from '../site/item';
import { requestAt } from '../site/request';
import { guest } from '../site/visitor';
import type { Vocabulary } from '../site/vocabulary';
import { expanded } from './audience';
import { asksOfItem, factNamed, typeOf } from './catalogue';
import { type Condition, keyOf, type Test, testsIn } from './condition';
import { evaluatorOf } from './evaluate';

/** Tells of an item, as a text, all that conditions make of it; the same text for items that are alike to them. */
export type Aspect = (item: Item | null) => string;

// What an item's own facts come to depends on neither, but for dates.
const anyTime = requestAt({ today: '2000-01-01', minute: 0, weekday: 'Saturday' });

/**
 * What conditions tell of an item: at two items of which it is the same they come to the same, for everybody and at any
 * time. Null for conditions that ask nothing of items.
 */
export function aspectOf(conditions: readonly Condition[], vocabulary: Vocabulary): Aspect | null {
  const tests = new Map(
    conditions
      .flatMap((one) => testsIn(expanded(one, vocabulary.audiences)))
      .filter(asksOfItem)
      .map((test) => [keyOf(test), test]),
  );
  if (tests.size === 0) return null;
  const tell = [...tests.values()].map((test) => toldBy(test, vocabulary));
  return (item) => JSON.stringify(tell.map((one) => one(item)));
}

/** What one test tells of an item. */
function toldBy(test: Test, vocabulary: Vocabulary): (item: Item | null) => unknown {
  const { dependsOn, read } = factNamed(test.fact);
  if (dependsOn) return (item) => item && dependsOn(item);
  if (typeOf(test, vocabulary) === 'date') {
    const dated = read(test.subject ?? '', vocabulary);
    return (item) => dated(guest, item, anyTime);
  }
  const evaluate = evaluatorOf(test, vocabulary);
  const readValue = read(test.subject ?? '', vocabulary);
  // Thousands of items have a few values among them.
  const known = new Map<unknown, unknown>();
  return (item) => {
    const value = readValue(guest, item, anyTime);
    if (value !== null && typeof value === 'object') return evaluate(guest, item, anyTime);
    const found = known.get(value) ?? evaluate(guest, item, anyTime);
    known.set(value, found);
    return found;
  };
}
