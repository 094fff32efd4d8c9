import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { OLDEST_MS, Register, type Value } from './oracle';

const read = (value: Value, asked: number, answered = asked + 5) => ({ value, asked, answered, by: 'one' });

describe('the oracle', () => {
  it('takes what held within the last second, and nothing older', () => {
    const register = new Register('a page', 'open');
    register.wrote('closed', 1000, 1010);
    register.read(read('open', 1000));
    register.read(read('open', 1010 + OLDEST_MS));
    register.read(read('closed', 1001));
    expect(register.wrongs()).toEqual([]);
    register.read(read('open', 1011 + OLDEST_MS));
    register.read(read('closed', 900));
    expect(register.wrongs()).toHaveLength(2);
  });

  it('takes both while a write is under way, of which is not known when it took effect', () => {
    const register = new Register('a page', 'closed');
    register.wrote('open', 1000, 9000);
    for (const value of ['open', 'closed'] as const)
      for (const asked of [1000, 5000, 9999]) register.read(read(value, asked));
    expect(register.wrongs()).toEqual([]);
    register.read(read('closed', 10_001));
    expect(register.wrongs()).toHaveLength(1);
  });

  it('takes whatever a process may say that is at most a second behind, and finds one that is further behind', () => {
    const step = fc.record({
      pause: fc.integer({ min: 1, max: 3000 }),
      takes: fc.integer({ min: 0, max: 400 }),
    });
    fc.assert(
      fc.property(
        fc.array(step, { minLength: 1, maxLength: 20 }),
        fc.nat(),
        fc.nat(),
        (steps, when, behind) => {
          const register = new Register('a page', 'closed');
          const effects = [{ at: Number.NEGATIVE_INFINITY, value: 'closed' as Value }];
          let now = 0;
          for (const { pause, takes } of steps) {
            now += pause;
            const value = register.value === 'open' ? 'closed' : 'open';
            register.wrote(value, now, now + takes);
            effects.push({ at: now + takes / 2, value });
            now += takes;
          }
          const at = (moment: number) => effects.findLast((one) => one.at <= moment)?.value ?? 'closed';
          const asked = when % (now + 5000);
          register.read(read(at(asked - (behind % (OLDEST_MS + 1))), asked));
          expect(register.wrongs()).toEqual([]);
          // Long after everything was written there is one answer.
          register.read(read(at(now) === 'open' ? 'closed' : 'open', now + OLDEST_MS + 401));
          expect(register.wrongs()).toHaveLength(1);
        },
      ),
    );
  });
});
