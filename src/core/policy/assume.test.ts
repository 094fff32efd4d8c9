import fc from 'fast-check';
import { expect, it } from 'vitest';
import { evaluatorOf, FALSE, hasRole, inGroup, problemOf, profile, TRUE, testOf } from '../condition';
import { guest, member } from '../site';
import { tests, visitors } from '../testing/arbitraries';
import { crew, hours, night, pass, people, request, team, trustee, vocabulary } from '../testing/larkfell';
import { assume, canBeAssumed } from '.';

const outcome = (test: Parameters<typeof assume>[1], visitor: Parameters<typeof assume>[0]) =>
  evaluatorOf(test, vocabulary)(visitor, null, request);

it('makes a test hold or fail, for whoever it is asked', () => {
  fc.assert(
    fc.property(tests, visitors, fc.boolean(), (test, visitor, holds) => {
      fc.pre(canBeAssumed(test) && problemOf(test, vocabulary) === null);
      // What is no subscription can't be subscribed to.
      fc.pre(!(test.fact === 'subscribed' && test.subject !== pass && holds));
      // What a purchase gives is there for as long as it does, whatever else is taken from somebody.
      fc.pre(holds || visitor.granted.length === 0);
      // Nothing is before the first day, after the last, or between a later and an earlier one.
      const value = Array.isArray(test.value) ? test.value : [];
      const days = value.map((one) => (one === 'today' ? request.today : String(one)));
      fc.pre(!(test.op === 'between' && holds && !(String(days[0]) <= String(days[1]))));
      fc.pre(!(typeof test.value === 'number' && test.value > 1e15));
      fc.pre(!value.some((one) => typeof one === 'number'));
      const assumed = assume(visitor, test, holds, request.today, vocabulary);
      // Nobody is enrolled yet whose enrolment is to come.
      const toCome = (assumed.enrolments ?? []).some(({ on }) => on > request.today);
      fc.pre(!(test.fact === 'enrolment' && toCome));
      expect([test, outcome(test, assumed)]).toEqual([test, holds ? TRUE : FALSE]);
    }),
    { numRuns: 2000 },
  );
});

it('leaves everything else as it was', () => {
  const changed = assume(people.wren, profile(team, 'is', 'Optics'), true, request.today, vocabulary);
  expect(changed).toEqual({ ...people.wren, profile: { team: 'Optics' } });
  expect(assume(changed, profile(team, 'is set'), false, request.today, vocabulary)).toEqual(people.wren);
  expect(assume(people.wren, testOf('parameter', 'ref', 'is set'), true, request.today, vocabulary)).toBe(
    people.wren,
  );
});

it('makes a member of a guest, but for a passphrase', () => {
  expect(assume(guest, profile(hours, 'at least', 5), true, request.today, vocabulary)).toEqual(
    member({ profile: { hours: 5 } }),
  );
  const learnt = assume(
    guest,
    { kind: 'test', fact: 'passphrase', op: 'includes', value: night },
    true,
    request.today,
    vocabulary,
  );
  expect(learnt).toEqual({ ...guest, passphrases: [night] });
});

it('takes and gives one thing alone, whatever else somebody has', () => {
  const day = request.today;
  const other = {
    roles: ['r' as never],
    groups: ['g' as never],
    purchases: [{ product: 'p' as never, on: '2020-01-01', until: null, state: 'paid' as const }],
    enrolments: [{ course: 'c' as never, on: '2020-01-01', until: null }],
    completions: [{ item: 'a' as never, on: '2020-01-01', score: 7 }],
  };
  const busy = member(other);
  const course = vocabulary.courses[0]?.id as never;
  const activity = vocabulary.activities[0]?.id as never;
  const bought = { product: pass, on: day, until: null, state: 'paid' };
  const cases = [
    [hasRole(trustee), { roles: ['r', trustee] }],
    [inGroup(crew), { groups: ['g', crew] }],
    [testOf('owns', pass, 'is'), { purchases: [...other.purchases, bought] }],
    [testOf('refunded', pass, 'is'), { purchases: [...other.purchases, { ...bought, state: 'refunded' }] }],
    [
      testOf('enrolled', course, 'is'),
      { enrolments: [...other.enrolments, { course, on: day, until: null }] },
    ],
    [
      testOf('completed', activity, 'is'),
      { completions: [...other.completions, { item: activity, on: day, score: null }] },
    ],
  ] as const;
  for (const [test, has] of cases) {
    const with_ = assume(busy, test, true, day, vocabulary);
    expect(with_).toEqual({ ...busy, ...has });
    // Twice is once, and taken away again everything is as it was.
    expect(assume(with_, test, true, day, vocabulary)).toEqual(with_);
    expect(assume(with_, test, false, day, vocabulary)).toEqual(busy);
  }
});
