/**
 * What could be given to somebody by hand, or taken from them, so that they get what they should: one thing at a time. Each
 * is tried out by `decide`, with all that follows from it: what does not make it so is not offered.
 */
import type { Test } from '../condition';
import { asId, type ItemId } from '../ids';
import {
  type Following,
  factsChangedByHand,
  type HandChange,
  type RequestFacts,
  type VisitorFacts,
} from '../site';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import { type Change, candidateChanges } from './openers';

/** Where gates ask for more than this, nobody would read what could be given. */
const MOST_TRIED = 500;

/** What is to be so for some people: that they get all of these items, or none of them. */
interface PeopleWish {
  readonly items: readonly ItemId[];
  /** Of members: to nobody else is anything given. */
  readonly people: readonly VisitorFacts[];
  readonly open: boolean;
  readonly request: RequestFacts;
  readonly following: Following;
}

/** The single changes after each of which it is so for all of them, as the gates are. */
export function handChangesFor(
  compiled: CompiledPolicy,
  { items, people, open, request, following }: PeopleWish,
): readonly HandChange[] {
  const [first] = people;
  if (!first) return [];
  const candidates = new Map(
    items
      .flatMap((item) => candidateChanges(compiled, item, first))
      .flatMap(({ change }) => byHandFor([change]) ?? [])
      .map((change) => [JSON.stringify(change), change]),
  );
  if (candidates.size > MOST_TRIED) return [];
  const isSo = (facts: VisitorFacts): boolean =>
    items.every((item) => (decide(compiled, item, facts, request).kind === 'open') === open);
  if (people.every(isSo)) return [];
  const makingSo = [...candidates.values()].filter((change) =>
    people.every((facts) => isSo(factsChangedByHand(facts, change, following, request.today))),
  );
  // The levels stand in their order: the lowest that opens is enough, and the highest that closes.
  const levels = makingSo.filter(({ kind }) => kind === 'level');
  const level = open ? levels[0] : levels.at(-1);
  return makingSo.filter((change) => change.kind !== 'level' || change === level);
}

/** The one thing given by hand of which a set of changes consists; null where it takes more, or another thing. */
export function byHandFor([only, ...more]: readonly Change[]): HandChange | null {
  if (!only || more.length > 0) return null;
  if (only.kind === 'level') return only;
  return only.kind === 'make' ? givingFor(only.test, only.holds) : null;
}

function givingFor({ fact, subject, value }: Test, holds: boolean): HandChange | null {
  switch (fact) {
    case 'group':
      return { kind: holds ? 'join' : 'leave', group: asId(String(value)) };
    case 'role':
      return { kind: holds ? 'give' : 'take', role: asId(String(value)) };
    case 'enrolled':
    case 'enrolment':
      return holds
        ? { kind: 'enrol', course: asId(String(subject)), until: null }
        : { kind: 'end enrolment', course: asId(String(subject)) };
    default:
      return null;
  }
}
