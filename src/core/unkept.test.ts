import fc from 'fast-check';
import { expect, it } from 'vitest';
import { unkeptIn } from '.';

it('finds a text that can’t be kept, however deep it is and whether it is a name or a value', () => {
  fc.assert(
    fc.property(
      fc.jsonValue(),
      fc.constantFrom('a\0b', '\ud83d', 'x\udc00y'),
      fc.nat(3),
      (around, text, depth) => {
        let value: unknown = text;
        for (let at = 0; at <= depth; at++) value = at % 2 === 0 ? { around: 1, here: value } : ['x', value];
        expect(unkeptIn(value)?.path).toMatch(/^here|^1/);
        expect(unkeptIn({ [text]: around })?.message).toMatch(/NUL|half of a character/);
      },
    ),
  );
});

it('leaves everything alone that can be kept', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      fc.pre(!text.includes('\0'));
      expect(unkeptIn({ a: [text, 1, null, { b: text }] })).toBeNull();
    }),
  );
  expect(unkeptIn('🔭')).toBeNull();
});
