/** Expectations as plain language: "guests find nothing at Dome crew and everything below it". */
import type { Expectation } from '../expectation/expectation';
import type { TurnAwayKind } from '../gate';
import type { Outline, Vocabulary } from '../site';
import { describeWhat } from './gate';
import { describeWho } from './who';

const GETS: Readonly<Record<TurnAwayKind, readonly [one: string, many: string]>> = {
  teaser: ['gets a teaser at', 'get a teaser at'],
  redirect: ['is sent elsewhere at', 'are sent elsewhere at'],
  message: ['gets a message at', 'get a message at'],
  missing: ['finds nothing at', 'find nothing at'],
  'leave out': ['is not shown', 'are not shown'],
  swap: ['gets something else in place of', 'get something else in place of'],
  locked: ['finds locked', 'find locked'],
};

/** What must stay so, as a sentence without its end. */
export function describeExpectation(
  { who, claim, what }: Omit<Expectation, 'id'>,
  outline: Outline,
  vocabulary: Vocabulary,
): string {
  const whom = describeWho(who, vocabulary);
  const items = describeWhat(what, outline, vocabulary);
  switch (claim.kind) {
    case 'opens':
      return `${whom} can open ${items}`;
    case 'only opens':
      return `nobody but ${whom} can open ${items}`;
    case 'never opens':
      return whom === 'everyone' ? `nobody can open ${items}` : `${whom} can’t open ${items}`;
    case 'never sees':
      return `nothing is shown of ${items} to ${whom}`;
    case 'gets':
      return `${whom} ${GETS[claim.outcome][whom === 'everyone' || whom === 'nobody' ? 0 : 1]} ${items}`;
    default:
      return claim satisfies never;
  }
}
