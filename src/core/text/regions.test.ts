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
