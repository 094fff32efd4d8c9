import { expect, it } from 'vitest';
import { LETTER_KINDS, letterProblems } from '../letters';
import { directionOf, english, LANGUAGES, languageTag, messagesIn } from '.';

/** Every message with where it stands: texts, functions and null. */
function messagesOf(one: object, path: string): readonly (readonly [string, unknown])[] {
  return Object.entries(one).flatMap(([name, value]) =>
    typeof value === 'object' && value !== null
      ? messagesOf(value, `${path}${name}.`)
      : [[`${path}${name}`, value] as const],
  );
}

/** What a message says when it is filled in with what can be found again. */
function said(message: unknown): string {
  if (typeof message !== 'function') return String(message);
  const marks = ['17', '23', '41'];
  return String(message(...marks.slice(0, message.length)));
}

// What says how something is written takes more than names.
const WRITTEN = ['day', 'money', 'price', 'all', 'either', 'number', 'decimal', 'account.field.choice'];
// The same in more than one language.
const ALIKE = [
  'frame.desk',
  'account.name',
  'keys.feed',
  'keys.ofFeed',
  'course.types.quiz',
  'course.types.video',
  'course.says.quiz',
  'course.says.hand-in',
  'handIn.kinds.pdf',
  'handIn.kinds.films',
  'handIn.badFile',
];

it.each(LANGUAGES.filter(({ tag }) => tag !== 'en'))(
  'says everything in $name, and nothing in English',
  (language) => {
    const own = new Map(messagesOf(language, ''));
    for (const [path, message] of messagesOf(english, '').filter(([one]) => !WRITTEN.includes(one))) {
      const [ours, theirs] = [said(message), said(own.get(path))];
      expect([path, theirs.trim()]).not.toEqual([path, '']);
      if (!ALIKE.includes(path)) expect([path, theirs]).not.toEqual([path, ours]);
      // Whatever is filled in stands in it, and as many links.
      for (const mark of ['17', '23'])
        expect([path, theirs.includes(mark)]).toEqual([path, ours.includes(mark)]);
      expect([path, theirs.match(/\[[^\]]+\]/g)?.length]).toEqual([path, ours.match(/\[[^\]]+\]/g)?.length]);
    }
  },
);

it.each(LANGUAGES)('has letters in $name in which nothing is wrong', ({ letters }) => {
  for (const kind of LETTER_KINDS) expect([kind, letterProblems(kind, letters[kind])]).toEqual([kind, {}]);
});

it('writes days, numbers and money as they are written there', () => {
  const german = messagesIn('de');
  expect(german.day('2026-03-01')).toBe('1. März 2026');
  expect(german.money({ amount: 123_456, currency: 'EUR' }).replaceAll('\u00a0', ' ')).toBe('1.234,56 €');
  expect(german.money({ amount: 500, currency: 'JPY' }).replaceAll('\u00a0', ' ')).toBe('500 ¥');
  expect(german.price({ amount: 2400, currency: 'EUR', months: 12 }).replaceAll('\u00a0', ' ')).toBe(
    '24,00 € im Jahr',
  );
  expect(german.price({ amount: 2400, currency: 'EUR', months: 3 })).toMatch(/alle 3 Monate$/);
  expect(german.price({ amount: 2400, currency: 'EUR', months: 24 })).toMatch(/alle 2 Jahre$/);
  expect(german.price({ amount: 2400, currency: 'EUR', months: null })).not.toMatch(/Jahr|Monat/);
  expect(german.all(['Bilder', 'PDF', 'Ton'])).toBe('Bilder, PDF und Ton');
  expect(german.number(1234.5)).toBe('1.234,5');
});

it('speaks the language itself, the one it is a kind of, or else English', () => {
  expect(messagesIn('de').tag).toBe('de');
  expect(messagesIn('de-AT').tag).toBe('de');
  expect(messagesIn('pt-BR').tag).toBe('en');
  expect(messagesIn('').tag).toBe('en');
});

it.each([
  ['de', 'ltr'],
  ['ar', 'rtl'],
  ['he-IL', 'rtl'],
  ['az-Arab', 'rtl'],
  ['az', 'ltr'],
  ['', 'ltr'],
])('writes %j from the side from which it is written: %s', (tag, direction) => {
  expect(directionOf(tag)).toBe(direction);
});

it.each([
  ['EN', 'en'],
  ['pt-br', 'pt-BR'],
  ['de', 'de'],
  ['', null],
  ['english language', null],
  ['"><script>', null],
  [`en-${'x'.repeat(40)}`, null],
])('reads %j as a language tag: %j', (text, tag) => {
  expect(languageTag(text)).toBe(tag);
});
