/** What goes wrong where nobody could be told of it, for whoever runs the server. */

/** Takes what went wrong, in a few words, and the error. */
type Trouble = (what: string, error: unknown) => void;

// Next bundles routes apart, so it is kept on `globalThis`.
const holder = globalThis as { __trivetTrouble?: Trouble | null };

/** Has trouble told to something else than the standard error; null for that again. */
export function tellTroubleTo(told: Trouble | null): void {
  holder.__trivetTrouble = told;
}

/** Notes trouble. Never throws. */
export function noteTrouble(what: string, error: unknown): void {
  try {
    (holder.__trivetTrouble ?? console.error)(what, error);
  } catch {
    // Where nothing can be noted, there is nobody to tell.
  }
}
