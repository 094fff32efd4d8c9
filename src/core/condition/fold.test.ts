import fc from 'fast-check';
import { expect, it } from 'vitest';
import { conditions } from '../testing/arbitraries';
import { all, any, inAudience, keyOf, test as made, not, signedIn } from './condition';
import { fold, foldPushed } from './fold';
import { and, not as denied, FALSE, or, TRUE, type Truth, UNKNOWN } from './truth';

/** A truth for every leaf, by chance of its key: what a walk makes of a condition must not depend on how it walks. */
const chance = (key: string): Truth => [TRUE, FALSE, UNKNOWN][key.length % 3] ?? UNKNOWN;

it('pushes not down without changing any truth value', () => {
  fc.assert(
    fc.property(conditions, (condition) => {
      const straight = fold<Truth>(condition, {
        group: (parts, { kind }) => (kind === 'all' ? and(parts) : or(parts)),
        not: denied,
        audience: (use) => chance(keyOf(use)),
        test: (test) => chance(keyOf(test)),
      });
      const leaf = (key: string, holds: boolean) => (holds ? chance(key) : denied(chance(key)));
      const pushed = foldPushed<Truth>(condition, {
        all: and,
        any: or,
        audience: (use, holds) => leaf(keyOf(use), holds),
        test: (test, holds) => leaf(keyOf(test), holds),
      });
      expect(pushed).toBe(straight);
    }),
  );
});

it('makes a condition again from its parts', () => {
  fc.assert(
    fc.property(conditions, (condition) => {
      const again = fold<typeof condition>(condition, {
        group: (of, group) => ({ ...group, of }),
        not: (of) => ({ kind: 'not', of }),
        audience: (use) => use,
        test: (test) => test,
      });
      expect(again).toEqual(condition);
    }),
  );
});

it('tells what is denied, and of what', () => {
  const level = made('level', 'is set');
  const told = foldPushed<string>(not(all(signedIn, not(any(level, inAudience('crew' as never))))), {
    all: (parts) => `(${parts.join(' and ')})`,
    any: (parts) => `(${parts.join(' or ')})`,
    audience: ({ audience }, holds) => `${holds ? '' : 'not '}${audience}`,
    test: ({ fact }, holds) => `${holds ? '' : 'not '}${fact}`,
  });
  expect(told).toBe('(not signed in or (level or crew))');
});
