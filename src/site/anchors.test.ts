import { expect, it } from 'vitest';
import { withAnchorsOnce } from './anchors';

const ids = (html: string) => [...withAnchorsOnce(html).matchAll(/ id="([^"]*)"/g)].map(([, id]) => id);

it('gives each heading an anchor of its own on its page', () => {
  expect(ids('<h2 id="hours">a</h2><p></p><h3 id="hours">b</h3><h2 id="hours">c</h2>')).toEqual([
    'hours',
    'hours-1',
    'hours-2',
  ]);
});

it('leaves the ids of the page itself to the page, wherever they stand', () => {
  expect(ids('<h2 id="main">a</h2><main id="main"></main>')).toEqual(['main-1', 'main']);
  expect(ids('<h2 id="q">a</h2><h2 id="q-1">b</h2><input id="q">')).toEqual(['q-1', 'q-1-1', 'q']);
});

it('changes nothing where there is nothing to change', () => {
  const html = '<h1>a</h1><h2 id="b">b</h2><p>&lt;h2 id="b"</p>';
  expect(withAnchorsOnce(html)).toBe(html);
});

it('tells many headings apart as it does a few', () => {
  const html = Array.from({ length: 30 }, (_, at) => `<h2 id="part-${at % 15}">${at}</h2>`).join('');
  expect(new Set(ids(html)).size).toBe(30);
});
