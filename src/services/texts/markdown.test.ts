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

it('leads from a note to what it says and back, and lets two texts on a page have notes', () => {
  const [one, other] = ['First[^1]\n\n[^1]: A note.', 'Second[^1]\n\n[^1]: Another.'].map(htmlOf);
  const ids = [...`${one}${other}`.matchAll(/ id="([^"]*)"/g)].map(([, id]) => id);
  expect(new Set(ids).size).toBe(ids.length);
  const leads = [...`${one}${other}`.matchAll(/href="#([^"]*)"/g)].map(([, id]) => id);
  expect(leads.length).toBe(4);
  for (const id of leads) expect(ids).toContain(id);
});

it('gives headings anchors made of their words, which say nothing of their reader', () => {
  const ids = (markdown: string) => [...htmlOf(markdown).matchAll(/<h\d id="([^"]*)"/g)].map(([, id]) => id);
  expect(ids('# Opening *hours*\n\n## Opening hours\n\nÄpfel & Öl\n---\n\n### ?!')).toEqual([
    'opening-hours',
    'opening-hours-1',
    'äpfel--öl',
    'part',
  ]);
  expect(ids('## Hello :own[name]{or="friend"}, come in')).toEqual(['hello--come-in']);
  expect(ids('> ## Within\n\n- ## Within')).toEqual(['within', 'within-1']);
});

it('keeps addresses that ring somebody up or put a day into a calendar', () => {
  for (const to of ['tel:+46123', 'sms:+46123', 'webcal://moor.example/c.ics', 'mailto:a@moor.example'])
    expect(htmlOf(`[a](${to})`)).toContain(`href="${to}"`);
});

it('says of the boxes of a task list whether they are ticked', () => {
  const html = htmlOf('- [x] Lamp\n- [ ] Ladder\n\n1. [ ] Loose\n\n2. [x] list');
  expect([...html.matchAll(/aria-label="([^"]*)"/g)].map(([, label]) => label)).toEqual([
    'done',
    'to be done',
    'to be done',
    'done',
  ]);
});

it.each([
  ['emphasis over many lines', '*a_\n'.repeat(10_000)],
  ['emphasis over many paragraphs', `${'*a_\n'.repeat(300)}\n`.repeat(60)],
  ['rows shorter than their head', `${'|a'.repeat(900)}\n${'|-'.repeat(900)}\n${'|b\n'.repeat(900)}`],
  ['brackets over many lines', '[a](\n'.repeat(5000)],
])('refuses %s with a sentence and the line, and shows them as they are', (_, text) => {
  expect(markdownProblem(text)).toEqual({ line: expect.any(Number), message: expect.stringMatching(/\.$/) });
  expect(htmlOf(text)).toMatch(/^<p>/);
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

it('says nothing of a reader in its words alone', () => {
  expect(plainTextOf('Hello :own[name]{or="my *friend*"}, \\:own[x]')).toBe('Hello my friend, :own[x]');
  expect(plainTextOf('\uE001 :own[nonsense] b')).toBe('b');
});
