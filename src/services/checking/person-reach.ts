/** One person's page: everything known of them, and what they can reach and why. */
import {
  asId,
  buyingWays,
  capital,
  decide,
  describeBecause,
  describeBuying,
  describeChanges,
  describeDecision,
  describeWho,
  explain,
  hasPlace,
  type ItemId,
  isAddressed,
  isPurchaseOf,
  listed,
  type Member,
  type Outcome,
  openers,
  outcomeOf,
  type PersonId,
  permits,
  type Step,
} from '@/core';
import { type PersonRecord, readWithoutPassword } from '@/store';
import { draftVocabulary, membershipOf } from '../people';
import type { SiteState, Trivet } from '../running';
import {
  type Administrator,
  memberOf,
  type Person,
  plainRequest,
  recordOf,
  requirePermission,
  yielder,
} from '../running';
import { type Sale, salesTo } from '../selling';
import { aheadOf, type DayAhead, hasInWords } from './ahead';

/** What a person gets at one item. */
export interface PersonAtItem {
  readonly item: ItemId;
  readonly title: string;
  readonly address: string | null;
  readonly kind: string;
  readonly outcome: Outcome;
  /** The decision as a sentence. */
  readonly sentence: string;
  /** Why it is closed, or by which gates it was let through; null where no gate stands. */
  readonly because: string | null;
  /** The shortest ways in, each as what would have to be done. */
  readonly waysIn: readonly string[];
  /** Whether there may be more ways than are listed. */
  readonly moreWays: boolean;
}

export interface PersonReport {
  readonly person: PersonRecord;
  /** What is known of them, as gates ask. */
  readonly member: Member;
  /** What they have today: "level Observer, by Observer pass until 2026-12-25". */
  readonly has: readonly string[];
  /** Whether they have a password. */
  readonly canSignIn: boolean;
  /** What they bought at the till, the latest first. */
  readonly orders: readonly Sale[];
  readonly ahead: readonly DayAhead[];
  readonly audiences: readonly { readonly id: string; readonly name: string }[];
  readonly reach: readonly PersonAtItem[];
}

const MOST_WAYS = 3;
// Ways in are found by trying, which takes its time; a person closed out of more pages than this gets none for the rest.
const MOST_TRIED = 100;

/** The page of a person, under what is live; null when there is no such person. */
export async function personReport(
  trivet: Trivet,
  administrator: Administrator,
  id: string,
  now: Date,
): Promise<PersonReport | null> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const person = state.people.get(asId<PersonId>(id));
  if (!person) return null;
  const vocabulary = draftVocabulary(state);
  const membership = await membershipOf(
    state,
    vocabulary,
    now,
    vocabulary.audiences.map(({ who }) => who),
  );
  const place = state.people.placeOf(person.id) ?? -1;
  return {
    person: recordOf(person),
    member: memberOf(person),
    has: hasInWords(state, person, now),
    canSignIn: (await readWithoutPassword(trivet.db, [person.id])).size === 0,
    // What somebody paid is for those who may change people.
    orders: permits(administrator.desk, 'people') ? await salesTo(trivet, person.id, now) : [],
    ahead: aheadOf(state, person, now),
    audiences: vocabulary.audiences
      .filter((audience) => hasPlace(membership.select(audience.who).bits, place))
      .map(({ id, name }) => ({ id, name })),
    reach: await reachOf(state, person, now),
  };
}

async function reachOf(state: SiteState, person: Person, now: Date): Promise<readonly PersonAtItem[]> {
  let tried = 0;
  const list: PersonAtItem[] = [];
  const rest = yielder();
  for (const { id } of state.outline.addressed.values()) {
    const reach = reachAt(state, id, person, now, tried < MOST_TRIED);
    if (reach.outcome !== 'open') tried += 1;
    list.push(reach);
    await rest();
  }
  return list;
}

function reachAt(state: SiteState, id: ItemId, person: Person, now: Date, tries: boolean): PersonAtItem {
  const { facts, name } = person;
  const { compiled } = state.live;
  const { outline } = compiled;
  const item = outline.items.get(id);
  if (!item) throw new Error(`The outline has no item "${id}".`);
  const request = plainRequest(state, now);
  const { ways, cut } = tries ? openers(compiled, id, facts, request) : { ways: [], cut: true };
  const decision = decide(compiled, id, facts, request);
  const buying =
    decision.kind === 'open'
      ? []
      : buyingWays(compiled, id, facts, request, { onSale: state.shop.values(), following: state });
  const others = ways.filter((changes) => !buying.some((way) => isPurchaseOf(changes, way)));
  const explanation = explain(compiled, id, facts, request);
  const because = describeBecause(explanation, item, compiled.vocabulary);
  const passed = explanation.steps.filter(
    (step): step is Extract<Step, { kind: 'gate' }> => step.kind === 'gate' && step.verdict === 'passed',
  );
  return {
    item: id,
    title: item.title,
    address: isAddressed(item) ? item.address : null,
    kind: item.kind,
    outcome: outcomeOf(decision),
    sentence: describeDecision(decision, name, item, outline),
    because:
      because !== null
        ? capital(because)
        : passed.length > 0
          ? `Lets by ${listed(passed.map(({ gate }) => describeWho(gate.who, compiled.vocabulary)))}`
          : null,
    waysIn: [
      ...buying.map((way) => describeBuying(way, compiled.vocabulary)),
      ...others.map((changes) => describeChanges(changes, facts, compiled.vocabulary)),
    ].slice(0, MOST_WAYS),
    moreWays: cut || buying.length + others.length > MOST_WAYS,
  };
}
