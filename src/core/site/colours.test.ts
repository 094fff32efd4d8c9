import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COLOURS, colourProblems, contrastOf, highOf, inkOn, luminanceOf, styleOf } from './colours';

const colour = fc.integer({ min: 0, max: 0xffffff }).map((one) => `#${one.toString(16).padStart(6, '0')}`);
const three = fc.record({ head: colour, mark: colour, link: colour });

describe('contrast', () => {
  it('is what WCAG says', () => {
    expect(luminanceOf('#ffffff')).toBeCloseTo(1);
    expect(contrastOf('#000000', '#ffffff')).toBeCloseTo(21);
    // The grey that is just light enough on white, in the guideline's own techniques.
    expect(contrastOf('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  });
});

describe('colours', () => {
  it('that nothing is wrong with can be read everywhere they stand', () => {
    expect(colourProblems(COLOURS)).toEqual([]);
    fc.assert(
      fc.property(three, (colours) => {
        fc.pre(colourProblems(colours).length === 0);
        for (const band of [colours.head, highOf(colours.head)]) {
          expect(contrastOf(band, inkOn(colours.head))).toBeGreaterThanOrEqual(4.5);
          expect(contrastOf(band, colours.mark)).toBeGreaterThanOrEqual(4.5);
        }
        expect(contrastOf(colours.link, '#f8fafb')).toBeGreaterThanOrEqual(4.5);
        expect(contrastOf(colours.head, '#f8fafb')).toBeGreaterThanOrEqual(3);
      }),
    );
  });

  it('that are wrong are told with one that would do, if any would', () => {
    fc.assert(
      fc.property(three, (colours) => {
        let now = colours;
        // The mark is looked at once there is a head to hold it against.
        for (let round = 0; round < 3; round++)
          for (const { colour: which, instead } of colourProblems(now)) {
            expect(instead).not.toBeNull();
            now = { ...now, [which]: instead ?? '' };
          }
        expect(colourProblems(now)).toEqual([]);
      }),
    );
  });

  it('are six digits, and nothing else gets into a style sheet', () => {
    for (const text of ['red', '#fff', '#1234567', '#12345g', '}body{', ''])
      expect(colourProblems({ ...COLOURS, link: text })).toMatchObject([{ colour: 'link', instead: null }]);
    expect(styleOf(COLOURS)).toBe(
      ':root{--night:#14233b;--night-high:#303d53;--night-low:#0c1422;--night-ink:#eef3f8;--lamp:#f1c572;--link:#1d5577}\n',
    );
  });
});
