/** Where something is used, in words. */
import type { Use } from '../policy';
import type { Outline, Vocabulary } from '../site';
import { describeExpectation } from './expectation';
import { describeWhat } from './gate';

/** "the gate over Dome crew and everything below it", "the audience Night crew". */
export function describeUse(use: Use, outline: Outline, vocabulary: Vocabulary): string {
  switch (use.kind) {
    case 'gate': {
      const over = `the gate over ${describeWhat(use.gate.what, outline, vocabulary)}`;
      return use.leg === 'who' ? over : `${over}, in its ${use.leg}`;
    }
    case 'audience':
      return `the audience ${use.audience.name}`;
    case 'landing':
      return `the landing rule after ${use.landing.after === 'sign in' ? 'signing in' : 'signing out'} to ${outline.items.get(use.landing.to)?.title ?? 'nowhere'}`;
    case 'expectation':
      return `the expectation that ${describeExpectation(use.expectation, outline, vocabulary)}`;
    default:
      return use satisfies never;
  }
}
