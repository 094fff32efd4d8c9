/** Long work in pieces: others get their turn in between. */

/** Lets others have their turn. */
export const yieldToOthers = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** So long one piece of work may take, in milliseconds. */
const AT_ONCE_MS = 15;

/** Makes a rest to be called between pieces of work; it rests only when the last time is long enough ago. */
export function yielder(atOnce = AT_ONCE_MS): () => Promise<void> {
  let rested = performance.now();
  return async () => {
    if (performance.now() - rested < atOnce) return;
    await yieldToOthers();
    rested = performance.now();
  };
}
