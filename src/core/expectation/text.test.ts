/** Expectations as text: read, printed, completed, refused with a reason. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { selectionProblem } from '../gate';
import { describeExpectation } from '../sentence';
import { expectations } from '../testing/arbitraries';
import { outline, vocabulary } from '../testing/larkfell';
import { expectationCompletionsAt, parseExpectation } from './parse';
import { printExpectation } from './print';

const names = { vocabulary, outline };
const read = (text: string) => {
  const parsed = parseExpectation(text, names);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return parsed.expected;
};
const refusal = (text: string): string => {
  const parsed = parseExpectation(text, names);
  if (parsed.ok) throw new Error(`${text} can be read.`);
  const { line, column, message } = parsed.error;
  return `${line}:${column} ${message}`;
};

describe('an expectation as text', () => {
  it('reads back to what was printed, by names and by ids', () => {
    fc.assert(
      fc.property(expectations, fc.constantFrom('by name' as const, 'by id' as const), (one, calling) => {
        const selections = [...one.what.targets, ...one.what.except].flatMap((target) =>
          target.kind === 'selection' ? [target.where] : [],
        );
        fc.pre(selections.every((where) => selectionProblem(where) === null));
        const { id: _, ...expected } = one;
        const text = printExpectation(expected, names, calling);
        const parsed = parseExpectation(text, names);
        expect(parsed).toEqual({ ok: true, expected });
      }),
    );
  });

  it.each([
    ['everyone opens "Home"', 'everyone can open Home'],
    [
      'only (in group "Dome crew") opens branch "Dome crew"',
      'nobody but people in Dome crew can open Dome crew and everything below it',
    ],
    [
      'not signed in gets teaser at posts in category "Night logs"',
      'guests get a teaser at posts in Night logs',
    ],
    [
      '(in group "Hollin School") never sees branch "Charts" except "A sample chart"',
      'nothing is shown of Charts and everything below it, except A sample chart to people in Hollin School',
    ],
    ['everyone never opens "Attic"', 'nobody can open Attic'],
    ['signed in never opens "Attic", "Rota"', 'members can’t open Attic and Rota'],
    ['everyone gets left out at "/observers/charts"', 'everyone is not shown Charts'],
    ['not signed in opens items where (item tag is "winter")', 'guests can open items tagged winter'],
  ])('%s', (text, sentence) => {
    const expected = read(text);
    expect(describeExpectation(expected, outline, vocabulary)).toBe(sentence);
    expect(read(printExpectation(expected, names))).toEqual(expected);
  });

  it.each([
    ['', '1:1 The text ends too early.'],
    ['everyone', '1:9 The text ends too early.'],
    ['everyone opnes "Home"', '1:10 “opnes” can’t stand here. Did you mean “opens”?'],
    ['everyone opens', '1:15 The text ends too early.'],
    ['everyone opens "Homme"', '1:16 There is no item called “Homme”. Did you mean “Home”?'],
    ['everyone opens "Home",', '1:23 The text ends too early.'],
    ['only everyone never opens "Home"', '1:15 “never” can’t stand here.'],
    ['everyone gets open at "Home"', '1:15 “open” can’t stand here.'],
    ['everyone opens items where (signed in)', '1:16 “signed in” is no fact of an item.'],
    ['everyone opens "Home" "Join us"', '1:23 “"Join us"” can’t stand here.'],
    [
      'in group "Dome crow" opens "Home"',
      '1:10 There is no group called “Dome crow”. Did you mean “Dome crew”?',
    ],
    ['everyone\nopens\n  "Homme"', '3:3 There is no item called'],
  ])('refuses %j with what to do', (text, message) => {
    expect(refusal(text).slice(0, message.length)).toBe(message);
  });

  it('asks which one is meant where several are called alike', () => {
    expect(read('everyone opens "Charts"').what.targets).toEqual([{ kind: 'item', item: 'charts' }]);
    const twins = new Map(outline.items);
    const rota = outline.items.get('rota' as never);
    if (!rota) throw new Error('There is no rota.');
    twins.set(rota.id, { ...rota, title: 'Charts' });
    const parsed = parseExpectation('everyone opens "Charts"', {
      vocabulary,
      outline: { ...outline, items: twins },
    });
    expect(parsed).toMatchObject({
      ok: false,
      error: {
        message: '2 items are called “Charts”. Write which one: "/observers/charts", "/crew/rota".',
        expected: [{ insert: '"/observers/charts"' }, { insert: '"/crew/rota"' }],
      },
    });
  });

  it('bounds what is read', () => {
    expect(refusal(`everyone opens "${'x'.repeat(50_000)}"`)).toMatch(/^1:1 That is 50017 characters long/);
  });

  it('offers what could stand at the cursor', () => {
    const offered = (text: string) =>
      expectationCompletionsAt(text, text.length, names).options.map(({ insert }) => insert);
    expect(offered('everyone ')).toEqual(expect.arrayContaining(['opens', 'never opens', 'never sees']));
    expect(offered('everyone gets te')).toEqual(['teaser at']);
    expect(offered('everyone opens ')).toEqual(
      expect.arrayContaining(['"Home"', 'branch', 'posts', 'items where']),
    );
    expect(offered('everyone opens branch "Ro')).toEqual(['"Rota"', '"Observers’ room"']);
    expect(offered('in group "Do')).toEqual(['"Dome crew"']);
    expect(offered('everyone opens "Home" ')).toEqual([',', 'except']);
  });
});
