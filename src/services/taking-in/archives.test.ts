/** Archives that are none, or that want what can’t be: what is whole comes in, with a place of its own, and the rest says why not. */
import { strToU8, type Zippable, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { emptySite, notesOf, tree, zipOf } from './testing';

const { site, ask, asked, look, refusal, send, taken } = emptySite();

describe('two that want one address', () => {
  it('each get one, and it is said', async () => {
    const report = await look(
      await send(
        zipOf({
          'About.md': 'A',
          'about.html': '<p>B</p>',
          'search.md': 'S',
          'about/README.md': 'C',
          'x.md': '---\naddress: /about\n---\nX',
        }),
      ),
    );
    expect(tree(report)).toEqual([
      'About /about',
      'About /about-2',
      'About /about-3',
      'Search /search-2',
      'X /about-4',
    ]);
    expect(notesOf(report, '/search-2')).toEqual(['It can’t have the address /search, so it has /search-2.']);
  });

  it('and what stands on the site keeps its own', async () => {
    await taken({ 'a.md': 'A' });
    const report = await look(await send(zipOf({ 'a.md': 'Other' })));
    expect(notesOf(report, '/a-2')).toEqual(['“A” has the address /a, so it has /a-2.']);
  });
});

describe('parents', () => {
  it('that a text names are followed, and circles broken', async () => {
    const report = await look(
      await send(
        zipOf({
          'a.md': '---\nparent: b\n---\nA',
          'b.md': '---\nparent: c\n---\nB',
          'c.md': '---\nparent: a.md\n---\nC',
          'd.md': '---\nparent: Nobody\n---\nD',
          'e.md': '---\nparent: e\n---\nE',
        }),
      ),
    );
    expect(tree(report)).toEqual(['C /c', '  B /b', '    A /a', 'D /d', 'E /e']);
    expect(notesOf(report, '/c')).toEqual([
      'It is to stand below “a.md”, which stands below it. It stands below its folder.',
    ]);
    expect(notesOf(report, '/d')).toEqual([
      'It is to stand below “Nobody”, and there is no such page. It stands below its folder.',
    ]);
    expect(notesOf(report, '/e')).toHaveLength(1);
  });
});

describe('archives that are none', () => {
  it('are refused with why, and leave nothing behind', async () => {
    expect(await refusal(strToU8('no archive'))).toBe('That can’t be read as a ZIP archive.');
    expect(await refusal(zipOf({ 'a.txt': 'x' }))).toMatch(/There is no page in it/);
    expect(await refusal(zipOf({ '../a.md': 'x' }))).toBe(
      'The archive holds a path that leads out of it: ../a.md. Nothing of it is taken.',
    );
    expect(await refusal(zipOf({ '/etc/a.md': 'x' }))).toMatch(/leads out of it/);
    expect(
      await refusal(
        zipSync(
          Object.fromEntries(Array.from({ length: 20_001 }, (_, one) => [`${one}.md`, new Uint8Array()])),
        ),
      ),
    ).toMatch(/at most 20000/);
    const huge = zipOf(
      Object.fromEntries(Array.from({ length: 3 }, (_, one) => [`${one}.md`, 'x'.repeat(100)])),
    );
    // What the list of files says of their sizes (APPNOTE 4.3.12): four bytes, 24 after the signature.
    const buffer = Buffer.from(huge);
    for (
      let place = buffer.indexOf('PK\x01\x02');
      place >= 0;
      place = buffer.indexOf('PK\x01\x02', place + 1)
    )
      buffer.writeUInt32LE(4_000_000_000, place + 24);
    expect(await refusal(new Uint8Array(buffer))).toMatch(/larger than 1000 MB/);
    expect(await refusal(zipOf({ 'a.md': 'x' }).subarray(0, 60))).toMatch(/can’t be read|damaged/);
  });

  it('in which nothing is whole say why', async () => {
    const source = await send(zipOf({ 'deep.md': '['.repeat(50_000), 'none.md': Uint8Array.from([0, 1]) }));
    expect(await ask(asked(source, null))).toEqual({
      kind: 'wrong',
      message: expect.stringMatching(
        /^Nothing of it can be taken in\. deep\.md: Line 1: .*none\.md: That is no text\./,
      ),
    });
  });

  it('give what is whole in them, and say of the rest what it is', async () => {
    const files: Zippable = {
      'a.md': strToU8('A'),
      'link.md': [strToU8('a.md'), { os: 3, attrs: 0o120777 << 16 }],
      'latin.md': Uint8Array.from([...'# Fjäll'].map((one) => one.charCodeAt(0))),
      'none.md': Uint8Array.from([0, 1, 2]),
      'deep.md': strToU8('['.repeat(50_000)),
    };
    const lies = Buffer.from(zipSync({ ...files, 'lies.md': strToU8('x'.repeat(5000)) }));
    const last = lies.lastIndexOf('PK\x01\x02');
    lies.writeUInt32LE(10, last + 24);
    const report = await look(await send(new Uint8Array(lies)));
    expect(tree(report)).toEqual(['A /a', 'Fjäll /latin']);
    expect(notesOf(report, '/latin')).toEqual([expect.stringMatching(/Latin-1/)]);
    expect(report.leftOut.map(({ path }) => path).toSorted()).toEqual([
      'deep.md',
      'lies.md',
      'link.md',
      'none.md',
    ]);
  });
});

describe('names that nobody gives', () => {
  it('are cut where a character ends, and none of them stops the rest', async () => {
    const moon = '🌙';
    const { report } = await taken({
      [`${'x'.repeat(1100)}.md`]: 'A',
      'ä\u0001b.md': 'A',
      [`${moon.repeat(120)}.md`]: 'M',
      'long.md': `---\ntags: ["${moon.repeat(150)}"]\nsummary: a${moon.repeat(1500)}\n---\n# ${'a'}${moon.repeat(150)}\n`,
      'odd/?#%&.md': 'O',
      'empty.md': '',
    });
    expect(report.leftOut.map(({ why }) => why).toSorted()).toEqual([
      'Its name holds characters that no address has.',
      'Its path has more than 1000 letters.',
    ]);
    expect(report.pages.map(({ address }) => address)).toContain('/long');
    expect(site.trivet.state.outline.addressed.get('/long' as never)?.title.isWellFormed()).toBe(true);
  });

  it('of folders in folders are too many before they are all made', async () => {
    const deep = Object.fromEntries(
      Array.from({ length: 400 }, (_, one) => [
        `${Array.from({ length: 60 }, (__, at) => `${one}-${at}`).join('/')}.md`,
        'A',
      ]),
    );
    const source = await send(zipOf(deep));
    expect(await ask(asked(source, null))).toEqual({
      kind: 'wrong',
      message: expect.stringMatching(/more than 20000 pages/),
    });
    const nested = await send(
      zipOf({ [`${Array.from({ length: 120 }, (_, at) => at).join('/')}/x.md`]: 'A', 'b.md': 'B' }),
    );
    expect(await ask(asked(nested, null))).toEqual({
      kind: 'wrong',
      message: expect.stringMatching(/100 deep/),
    });
  });

  it('that thousands share are told apart', async () => {
    const letters = [...'abcdefghij'];
    const alike = Object.fromEntries(
      Array.from({ length: 2 ** letters.length }, (_, one) => [
        `${letters.map((letter, at) => ((one >> at) & 1 ? letter.toUpperCase() : letter)).join('')}.md`,
        '',
      ]),
    );
    const report = await look(await send(zipOf(alike)));
    expect(new Set(report.pages.map(({ address }) => address)).size).toBe(report.pages.length);
  });
});
