import fc from 'fast-check';
import { expect, it } from 'vitest';
import { curveThrough, heightsOf } from './horizon';

it('is the same for a name, and another for others', () => {
  expect(heightsOf('Larkfell Observatory')).toEqual(heightsOf('Larkfell Observatory'));
  const names = ['Larkfell Observatory', 'Hazelbarn', 'Hazel & Co', 'Hazel & Co.', ''];
  expect(new Set(names.map((name) => heightsOf(name).join())).size).toBe(names.length);
});

it('stays within the head, whatever a site is called', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (name) => {
      const heights = heightsOf(name);
      expect(Math.min(...heights)).toBeGreaterThanOrEqual(5);
      expect(Math.max(...heights)).toBeLessThanOrEqual(27);
      expect(curveThrough(heights)).toMatch(/^M0 36V\d+(?:C\d+ \d+ \d+ \d+ \d+ \d+){3}V36Z$/);
    }),
  );
});
