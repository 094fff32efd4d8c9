/** Days are reckoned without a clock, and come to what a calendar says. */
import * as fc from 'fast-check';
import { expect, it } from 'vitest';
import { addDays } from './day';

it('adds days as a calendar does, over four-digit years and no further', () => {
  const first = Date.parse('0000-01-01');
  const last = Date.parse('9999-12-31');
  const DAY = 86_400_000;
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: (last - first) / DAY }),
      fc.integer({ min: -4_000_000, max: 4_000_000 }),
      (at, days) => {
        const day = new Date(first + at * DAY).toISOString().slice(0, 10);
        const wanted = Math.min(last, Math.max(first, Date.parse(day) + days * DAY));
        expect(addDays(day, days)).toBe(new Date(wanted).toISOString().slice(0, 10));
      },
    ),
    { numRuns: 2000 },
  );
  expect([addDays('2026-11-20', 1e21), addDays('2026-11-20', -1e21)]).toEqual(['9999-12-31', '0000-01-01']);
  expect(addDays('2024-02-28', 1)).toBe('2024-02-29');
});
