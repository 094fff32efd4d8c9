import fc from 'fast-check';
import { expect, it } from 'vitest';
import { BASE_MARK, htmlOf, markdownProblem, plainTextOf } from './markdown';

it('renders CommonMark and tables', () => {
  expect(htmlOf('**a** | b')).toContain('<strong>a</strong>');
  expect(htmlOf('| a |\n|---|\n| b |')).toContain('<th>a</th>');
});

it('lets nothing through that runs', () => {
  const html = htmlOf(
    '<script>alert(1)</script> <img src=x onerror=alert(1)> [a](javascript:alert(1)) <a href="data:text/html,x">b</a>',
  );
  expect(html).not.toMatch(/script|onerror|javascript|data:/);
});

it('marks addresses of this site and no others', () => {
  expect(htmlOf('[a](/visit)')).toContain(`href="${BASE_MARK}/visit"`);
  expect(htmlOf('[a](//elsewhere.example) [b](https://elsewhere.example)')).not.toContain(BASE_MARK);
  expect(htmlOf(`${BASE_MARK}`)).not.toContain(BASE_MARK);
});

it('makes no head cell of an empty one', () => {
  expect(htmlOf('| | a |\n|---|---|\n| b | c |')).toContain('<td></td>');
});

it.each([
  ['quotations in quotations', '>'.repeat(10_000)],
  ['brackets', '['.repeat(50_000)],
  ['emphasis', '*a '.repeat(40_000)],
  ['tags', '<div>'.repeat(20_000)],
  ['fences', '`'.repeat(20_000)],
])('refuses thousands of %s in a line, and shows them as they are rather than reading them', (_, text) => {
  expect(markdownProblem(`fine\n\n${text}`)).toMatchObject({ line: 3 });
  expect(htmlOf(text)).toMatch(/^<p>/);
  expect(htmlOf(text)).not.toContain('<div>');
});

it('reads large tables and deep lists', () => {
  const table = `| a | b |\n|---|---|\n${'| x | y |\n'.repeat(500)}`;
  expect(htmlOf(table).match(/<tr>/g)).toHaveLength(501);
  const deep = Array.from({ length: 60 }, (_, depth) => `${'  '.repeat(depth)}- x`).join('\n');
  expect(htmlOf(deep).match(/<li>/g)).toHaveLength(60);
});

it('never makes an element or an address that runs, whatever the text', () => {
  const part = fc.constantFrom(
    '<script>',
    '</script>',
    '<img src=x onerror=1>',
    '[a](javascript:1)',
    '![b](data:x)',
    '<a href="vbscript:1">',
    '<svg/onload=1>',
    '\n\n',
    '`',
    '*',
    '|',
    '> ',
    '&#106;avascript:',
    '[c](java\nscript:1)',
    '<iframe srcdoc=x>',
    'words',
  );
  fc.assert(
    fc.property(fc.array(part, { maxLength: 12 }), (parts) => {
      const html = htmlOf(parts.join(''));
      // What stands in quotes is an attribute's value and makes no element.
      const elements = html.replace(/"[^"]*"/g, '""');
      expect(elements).not.toMatch(/<(script|svg|iframe|style|object|form)/i);
      expect(elements).not.toMatch(/<[^>]+\son\w+=/i);
      expect(html).not.toMatch(/<\w[^>]*\s(href|src)="(javascript|data|vbscript):/i);
    }),
  );
});

it('gives the words of a text without its marks', () => {
  expect(plainTextOf('## A **dark** hill\n\n[Visit us](/visit) <b>now</b>\n\n<script>x</script>')).toBe(
    'A dark hill\nVisit us now',
  );
});
