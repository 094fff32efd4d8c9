import { expect, it } from 'vitest';
import { BASE_MARK, htmlOf } from './markdown';

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
