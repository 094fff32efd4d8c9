import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everyone, nobody } from '../condition';
import { conditions } from '../testing/arbitraries';
import { vocabulary } from '../testing/larkfell';
import { conditionsIn, parseRegions, printCondition, renameRegions, shownIn, textsIn } from '.';

const read = (text: string) => parseRegions(text, vocabulary);
const shown = (text: string, truth: boolean) =>
  shownIn(read(text).pieces, () => truth).map((piece) => piece.text.trim());

const LANE = `Before.
:::for level at least "Observer"
The code.
:::or for signed in
The lamp.
:::otherwise
Come early.
:::
After.`;

describe('marked regions', () => {
  it('are pieces with cases, of which the first that holds is shown', () => {
    expect(read(LANE).problem).toBeNull();
    expect(conditionsIn(read(LANE).pieces)).toHaveLength(2);
    expect(shown(LANE, true)).toEqual(['Before.', 'The code.', 'After.']);
    expect(shown(LANE, false)).toEqual(['Before.', 'Come early.', 'After.']);
    expect(textsIn(read(LANE).pieces).map(({ text }) => text)).toHaveLength(5);
  });

  it('show nothing without a last case to those for whom none holds', () => {
    expect(shown('a\n:::for signed in\nb\n:::\nc', false)).toEqual(['a', 'c']);
  });

  it('stand in each other', () => {
    const nested = ':::for signed in\na\n:::for level is set\nb\n:::otherwise\nc\n:::\nd\n:::';
    expect(shown(nested, true)).toEqual(['a', 'b', 'd']);
    expect(new Set(textsIn(read(nested).pieces).map(({ path }) => path)).size).toBe(4);
    const deep = `${':::for signed in\n'.repeat(6)}x\n${':::\n'.repeat(6)}`;
    expect(read(deep).problem?.message).toMatch(/more than 5 deep/);
    expect(shown(deep, true)).toEqual([]);
  });

  it.each([
    ['never closed', 'a\n:::for signed in\nsecret', 2, /never closed/],
    ['misspelt', 'a\n:::fro signed in\nsecret\n:::', 2, /“fro” begins no region/],
    ['misspelt within', 'a\n:::for signed in\nsecret\n:::otherwis\nsecret\n:::', 4, /“otherwis”/],
    ['without a condition', 'a\n:::for\nsecret\n:::', 2, /Say who it is for/],
    ['with a condition that can’t be read', 'a\n:::for signed on\nsecret\n:::', 2, /signed in|can’t stand/],
    ['of items', 'a\n:::for item kind is "page"\nsecret\n:::', 2, /for people/],
    ['of whose item it is', 'a\n:::for visitor owns item\nsecret\n:::', 2, /for people/],
    [
      'of the item’s group',
      'a\n:::for signed in and not visitor in item group\nsecret\n:::',
      2,
      /for people/,
    ],
    ['behind a list’s mark', 'a\n- :::for signed in\nsecret\n:::', 2, /nothing before/],
    ['in a quotation', 'a\n> :::for signed in\n> secret\n> :::', 2, /nothing before/],
    ['with two colons', 'a\n::for signed in\nsecret\n::', 2, /three colons/],
    ['with wide colons', 'a\n：：：for signed in\nsecret\n:::', 2, /three colons/],
    ['closed twice', 'a\n:::for signed in\nx\n:::\n:::\nsecret', 5, /no region open/],
    [
      'with a case after the last',
      'a\n:::for signed in\nx\n:::otherwise\ny\n:::or for signed in\nsecret\n:::',
      6,
      /Nothing comes after/,
    ],
    [
      'with two last cases',
      'a\n:::for signed in\nx\n:::otherwise\ny\n:::otherwise\nsecret\n:::',
      6,
      /otherwise already/,
    ],
    ['in a fence', 'a\n```\n:::for signed in\nsecret\n```', 3, /never closed/],
  ])('that are wrong (%s) say where, and show nothing from there on', (_, text, line, message) => {
    const { problem } = read(text);
    expect(problem?.line).toBe(line);
    expect(problem?.message).toMatch(message);
    expect(JSON.stringify(shown(text, true))).not.toContain('secret');
    expect(shown(text, true)[0]).toMatch(/^a/);
  });

  it('never show what stands in one that is for nobody, whatever the text', () => {
    const line = fc.constantFrom(
      'plain',
      ':::for signed in',
      ':::or for not signed in',
      ':::otherwise',
      ':::',
      '::: :::',
      ':::for nobody',
      '> :::',
      '```',
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), fc.array(line, { maxLength: 12 }), (before, after) => {
        const text = [...before, ':::for nobody', 'SECRET', ':::', ...after].join('\n');
        const pieces = shownIn(
          read(text).pieces,
          (condition) => condition.kind !== 'any' || condition === everyone,
        );
        expect(pieces.map((piece) => piece.text).join('\n')).not.toContain('SECRET');
      }),
    );
    expect(nobody.kind).toBe('any');
  });

  it.each([
    ['  :::for signed in\na', 1, 1, 'A region’s line begins with three colons and nothing before them.'],
    ['a\n::::for signed in', 2, 1, 'A region’s line begins with three colons'],
    ['a\n:::frob x\nb', 2, 4, '“frob” begins no region.'],
    ['a\n:::  frob', 2, 6, '“frob” begins no region.'],
    ['a\n:::forty', 2, 4, '“forty” begins no region.'],
    ['a\n:::not for me', 2, 4, '“not” begins no region.'],
    ['a\n:::for\nb\n:::', 2, 7, 'Say who it is for'],
    ['a\n:::for signed in and\nb', 2, 21, 'The text ends too early.'],
    ['a\n:::FOR  signed in an\nb', 2, 19, '“an” can’t stand here. Did you mean “and”?'],
    ['a\n:::for signed in\nb', 2, 1, 'This region is never closed.'],
    [':::for signed in\n\n:::for signed in\nx', 3, 1, 'This region is never closed.'],
    ['a\n:::otherwise x', 2, 1, 'There is no region open here for “:::otherwise x”.'],
    ['a\n:::', 2, 1, 'There is no region open here for “:::”.'],
    ['x\n:::for signed in\n:::otherwise now\n:::', 3, 14, 'Nothing stands behind :::otherwise.'],
    ['x\n:::for signed in\n:::otherwise\n:::otherwise\n:::', 4, 1, 'has an :::otherwise already'],
    ['x\n:::for signed in\n:::otherwise\n:::or for signed in\n:::', 4, 1, 'Nothing comes after :::otherwise'],
  ])('say of %j that at line %i, column %i, %s', (text, line, column, message) => {
    const { problem, pieces } = read(text);
    expect(problem).toEqual({ line, column, message: expect.stringContaining(message) });
    // What stands before the region that is wrong is there; what is in it is not.
    expect(pieces.map(({ kind }) => kind)).toEqual(/^[ax]/.test(text) ? ['text'] : []);
  });

  it('read their words in any case and with any spaces, also with lines as Windows ends them', () => {
    const wild =
      'a\r\n:::  For   signed in \r\nb\r\n:::OR\t for level is set\r\nc\r\n:::Otherwise\r\nd\r\n:::\r\ne';
    expect(read(wild).problem).toBeNull();
    expect(shown(wild, true)).toEqual(['a', 'b', 'e']);
    expect(shown(wild, false)).toEqual(['a', 'd', 'e']);
    expect(conditionsIn(read(wild).pieces)).toHaveLength(2);
  });

  it('keep the lines of what stands in them, and leave out what is empty', () => {
    const [text, region] = read('one\ntwo\n:::for signed in\n \n:::otherwise\nthree\n\nfour\n:::').pieces;
    expect(text).toEqual({ kind: 'text', path: '0', text: 'one\ntwo' });
    expect(region).toMatchObject({
      kind: 'region',
      path: '1',
      cases: [{ pieces: [] }],
      last: [{ kind: 'text', path: '1.x.0', text: 'three\n\nfour' }],
    });
  });

  it('have paths that say where they stand', () => {
    const nested =
      'a\n:::for signed in\nb\n:::or for level is set\nc\n:::for signed in\nd\n:::\n:::otherwise\ne\n:::';
    expect(textsIn(read(nested).pieces).map(({ path, text }) => [path, text])).toEqual([
      ['0', 'a'],
      ['1.0.0', 'b'],
      ['1.1.0', 'c'],
      ['1.1.1.0.0', 'd'],
      ['1.x.0', 'e'],
    ]);
  });

  it('are at most so many, and one more is told', () => {
    const region = ':::for signed in\nx\n:::\n';
    expect(read(region.repeat(100)).problem).toBeNull();
    expect(read(region.repeat(100 + 1)).problem).toEqual({
      line: 301,
      column: 1,
      message: `A text has at most 100 regions. Make sections of some.`,
    });
  });

  it('keep their conditions by ids, so that new names change nothing', () => {
    fc.assert(
      fc.property(conditions, (condition) => {
        const text = `:::for ${printCondition(condition, vocabulary)}\nx\n:::`;
        const ofItem = read(text).problem !== null;
        fc.pre(!ofItem);
        const stored = renameRegions(text, vocabulary, 'by id');
        expect(conditionsIn(read(stored).pieces)).toEqual([condition]);
        expect(renameRegions(stored, vocabulary, 'by name')).toBe(text);
      }),
    );
    const stored = renameRegions(':::for in group "Dome crew"\nx\n:::', vocabulary, 'by id');
    expect(stored).toContain('in group id "dome-crew"');
    const renamed = {
      ...vocabulary,
      groups: vocabulary.groups.map((group) => ({ ...group, name: `The ${group.name}` })),
    };
    expect(renameRegions(stored, renamed, 'by name')).toContain('in group "The Dome crew"');
  });
});
