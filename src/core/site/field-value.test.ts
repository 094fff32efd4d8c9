import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addDays,
  convertedFieldValue,
  dayInWords,
  type Field,
  type FieldType,
  fieldValueProblem,
  fieldValueText,
  isDay,
  momentIn,
  readFieldValue,
} from '.';

const field = (type: FieldType, choices: readonly string[] = []): Field => ({
  id: 'f' as never,
  name: 'it',
  type,
  choices,
  private: false,
  editable: false,
});
const teams = field('choice', ['Optics', 'Grounds']);

describe('the value of a field', () => {
  it.each([
    [field('number'), ' 12.5 ', 12.5],
    [field('number'), '12,5', 12.5],
    [field('number'), '-3', -3],
    [field('yes/no'), 'YES', true],
    [field('yes/no'), '0', false],
    [teams, 'optics', 'Optics'],
    [field('date'), '2024-02-29', '2024-02-29'],
    [field('text'), ' Fell ', 'Fell'],
    [field('text'), '  ', null],
    [field('number'), '', null],
  ])('is read: %j “%s”', (one, text, value) => {
    expect(readFieldValue(one, text)).toEqual({ value });
  });

  it.each([
    [field('number'), 'ten', 'it is a number. “ten” is not.'],
    [field('number'), '0x10', 'it is a number.'],
    [field('number'), '1e999', 'it is a number.'],
    [field('yes/no'), 'perhaps', 'it is yes or no.'],
    [teams, 'Kitchen', 'it is one of Optics, Grounds.'],
    [field('date'), '2026-02-30', 'it is a day.'],
    [field('text'), 'x'.repeat(501), 'it has at most 500 letters.'],
  ])('is refused: %j “%s”', (one, text, problem) => {
    expect(readFieldValue(one, text)).toEqual({ problem: expect.stringContaining(problem) });
  });

  it('comes back from its text', () => {
    const values = fc.oneof(
      fc.tuple(
        fc.constant(field('number')),
        fc
          .float({ noNaN: true, noDefaultInfinity: true, min: -1000, max: 1000 })
          .map((n) => Math.round(n * 100) / 100 + 0),
      ),
      fc.tuple(fc.constant(field('yes/no')), fc.boolean()),
      fc.tuple(fc.constant(teams), fc.constantFrom('Optics', 'Grounds')),
      fc.tuple(
        fc.constant(field('text')),
        fc.string({ minLength: 1 }).filter((text) => text.trim() === text),
      ),
    );
    fc.assert(
      fc.property(values, ([one, value]) => {
        expect(fieldValueProblem(one, value)).toBeNull();
        expect(readFieldValue(one, fieldValueText(value))).toEqual({ value });
      }),
    );
  });

  it('is converted where that is no guess, and else cleared', () => {
    expect(convertedFieldValue(140, field('text'))).toBe('140');
    expect(convertedFieldValue('140', field('number'))).toBe(140);
    expect(convertedFieldValue('many', field('number'))).toBeNull();
    expect(convertedFieldValue('grounds', teams)).toBe('Grounds');
    expect(convertedFieldValue(true, field('text'))).toBe('yes');
    expect(convertedFieldValue('Optics', field('choice', ['Grounds']))).toBeNull();
  });
});

describe('days', () => {
  it('exist or don’t', () => {
    expect(['2026-11-20', '2024-02-29', '0001-01-01'].every(isDay)).toBe(true);
    expect(['2026-02-29', '2026-13-01', '2026-1-1', '', '2026-11-20T00:00', 5].some(isDay)).toBe(false);
  });

  it('are counted over months and leap years, and back', () => {
    expect(addDays('2024-02-28', 2)).toBe('2024-03-01');
    expect(addDays('2026-01-01', -1)).toBe('2025-12-31');
    expect(addDays('9999-12-31', 5)).toBe('9999-12-31');
    fc.assert(
      fc.property(fc.integer({ min: -20_000, max: 20_000 }), (days) => {
        expect(addDays(addDays('2026-11-20', days), -days)).toBe('2026-11-20');
      }),
    );
  });

  it('are said as people say them', () => {
    expect(dayInWords('2026-12-01')).toBe('1 December 2026');
  });
});

it('knows what time it is elsewhere, across a change of the clocks', () => {
  const at = (zone: string, time: string) => momentIn(zone, new Date(time));
  expect(at('UTC', '2026-11-20T20:00:00Z')).toEqual({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });
  expect(at('Pacific/Auckland', '2026-11-20T20:00:00Z')).toEqual({
    today: '2026-11-21',
    minute: 540,
    weekday: 'Saturday',
  });
  expect(at('Europe/Stockholm', '2026-10-25T00:59:00Z').minute).toBe(179);
  expect(at('Europe/Stockholm', '2026-10-25T01:00:00Z').minute).toBe(120);
  expect(at('UTC', '2026-11-20T00:00:00Z').minute).toBe(0);
  expect(() => at('Nowhere/Land', '2026-11-20T00:00:00Z')).toThrow(RangeError);
});
