/** Expectations: what must stay so, whatever is changed. */
import type { Condition } from '../condition';
import { selectionsIn, type TurnAwayKind, type What } from '../gate';
import type { ExpectationId } from '../ids';

/** What is said of some visitors at some items. */
export type Claim =
  | { readonly kind: 'opens' }
  /** Nobody else opens it. */
  | { readonly kind: 'only opens' }
  | { readonly kind: 'never opens' }
  /** They get nothing that tells of it: it is missing, or left out. */
  | { readonly kind: 'never sees' }
  | { readonly kind: 'gets'; readonly outcome: TurnAwayKind };

/** "(in group "Hollin School") never sees branch "Tarn Survey"" */
export interface Expectation {
  readonly id: ExpectationId;
  readonly who: Condition;
  readonly claim: Claim;
  readonly what: What;
}

/** Every condition of an expectation: whom it is about, and what it describes. */
export const conditionsOfExpectation = ({ who, what }: Expectation): readonly Condition[] => [
  who,
  ...selectionsIn({ what }),
];

/** What tells nobody that there is anything. */
const UNSEEN: readonly Got[] = ['missing', 'leave out'];

type Got = 'open' | TurnAwayKind;

/** Whether those whom a claim is about may get an outcome. Of *only opens* that is everybody else. */
export function allows(claim: Claim, outcome: Got): boolean {
  switch (claim.kind) {
    case 'opens':
      return outcome === 'open';
    case 'only opens':
    case 'never opens':
      return outcome !== 'open';
    case 'never sees':
      return UNSEEN.includes(outcome);
    case 'gets':
      return outcome === claim.outcome;
    default:
      return claim satisfies never;
  }
}
