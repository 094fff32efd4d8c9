/** Some items, as they come from outside: pointed at or described, minus exclusions. */
import { z } from 'zod';
import { LONGEST_CONDITION } from '@/core';
import { conditionShape } from './condition-form';
import { id } from './text-form';

/** So many items and descriptions at most. */
export const MOST_TARGETS = 500;

/** With conditions of one kind or another: as values, or also as texts. */
export function whatShape<C extends z.ZodType>(condition: C) {
  const targets = z
    .array(
      z.union([
        z.strictObject({ kind: z.literal('selection'), where: condition }),
        z.strictObject({ kind: z.enum(['item', 'branch']), item: id }),
      ]),
    )
    .max(MOST_TARGETS);
  return z.strictObject({ targets, except: targets });
}

/** A condition as a value, or in the text form. */
export const conditionOrText = z.union([
  z
    .string()
    .max(LONGEST_CONDITION)
    .describe('A condition in the text form: signed in and level at least "Observer"'),
  conditionShape,
]);
