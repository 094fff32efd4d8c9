import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { id, items, outline } from '../testing/larkfell';
import { type Address, below, type Item, type Outline, outlineOf, outlineWith } from '.';

/** Whatever may be done to an item: what it is called and is about, where it stands, whether it is published. */
const change = fc.oneof(
  fc.record({ title: fc.string({ minLength: 1 }) }),
  fc.record({
    facts: fc.constantFrom({}, { category: 'Night logs' }, { tags: ['moon'], date: '2026-01-01' }),
  }),
  fc.record({ published: fc.boolean() }),
  fc.record({ rank: fc.integer({ min: -2, max: 9 }) }),
  fc.record({ parent: fc.constantFrom(...items.map((item) => item.id)) }),
  fc.record({ address: fc.constantFrom('/elsewhere', '/crew').map((address) => address as Address) }),
);

const changes = fc.array(fc.record({ of: fc.nat(items.length - 1), change }), { minLength: 1, maxLength: 4 });

/** Some of the items, changed as they would be read of the database: without their places in courses. */
function changed(of: readonly { readonly of: number; readonly change: object }[]): readonly Item[] {
  const made = new Map<string, Item>();
  for (const { of: at, change } of of) {
    const item = items[at] as Item;
    made.set(item.id, { ...(made.get(item.id) ?? item), ...change } as Item);
  }
  return [...made.values()];
}

const madeAnew = (of: readonly Item[]) => {
  const others = new Map(of.map((item) => [item.id, item]));
  return outlineOf(items.map((item) => others.get(item.id) ?? item));
};

const told = ({ root, items, children, addressed }: Outline) => ({
  root,
  items: [...items],
  children: [...children],
  addressed: [...addressed],
});

describe('an outline with other items in the place of some', () => {
  it('is what would be made anew of all of them, or nothing', () => {
    let kept = 0;
    fc.assert(
      fc.property(changes, (drawn) => {
        const of = changed(drawn);
        const made = outlineWith(outline, of);
        if (made === null) return;
        kept++;
        expect(told(made)).toEqual(told(madeAnew(of) as Outline));
        // As it is found downwards, too.
        for (const item of below(made, made.root)) expect(made.items.get(item.id)).toBe(item);
      }),
      { numRuns: 500 },
    );
    expect(kept).toBeGreaterThan(50);
  });

  it('is made of what was there where only titles and facts differ, in courses as well', () => {
    for (const item of items) {
      const made = outlineWith(outline, [{ ...item, title: 'Other', facts: { category: 'Other' } }]);
      expect(made?.items.get(item.id)).toMatchObject({ title: 'Other', facts: { category: 'Other' } });
      const others = items.filter((one) => one.id !== item.id).map((one) => one.id);
      for (const other of others) expect(made?.items.get(other)).toBe(outline.items.get(other));
    }
  });

  it('is made anew where something new comes, moves, or is published in a course', () => {
    const page = outline.items.get(id('crew')) as Item;
    expect(outlineWith(outline, [{ ...page, id: id('new') }])).toBeNull();
    expect(outlineWith(outline, [{ ...page, rank: 99 }])).toBeNull();
    expect(outlineWith(outline, [{ ...page, parent: id('observers') }])).toBeNull();
    expect(outlineWith(outline, [{ ...page, address: '/elsewhere' } as Item])).toBeNull();
    expect(outlineWith(outline, [{ ...page, published: !page.published }])).not.toBeNull();
    const activity = [...outline.items.values()].find((item) => item.kind === 'activity') as Item;
    expect(outlineWith(outline, [{ ...activity, published: !activity.published }])).toBeNull();
  });
});
