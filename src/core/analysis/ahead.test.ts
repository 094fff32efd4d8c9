/** Nothing changes by itself on a day that was not foretold. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { all, inGroup, profile, test } from '../condition';
import { asId, type GateId } from '../ids';
import { compile, decide, outcomeOf } from '../policy';
import { addDays, member } from '../site';
import { policies } from '../testing/arbitraries';
import { crew, expires, gates, outline, policy, request, vocabulary } from '../testing/larkfell';
import { somebody, somehow } from '../testing/possible';
import { askedOfDays, changeDays } from './ahead';

const SITES = Number(process.env.TRIVET_SITES ?? 1000);
const DAYS = 40;

it('knows every day on which somebody gets something else than the day before', () => {
  let changed = 0;
  fc.assert(
    fc.property(policies, somebody, somehow, (some, visitor, how) => {
      const compiled = compile(some, outline, vocabulary);
      const foretold = new Set(
        changeDays(askedOfDays(compiled), visitor, how.today, addDays(how.today, DAYS)),
      );
      const got = (day: string) =>
        [...outline.items.keys()]
          .map((id) => outcomeOf(decide(compiled, id, visitor, { ...how, today: day })))
          .join();
      for (let by = 1; by <= DAYS; by++) {
        const day = addDays(how.today, by);
        if (foretold.has(day)) continue;
        expect(got(day)).toBe(got(addDays(day, -1)));
      }
      changed += foretold.size;
    }),
    { numRuns: SITES / 10 },
  );
  expect(changed).toBeGreaterThan(0);
});

it.each([
  ['a certificate that ends', profile(expires, 'after', 'today'), '2026-12-04'],
  ['a day that is named', test('date', 'before', '2026-11-27'), '2026-11-27'],
  ['somebody who is new for a month', test('joined', 'within the last', 30), '2026-12-02'],
])('knows of %s', (_, who, day) => {
  const gate = { ...gates.crew, id: asId<GateId>('one'), who: all(inGroup(crew), who) };
  const compiled = compile({ ...policy, gates: [gate] }, outline, vocabulary);
  const visitor = member({ groups: [crew], profile: { [expires]: '2026-12-04' }, joined: '2026-11-01' });
  const at = (today: string) => decide(compiled, asId('crew'), visitor, { ...request, today }).kind;
  const foretold = changeDays(askedOfDays(compiled), visitor, request.today, addDays(request.today, 60));
  const changes = foretold.filter((one) => at(one) !== at(addDays(one, -1)));
  expect(changes).toEqual([day]);
});
