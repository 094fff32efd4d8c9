/**
 * What has become of expectations: each is proved of every visitor there could be, on every day from one on, or refuted by
 * somebody who gets from `decide` what nobody should.
 */
import { aspectOf, audiencesIn, type Condition, expanded, problemOf, testsIn } from '../condition';
import { allows, conditionsOfExpectation, type Expectation } from '../expectation';
import { coverage, pointedIn, TURN_AWAY_KINDS } from '../gate';
import type { ExpectationId, ItemId } from '../ids';
import { type CompiledPolicy, decide, type Outcome, outcomeOf } from '../policy';
import type { Item, RequestFacts, VisitorFacts } from '../site';
import { closed } from './axioms';
import { type Diagram, NONE, orElse, Undecided } from './diagram';
import { type Outcomes, outcomesIn } from './outcomes';
import type { Reach } from './reach';
import type { Asked } from './things';

/** Somebody who gets what nobody should. */
export interface Counterexample {
  readonly visitor: VisitorFacts;
  readonly request: RequestFacts;
  readonly item: ItemId;
  readonly gets: Outcome;
}

export type Verdict =
  /** True at so many items; about nobody where no visitor there could be is meant. */
  | { readonly kind: 'holds'; readonly items: number; readonly aboutNobody: boolean }
  | {
      readonly kind: 'broken';
      readonly items: readonly ItemId[];
      readonly witness: Counterexample;
      /** Another expectation that can't be true while this one is. */
      readonly against: ExpectationId | null;
    }
  /** It names what is no longer there, so that nothing can be shown. */
  | { readonly kind: 'gone' }
  | { readonly kind: 'not decided'; readonly why: string };

/** Whether something may go live with it. */
export const stands = ({ kind }: Verdict): boolean => kind === 'holds';

/** Everything that the expectations of a policy ask, of every item that they ask about. */
export function* askedByExpectations(compiled: CompiledPolicy): Iterable<Asked> {
  const { outline, vocabulary, policy } = compiled;
  for (const expectation of policy.expectations) {
    const tests = testsIn(expanded(expectation.who, vocabulary.audiences));
    for (const item of ofEachAspect(expectation.who, itemsOf(expectation, compiled), compiled))
      for (const test of tests) yield { test, item: outline.items.get(item) ?? null };
  }
}

const itemsOf = ({ what }: Expectation, { outline, vocabulary }: CompiledPolicy): ReadonlySet<ItemId> =>
  // What may be meant is meant: so is what has no category, where one is asked for.
  coverage({ what, stance: 'also' }, outline, vocabulary);

/** One item of each kind that a condition tells apart. */
function ofEachAspect(
  who: Condition,
  items: Iterable<ItemId>,
  { outline, vocabulary }: CompiledPolicy,
): readonly ItemId[] {
  const aspect = aspectOf([who], vocabulary);
  const first = new Map<string, ItemId>();
  for (const id of items) {
    const item = outline.items.get(id);
    const key = aspect === null || !item ? '' : aspect(item);
    if (!first.has(key)) first.set(key, id);
  }
  return [...first.values()];
}

function namesWhatIsGone(expectation: Expectation, { outline, vocabulary }: CompiledPolicy): boolean {
  const there = new Set<string>(vocabulary.audiences.map(({ id }) => id));
  return (
    pointedIn(expectation).some((item) => !outline.items.has(item)) ||
    conditionsOfExpectation(expectation).some(
      (condition) =>
        audiencesIn(condition).some((audience) => !there.has(audience)) ||
        testsIn(expanded(condition, vocabulary.audiences)).some(
          (test) => problemOf(test, vocabulary) !== null,
        ),
    )
  );
}

/** The verdict on each expectation of a policy, in their order. */
export function verdictsOn(reach: Reach): readonly Verdict[] {
  const outcomes = outcomesIn(reach);
  const { expectations } = reach.compiled.policy;
  const made = expectations.map((one) => {
    if (namesWhatIsGone(one, reach.compiled)) return { kind: 'gone' } as const;
    return orElse<Verdict, Verdict>(
      () => verdictOn(one, reach, outcomes),
      ({ message }) => ({ kind: 'not decided', why: message }),
    );
  });
  return made.map((verdict, at) => {
    const expectation = expectations[at];
    if (verdict.kind !== 'broken' || !expectation) return verdict;
    const against = expectations.find(
      (other, place) => place !== at && made[place]?.kind !== 'gone' && clash(expectation, other, reach),
    );
    return { ...verdict, against: against?.id ?? null };
  });
}

/** Those of whom something is said: of *only* it is everybody else. */
function meant({ who, claim }: Expectation, item: Item | null, { space, possible, meeting }: Reach): Diagram {
  const those = meeting(who, item);
  return space.and(possible, claim.kind === 'only opens' ? space.not(those) : those);
}

function verdictOn(expectation: Expectation, reach: Reach, outcomes: (item: ItemId) => Outcomes): Verdict {
  const { compiled, space, somebodyIn, following } = reach;
  const { outline, vocabulary } = compiled;
  const aspect = aspectOf([expectation.who], vocabulary);
  const items = itemsOf(expectation, compiled);
  const known = new Map<string, boolean>();
  const whom = new Map<string, Diagram>();
  const broken: ItemId[] = [];
  let witness: Counterexample | null = null;
  let anybody = false;
  for (const id of items) {
    const item = outline.items.get(id) ?? null;
    const told = aspect === null || item === null ? '' : aspect(item);
    const those = whom.get(told) ?? space.attempt(() => meant(expectation, item, reach));
    whom.set(told, those);
    anybody ||= those !== NONE;
    const key = `${item?.kind} ${reach.wayTo(id)} ${told}`;
    let isBroken = known.get(key);
    if (isBroken === undefined) {
      const wrong = [...outcomes(id)].flatMap(([outcome, gets]) =>
        allows(expectation.claim, outcome) ? [] : [gets],
      );
      const set = space.attempt(() => space.and(those, space.any(wrong)));
      isBroken = set !== NONE;
      known.set(key, isBroken);
      if (isBroken && witness === null) {
        const found = somebodyIn(set);
        const visitor = found && closed(found.visitor, following);
        const gets = found && visitor && outcomeOf(decide(compiled, id, visitor, found.request));
        if (!gets || allows(expectation.claim, gets))
          throw new Undecided('Nobody could be found to show it.');
        witness = { visitor, request: found.request, item: id, gets };
      }
    }
    if (isBroken) broken.push(id);
  }
  return witness === null
    ? { kind: 'holds', items: items.size, aboutNobody: !anybody }
    : { kind: 'broken', items: broken, witness, against: null };
}

const EVERY_OUTCOME: readonly Outcome[] = ['open', ...TURN_AWAY_KINDS];

/** Whether two expectations can't both be true: they say of somebody at one item what no outcome fulfils. */
function clash(one: Expectation, other: Expectation, reach: Reach): boolean {
  if (EVERY_OUTCOME.some((outcome) => allows(one.claim, outcome) && allows(other.claim, outcome)))
    return false;
  const theirs = itemsOf(other, reach.compiled);
  const shared = [...itemsOf(one, reach.compiled)].filter((id) => theirs.has(id));
  return orElse(
    () =>
      ofEachAspect({ kind: 'all', of: [one.who, other.who] }, shared, reach.compiled).some((id) => {
        const item = reach.compiled.outline.items.get(id) ?? null;
        const both = () => reach.space.and(meant(one, item, reach), meant(other, item, reach));
        return reach.space.attempt(both) !== NONE;
      }),
    () => false,
  );
}
