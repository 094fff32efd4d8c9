import { describe, expect, test } from 'vitest';
import { yieldToOthers } from './yielding';

const turn = () => new Promise((resolve) => setImmediate(resolve));

describe('long works in pieces', () => {
  test('one of them goes on in each turn, whoever came first before the others, and none is forgotten', async () => {
    const said: string[] = [];
    const work = async (name: string, pieces: number) => {
      for (let piece = 0; piece < pieces; piece++) {
        await yieldToOthers();
        said.push(name);
      }
    };
    const all = Promise.all([work('a', 3), work('b', 1), work('c', 2)]);
    const inTurns: string[] = [];
    for (let n = 0; n < 7; n++) {
      await turn();
      inTurns.push(said.splice(0).join(''));
    }
    await all;
    expect(inTurns.join(' ').trim().split(/\s+/)).toEqual(['a', 'b', 'c', 'a', 'c', 'a']);
  });

  test('a work that comes when all are done goes on as well', async () => {
    await yieldToOthers();
    await turn();
    await yieldToOthers();
  });
});
