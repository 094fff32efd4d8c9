/** Policies as they come from outside: their exact shape, their limits, and whether what they name is there. */
import { z } from 'zod';
import {
  audienceCycle,
  audiencesIn,
  type Condition,
  DEEPEST,
  keyOf,
  MOST_TESTS,
  type Outline,
  type Policy,
  problemOf,
  type SiteNames,
  type TurnAway,
  testsIn,
  type Vocabulary,
  vocabularyOf,
} from '@/core';
import { conditionShape, tooDeep } from './condition-form';

const MOST_GATES = 1000;
const MOST_AUDIENCES = 500;
const LONGEST_TEXT = 2000;

const id = z.string().min(1).max(100);
const text = z
  .string()
  .trim()
  .min(1, 'Write something, or choose another reason.')
  .max(LONGEST_TEXT, 'That text is too long.');

const reason = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('written') }),
  z.strictObject({ kind: z.literal('own'), text }),
  z.strictObject({ kind: z.literal('kept back') }),
]);
const next = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('sign in') }),
  z.strictObject({ kind: z.literal('passphrase') }),
  z.strictObject({ kind: z.literal('item'), item: id }),
]);
const turnAway = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('teaser'), text: text.nullable(), reason, next }),
  z.strictObject({
    kind: z.literal('redirect'),
    to: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('sign in') }),
      z.strictObject({ kind: z.literal('passphrase') }),
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
  who: conditionShape,
  otherwise: z.strictObject({
    cases: z.array(z.strictObject({ when: conditionShape, give: turnAway })).max(50),
    last: turnAway,
  }),
  stance: z.enum(['also', 'instead']),
});
const audience = z.strictObject({
  id,
  name: z.string().trim().min(1, 'Give the audience a name.').max(100, 'A name has at most 100 letters.'),
  who: conditionShape,
});
const policy = z.strictObject({
  gates: z.array(gate).max(MOST_GATES, `A site has at most ${MOST_GATES} gates.`),
  audiences: z
    .array(audience)
    .max(MOST_AUDIENCES, `A site has at most ${MOST_AUDIENCES} audiences.`)
    .default([]),
});

/** A problem with one gate or audience, in words. */
export interface PolicyProblem {
  /** The id of the gate or the audience; null for the policy as a whole. */
  readonly gate: string | null;
  readonly message: string;
}

/** What a policy is read against. */
interface Around {
  readonly outline: Outline;
  readonly names: SiteNames;
  /** The policies there are: what they name and is gone meanwhile may stay, because it is unknown of everybody. */
  readonly draft?: { readonly policy: Policy };
  readonly live?: { readonly policy: Policy };
}

/** Reads a policy, or says what is wrong with it and where. */
export function readPolicy(
  input: unknown,
  around: Around,
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
        gate: idAt(input, issue.path),
        message: `${issue.message} (at ${issue.path.join('.') || 'the top'})`,
      })),
    };
  }
  const read = parsed.data as unknown as Policy;
  const problems = [...gateProblems(read, around), ...audienceProblems(read, around)];
  return problems.length > 0 ? { problems } : { policy: read };
}

function gateProblems(read: Policy, around: Around): PolicyProblem[] {
  const vocabulary = vocabularyOf(around.names, read);
  const kept = keptTests(around);
  const problems: PolicyProblem[] = read.gates.flatMap((one) =>
    [
      ...conditionProblems([one.who, ...one.otherwise.cases.map(({ when }) => when)], vocabulary, kept),
      ...placeProblems(one, around.outline),
    ].map((message) => ({ gate: one.id as string, message })),
  );
  const twice = repeated(read.gates.map((one) => one.id));
  if (twice) problems.push({ gate: twice, message: 'Two gates have the same id. Take one of them away.' });
  return problems;
}

function audienceProblems(read: Policy, around: Around): PolicyProblem[] {
  const vocabulary = vocabularyOf(around.names, read);
  const kept = keptTests(around);
  const problems: PolicyProblem[] = read.audiences.flatMap((one) =>
    conditionProblems([one.who], vocabulary, kept).map((message) => ({ gate: one.id as string, message })),
  );
  const named = repeated(read.audiences.map(({ name }) => name.toLowerCase()));
  if (named !== undefined)
    problems.push({ gate: null, message: `Two audiences are called “${named}”. Give one another name.` });
  const twice = repeated(read.audiences.map((one) => one.id));
  if (twice)
    problems.push({ gate: twice, message: 'Two audiences have the same id. Take one of them away.' });
  const cycle = audienceCycle(read.audiences);
  if (cycle) {
    const path = cycle.map((step) => read.audiences.find((one) => one.id === step)?.name ?? step);
    problems.push({
      gate: cycle[0] ?? null,
      message: `An audience can’t be made of itself: ${path.join(' → ')}. Take one of these uses out.`,
    });
  }
  return problems;
}

const repeated = <T>(list: readonly T[]): T | undefined => list.find((one, at) => list.indexOf(one) < at);

/** The tests and uses of the policies there are. */
function keptTests({ draft, live }: Around): ReadonlySet<string> {
  return new Set([draft, live].flatMap((side) => (side ? conditionsOf(side.policy).flatMap(partsOf) : [])));
}

const conditionsOf = (one: Policy): readonly Condition[] => [
  ...one.gates.flatMap((gate) => [gate.who, ...gate.otherwise.cases.map(({ when }) => when)]),
  ...one.audiences.map(({ who }) => who),
];

const partsOf = (condition: Condition): readonly string[] => [
  ...testsIn(condition).map(keyOf),
  ...audiencesIn(condition).map((audience) => keyOf({ kind: 'audience', audience })),
];

function conditionProblems(
  conditions: readonly Condition[],
  vocabulary: Vocabulary,
  kept: ReadonlySet<string>,
): string[] {
  const problems: string[] = [];
  const tests = conditions.flatMap(testsIn);
  if (tests.length > MOST_TESTS)
    problems.push(`A condition has at most ${MOST_TESTS} tests; these are ${tests.length}.`);
  for (const test of tests) {
    const problem = problemOf(test, vocabulary);
    if (problem !== null && !kept.has(keyOf(test))) problems.push(problem.message);
  }
  for (const used of conditions.flatMap(audiencesIn)) {
    const there = vocabulary.audiences.some((one) => one.id === used);
    if (!there && !kept.has(keyOf({ kind: 'audience', audience: used })))
      problems.push(`There is no audience “${used}” any more. Choose another.`);
  }
  return problems;
}

function placeProblems(one: Policy['gates'][number], outline: Outline): string[] {
  const problems: string[] = [];
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

/** The id of the gate or audience in which a problem of shape is. */
function idAt(input: unknown, [list, index]: readonly PropertyKey[]): string | null {
  const found = (input as Record<PropertyKey, { id?: unknown }[]> | null)?.[list ?? '']?.[Number(index)]?.id;
  return typeof found === 'string' ? found : null;
}
