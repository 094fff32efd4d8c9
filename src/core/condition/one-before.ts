import type { Item } from '../site/item';
import { beforeOf } from '../site/within';
import { type Condition, signedIn, testOf } from './condition';
import { fold } from './fold';

/** A condition asked about an item, with what comes before it called by its name. */
export const withOneBefore = (condition: Condition, at: Item): Condition =>
  fold<Condition>(condition, {
    group: (of, group) => ({ ...group, of }),
    not: (of) => ({ kind: 'not', of }),
    audience: (use) => use,
    test: (test) => {
      const before = test.fact === 'completed the one before' ? beforeOf(at) : null;
      if (before === null) return test;
      // Before the first there is nothing to be done, but by somebody of whom that is known.
      return before.id === null ? signedIn : testOf('completed', before.id, 'is');
    },
  });
