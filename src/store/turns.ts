/** Handing things on a few at a time, so that whoever else waits is heard in between. */

/** So many are handed on in one turn of the event loop. */
export const MOST_IN_A_TURN = 8;

/**
 * Hands things on in their order, a few in each turn of the event loop. A port brings all that has come in at once, and what
 * goes on with two hundred answers takes longer than anybody should wait for a word.
 */
export function turns(): (hand: () => void) => void {
  const later: (() => void)[] = [];
  let handed = 0;
  let ticking = false;
  const turn = () => {
    for (handed = 0; handed < MOST_IN_A_TURN; handed++) {
      const next = later.shift();
      if (!next) break;
      next();
    }
    ticking = handed > 0;
    if (ticking) setImmediate(turn);
  };
  return (hand) => {
    if (!ticking) setImmediate(turn);
    ticking = true;
    if (later.length > 0 || handed >= MOST_IN_A_TURN) later.push(hand);
    else {
      handed += 1;
      hand();
    }
  };
}
