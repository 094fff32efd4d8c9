import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { english } from '../messages';
import { filledLetter, LETTER_KINDS, LETTERS, LONGEST_LETTER, letterProblems, namesIn } from '.';

const { receipt, invitation } = english.letters;

describe('a letter that is filled in', () => {
  it('says what is there, and leaves out lines of what is not', () => {
    const values = { product: 'Pass', sum: '5.00 €', day: '1 May 2027', link: 'https://x.example/me' };
    expect(filledLetter(receipt, values)).toEqual({
      subject: 'Receipt: Pass, 5.00 €',
      text: 'On 1 May 2027 you paid 5.00 € for Pass.\n\nWhat you have, and everything that you paid: https://x.example/me',
    });
  });

  it('has all of its lines where everything is there', () => {
    const values = Object.fromEntries(
      Object.entries(namesIn('receipt')).map(([name, { example }]) => [name, example]),
    );
    expect(filledLetter(receipt, values).text.split('\n\n')).toHaveLength(receipt.text.split('\n\n').length);
  });

  it('takes what is filled in as text, whatever is in it', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (name, by) => {
        fc.pre(name.trim() !== '' && by !== '');
        const { text } = filledLetter(
          { subject: '{by}', text: 'A {name} Z' },
          { name, by, code: 'never', link: 'never' },
        );
        return text === `A ${name} Z`.replace(/\n{3,}/g, '\n\n').trim();
      }),
      {
        examples: [
          ['{link}', '{name}'],
          ['$&', '$1'],
        ],
      },
    );
  });

  it('has a subject of one line', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', ' ', '\n', '\r', '{', '}') }),
        (by) => !/[\r\n]/.test(filledLetter(invitation, { by, site: 'S' }).subject),
      ),
    );
  });
});

describe('a letter that somebody wrote', () => {
  const wrong = (text: string, subject = 'Hello') => letterProblems('signUp', { subject, text });
  it.each([
    ['', /Write something/],
    ['Your code is {cod}.', /no \{cod\} in this letter. It can be \{code\} or \{site\}/],
    ['Your code is {code.', /“\{code.” is not filled in/],
    ['Your code is { code }, {code}.', /“\{ code \}” is not filled in/],
    ['{code} and }', /“\}” is not filled in/],
    ['{CODE} {code}', /“\{CODE\}” is not filled in/],
    ['{constructor} {code}', /no \{constructor\}/],
    ['Come in.', /needs \{code\} \(the six digits\)/],
    [`{code} ${'x'.repeat(LONGEST_LETTER)}`, /at most 5000 letters/],
    ['{code} \u0000', /no letter/],
  ])('is refused with a word on how to mend it: %j', (text, said) => {
    expect(wrong(text).text).toMatch(said);
  });

  it('is refused for its subject as well', () => {
    expect(wrong('{code}', 'a\nBcc: b@x.example').subject).toMatch(/one line/);
    expect(wrong('{code}', ' ').subject).toMatch(/Write something/);
    expect(wrong('{code}', '{name}').subject).toMatch(/no \{name\}/);
    expect(wrong('Look above.', 'Your code: {code}')).toEqual({});
  });

  it('has what nobody can do without in a line that is always there', () => {
    const letter = { subject: 'Paid', text: 'On {day}: {sum}\n{product} until {until}' };
    expect(letterProblems('receipt', letter).text).toMatch(/needs \{product\}.*always there/);
    expect(letterProblems('receipt', { ...letter, text: `${letter.text}\n{product}` })).toEqual({});
  });

  it('may say what it likes otherwise: a script is text', () => {
    expect(wrong('<script>alert(1)</script> {code}')).toEqual({});
  });
});

it('names in what letters need what they have', () => {
  for (const kind of LETTER_KINDS)
    for (const name of LETTERS[kind].needs) {
      expect(namesIn(kind)).toHaveProperty(name);
      expect(namesIn(kind)[name]?.sometimes).toBeUndefined();
    }
});

it('has nothing in a letter to a stranger that whoever asked for it can choose', () => {
  for (const kind of ['signUp', 'signUpAgain', 'signUpClosed', 'newPassword', 'noAccount'] as const)
    expect(Object.keys(namesIn(kind)).filter((name) => name !== 'code')).toEqual(['site']);
});
