import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { all, any, type Condition, not, test } from '../condition';
import { describeSelection } from '../sentence';
import { itemsOrNone, selections } from '../testing/arbitraries';
import { id, items, outline, vocabulary } from '../testing/larkfell';
import { parseCondition, printCondition } from '../text';
import { coverage, type Gate, selectionProblem, selectorsOf } from '.';
import { selectedIn } from './selected';

const nightLogs = test('item category', 'is', 'Night logs');
const taken = (where: Condition, stance: Gate['stance'] = 'also', except: Condition[] = []) =>
  [
    ...coverage(
      {
        what: {
          targets: [{ kind: 'selection', where }],
          except: except.map((one) => ({ kind: 'selection', where: one })),
        },
        stance,
      },
      outline,
      vocabulary,
    ),
  ].sort();

describe('a selection', () => {
  it('takes every item of which its condition holds', () => {
    expect(taken(all(test('item kind', 'is', 'post'), nightLogs))).toEqual(['first-light']);
    expect(taken(test('item author', 'contains', 'Halloran'))).toEqual(['mist']);
    expect(taken(test('item address', 'starts with', '/observers'))).toEqual(['charts', 'observers']);
    expect(taken(test('item kind', 'one of', ['file', 'menu']))).toEqual(['dome-key', 'frame', 'top']);
  });

  it('leaves doubt on the closed side: what may be meant is gated, what may not be is not opened', () => {
    const others = all(test('item kind', 'is', 'post'), test('item category', 'is not', 'Field notes'));
    // Nobody gave "Untold" a category. A gate that adds covers it; one that sets gates aside does not.
    expect(taken(others)).toEqual(['first-light', 'untold']);
    expect(taken(others, 'instead')).toEqual(['first-light']);
    const posts = test('item kind', 'is', 'post');
    const notNight = not(nightLogs);
    expect(taken(posts, 'also', [notNight])).toEqual(['first-light', 'untold']);
    expect(taken(posts, 'instead', [notNight])).toEqual(['first-light']);
  });

  it('takes no less where doubt covers than where it does not', () => {
    fc.assert(
      fc.property(selections, itemsOrNone, (where, item) => {
        fc.pre(item !== null);
        const { certain, closed } = selectorsOf(where, vocabulary);
        if (item && certain(item)) expect(closed(item)).toBe(true);
      }),
    );
  });

  it('takes of a whole site what it takes item by item', () => {
    fc.assert(
      fc.property(selections, fc.boolean(), (where, doubt) => {
        const { certain, closed } = selectorsOf(where, vocabulary);
        const takes = doubt ? closed : certain;
        const one = items.filter(takes).map((item) => item.id);
        expect(new Set(selectedIn(where, outline, vocabulary, doubt))).toEqual(new Set(one));
      }),
      { numRuns: 500 },
    );
  });

  it('prints and reads in the text form', () => {
    fc.assert(
      fc.property(selections, (where) => {
        const read = parseCondition(printCondition(where, vocabulary), vocabulary);
        expect(read).toEqual({ ok: true, condition: where });
      }),
    );
  });

  it('asks nothing of visitors, of requests or of the day, and says so', () => {
    fc.assert(
      fc.property(selections, (where) => {
        expect(selectionProblem(where)).toBeNull();
      }),
    );
    expect(selectionProblem(test('signed in', 'is'))).toMatch(/no fact of an item/);
    expect(selectionProblem(not(test('visitor owns item', 'is')))).toMatch(/no fact of an item/);
    expect(selectionProblem({ kind: 'audience', audience: id('a') as never })).toMatch(/of people/);
    expect(selectionProblem(test('item date', 'within the last', 5))).toMatch(/from day to day/);
    expect(selectionProblem(test('item date', 'before', 'today'))).toMatch(/from day to day/);
  });

  it('takes nothing by a name that is gone', () => {
    expect(taken(test('item group', 'includes', 'gone'))).toEqual([]);
    expect(taken(not(test('item group', 'includes', 'gone')), 'instead')).toEqual([]);
  });

  it('takes new items without being asked again', () => {
    expect(taken(any())).toEqual([]);
    expect(taken(all())).toHaveLength(items.length);
  });
});

describe('a selection as plain language', () => {
  const says = (where: Condition) => describeSelection(where, vocabulary);
  it('reads as the items it takes', () => {
    expect(says(all(test('item kind', 'is', 'post'), nightLogs))).toBe('posts in Night logs');
    expect(says(test('item kind', 'one of', ['page', 'file']))).toBe('pages and files');
    expect(says(not(test('item address', 'is', '/')))).toBe('items not at /');
    expect(says(all(test('item kind', 'is', 'file'), test('item owner', 'is set')))).toBe(
      'files with an owner',
    );
    expect(says(all(test('item kind', 'is', 'post'), test('item date', 'before', '2026-11-01')))).toBe(
      'posts whose date is before 1 November 2026',
    );
  });

  it('has words for every selection', () => {
    fc.assert(
      fc.property(selections, (where) => {
        expect(says(where)).not.toMatch(/undefined|\[object|null/);
      }),
    );
  });
});
