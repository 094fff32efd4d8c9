/** Long work in pieces: others get their turn in between. */

/** Works that wait to go on, in the order in which they came. */
const waiting: (() => void)[] = [];

/** One of them goes on in each turn of the event loop: whoever asks something small waits for one piece, not for one of each. */
function goOn(): void {
  waiting.shift()?.();
  if (waiting.length > 0) setImmediate(goOn);
}

/** Lets others have their turn, and the other long works theirs. */
export const yieldToOthers = (): Promise<void> =>
  new Promise((resolve) => {
    waiting.push(resolve);
    if (waiting.length === 1) setImmediate(goOn);
  });

/** What steps come to, with others getting their turn between them. */
export async function inTurns<T>(steps: Generator<unknown, T>): Promise<T> {
  const rest = yielder();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    await rest();
  }
}

/** So long one piece of work may take, in milliseconds. */
const AT_ONCE_MS = 15;

/**
 * Makes a rest to be called between pieces of work; it rests only when the last time is long enough ago, and tells whether it
 * did.
 */
export function yielder(atOnce = AT_ONCE_MS, rest = yieldToOthers): () => Promise<boolean> {
  let rested = performance.now();
  return async () => {
    if (performance.now() - rested < atOnce) return false;
    await rest();
    rested = performance.now();
    return true;
  };
}
