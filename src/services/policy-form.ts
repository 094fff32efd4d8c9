/** Policies as they come from outside: their exact shape, their limits, and whether what they name is there. */
import { z } from 'zod';
import {
  audienceCycle,
  audiencesIn,
  type Condition,
  DEEPEST,
  type Gate,
  goneNamesIn,
  isAddressed,
  keyOf,
  LONGEST_CONDITION,
  MOST_SPELT_OUT,
  MOST_TESTS,
  OPENABLE_KINDS,
  type Outline,
  oneOfKinds,
  type Policy,
  pathOf,
  problemOf,
  type SiteNames,
  selectionProblem,
  spellingOut,
  type TurnAway,
  type TurnAwayKind,
  testsIn,
  type Vocabulary,
  valuesOf,
  vocabularyOf,
} from '@/core';
import { conditionShape, tooDeep } from './condition-form';
import { webAddress, words } from './text-form';

const MOST_GATES = 1000;
const MOST_AUDIENCES = 500;
const LONGEST_TEXT = 2000;

const id = z.string().min(1).max(100);
const text = words(LONGEST_TEXT, 'Write something, or choose another reason.', 'That text is too long.');

const reason = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('written') }),
  z.strictObject({ kind: z.literal('own'), text }),
  z.strictObject({ kind: z.literal('kept back') }),
]);
const markdown = words(20_000, 'Write what stands in its place.', 'That text is too long.');
const next = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('sign up') }),
  z.strictObject({ kind: z.literal('follow'), group: id }),
  z.strictObject({
    kind: z.literal('outside'),
    url: webAddress,
    label: words(100, 'Say what stands on the button.', 'That is too long for a button.'),
  }),
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('sign in') }),
  z.strictObject({ kind: z.literal('passphrase') }),
  z.strictObject({ kind: z.literal('item'), item: id }),
]);
const turnAways = {
  teaser: z.strictObject({
    kind: z.literal('teaser'),
    show: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('summary') }),
      z.strictObject({
        kind: z.literal('words'),
        count: z.int().min(1, 'Show at least one word.').max(400, 'A teaser shows at most 400 words.'),
      }),
      z.strictObject({ kind: z.literal('text'), text }),
    ]),
    preview: z.boolean().default(false),
    reason,
    next,
  }),
  redirect: z.strictObject({
    kind: z.literal('redirect'),
    to: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('sign in') }),
      z.strictObject({ kind: z.literal('passphrase') }),
      z.strictObject({ kind: z.literal('item'), item: id }),
      z.strictObject({ kind: z.literal('outside'), url: webAddress }),
    ]),
  }),
  message: z.strictObject({ kind: z.literal('message'), reason, next }),
  missing: z.strictObject({ kind: z.literal('missing') }),
  'leave out': z.strictObject({ kind: z.literal('leave out'), keepSpace: z.boolean().optional() }),
  swap: z.strictObject({ kind: z.literal('swap'), text: markdown }),
  locked: z.strictObject({ kind: z.literal('locked'), reason, next }),
} satisfies Record<TurnAwayKind, z.ZodObject>;
const turnAway = z.discriminatedUnion('kind', valuesOf(turnAways));
const given = z.union([z.strictObject({ kind: z.literal('named'), turnAway: id }), turnAway]);
/** The shape of a policy, with conditions of one kind or another: as values, or also as texts. */
export function policyShape<C extends z.ZodType>(condition: C) {
  const targets = z
    .array(
      z.union([
        z.strictObject({ kind: z.literal('selection'), where: condition }),
        z.strictObject({ kind: z.enum(['item', 'branch']), item: id }),
      ]),
    )
    .max(500);
  const gate = z.strictObject({
    id,
    what: z.strictObject({ targets, except: targets }),
    who: condition,
    otherwise: z.strictObject({
      cases: z.array(z.strictObject({ when: condition, give: given })).max(50),
      last: given,
    }),
    stance: z.enum(['also', 'instead']),
  });
  const audience = z.strictObject({
    id,
    name: words(100, 'Give the audience a name.', 'A name has at most 100 letters.'),
    who: condition,
  });
  const named = z.strictObject({
    id,
    name: words(100, 'Give the turn-away a name.', 'A name has at most 100 letters.'),
    give: turnAway,
  });
  const landing = z.strictObject({
    id,
    after: z.enum(['sign in', 'sign out']),
    when: condition,
    to: id,
    always: z.boolean(),
  });
  const standard = z.strictObject({
    kind: z.enum(OPENABLE_KINDS),
    category: words(200, 'Name the category.').nullable(),
    gate: id,
  });
  return z.strictObject({
    gates: z.array(gate).max(MOST_GATES, `A site has at most ${MOST_GATES} gates.`),
    audiences: z
      .array(audience)
      .max(MOST_AUDIENCES, `A site has at most ${MOST_AUDIENCES} audiences.`)
      .default([]),
    turnAways: z.array(named).max(200, 'A site has at most 200 turn-aways with names.').default([]),
    landings: z.array(landing).max(100, 'A site has at most 100 landing rules.').default([]),
    defaults: z.array(standard).max(100, 'A site has at most 100 defaults.').default([]),
  });
}

const policy = policyShape(conditionShape);

/** The shape of a policy in a file, where conditions may stand in the text form. */
export const policyInFile = policyShape(
  z.union([
    z
      .string()
      .max(LONGEST_CONDITION)
      .describe('A condition in the text form: signed in and level at least "Observer"'),
    conditionShape,
  ]),
);
export type PolicyInFile = z.output<typeof policyInFile>;

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
  /** What a site file says is gone: "group dome-crew". What names it may stay as well, and is unknown of everybody. */
  readonly gone?: ReadonlySet<string>;
}

/** The same with what is worked out of it once for all of a policy. */
interface Against extends Around {
  readonly vocabulary: Vocabulary;
  readonly kept: Kept;
  readonly keptItems: ReadonlySet<string>;
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
  const against: Against = {
    ...around,
    vocabulary: vocabularyOf(around.names, read),
    kept: keptIn(around),
    keptItems: keptItems(around),
  };
  const problems = [
    ...gateProblems(read, against),
    ...audienceProblems(read, against),
    ...turnAwayProblems(read, against),
    ...landingProblems(read, against),
  ];
  return problems.length > 0 ? { problems } : { policy: read };
}

function gateProblems(read: Policy, around: Against): PolicyProblem[] {
  const { vocabulary, kept } = around;
  const problems: PolicyProblem[] = read.gates.flatMap((one) =>
    [
      ...conditionProblems(
        [one.who, ...wheresIn(one), ...one.otherwise.cases.map(({ when }) => when)],
        vocabulary,
        kept,
      ),
      ...wheresIn(one).flatMap((where) => selectionProblem(where) ?? []),
      ...placeProblems(one, around, read),
    ].map((message) => ({ gate: one.id as string, message })),
  );
  const twice = repeated(read.gates.map((one) => one.id));
  if (twice) problems.push({ gate: twice, message: 'Two gates have the same id. Take one of them away.' });
  return problems;
}

function audienceProblems(read: Policy, { vocabulary, kept }: Against): PolicyProblem[] {
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

function repeated<T>(list: readonly T[]): T | undefined {
  const seen = new Set<T>();
  return list.find((one) => seen.has(one) || !seen.add(one));
}

/** What may stay though it names what is gone: the tests and uses of the policies there are, and what a file lists. */
interface Kept {
  readonly parts: ReadonlySet<string>;
  readonly gone: ReadonlySet<string>;
}

function keptIn({ draft, live, gone = new Set() }: Around): Kept {
  const sides = [draft, live].flatMap((side) => (side ? conditionsOf(side.policy).flatMap(partsOf) : []));
  return { parts: new Set(sides), gone };
}

const wheresIn = ({ what }: Gate): readonly Condition[] =>
  [...what.targets, ...what.except].flatMap((target) => (target.kind === 'selection' ? [target.where] : []));

const conditionsOf = (one: Policy): readonly Condition[] => [
  ...one.gates.flatMap((gate) => [
    gate.who,
    ...wheresIn(gate),
    ...gate.otherwise.cases.map(({ when }) => when),
  ]),
  ...one.landings.map(({ when }) => when),
  ...one.audiences.map(({ who }) => who),
];

const partsOf = (condition: Condition): readonly string[] => [
  ...testsIn(condition).map(keyOf),
  ...audiencesIn(condition).map((audience) => keyOf({ kind: 'audience', audience })),
];

// The audiences of a policy are looked at once, however many conditions use them.
const sizes = new WeakMap<readonly unknown[], ReturnType<typeof spellingOut>>();
function speltOut(audiences: Vocabulary['audiences']): ReturnType<typeof spellingOut> {
  const found = sizes.get(audiences) ?? spellingOut(audiences);
  sizes.set(audiences, found);
  return found;
}

function conditionProblems(conditions: readonly Condition[], vocabulary: Vocabulary, kept: Kept): string[] {
  const problems: string[] = [];
  const tests = conditions.flatMap(testsIn);
  if (tests.length > MOST_TESTS)
    problems.push(`A condition has at most ${MOST_TESTS} tests; these are ${tests.length}.`);
  const sizeOf = speltOut(vocabulary.audiences);
  const size = conditions.reduce((sum, one) => sum + sizeOf(one), 0);
  if (size > MOST_SPELT_OUT && size < Number.POSITIVE_INFINITY)
    problems.push(
      `With its audiences spelt out this comes to ${size > 1e6 ? 'millions of' : size} tests, and ${MOST_SPELT_OUT} is the most. Use each audience once.`,
    );
  for (const test of tests) {
    const problem = problemOf(test, vocabulary);
    if (problem === null || kept.parts.has(keyOf(test))) continue;
    const listed = problem.gone && goneNamesIn(test, vocabulary).every((one) => kept.gone.has(one));
    if (!listed) problems.push(problem.message);
  }
  for (const used of conditions.flatMap(audiencesIn)) {
    const there = vocabulary.audiences.some((one) => one.id === used);
    if (
      !there &&
      !kept.gone.has(`audience ${used}`) &&
      !kept.parts.has(keyOf({ kind: 'audience', audience: used }))
    )
      problems.push(`There is no audience “${used}” any more. Choose another.`);
  }
  return problems;
}

function placeProblems(one: Gate, around: Against, read: Policy): string[] {
  const problems: string[] = [];
  const { outline, keptItems: kept } = around;
  for (const target of [...one.what.targets, ...one.what.except]) {
    if (target.kind !== 'selection' && !outline.items.has(target.item) && !kept.has(target.item))
      problems.push(`There is no item "${target.item}" any more. Take it out of What.`);
  }
  for (const given of [...one.otherwise.cases.map((entry) => entry.give), one.otherwise.last]) {
    if (given.kind !== 'named') problems.push(...leadProblems(given, around));
    else if (
      !read.turnAways.some(({ id }) => id === given.turnAway) &&
      !around.gone?.has(`turn-away ${given.turnAway}`)
    )
      problems.push('A turn-away with a name is used that no longer exists. Choose another.');
  }
  return problems;
}

/** What the policies there are already point at: an item that was taken away meanwhile may stay, and leads nowhere. */
const keptItems = ({ draft, live }: Around): ReadonlySet<string> =>
  new Set(
    [draft, live].flatMap((side) => {
      if (!side) return [];
      const { gates, turnAways, landings } = side.policy;
      return [
        ...gates.flatMap(({ what, otherwise }) => [
          ...[...what.targets, ...what.except].flatMap((one) => (one.kind === 'selection' ? [] : [one.item])),
          ...[...otherwise.cases.map(({ give }) => give), otherwise.last].flatMap((given) =>
            given.kind === 'named' ? [] : (itemOf(given) ?? []),
          ),
        ]),
        ...turnAways.flatMap(({ give }) => itemOf(give) ?? []),
        ...landings.map(({ to }) => to),
      ];
    }),
  );

function leadProblems(turn: TurnAway, around: Against): string[] {
  const { outline, names } = around;
  const item = itemOf(turn);
  const group = 'next' in turn && turn.next.kind === 'follow' ? turn.next.group : null;
  return [
    ...(item !== null &&
    pathOf(outline.items.get(item)) === null &&
    !around.keptItems.has(item) &&
    !around.gone?.has(`item ${item}`)
      ? [`A turn-away leads to "${item}", which can’t be opened. Choose ${oneOfKinds(OPENABLE_KINDS)}.`]
      : []),
    ...(group !== null &&
    !names.groups.some(({ id, open }) => id === group && open) &&
    !around.gone?.has(`group ${group}`)
      ? [`A turn-away offers the way into "${group}", which is no open group. Choose another step.`]
      : []),
  ];
}

function turnAwayProblems(read: Policy, around: Against): PolicyProblem[] {
  const problems: PolicyProblem[] = read.turnAways.flatMap((one) =>
    leadProblems(one.give, around).map((message) => ({ gate: one.id as string, message })),
  );
  const named = repeated(read.turnAways.map(({ name }) => name.toLowerCase()));
  if (named !== undefined)
    problems.push({ gate: null, message: `Two turn-aways are called “${named}”. Give one another name.` });
  const twice = repeated(read.turnAways.map((one) => one.id));
  if (twice)
    problems.push({ gate: twice, message: 'Two turn-aways have the same id. Take one of them away.' });
  return problems;
}

function landingProblems(read: Policy, around: Against): PolicyProblem[] {
  const { vocabulary, kept } = around;
  return read.landings.flatMap(({ id, to, when }) => [
    ...conditionProblems([when], vocabulary, kept).map((message) => ({ gate: id as string, message })),
    ...(isAddressed(around.outline.items.get(to)) ||
    around.keptItems.has(to) ||
    around.gone?.has(`item ${to}`)
      ? []
      : [{ gate: id as string, message: 'A landing rule leads to nothing. Choose a page for it.' }]),
  ]);
}

function itemOf(turn: TurnAway) {
  if (turn.kind === 'redirect') return turn.to.kind === 'item' ? turn.to.item : null;
  return 'next' in turn && turn.next.kind === 'item' ? turn.next.item : null;
}

/** The id of the gate or audience in which a problem of shape is. */
function idAt(input: unknown, [list, index]: readonly PropertyKey[]): string | null {
  const found = (input as Record<PropertyKey, { id?: unknown }[]> | null)?.[list ?? '']?.[Number(index)]?.id;
  return typeof found === 'string' ? found : null;
}

/**
 * Everything that a policy names and that is gone, as a site file lists it. A follow step into a group that is no longer open
 * counts as well: it can't be offered.
 */
export function goneIn(policy: Policy, outline: Outline, names: SiteNames): readonly string[] {
  const vocabulary = vocabularyOf(names, policy);
  const conditions = conditionsOf(policy);
  const has = (list: readonly { readonly id: string }[], id: string) => list.some((one) => one.id === id);
  const given = policy.gates.flatMap(({ otherwise }) => [
    ...otherwise.cases.map(({ give }) => give),
    otherwise.last,
  ]);
  const own = [...given, ...policy.turnAways.map(({ give }) => give)].flatMap((one) =>
    one.kind === 'named' ? [] : [one],
  );
  const leads = [...own.flatMap((one) => itemOf(one) ?? []), ...policy.landings.map(({ to }) => to)];
  const follows = own.flatMap((one) => ('next' in one && one.next.kind === 'follow' ? [one.next.group] : []));
  return [
    ...new Set([
      ...conditions.flatMap(testsIn).flatMap((test) => goneNamesIn(test, vocabulary)),
      ...conditions
        .flatMap(audiencesIn)
        .filter((id) => !has(policy.audiences, id))
        .map((id) => `audience ${id}`),
      ...given.flatMap((one) =>
        one.kind === 'named' && !has(policy.turnAways, one.turnAway) ? [`turn-away ${one.turnAway}`] : [],
      ),
      ...leads.filter((id) => pathOf(outline.items.get(id)) === null).map((id) => `item ${id}`),
      ...follows
        .filter((id) => !names.groups.some((group) => group.id === id && group.open))
        .map((id) => `group ${id}`),
    ]),
  ];
}
