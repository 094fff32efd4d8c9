/** Reading a policy from outside: its shape, and whether what it names is there. */
import {
  audienceCycle,
  audiencesIn,
  type Condition,
  conditionsOfExpectation,
  conditionsOfGate,
  conditionsOfPolicy,
  DEEPEST,
  type Gate,
  type Given,
  givenBy,
  goneNamesIn,
  type ItemId,
  isAddressed,
  keyOf,
  leadsTo,
  MOST_SPELT_OUT,
  MOST_TESTS,
  OPENABLE_KINDS,
  type Outline,
  oneOfKinds,
  ownWordProblem,
  type Policy,
  pathOf,
  pointedIn,
  problemOf,
  renameOwnWords,
  type SiteNames,
  selectionProblem,
  selectionsIn,
  spellingOut,
  type TurnAway,
  testsIn,
  type Vocabulary,
  vocabularyOf,
} from '@/core';
import { tooDeep } from '../forms';
import { policyForm } from './policy-form';

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
  readonly keptTexts: ReadonlySet<string>;
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
  const parsed = policyForm.safeParse(input);
  if (!parsed.success) {
    return {
      problems: parsed.error.issues.slice(0, 20).map((issue) => ({
        gate: idAt(input, issue.path),
        message: `${issue.message} (at ${issue.path.join('.') || 'the top'})`,
      })),
    };
  }
  const read = byIds(parsed.data as unknown as Policy, around.names);
  const against: Against = {
    ...around,
    vocabulary: vocabularyOf(around.names, read),
    kept: keptIn(around),
    keptItems: keptItems(around),
    keptTexts: keptTexts(around),
  };
  const problems = [
    ...gateProblems(read, against),
    ...audienceProblems(read, against),
    ...turnAwayProblems(read, against),
    ...landingProblems(read, against),
    ...expectationProblems(read, against),
  ];
  return problems.length > 0 ? { problems } : { policy: read };
}

function gateProblems(read: Policy, around: Against): PolicyProblem[] {
  const { vocabulary, kept } = around;
  const problems: PolicyProblem[] = read.gates.flatMap((one) =>
    [
      ...conditionProblems(conditionsOfGate(one), vocabulary, kept),
      ...selectionsIn(one).flatMap((where) => selectionProblem(where) ?? []),
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
  const sides = [draft, live].flatMap((side) =>
    side ? conditionsOfPolicy(side.policy).flatMap(partsOf) : [],
  );
  return { parts: new Set(sides), gone };
}

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
  for (const item of pointedIn(one))
    if (!outline.items.has(item) && !kept.has(item))
      problems.push(`There is no item "${item}" any more. Take it out of What.`);
  for (const given of givenBy(one)) {
    if (given.kind !== 'named') problems.push(...turnAwayProblem(given, around));
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
  new Set([draft, live].flatMap((side) => (side ? itemsIn(side.policy) : [])));

/** The texts of the policies there are: an own word whose field went meanwhile may stay, and shows nothing. */
const keptTexts = ({ draft, live }: Around): ReadonlySet<string> =>
  new Set(
    [draft, live].flatMap((side) =>
      side ? ownTurnAways(side.policy).flatMap((give) => (give.kind === 'swap' ? [give.text] : [])) : [],
    ),
  );

/** Every item that a policy points at or leads to. */
const itemsIn = (policy: Policy): readonly string[] => [
  ...policy.gates.flatMap(pointedIn),
  ...policy.expectations.flatMap(pointedIn),
  ...leadsIn(policy),
];

/** Every item that the turn-aways and landing rules of a policy lead to. */
const leadsIn = (policy: Policy): readonly ItemId[] => [
  ...ownTurnAways(policy).flatMap((one) => leadsTo(one) ?? []),
  ...policy.landings.map(({ to }) => to),
];

/** A policy with something done to every turn-away that stands in it. */
const withTurnAways = (policy: Policy, change: (give: TurnAway) => TurnAway): Policy => {
  const given = (one: Given): Given => (one.kind === 'named' ? one : change(one));
  return {
    ...policy,
    gates: policy.gates.map((gate) => ({
      ...gate,
      otherwise: {
        cases: gate.otherwise.cases.map((one) => ({ ...one, give: given(one.give) })),
        last: given(gate.otherwise.last),
      },
    })),
    turnAways: policy.turnAways.map((one) => ({ ...one, give: change(one.give) })),
  };
};

/** The turn-aways that stand in a policy themselves, with and without names. */
const ownTurnAways = ({ gates, turnAways }: Policy): readonly TurnAway[] => [
  ...gates.flatMap(givenBy).flatMap((one) => (one.kind === 'named' ? [] : [one])),
  ...turnAways.map(({ give }) => give),
];

/** What is wrong with a turn-away of the policy's own: where it leads, and what its text shows of the reader. */
function turnAwayProblem(turn: TurnAway, around: Against): string[] {
  const { outline, names, vocabulary } = around;
  const item = leadsTo(turn);
  const own =
    turn.kind === 'swap' && !around.gone && !around.keptTexts.has(turn.text)
      ? ownWordProblem(turn.text, vocabulary)
      : null;
  const group = 'next' in turn && turn.next.kind === 'follow' ? turn.next.group : null;
  const product = 'next' in turn && turn.next.kind === 'buy' ? turn.next.product : null;
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
    ...(product !== null &&
    !names.products.some(({ id }) => id === product) &&
    !around.gone?.has(`product ${product}`)
      ? [`A turn-away offers “${product}”, which is no product any more. Choose another step.`]
      : []),
    ...(own ? [`In the text that stands in its place, line ${own.line}: ${own.message}`] : []),
  ];
}

function turnAwayProblems(read: Policy, around: Against): PolicyProblem[] {
  const problems: PolicyProblem[] = read.turnAways.flatMap((one) =>
    turnAwayProblem(one.give, around).map((message) => ({ gate: one.id as string, message })),
  );
  const named = repeated(read.turnAways.map(({ name }) => name.toLowerCase()));
  if (named !== undefined)
    problems.push({ gate: null, message: `Two turn-aways are called “${named}”. Give one another name.` });
  const twice = repeated(read.turnAways.map((one) => one.id));
  if (twice)
    problems.push({ gate: twice, message: 'Two turn-aways have the same id. Take one of them away.' });
  return problems;
}

/** With what the own words of its texts name kept by ids. */
function byIds(policy: Policy, names: SiteNames): Policy {
  const vocabulary = vocabularyOf(names, policy);
  const text = (give: TurnAway): TurnAway =>
    give.kind === 'swap' ? { ...give, text: renameOwnWords(give.text, vocabulary, 'by id') } : give;
  return withTurnAways(policy, text);
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

function expectationProblems(
  read: Policy,
  { outline, vocabulary, kept, keptItems, gone }: Against,
): PolicyProblem[] {
  const problems: PolicyProblem[] = read.expectations.flatMap((one) =>
    [
      ...conditionProblems(conditionsOfExpectation(one), vocabulary, kept),
      ...selectionsIn(one).flatMap((where) => selectionProblem(where) ?? []),
      ...pointedIn(one)
        .filter((item) => !outline.items.has(item) && !keptItems.has(item) && !gone?.has(`item ${item}`))
        .map((item) => `There is no item "${item}" any more. Take it out of what is expected.`),
    ].map((message) => ({ gate: one.id as string, message })),
  );
  const twice = repeated(read.expectations.map((one) => one.id));
  if (twice)
    problems.push({ gate: twice, message: 'Two expectations have the same id. Take one of them away.' });
  return problems;
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
  const conditions = conditionsOfPolicy(policy);
  const has = (list: readonly { readonly id: string }[], id: string) => list.some((one) => one.id === id);
  const given = policy.gates.flatMap(givenBy);
  const leads = leadsIn(policy);
  const follows = ownTurnAways(policy).flatMap((one) =>
    'next' in one && one.next.kind === 'follow' ? [one.next.group] : [],
  );
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
      ...policy.expectations
        .flatMap(pointedIn)
        .filter((id) => !outline.items.has(id))
        .map((id) => `item ${id}`),
      ...follows
        .filter((id) => !names.groups.some((group) => group.id === id && group.open))
        .map((id) => `group ${id}`),
    ]),
  ];
}
