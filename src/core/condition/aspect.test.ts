import fc from 'fast-check';
import { expect, it } from 'vitest';
import { asId, type PersonId } from '../ids';
import type { Item } from '../site';
import { conditions, itemsOrNone, requests, visitors } from '../testing/arbitraries';
import { crew, id, outline, people, request, vocabulary } from '../testing/larkfell';
import { all, any, aspectOf, conditionCompiler, everyone, not, owns, test } from '.';

const post = outline.items.get(id('untold')) as Item;
const having = (facts: Item['facts']): Item => ({ ...post, ...(facts && { facts }) });

it('is the same only of items at which a condition comes to the same for everybody, at any time', () => {
  const few = fc.array(itemsOrNone, { minLength: 2, maxLength: 6 });
  let alike = 0;
  fc.assert(
    fc.property(conditions, few, visitors, requests, (condition, items, visitor, at) => {
      const aspect = aspectOf([condition], vocabulary);
      const holds = conditionCompiler(vocabulary)(condition);
      const seen = new Map<string, boolean>();
      for (const item of items) {
        const told = aspect?.(item) ?? '';
        const found = holds(visitor, item, at);
        const before = seen.get(told);
        if (before !== undefined) alike += 1;
        expect(before ?? found).toBe(found);
        seen.set(told, found);
      }
    }),
    { numRuns: 1000 },
  );
  expect(alike).toBeGreaterThan(100);
});

it('puts items together by what is asked of them, not by all that they have', () => {
  const where = aspectOf(
    [any(test('item category', 'is', 'Kit reviews'), test('item picture', 'is set'))],
    vocabulary,
  );
  const told = (facts: Item['facts']): string | undefined => where?.(having(facts));
  expect(told({ category: 'Night logs', author: 'Ines' })).toBe(told({ category: 'Field notes' }));
  expect(told({ category: 'Kit reviews' })).not.toBe(told({ category: 'Field notes' }));
  // Nothing known is neither yes nor no.
  expect(told({})).not.toBe(told({ category: 'Field notes' }));
  expect(told({ category: 'Field notes', picture: id('dome-key') })).not.toBe(
    told({ category: 'Field notes' }),
  );
});

it('tells apart whose an item is, and of when', () => {
  const owned = aspectOf([test('visitor owns item', 'is')], vocabulary);
  const by = (owner: string): string | undefined => owned?.(having({ owner: asId<PersonId>(owner) }));
  expect(by('ines')).not.toBe(by('wren'));
  expect(owned?.(post)).not.toBe(by('wren'));
  const grouped = aspectOf([not(test('visitor in item group', 'is'))], vocabulary);
  expect(grouped?.(having({ group: crew }))).not.toBe(grouped?.(post));
  // Ten days ago today is eleven tomorrow.
  const dated = aspectOf([test('item date', 'within the last', 10)], vocabulary);
  expect(dated?.(having({ date: '2026-11-03' }))).not.toBe(dated?.(having({ date: '2026-11-04' })));
});

it('is nothing of conditions that ask nothing of items', () => {
  expect(aspectOf([everyone, all(owns(asId('keeper-pass')))], vocabulary)).toBeNull();
  expect(conditionCompiler(vocabulary)(everyone)(people.wren, null, request)).toBe(true);
});
