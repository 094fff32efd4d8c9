/** Conditions as they come from outside: their exact shape and their limits. Names are checked afterwards. */
import { z } from 'zod';
import { type Condition, DEEPEST, FACT_NAMES, MOST_TESTS, OPERATOR_NAMES } from '@/core';

const name = z.string().min(1).max(500);
const values = z.union([
  z.string().max(500),
  z.number(),
  z.array(z.string().max(500)).max(100),
  z.array(z.number()).max(100),
]);

const test = z.strictObject({
  kind: z.literal('test'),
  fact: z.enum(FACT_NAMES),
  subject: name.optional(),
  op: z.enum(OPERATOR_NAMES),
  value: values.optional(),
});

/** The shape of a condition. Ask {@link tooDeep} first: it reads as deep as its input goes. */
export const conditionShape: z.ZodType<Condition> = z.lazy(() =>
  z.union([
    z.strictObject({ kind: z.enum(['all', 'any']), of: z.array(conditionShape).max(MOST_TESTS) }),
    z.strictObject({ kind: z.literal('not'), of: conditionShape }),
    z.strictObject({ kind: z.literal('audience'), audience: name }) as unknown as z.ZodType<Condition>,
    test as unknown as z.ZodType<Condition>,
  ]),
);

/** Whether something is nested deeper than a policy's conditions may be. Looked at without recursion. */
export function tooDeep(input: unknown): boolean {
  let layer: unknown[] = [input];
  // A gate's own parts add to the depth of the condition in them, and each level of a condition takes two.
  for (let depth = 0; depth < DEEPEST * 2 + 8; depth++) {
    layer = layer.flatMap((value) =>
      typeof value === 'object' && value !== null ? Object.values(value) : [],
    );
    if (layer.length === 0) return false;
  }
  return true;
}
