import fc from 'fast-check';
import { expect, it } from 'vitest';
import { crew, vocabulary } from '../testing/larkfell';
import { nearest, resolveName } from './names';
import { bareOrQuoted, isReserved, quoted } from './quote';
import { tokensOf } from './tokens';

it('finds the nearest name, and none when none comes near', () => {
  const names = ['Dome crew', 'Hollin School', 'Tarn Survey'];
  expect(nearest('dome crwe', names)).toBe('Dome crew');
  expect(nearest('Hollin Scool', names)).toBe('Hollin School');
  expect(nearest('completely else', names)).toBeNull();
  expect(nearest('x', [])).toBeNull();
  expect(nearest('x'.repeat(10_000), names)).toBeNull();
});

it('compares names up to sixty letters, two thousand of them at most, and finds the best of several', () => {
  const long = `${'x'.repeat(59)}y`;
  expect(nearest('x'.repeat(60), [long])).toBe(long);
  expect(nearest('x'.repeat(61), [long])).toBeNull();
  expect(nearest('x'.repeat(60), [`${long}z`])).toBeNull();
  const many = [...Array<string>(2000).fill('Tarn Survey'), 'Dome crew'];
  expect(nearest('Dome crwe', many)).toBeNull();
  expect(nearest('Dome crwe', many.slice(1))).toBe('Dome crew');
  expect(nearest('Dome crew 2', ['Dome crews', 'Dome crew 1'])).toBe('Dome crew 1');
  expect(nearest('abc', ['a', 'xyz'])).toBe('a');
  expect(nearest('ab', ['xyz'])).toBeNull();
});

it('takes a name as it is written before one that differs in case', () => {
  const twice = {
    ...vocabulary,
    groups: [{ id: 'lower' as never, name: 'dome crew', private: false }, ...vocabulary.groups],
  };
  expect(resolveName('group', 'Dome crew', twice)?.id).toBe(crew);
  expect(resolveName('group', 'DOME CREW', twice)?.id).toBe('lower');
  expect(resolveName('group', 'nobody', twice)).toBeUndefined();
});

it('quotes whatever could be mistaken for something else', () => {
  expect(bareOrQuoted('team')).toBe('team');
  for (const word of ['is', 'not', 'today', 'id', 'Team', 'hours logged', '5', 'a"b', ''])
    expect(bareOrQuoted(word)).toBe(quoted(word));
  expect(isReserved('within')).toBe(true);
});

it('cuts any text into tokens that cover it, in order', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string({ unit: 'binary' }), fc.string()), (text) => {
      let end = 0;
      for (const token of tokensOf(text)) {
        expect(text.slice(end, token.from).trim()).toBe('');
        expect(text.slice(token.from, token.to)).toBe(token.raw);
        end = token.to;
      }
      expect(end).toBe(text.length);
    }),
    { numRuns: 1000 },
  );
});

it('reads back any text that it quotes', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (text) => {
      const [token] = tokensOf(quoted(text));
      expect(token).toMatchObject({ kind: 'quoted', value: text });
    }),
  );
});
