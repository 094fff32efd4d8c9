/** Before a process: its clock goes five minutes before the others’. What it does is not to hang on that. */
const AHEAD_MS = 5 * 60_000;
const { now } = Date;

globalThis.Date = class extends Date {
  constructor(...given) {
    super(...(given.length === 0 ? [now() + AHEAD_MS] : given));
  }

  static now = () => now() + AHEAD_MS;
};
