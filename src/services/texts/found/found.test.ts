import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ownWordsIn, parseRegions, vocabularyOf } from '@/core';
import { htmlOf } from '../markdown';
import type { FoundDocument, TextKind } from './document';
import { readDocument } from './read-document';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);

function read(
  text: string | Uint8Array,
  kind: TextKind = 'markdown',
  charset: string | null = null,
): FoundDocument {
  const answer = readDocument({ bytes: typeof text === 'string' ? bytesOf(text) : text, kind, charset });
  if ('problem' in answer) throw new Error(answer.problem);
  return answer.document;
}

const told = (text: string | Uint8Array, kind: TextKind = 'markdown') =>
  read(text, kind).notes.map(({ line, message }) => (line === null ? message : `${line}: ${message}`));

/** A text with every address in it as another. */
const withAddresses = ({ body, spots }: FoundDocument, other: (url: string) => string): string =>
  spots.reduceRight(
    (text, { from, to, before, after, url }) =>
      `${text.slice(0, from)}${before}${other(url)}${after}${text.slice(to)}`,
    body,
  );

describe('front matter', () => {
  it('is read for what a page says of itself', () => {
    expect(
      read(
        '---\ntitle: "Dark: hills"\ndate: 2024-05-01 10:00\ntags: [sky, moon]\ncategories: [News]\nauthor: Ada\naddress: dark\nformerly: /old\nparent: index.md\ndraft: true\ndescription: |\n  Two\n  lines\n---\n\n# Hello\n',
      ),
    ).toMatchObject({
      title: 'Dark: hills',
      date: '2024-05-01',
      tags: ['sky', 'moon'],
      category: 'News',
      author: 'Ada',
      address: 'dark',
      formerly: ['/old'],
      parent: 'index.md',
      draft: true,
      summary: 'Two lines',
      body: '# Hello',
      notes: [],
    });
  });

  it('is told with its line when it is broken, and the text stays', () => {
    const text = '---\ntitle: Hill\ntags: [a, "b\n---\n# Words\n';
    expect(told(text)).toEqual([expect.stringMatching(/^[34]: What stands before it can’t be read/)]);
    expect(read(text)).toMatchObject({ title: 'Words', body: '# Words' });
    expect(read('---\n- a\n- b\n---\nx')).toMatchObject({ body: '---\n- a\n- b\n---\nx', notes: [] });
    expect(told('---\n- a\nb: c\n---\nx')).toHaveLength(1);
    expect(told('+++\ntitle = "x"\n+++\nWords')).toEqual([expect.stringMatching(/TOML/)]);
    expect(read('+++\ntitle = "x"\n+++\nWords').body).toBe('Words');
  });

  it.each([
    [
      'aliases of aliases',
      `a: &a [x,x,x,x,x,x,x,x,x]\n${'bcdefghijk'
        .split('')
        .map((one, at) => `${one}: &${one} [${Array(9).fill(`*${'abcdefghij'[at]}`).join(',')}]`)
        .join('\n')}`,
    ],
    ['more than anybody writes', `a: ${'x'.repeat(30_000)}`],
  ])('with %s is left out', (_, inside) => {
    expect(told(`---\n${inside}\n---\nWords`)).toEqual([expect.stringMatching(/left out/)]);
  });

  it('stands at the beginning or is none', () => {
    const text = 'Words\n\n---\ntitle: x\n---\nMore';
    expect(read(text)).toMatchObject({ title: null, body: text });
    expect(read(`---\nAbove a line.\n\n---\nBelow it`).body).toBe('---\nAbove a line.\n\n---\nBelow it');
    expect(read('---\n\nWords').body).toBe('---\n\nWords');
  });

  it('says of a wrong date, of too much and of what is not kept', () => {
    expect(told('---\ndate: last May\nlayout: wide\nweight: 3\nauthors: [Ada, Bo]\n---\nx')).toEqual(
      [
        'Its date “last May” is no day like 2026-05-01, and was left out.',
        'It also says layout, weight: that is not kept.',
        'Of “author” only the first was kept: Ada.',
      ].toSorted(
        (a, b) =>
          Number(b.startsWith('Its')) - Number(a.startsWith('Its')) ||
          Number(b.startsWith('It a')) - Number(a.startsWith('It a')),
      ),
    );
  });

  it('keeps back what is not plainly ready', () => {
    for (const draft of ['true', 'yes', '"no"', '1', '[]'])
      expect(read(`---\ndraft: ${draft}\n---\nx`).draft).toBe(true);
    expect(read('---\npublished: false\n---\nx').draft).toBe(true);
    for (const head of ['draft: false', 'title: x', 'published: true'])
      expect(read(`---\n${head}\n---\nx`).draft).toBe(false);
  });
});

describe('Markdown', () => {
  it('stays as it is written, with the places of its addresses', () => {
    const body =
      'A [*dark* ![moon](moon.png "The moon")](hill.md "Up") sky.\n\n[one]: two.md "Three"\n\n<https://moor.example> and `[a](b)`';
    const found = read(body);
    expect(found.body).toBe(body);
    expect(found.spots.map(({ kind, url }) => `${kind} ${url}`)).toEqual([
      'picture moon.png',
      'link hill.md',
      'link two.md',
    ]);
    expect(withAddresses(found, (url) => url)).toBe(body);
    expect(withAddresses(found, (url) => `/${url}`)).toBe(
      'A [*dark* ![moon](/moon.png "The moon")](/hill.md "Up") sky.\n\n[one]: /two.md "Three"\n\n<https://moor.example> and `[a](b)`',
    );
  });

  it('is turned from markup where there is some, and says what was left out', () => {
    const text =
      'Hello\n\n<div align="center">\n\n**Bold** <em>words</em>\n\n</div>\n\n<iframe src="https://x.example"></iframe>\n<form><input></form>';
    expect(read(text).body).toBe('Hello\n\n**Bold** *words*');
    expect(told(text)).toEqual(['1 frame with a page from elsewhere and 1 form were left out.']);
    expect(read('A <!-- remark --> b').body).toBe('A <!-- remark --> b');
    expect(told('a\n\n{% include "b" %}')).toEqual([expect.stringMatching(/^3: .*braces/)]);
  });

  it('never becomes a region or an own word, whatever stands in it', () => {
    const vocabulary = vocabularyOf(
      {
        levels: [],
        roles: [],
        groups: [],
        products: [],
        fields: [],
        courses: [],
        units: [],
        activities: [],
        passphrases: [],
      },
      { audiences: [] } as never,
    );
    const part = fc.constantFrom(
      ':::for signed in',
      ':::',
      '::: note',
      '::',
      '：：',
      '> ',
      '- ',
      '1. ',
      '\n',
      '\n\n',
      '```\n',
      ':own[name]',
      '\\:own[name]',
      'words',
      '   ',
      '<b>',
      '`',
    );
    fc.assert(
      fc.property(
        fc.array(part, { maxLength: 14 }),
        fc.constantFrom('markdown' as const, 'html' as const),
        (parts, kind) => {
          const answer = readDocument({ bytes: bytesOf(parts.join('')), kind, charset: null });
          if ('problem' in answer) return;
          const { body } = answer.document;
          const { pieces, problem } = parseRegions(body, vocabulary);
          expect(problem).toBeNull();
          expect(pieces.every(({ kind: one }) => one === 'text')).toBe(true);
          expect(ownWordsIn(body, vocabulary)).toEqual([]);
        },
      ),
      { numRuns: 400 },
    );
    expect(read('::: note\nMind\n:::').body).toBe('\\::: note\nMind\n\\:::');
    expect(told('```\n:::\n```')).toEqual([expect.stringMatching(/^2: A line of code/)]);
  });

  it('that can’t be read says why and where', () => {
    expect(
      readDocument({
        bytes: bytesOf(`---\na: b\n---\n\n${'['.repeat(50_000)}`),
        kind: 'markdown',
        charset: null,
      }),
    ).toEqual({
      problem: expect.stringMatching(/^Line 5: .*marks/),
    });
    expect(readDocument({ bytes: new Uint8Array([0, 1, 2, 0]), kind: 'markdown', charset: null })).toEqual({
      problem: 'That is no text.',
    });
    expect(
      readDocument({ bytes: bytesOf('<div>'.repeat(50_000)), kind: 'html', charset: null }),
    ).toHaveProperty('problem');
  });
});

describe('encodings', () => {
  it('are made out, and said where they had to be guessed', () => {
    const latin = Uint8Array.from([...'Fjäll är höga'].map((one) => one.charCodeAt(0)));
    expect(read(latin).body).toBe('Fjäll är höga');
    expect(told(latin)).toEqual([expect.stringMatching(/Latin-1/)]);
    expect(read(Uint8Array.from([0xef, 0xbb, 0xbf, ...bytesOf('---\ntitle: x\n---\n')])).title).toBe('x');
    const wide = new Uint8Array(Buffer.from('\uFEFFÅsen', 'utf16le'));
    expect(read(wide).body).toBe('Åsen');
    const html = Buffer.from('<meta charset="iso-8859-1"><body><h1>Fjäll</h1></body>', 'latin1');
    expect(read(new Uint8Array(html), 'html')).toMatchObject({ title: 'Fjäll', notes: [] });
  });
});

describe('HTML', () => {
  it('is its main part, with what its head says', () => {
    const found = read(
      '<!doctype html><html><head><title>Hill – Site</title><meta name=description content="Up there"><meta name="author" content="Ada"><style>x</style><script>y</script></head><body><nav>menu</nav><main><h1>The <em>hill</em></h1><p>Go <a href="up.html">up</a>.</p><img src="a.png" alt="A"><table><tr><th>a</th></tr><tr><td>b</td></tr></table></main><footer>foot</footer></body></html>',
      'html',
    );
    expect(found).toMatchObject({ title: 'The hill', summary: 'Up there', author: 'Ada', notes: [] });
    expect(found.body).toBe('# The *hill*\n\nGo [up](up.html).\n\n![A](a.png)\n\n| a |\n| - |\n| b |');
    expect(read('<body><header>h</header><p>a</p><aside>b</aside></body>', 'html').body).toBe('a');
  });

  it('keeps where its anchors led', () => {
    const { anchors, body } = read(
      '<main><h1 id="top">Hill</h1><section id="s1"><h2>Opening hours</h2><p id="p">x</p></section><h2><a name="how"></a>How to get there</h2></main>',
      'html',
    );
    expect(anchors).toEqual({
      top: 'hill',
      s1: 'opening-hours',
      p: 'opening-hours',
      how: 'how-to-get-there',
    });
    const html = htmlOf(body);
    for (const anchor of Object.values(anchors)) expect(html).toContain(` id="${anchor}"`);
  });

  it('never brings anything that runs', () => {
    const part = fc.constantFrom(
      '<script>a()</script>',
      '<img src=x onerror=a()>',
      '<a href="javascript:a()">b</a>',
      '<svg onload=a()>',
      '<p>',
      'words',
      '<math><mi xlink:href="javascript:a()">',
      '</p>',
      '<iframe srcdoc="<script>">',
      '&lt;script&gt;',
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 10 }), (parts) => {
        const { body } = read(parts.join(''), 'html');
        const html = htmlOf(body);
        expect(html.replace(/"[^"]*"/g, '""')).not.toMatch(/<(script|svg|iframe|math)|<\w[^>]*\son\w+=/i);
        expect(html).not.toMatch(/href="javascript/);
      }),
    );
  });
});
