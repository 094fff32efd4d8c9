/** What each operator says at its edges. */
import { describe, expect, it } from 'vitest';
import { member } from '../site';
import { keeper, observer, pass, request, vocabulary } from '../testing/larkfell';
import { type FactType, listOf, OPERATORS, type OperatorName } from '.';
import { type Condition, level, type Test, test, testOf } from './condition';
import { evaluatorOf } from './evaluate';
import { minuteOf } from './operators';
import { FALSE, TRUE, UNKNOWN } from './truth';

const at = (type: FactType, op: OperatorName, value: Test['value'], met: unknown) => {
  const operator = OPERATORS[type].find((one) => one.op === op);
  if (!operator) throw new Error(`${type} has no ${op}`);
  return operator.compare(value)(met as never, request);
};

describe.each<[FactType, OperatorName, Test['value'], readonly unknown[], readonly unknown[]]>([
  ['text', 'is', 'Höll', ['höll', 'HÖLL'], ['Höl', 'Hölle']],
  ['text', 'is not', 'Höll', ['Höl'], ['höll']],
  ['text', 'one of', ['A', 'b'], ['a', 'B'], ['ab', '']],
  ['text', 'contains', 'set', ['Upper Sett', 'SET', 'xset'], ['se t']],
  ['text', 'starts with', 'up', ['Upper', 'up'], ['xup', 'u']],
  ['text', 'ends with', 'up', ['xUP', 'up'], ['upx', 'p']],
  ['choice', 'is', 'Optics', ['optics'], ['Grounds']],
  ['number', 'at least', 5, [5, 6], [4.9]],
  ['number', 'at most', 5, [5, -1], [5.1]],
  ['number', 'is', 5, [5], [5.1]],
  ['number', 'is not', 5, [4], [5]],
  ['number', 'between', [2, 5], [2, 3, 5], [1.9, 5.1]],
  ['date', 'is', '2026-11-20', ['2026-11-20'], ['2026-11-21']],
  ['date', 'is', 'today', ['2026-11-20'], ['2026-11-19']],
  ['date', 'before', 'today', ['2026-11-19'], ['2026-11-20', '2026-11-21']],
  ['date', 'after', '2026-11-20', ['2026-11-21'], ['2026-11-20', '2026-11-19']],
  ['date', 'between', ['2026-11-19', 'today'], ['2026-11-19', '2026-11-20'], ['2026-11-18', '2026-11-21']],
  ['date', 'between', ['today', '2026-11-22'], ['2026-11-20', '2026-11-22'], ['2026-11-19', '2026-11-23']],
  ['date', 'within the last', 3, ['2026-11-17', '2026-11-20'], ['2026-11-16', '2026-11-21']],
  ['date', 'within the last', 0, ['2026-11-20'], ['2026-11-19', '2026-11-21']],
  ['date', 'within the next', 3, ['2026-11-20', '2026-11-23'], ['2026-11-19', '2026-11-24']],
  ['date', 'at least ago', 3, ['2026-11-17', '2020-01-01'], ['2026-11-18', '2026-11-20']],
  ['yes/no', 'is yes', undefined, [true], [false]],
  ['yes/no', 'is no', undefined, [false], [true]],
  ['time', 'between', ['18:30', '22:05'], [18 * 60 + 30, 22 * 60 + 4], [18 * 60 + 29, 22 * 60 + 5]],
  ['time', 'between', ['22:00', '06:00'], [22 * 60, 0, 359], [360, 22 * 60 - 1]],
  ['time', 'between', ['06:00', '06:00'], [], [359, 360, 361]],
  ['network', 'one of', ['10.0.0.0/8'], ['10.0.0.0', '10.255.255.255'], ['11.0.0.0', '2001:db8::1']],
  ['network', 'one of', ['10.1.2.3'], ['10.1.2.3', '::ffff:10.1.2.3'], ['10.1.2.4']],
  ['network', 'one of', ['2001:db8::/32'], ['2001:db8::1'], ['2001:db9::1', '10.0.0.1']],
  ['network', 'one of', ['2001:db8::1'], ['2001:db8::1'], ['2001:db8::2']],
  ['language', 'one of', ['de', 'en-gb'], [['de-AT', 'fr'], ['EN-GB']], [['fr', 'de'], ['en'], ['den']]],
  ['words', 'includes', 'Moon', [['sun', 'moon']], [['moons'], []]],
  ['share', 'at most', 20, [0, 19.99], [20, 99]],
])('%s %s %j', (type, op, value, holds, fails) => {
  it('holds', () => expect(holds.map((met) => at(type, op, value, met))).toEqual(holds.map(() => true)));
  it('fails', () => expect(fails.map((met) => at(type, op, value, met))).toEqual(fails.map(() => false)));
  it('is unknown of what is of another type', () => {
    const other = ['time', 'number', 'share'].includes(type) ? 'x' : 1.5;
    expect(at(type, op, value, other)).toBeNull();
  });
});

it.each<[FactType, OperatorName, Test['value']]>([
  ['number', 'between', ['x', 5] as never],
  ['number', 'between', [5, 'x'] as never],
  ['number', 'at least', []],
  ['date', 'between', ['2026-11-19', 'soon']],
  ['date', 'between', ['soon', '2026-11-19']],
  ['date', 'within the last', 'x'],
  ['time', 'between', ['18:30', '25:00']],
  ['time', 'between', ['x', '06:00']],
  ['time', 'between', ['18:30']],
  ['network', 'one of', ['10.0.0.0/8', 'x']],
  ['share', 'at most', 'x'],
])('%s %s %j is unknown of everybody', (type, op, value) => {
  for (const met of [1, 30, '2026-11-19', '10.0.0.1']) expect(at(type, op, value, met)).toBeNull();
});

it('reads times of day, and nothing like them', () => {
  expect(['00:00', '06:05', '23:59'].map(minuteOf)).toEqual([0, 365, 1439]);
  for (const text of ['24:00', '6:05', '06:60', 'x06:05', '06:05x', ' 06:05', ''])
    expect(minuteOf(text)).toBeNull();
});

it('takes one value for a list of one', () => {
  expect([undefined, 'x', 0, ['a', 'b']].map((value) => listOf(value))).toEqual([[], ['x'], [0], ['a', 'b']]);
});

describe('what is asked of a person', () => {
  const truth = (condition: Test, visitor: ReturnType<typeof member>) =>
    evaluatorOf(condition, vocabulary)(visitor, null, request);
  const of = (id: string | null) => member({ level: id as never });

  it('is their level, by its rank', () => {
    const who = ['friend', 'observer', 'keeper'].map(of);
    const truths = (one: Condition) => who.map((each) => truth(one as Test, each));
    expect(truths(level('at least', observer))).toEqual([FALSE, TRUE, TRUE]);
    expect(truths(level('exactly', observer))).toEqual([FALSE, TRUE, FALSE]);
    expect(truths(level('at most', observer))).toEqual([TRUE, TRUE, FALSE]);
    expect(truths(level('at most', keeper))).toEqual([TRUE, TRUE, TRUE]);
    expect([test('level', 'is set'), test('level', 'is not set')].map((one) => truth(one, of(null)))).toEqual(
      [FALSE, TRUE],
    );
    // Whoever has none is neither above nor below one, and nothing is known of a level that is gone.
    expect(truth(level('at most', keeper), of(null))).toBe(UNKNOWN);
    expect(truth(level('at least', 'x' as never), of('keeper'))).toBe(UNKNOWN);
  });

  it('is the latest of several days', () => {
    const bought = (...days: readonly string[]) =>
      member({ purchases: days.map((on) => ({ product: pass, on, until: null, state: 'paid' as const })) });
    const last = testOf('purchase', pass, 'is', '2026-05-01');
    expect(truth(last, bought('2026-01-01', '2026-05-01', '2026-03-01'))).toBe(TRUE);
    expect(truth(last, bought('2026-05-01', '2026-06-01'))).toBe(FALSE);
    expect(truth(last, bought())).toBe(UNKNOWN);
  });

  it('is what stands behind the sign of their mail address', () => {
    const mail = (email: string) => truth(test('mail domain', 'is', 'larkfell.example'), member({ email }));
    expect(mail('greta@larkfell.example')).toBe(TRUE);
    expect(mail('"a@b"@larkfell.example')).toBe(TRUE);
    expect(mail('larkfell.example@else.example')).toBe(FALSE);
  });
});
