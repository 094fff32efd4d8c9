/** Every decision of the board at once, as bytes: small enough to hold thousands of items against dozens of visitors. */
import { TURN_AWAY_KINDS } from '../gate';
import type { Item, RequestFacts, VisitorFacts } from '../site';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import { type Decision, type Outcome, outcomeOf, sameToVisitor } from './decision';

/** The outcomes by the number that stands for each. */
export const OUTCOMES: readonly Outcome[] = ['open', ...TURN_AWAY_KINDS];

const NUMBER = new Map(OUTCOMES.map((outcome, number) => [outcome, number]));

/** The decisions of items (rows) for visitors (columns), row by row. */
export interface Matrix {
  readonly columns: number;
  /** Places in {@link OUTCOMES}. */
  readonly draft: Uint8Array;
  readonly live: Uint8Array;
  /** 1 where the visitor would notice the draft going live. */
  readonly changes: Uint8Array;
}

/** Decides every item for every visitor under both policies. */
export function matrixOf(
  compiled: { readonly draft: CompiledPolicy; readonly live: CompiledPolicy },
  items: readonly Pick<Item, 'id'>[],
  visitors: readonly VisitorFacts[],
  request: RequestFacts,
): Matrix {
  const columns = visitors.length;
  const size = items.length * columns;
  const matrix = {
    columns,
    draft: new Uint8Array(size),
    live: new Uint8Array(size),
    changes: new Uint8Array(size),
  };
  let at = 0;
  for (const { id } of items) {
    for (const visitor of visitors) {
      const draft = decide(compiled.draft, id, visitor, request);
      const live = decide(compiled.live, id, visitor, request);
      matrix.draft[at] = numberOf(draft);
      matrix.live[at] = numberOf(live);
      matrix.changes[at] = sameToVisitor(draft, live) ? 0 : 1;
      at += 1;
    }
  }
  return matrix;
}

function numberOf(decision: Decision): number {
  const number = NUMBER.get(outcomeOf(decision));
  if (number === undefined) throw new Error(`No number stands for "${outcomeOf(decision)}".`);
  return number;
}

/** What a cell holds. */
export const outcomeAt = (
  { columns, ...sides }: Matrix,
  side: 'draft' | 'live',
  row: number,
  column: number,
): Outcome => {
  const outcome = OUTCOMES[sides[side][row * columns + column] ?? -1];
  if (outcome === undefined) throw new Error(`The board has no cell at ${row}, ${column}.`);
  return outcome;
};

export const changesAt = ({ columns, changes }: Matrix, row: number, column: number): boolean =>
  changes[row * columns + column] === 1;
