import { existsSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { ADDITIONS, type Addition, placesLeft } from './adding';

const guide = readFileSync('docs/adding.md', 'utf8');

/** The files that a part of the guide says the compiler names. */
const named = ({ heading }: Addition): readonly string[] => {
  const part = guide.split(/^## /m).find((one) => one.startsWith(`${heading}\n`)) ?? '';
  const lists = part.split('\n').filter((line) => line.startsWith('- '));
  return lists
    .flatMap((line) => line.match(/`(?:src|scripts)\/[^`]+`/g) ?? [])
    .map((one) => one.slice(1, -1));
};

it('tells for every addition exactly what the compiler names', { timeout: 300_000 }, () => {
  const left = placesLeft(ADDITIONS);
  for (const heading of new Set(ADDITIONS.map((one) => one.heading))) {
    const additions = ADDITIONS.filter((one) => one.heading === heading);
    const found = new Set(additions.flatMap((one) => left.get(one) ?? []));
    const [first] = additions;
    if (first) expect([...named(first)].sort(), heading).toEqual([...found].sort());
  }
});

it('names only files that are there', () => {
  for (const path of guide.match(/`(?:src|scripts|docs)\/[^`]+`/g) ?? [])
    expect(existsSync(path.slice(1, -1)), path).toBe(true);
});
