/** What of a quiz does not go with it into a package (QTI 3.0). */
import type { Quiz } from './quiz';

/** What has no place there, in words; empty where all of it has. */
export function leftOutOfPackage({
  passMark,
  attempts,
  wait,
  counts,
  answers,
  questions,
}: Quiz): readonly string[] {
  return [
    passMark > 0 ? `the pass mark of ${passMark} %` : null,
    attempts === null ? null : 'how often one may try',
    wait > 0 ? 'how long one waits between attempts' : null,
    counts === 'last' ? 'that the last score counts' : null,
    answers === 'after the attempt' ? null : 'when it is told what was right',
    questions.some(({ kind }) => kind === 'order')
      ? 'that some in the right place count for something, in questions about an order'
      : null,
  ].filter((one) => one !== null);
}
