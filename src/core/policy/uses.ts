/** Where things are used: an audience in gates and other audiences, a role or a field in whatever asks for it. */
import { audiencesIn, type Condition, factNamed, listOf, type Test, testsIn } from '../condition';
import { conditionsOfExpectation, type Expectation } from '../expectation/expectation';
import { casesIn, type Gate, givenBy, resolveGiven, selectionsIn } from '../gate';
import type { TurnAwayId } from '../ids';
import type { Audience, NameKind } from '../site';
import { namedInOwnWords } from '../text/own-words';
import type { Landing, Policy } from './policy';

/** One place where something is used. */
export type Use =
  | { readonly kind: 'gate'; readonly gate: Gate; readonly leg: 'what' | 'who' | 'otherwise' }
  | { readonly kind: 'audience'; readonly audience: Audience }
  | { readonly kind: 'landing'; readonly landing: Landing }
  | { readonly kind: 'expectation'; readonly expectation: Expectation };

/** The places whose conditions, or whose texts, fulfil a question, in the order of the policy. */
function placesWhere(
  policy: Policy,
  asks: (condition: Condition) => boolean,
  says: (text: string) => boolean = () => false,
): readonly Use[] {
  const gives = (gate: Gate) =>
    givenBy(gate)
      .map((given) => resolveGiven(given, policy.turnAways))
      .some((give) => give.kind === 'swap' && says(give.text));
  return [
    ...policy.gates.flatMap((gate): Use[] => [
      ...(selectionsIn(gate).some(asks) ? [{ kind: 'gate', gate, leg: 'what' } as const] : []),
      ...(asks(gate.who) ? [{ kind: 'gate', gate, leg: 'who' } as const] : []),
      ...(casesIn(gate).some(asks) || gives(gate) ? [{ kind: 'gate', gate, leg: 'otherwise' } as const] : []),
    ]),
    ...policy.audiences.flatMap((audience): Use[] =>
      asks(audience.who) ? [{ kind: 'audience', audience }] : [],
    ),
    ...policy.landings.flatMap((landing): Use[] =>
      asks(landing.when) ? [{ kind: 'landing', landing }] : [],
    ),
    ...policy.expectations.flatMap((expectation): Use[] =>
      conditionsOfExpectation(expectation).some(asks) ? [{ kind: 'expectation', expectation }] : [],
    ),
  ];
}

/** The gates that give a turn-away with a name. */
export const gatesGiving = (policy: Policy, turnAway: TurnAwayId): readonly Gate[] =>
  policy.gates.filter((gate) =>
    givenBy(gate).some((give) => give.kind === 'named' && give.turnAway === turnAway),
  );

/** Where a thing with a name is used. */
export function usesOf(policy: Policy, kind: NameKind, id: string): readonly Use[] {
  const name = `${kind} ${id}`;
  return placesWhere(
    policy,
    (condition) => namedIn(condition).includes(name),
    (text) => namedInOwnWords(text).includes(name),
  );
}

/** Everything with a name that is used somewhere, as "kind id". */
export function namesUsed(policy: Policy): ReadonlySet<string> {
  const used = new Set<string>();
  const noted = (names: readonly string[]): boolean => {
    for (const name of names) used.add(name);
    // Never found, so that every place is looked at.
    return false;
  };
  placesWhere(
    policy,
    (condition) => noted(namedIn(condition)),
    (text) => noted(namedInOwnWords(text)),
  );
  return used;
}

/** The things that a condition names, as "kind id". */
export const namedIn = (condition: Condition): readonly string[] => [
  ...audiencesIn(condition).map((id) => `audience ${id}`),
  ...testsIn(condition).flatMap(namedInTest),
];

/** Where the tests of a profile field are used that a question is true of. */
export const usesWhere = (policy: Policy, asks: (test: Test) => boolean): readonly Use[] =>
  placesWhere(policy, (condition) => testsIn(condition).some(asks));

function namedInTest(test: Test): readonly string[] {
  const { subject, values } = factNamed(test.fact);
  return [
    ...(subject !== null && subject !== 'text' ? [`${subject} ${test.subject}`] : []),
    ...(values !== null ? listOf(test.value).map((id) => `${values} ${id}`) : []),
  ];
}
