/** Policies as they come from outside: their exact shape, their limits, and whether what they name is there. */
import { z } from 'zod';
import {
  type Condition,
  factNamed,
  type Outline,
  type Policy,
  type TurnAway,
  testsIn,
  testValue,
  type Vocabulary,
} from '@/core';

const MOST_GATES = 1000;
const MOST_TESTS = 200;
const DEEPEST = 40;
const LONGEST_TEXT = 2000;

const id = z.string().min(1).max(100);
const text = z
  .string()
  .trim()
  .min(1, 'Write something, or choose another reason.')
  .max(LONGEST_TEXT, 'That text is too long.');

const test = z.union([
  z.strictObject({ kind: z.literal('test'), fact: z.literal('signed in'), op: z.literal('is') }),
  z.strictObject({
    kind: z.literal('test'),
    fact: z.enum(['role', 'group']),
    op: z.literal('includes'),
    value: id,
  }),
  z.strictObject({
    kind: z.literal('test'),
    fact: z.literal('level'),
    op: z.enum(['at least', 'exactly', 'at most']),
    value: id,
  }),
  z.strictObject({ kind: z.literal('test'), fact: z.literal('level'), op: z.enum(['is set', 'is not set']) }),
]);

const condition: z.ZodType<Condition> = z.lazy(() =>
  z.union([
    z.strictObject({ kind: z.enum(['all', 'any']), of: z.array(condition).max(MOST_TESTS) }),
    z.strictObject({ kind: z.literal('not'), of: condition }),
    test as unknown as z.ZodType<Condition>,
  ]),
);

const reason = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('written') }),
  z.strictObject({ kind: z.literal('own'), text }),
  z.strictObject({ kind: z.literal('kept back') }),
]);
const next = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('sign in') }),
  z.strictObject({ kind: z.literal('item'), item: id }),
]);
const turnAway = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('teaser'), text: text.nullable(), reason, next }),
  z.strictObject({
    kind: z.literal('redirect'),
    to: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('sign in') }),
      z.strictObject({ kind: z.literal('item'), item: id }),
    ]),
  }),
  z.strictObject({ kind: z.literal('message'), reason, next }),
  z.strictObject({ kind: z.literal('missing') }),
  z.strictObject({ kind: z.literal('leave out') }),
]);
const targets = z.array(z.strictObject({ kind: z.enum(['item', 'branch']), item: id })).max(500);
const gate = z.strictObject({
  id,
  what: z.strictObject({ targets, except: targets }),
  who: condition,
  otherwise: z.strictObject({
    cases: z.array(z.strictObject({ when: condition, give: turnAway })).max(50),
    last: turnAway,
  }),
  stance: z.enum(['also', 'instead']),
});
const policy = z.strictObject({
  gates: z.array(gate).max(MOST_GATES, `A site has at most ${MOST_GATES} gates.`),
});

/** A problem with one gate, in words. */
export interface PolicyProblem {
  readonly gate: string | null;
  readonly message: string;
}

/** Reads a policy, or says what is wrong with it and where. */
export function readPolicy(
  input: unknown,
  outline: Outline,
  vocabulary: Vocabulary,
): { readonly policy: Policy } | { readonly problems: readonly PolicyProblem[] } {
  if (tooDeep(input)) {
    return {
      problems: [
        { gate: null, message: `A condition is nested more than ${DEEPEST} deep. Take some groups apart.` },
      ],
    };
  }
  const parsed = policy.safeParse(input);
  if (!parsed.success) {
    return {
      problems: parsed.error.issues.slice(0, 20).map((issue) => ({
        gate: gateIdAt(input, issue.path[1]),
        message: `${issue.message} (at ${issue.path.join('.') || 'the top'})`,
      })),
    };
  }
  const read = parsed.data as unknown as Policy;
  const problems = read.gates.flatMap((one) =>
    problemsOf(one, outline, vocabulary).map((message) => ({ gate: one.id, message })),
  );
  const twice = read.gates.find((one, index) => read.gates.findIndex((other) => other.id === one.id) < index);
  if (twice) problems.push({ gate: twice.id, message: 'Two gates have the same id. Take one of them away.' });
  return problems.length > 0 ? { problems } : { policy: read };
}

function problemsOf(one: Policy['gates'][number], outline: Outline, vocabulary: Vocabulary): string[] {
  const problems: string[] = [];
  const conditions = [one.who, ...one.otherwise.cases.map((entry) => entry.when)];
  const tests = conditions.flatMap(testsIn);
  if (tests.length > MOST_TESTS)
    problems.push(`A gate has at most ${MOST_TESTS} tests; this one has ${tests.length}.`);
  for (const one of tests) {
    const value = testValue(one);
    if (
      value !== '' &&
      !factNamed(one.fact)
        .choices(vocabulary)
        .some((choice) => choice.id === value)
    ) {
      problems.push(`There is no ${one.fact} "${value}" any more. Choose another.`);
    }
  }
  for (const target of [...one.what.targets, ...one.what.except]) {
    if (!outline.items.has(target.item))
      problems.push(`There is no item "${target.item}" any more. Take it out of What.`);
  }
  for (const turn of [...one.otherwise.cases.map((entry) => entry.give), one.otherwise.last]) {
    const item = itemOf(turn);
    if (item !== null && outline.items.get(item)?.kind !== 'page') {
      problems.push(`A turn-away leads to "${item}", which is no page. Choose a page.`);
    }
  }
  return problems;
}

function itemOf(turn: TurnAway) {
  if (turn.kind === 'redirect') return turn.to.kind === 'item' ? turn.to.item : null;
  if (turn.kind === 'teaser' || turn.kind === 'message')
    return turn.next.kind === 'item' ? turn.next.item : null;
  return null;
}

function gateIdAt(input: unknown, index: PropertyKey | undefined): string | null {
  const gates = (input as { gates?: { id?: unknown }[] } | null)?.gates;
  const found = Array.isArray(gates) && typeof index === 'number' ? gates[index]?.id : null;
  return typeof found === 'string' ? found : null;
}

/** Looked at without recursion, so that no depth of nesting can exhaust the stack. */
function tooDeep(input: unknown): boolean {
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
