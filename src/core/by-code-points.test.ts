import fc from 'fast-check';
import { expect, it } from 'vitest';
import { byCodePoints } from './by-code-points';

const asBytes = (a: string, b: string) => Buffer.compare(Buffer.from(a), Buffer.from(b));

it('sorts as bytes of UTF-8 do', () => {
  const text = fc.string({
    unit: fc.constantFrom('a', 'b', 'é', '\u{fffd}', '豈', '𝒜', '\u{10ffff}'),
    maxLength: 5,
  });
  fc.assert(
    fc.property(text, text, (a, b) => {
      expect(Math.sign(byCodePoints(a, b))).toBe(asBytes(a, b));
    }),
  );
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.string({ unit: 'binary' }), (a, b) => {
      expect(Math.sign(byCodePoints(a, b))).toBe(asBytes(a, b));
    }),
  );
});
