/** What somebody gets, as what is to stay so. */
import {
  all,
  any,
  type Condition,
  conditionCompiler,
  everyone,
  guests,
  hasRole,
  inAudience,
  inGroup,
  level,
  owns,
  profile,
  signedIn,
  test,
} from '../condition';
import type { TurnAwayKind, What } from '../gate';
import type { FieldId, ItemId } from '../ids';
import { same } from '../same';
import {
  below,
  groupsAt,
  levelAt,
  type Outline,
  type RequestFacts,
  rolesAt,
  type StandIn,
  standInFacts,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import type { Claim } from './expectation';
import type { Expected } from './parse';

/** Whom a stand-in stands for: guests, one member, or everybody like somebody made up. */
export function meantBy(standIn: StandIn): Condition {
  switch (standIn.kind) {
    case 'guest':
      return guests;
    case 'member':
      return test('person', 'is', standIn.member.facts.email ?? '');
    case 'made up':
      return likeThem(standIn.madeUp.facts);
    default:
      return standIn satisfies never;
  }
}

/**
 * Everybody for whom something can be meant whom all of some stand-ins stand for: they themselves first, everybody there is
 * last.
 */
export function whomTheyCanBe(
  standIns: readonly StandIn[],
  vocabulary: Vocabulary,
  request: RequestFacts,
): readonly Condition[] {
  const [first, ...others] = standIns;
  if (!first) return [];
  if (others.length === 0) return whomItCanBe(first, vocabulary, request);
  const holds = conditionCompiler(vocabulary);
  const isOfAll = (one: Condition) => {
    const holdsOf = holds(one);
    return standIns.every((standIn) => holdsOf(standInFacts(standIn), null, request));
  };
  const shared = standIns.flatMap((standIn) => whomItCanBe(standIn, vocabulary, request)).filter(isOfAll);
  const together = standIns.map(meantBy);
  return apart([
    any(...apart(together)),
    ...shared.filter((one) => one !== signedIn),
    isOfAll(signedIn) ? signedIn : everyone,
  ]);
}

const apart = (list: readonly Condition[]): readonly Condition[] =>
  list.filter((one, at) => list.findIndex((other) => same(other, one)) === at);

/** Everybody for whom something can be meant who stands for a stand-in: themselves first, everybody of their kind last. */
function whomItCanBe(standIn: StandIn, vocabulary: Vocabulary, request: RequestFacts): readonly Condition[] {
  const facts = standInFacts(standIn);
  if (!facts.signedIn) return [guests];
  const { today } = request;
  const held = levelAt(facts, today, vocabulary.levels);
  const holds = conditionCompiler(vocabulary);
  return apart([
    meantBy(standIn),
    ...(rolesAt(facts, today) ?? []).map(hasRole),
    ...(groupsAt(facts, today) ?? []).map(inGroup),
    ...(held === null ? [] : [level('at least', held)]),
    ...[...new Set((facts.purchases ?? []).map(({ product }) => product))]
      .map(owns)
      .filter((one) => holds(one)(facts, null, request)),
    ...vocabulary.audiences.map(({ id }) => inAudience(id)).filter((one) => holds(one)(facts, null, request)),
    signedIn,
  ]);
}

/** Everybody who has what somebody has. */
function likeThem(facts: VisitorFacts): Condition {
  if (!facts.signedIn) return guests;
  const has = [
    ...(facts.level === null ? [] : [level('exactly', facts.level)]),
    ...(facts.groups ?? []).map(inGroup),
    ...(facts.roles ?? []).map(hasRole),
    ...[...new Set((facts.purchases ?? []).map(({ product }) => product))].map(owns),
    ...Object.entries(facts.profile ?? {}).map(([field, value]) =>
      typeof value === 'boolean'
        ? profile(field as FieldId, value ? 'is yes' : 'is no')
        : profile(field as FieldId, 'is', value),
    ),
  ];
  const [only] = has;
  if (!only) return signedIn;
  return has.length === 1 ? only : all(...has);
}

/** How many items one expectation points at; what is more is said in another. */
const MOST_TARGETS = 500;

type Got = 'open' | TurnAwayKind;

const claimOf = (outcome: Got): Claim =>
  outcome === 'open'
    ? { kind: 'opens' }
    : outcome === 'missing' || outcome === 'leave out'
      ? { kind: 'never sees' }
      : { kind: 'gets', outcome };

/** One expectation for each thing that somebody gets at some items. */
export function pinned(
  who: Condition,
  got: readonly (readonly [item: ItemId, outcome: Got])[],
  outline: Outline,
): readonly Expected[] {
  const claims = new Map<string, { claim: Claim; items: ItemId[] }>();
  for (const [item, outcome] of got) {
    const claim = claimOf(outcome);
    const key = JSON.stringify(claim);
    const found = claims.get(key) ?? { claim, items: [] };
    claims.set(key, found);
    found.items.push(item);
  }
  return [...claims.values()].flatMap(({ claim, items }) => {
    const { targets } = whatOf(items, claim, outline);
    const parts = Math.ceil(targets.length / MOST_TARGETS);
    return Array.from(
      { length: parts },
      (_, part): Expected => ({
        who,
        claim,
        what: { targets: targets.slice(part * MOST_TARGETS, (part + 1) * MOST_TARGETS), except: [] },
      }),
    );
  });
}

/** Items one by one, or as branches where nothing at all is seen of what is below them. */
function whatOf(items: readonly ItemId[], claim: Claim, outline: Outline): What {
  const chosen = new Set(items);
  const isWhole = (item: ItemId): boolean =>
    claim.kind === 'never sees' &&
    (outline.children.get(item)?.length ?? 0) > 0 &&
    below(outline, item).every(({ id, kind }) => chosen.has(id) || kind === 'section' || kind === 'file');
  const whole = new Set(items.filter(isWhole));
  const isBelowWhole = (item: ItemId): boolean => {
    const parent = outline.items.get(item)?.parent ?? null;
    return parent !== null && (whole.has(parent) || isBelowWhole(parent));
  };
  return {
    targets: items
      .filter((item) => !isBelowWhole(item))
      .map((item) => ({ kind: whole.has(item) ? 'branch' : 'item', item })),
    except: [],
  };
}
