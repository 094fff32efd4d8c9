/** Where something is used, in words. */
import type { Use } from '../policy';
import type { Outline } from '../site';
import { describeWhat } from './gate';

/** "the gate over Dome crew and everything below it", "the audience Night crew". */
export function describeUse(use: Use, outline: Outline): string {
  switch (use.kind) {
    case 'gate': {
      const over = `the gate over ${describeWhat(use.gate.what, outline)}`;
      return use.leg === 'who' ? over : `${over}, in its otherwise`;
    }
    case 'audience':
      return `the audience ${use.audience.name}`;
    default:
      return use satisfies never;
  }
}
