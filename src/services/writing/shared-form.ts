/** Where shared sections stand, as it comes from outside: from a site file and from the desk. */
import { z } from 'zod';
import {
  type Condition,
  MOST_TESTS,
  type Outline,
  parseCondition,
  printCondition,
  problemOf,
  type Shared,
  SPOTS,
  same,
  selectionProblem,
  type Target,
  testsIn,
  type Vocabulary,
} from '@/core';
import { conditionOrText, whatShape } from '../forms';

/** How many sections a site shares at most. */
export const MOST_SHARED = 500;

/** The spot, the hosts, and whether it also stands where no item is. */
export const standsShape = z.strictObject({
  spot: z.enum(SPOTS),
  on: whatShape(conditionOrText),
  elsewhere: z.boolean().default(false),
});

export type StandsRead = z.output<typeof standsShape>;
type Stands = z.input<typeof standsShape>;

/** Reads where a section stands, or says what is wrong with how its hosts are described. */
export function readStands(
  { spot, on, elsewhere }: StandsRead,
  vocabulary: Vocabulary,
): { readonly shared: Shared } | { readonly problems: readonly string[] } {
  const problems: string[] = [];
  const condition = (where: Condition | string): Condition => {
    const read =
      typeof where === 'string' ? parseCondition(where, vocabulary) : { ok: true as const, condition: where };
    if (!read.ok) {
      problems.push(`Line ${read.error.line}, column ${read.error.column}: ${read.error.message}`);
      return { kind: 'any', of: [] };
    }
    const wrong =
      selectionProblem(read.condition)?.replace('What a gate covers', 'What a section stands on') ??
      testsIn(read.condition)
        .map((test) => problemOf(test, vocabulary))
        .find((problem) => problem !== null && !problem.gone)?.message;
    if (wrong) problems.push(wrong);
    return read.condition;
  };
  const targets = (list: StandsRead['on']['targets']): readonly Target[] =>
    list.map((one) => (one.kind === 'selection' ? { ...one, where: condition(one.where) } : (one as Target)));
  const shared: Shared = {
    spot,
    on: { targets: targets(on.targets), except: targets(on.except) },
    elsewhere,
  };
  const tests = [...shared.on.targets, ...shared.on.except].flatMap((one) =>
    one.kind === 'selection' ? testsIn(one.where) : [],
  ).length;
  if (tests > MOST_TESTS)
    problems.push(`What a section stands on has at most ${MOST_TESTS} tests; these are ${tests}.`);
  return problems.length > 0 ? { problems } : { shared };
}

/** The same as it is written: conditions as text wherever the text reads back to the same, and without what is gone. */
export function writtenStands(
  { spot, on, elsewhere }: Shared,
  { items }: Outline,
  vocabulary: Vocabulary,
): Stands {
  const text = (where: Condition): string | Condition => {
    const printed = printCondition(where, vocabulary);
    const read = parseCondition(printed, vocabulary);
    return read.ok && same(read.condition, where) ? printed : where;
  };
  const targets = (list: readonly Target[]): Stands['on']['targets'] =>
    list.flatMap((one): Stands['on']['targets'] =>
      one.kind === 'selection'
        ? [{ kind: one.kind, where: text(one.where) }]
        : items.has(one.item)
          ? [{ kind: one.kind, item: one.item as string }]
          : [],
    );
  return { spot, on: { targets: targets(on.targets), except: targets(on.except) }, elsewhere };
}
