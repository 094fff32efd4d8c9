import type { Item } from '../site/item';
import { beforeOf } from '../site/within';
import { type Condition, testOf } from './condition';
import { fold } from './fold';

/** A condition asked about an item, with what comes before it called by its name. */
export const withOneBefore = (condition: Condition, at: Item): Condition =>
  fold<Condition>(condition, {
    group: (of, group) => ({ ...group, of }),
    not: (of) => ({ kind: 'not', of }),
    audience: (use) => use,
    test: (test) => {
      const before = test.fact === 'completed the one before' ? beforeOf(at) : null;
      // Before the first there is nothing to be done; it is so of everybody of whom anything is known.
      return before === null || before.id === null ? test : testOf('completed', before.id, 'is');
    },
  });
