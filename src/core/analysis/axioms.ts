/**
 * What follows from what: whoever owns a product has what it gives. Without it a member would be thought possible who owns
 * the pass and has no level.
 */
import { hasRole, inGroup, level, owns, problemOf, type Test } from '../condition';
import type { ItemId } from '../ids';
import { type Day, type Following, factsOf, type VisitorFacts, type Vocabulary } from '../site';
import { keyOfThing, thingsRead } from './things';

/** Of whom the first holds, of them the second holds too. */
export interface Axiom {
  readonly of: Test;
  readonly follows: Test;
}

export const nothingFollows: Following = { byGroup: new Map(), byProduct: new Map() };

/** What follows for good, whatever was bought or joined when, as far as it says something of things that are asked about. */
export function axiomsFor(
  { byGroup, byProduct }: Following,
  asked: ReadonlySet<string>,
  vocabulary: Vocabulary,
  from: Day,
): readonly Axiom[] {
  const axioms: Axiom[] = [];
  for (const [product, grants] of byProduct) {
    const of = owns(product);
    if (grants.level !== null) axioms.push({ of, follows: level('at least', grants.level) });
    for (const role of grants.roles) axioms.push({ of, follows: hasRole(role) });
    for (const group of grants.groups) axioms.push({ of, follows: inGroup(group) });
    // What ends by itself may have ended.
    for (const { course, days } of grants.enrolments)
      if (days === null) axioms.push({ of, follows: enrolledIn(course) });
  }
  for (const [group, courses] of byGroup)
    for (const { course, since, days } of courses)
      if (days === null && since <= from) axioms.push({ of: inGroup(group), follows: enrolledIn(course) });
  // What is gone is unknown of everybody: it makes nobody impossible.
  const isAsked = (one: Test) =>
    problemOf(one, vocabulary) === null &&
    thingsRead({ test: one, item: null }, vocabulary).every((thing) => asked.has(keyOfThing(thing)));
  return axioms.filter(({ of, follows }) => isAsked(of) && isAsked(follows));
}

const enrolledIn = (course: ItemId): Test => ({ kind: 'test', fact: 'enrolled', subject: course, op: 'is' });

/** Somebody with everything that follows from what they have. */
export const closed = (visitor: VisitorFacts, following: Following): VisitorFacts =>
  visitor.signedIn ? factsOf({ ...visitor, groupsSince: {} }, following) : visitor;
