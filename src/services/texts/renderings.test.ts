import { Worker } from 'node:worker_threads';
import { expect, it, vi } from 'vitest';
import { htmlOf, plainTextOf } from '../texts/markdown';
import { readAhead, renderedHtml, renderedWords } from '../texts/renderings';

const long = (name: string, blocks: number): string =>
  Array.from(
    { length: blocks },
    (_, at) => `## ${name} ${at}\n\nA *bright* [sky](/visit) over the dome.`,
  ).join('\n\n');

it('reads ahead what would be read otherwise', async () => {
  const text = long('Night', 300);
  await readAhead([text, 'short']);
  expect(renderedHtml(text)).toBe(htmlOf(text));
  expect(renderedWords(text)).toBe(plainTextOf(text));
  expect(renderedHtml('short')).toBe(htmlOf('short'));
});

it('leaves this thread free meanwhile, and has nothing to do afterwards', async () => {
  const text = long('Dusk', 3000);
  let read = false;
  let turns = 0;
  const turn = () => {
    turns += 1;
    if (!read) setImmediate(turn);
  };
  setImmediate(turn);
  await readAhead([text]);
  read = true;
  // In this thread it would be one or two.
  expect(turns).toBeGreaterThan(50);
  expect(renderedHtml(text)).toContain('>Dusk 2999</h2>');
});

it('reads a text once, however many need it, and one that comes to nothing as well', async () => {
  const posted = vi.spyOn(Worker.prototype, 'postMessage');
  const text = long('Dawn', 300);
  const nothing = `<!-- ${'nothing '.repeat(1000)} -->`;
  await Promise.all([readAhead([text]), readAhead([text]), readAhead([nothing])]);
  await readAhead([text, nothing]);
  expect([renderedHtml(nothing), renderedWords(nothing)]).toEqual(['', '']);
  expect(posted).toHaveBeenCalledTimes(2);
  posted.mockRestore();
});
