import { setImmediate as nextTurn } from 'node:timers/promises';
import { expect, it } from 'vitest';
import { MOST_IN_A_TURN, turns } from './turns';

it('hands on at once what comes alone', async () => {
  const inTurns = turns();
  let handed = 0;
  for (let turn = 0; turn < 3; turn++) {
    inTurns(() => {
      handed += 1;
    });
    expect(handed).toBe(turn + 1);
    await nextTurn();
  }
});

it('hands on a crowd in its order, a few in each turn, and whatever comes meanwhile behind it', async () => {
  const inTurns = turns();
  const handed: number[] = [];
  const each: number[] = [];
  for (let at = 0; at < 100; at++) inTurns(() => handed.push(at));
  inTurns(() => inTurns(() => handed.push(101)));
  inTurns(() => handed.push(100));
  for (let before = 0; handed.length < 102; before = handed.length) {
    expect(each.length).toBeLessThan(50);
    await nextTurn();
    each.push(handed.length - before);
  }
  expect(handed).toEqual(Array.from({ length: 102 }, (_, at) => at));
  expect(Math.max(...each)).toBeLessThanOrEqual(2 * MOST_IN_A_TURN);
});
