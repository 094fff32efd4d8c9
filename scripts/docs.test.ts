import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { catalogue, DEEPEST, LONGEST_CONDITION, MOST_TESTS, OPERATORS } from '../src/core';

const text = readFileSync('docs/conditions.md', 'utf8');

describe('docs/conditions.md', () => {
  it('names every fact, and says which can be made up', () => {
    for (const { phrase, fakeable } of catalogue) {
      const line = text.split('\n').find((one) => one.startsWith('|') && one.includes(`\`${phrase}\``));
      expect([phrase, line?.includes('can be made up')]).toEqual([phrase, fakeable]);
    }
  });

  it('names every operator', () => {
    const words = Object.values(OPERATORS).flatMap((list) =>
      list.flatMap((operator) => [operator.words, operator.suffix ?? '']),
    );
    for (const word of words) if (word !== '') expect(text).toContain(`\`${word}\``);
  });

  it('tells the limits as they are', () => {
    expect(text).toContain(
      `At most ${LONGEST_CONDITION.toLocaleString('en')} characters, ${MOST_TESTS} tests, ${DEEPEST} groups`,
    );
  });
});
