/** What to say to somebody who tried too often, and when they may try again. */
export function tooOften(milliseconds: number): { readonly seconds: number; readonly message: string } {
  const minutes = Math.max(1, Math.ceil(milliseconds / 60_000));
  const wait = minutes === 1 ? 'a minute' : `${minutes} minutes`;
  return {
    seconds: Math.ceil(milliseconds / 1000),
    message: `That was tried too often. Wait ${wait} and try again.`,
  };
}
