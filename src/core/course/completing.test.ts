import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { signedIn, test } from '../condition';
import type { Gate } from '../gate';
import { asId, type GateId, type ItemId } from '../ids';
import { compile, decide, openPolicy } from '../policy';
import { type Activity, type Completion, type Item, member } from '../site';
import { policies } from '../testing/arbitraries';
import { id, items, outline, people, request, soundOutline, vocabulary } from '../testing/larkfell';
import { completing } from '.';

const activity = (name: string, of = outline): Activity => {
  const item = of.items.get(id(name));
  if (item?.kind !== 'activity') throw new Error(name);
  return item;
};
const gate = (name: string, item: ItemId, who: Gate['who']): Gate => ({
  id: asId<GateId>(name),
  what: { targets: [{ kind: 'branch', item }], except: [] },
  who,
  otherwise: {
    cases: [],
    last: { kind: 'locked', reason: { kind: 'written' }, next: { kind: 'none' } },
  },
  stance: 'also',
});
const inOrder = gate('in-order', id('safety'), test('completed the one before', 'is'));
const compiled = compile({ ...openPolicy, gates: [inOrder] }, outline, vocabulary);
const done = (...names: readonly string[]): readonly Completion[] =>
  names.map((name) => ({ item: id(name), on: '2026-11-01', score: null }));
const learner = (...names: readonly string[]) => member({ ...people.wren, completions: done(...names) });

describe('one after the other', () => {
  const opened = (...names: readonly string[]) =>
    ['safety', 'ladder', 'shutter', 'dark', 'dark-text'].filter(
      (name) => decide(compiled, id(name), learner(...names), request).kind === 'open',
    );

  it('opens the first, and each when the one before it is done', () => {
    expect(opened()).toEqual(['safety', 'ladder']);
    expect(opened('ladder')).toEqual(['safety', 'ladder', 'shutter']);
  });

  it('passes over what is not published: nobody could be done with it', () => {
    expect(activity('dark').within?.before).toBe('shutter');
    expect(opened('ladder', 'shutter')).toEqual(['safety', 'ladder', 'shutter', 'dark', 'dark-text']);
    // Done in another order, they open in this one.
    expect(opened('shutter')).toEqual(['safety', 'ladder', 'dark', 'dark-text']);
  });

  it('opens nothing to guests, of whom it is not known what they have done', () => {
    expect(decide(compiled, id('ladder'), people.guest, request).kind).toBe('turned away');
  });

  it('follows the order as it is: moved to the front, an activity comes after nothing', () => {
    const moved = soundOutline(
      items.map((item): Item => (item.id === 'dark' ? { ...item, rank: -1 } : item)),
    );
    expect(activity('dark', moved).within?.before).toBeNull();
    expect(activity('ladder', moved).within?.before).toBe('dark');
  });
});

describe('being done', () => {
  const made = (name: string, ...before: readonly string[]) =>
    completing(compiled, learner(...before), activity(name), null, request).map(({ item }) => item);

  it('is recorded with the day, and the unit and the course when nothing in them is left', () => {
    expect(completing(compiled, learner(), activity('ladder'), 80, request)).toEqual([
      { item: 'ladder', on: '2026-11-20', score: 80 },
    ]);
    expect(made('shutter', 'ladder')).toEqual(['shutter']);
    expect(made('dark', 'ladder', 'shutter')).toEqual(['dark', 'safety', 'induction']);
  });

  it('is recorded once', () => {
    expect(made('ladder', 'ladder')).toEqual([]);
    expect(made('dark', 'ladder', 'shutter', 'safety')).toEqual(['dark', 'induction']);
  });

  it('leaves out what is closed to them then', () => {
    const shut = compile(
      { ...openPolicy, gates: [gate('shut', id('dark'), test('person', 'is', 'nobody@larkfell.example'))] },
      outline,
      vocabulary,
    );
    expect(completing(shut, learner('ladder'), activity('shutter'), null, request)).toHaveLength(3);
    const open = compile({ ...openPolicy, gates: [gate('all', id('dark'), signedIn)] }, outline, vocabulary);
    expect(completing(open, learner('ladder'), activity('shutter'), null, request)).toHaveLength(1);
  });

  it('is never done with a unit while something in it is open and not done', () => {
    const names = ['ladder', 'shutter', 'dark'] as const;
    fc.assert(
      fc.property(policies, fc.subarray([...names]), fc.constantFrom(...names), (policy, before, name) => {
        const some = compile(policy, outline, vocabulary);
        const who = learner(...before);
        const records = completing(some, who, activity(name), null, request);
        if (!records.some(({ item }) => item === 'safety')) return;
        // As it was then: what the unit's own completion opens comes afterwards.
        const after = { ...who, completions: [...(who.completions ?? []), ...records.slice(0, 1)] };
        for (const other of names)
          if (!after.completions.some(({ item }) => item === other))
            expect(decide(some, id(other), after, request).kind).toBe('turned away');
      }),
    );
  });
});
