import fc from 'fast-check';
import { expect, it } from 'vitest';
import { columnsOf, placesIn } from '../columns';
import { type AudienceId, asId } from '../ids';
import { isDay, type VisitorFacts } from '../site';
import { conditions, itemsOrNone, requests, tests, visitors } from '../testing/arbitraries';
import {
  certificate,
  crew,
  expires,
  hours,
  nightCrew,
  observer,
  pass,
  people,
  request,
  suspended,
  team,
  valley,
  vocabulary,
} from '../testing/larkfell';
import { holds } from '../testing/naive';
import {
  all,
  any,
  type Condition,
  conditionCompiler,
  everyone,
  FALSE,
  foldCase,
  hasNoLevel,
  inAudience,
  inGroup,
  level,
  nobody,
  not,
  owns,
  problemOf,
  profile,
  type Test,
  TRUE,
  test,
  testOf,
  trace,
  UNKNOWN,
} from '.';

const truthOf = (condition: Condition, visitor: VisitorFacts, over: Partial<typeof request> = {}) =>
  trace(condition, { visitor, item: null, request: { ...request, ...over } }, vocabulary).truth;

// TRIVET_CASES=100000 runs it over as many; each case asks about ten visitors.
const cases = Number(process.env.TRIVET_CASES ?? 2000);

it('agrees in all four forms: closure, trace, columns and the naive reading', { timeout: 1_000_000 }, () => {
  const crowds = fc.array(visitors, { minLength: 1, maxLength: 10 });
  fc.assert(
    fc.property(conditions, crowds, itemsOrNone, requests, (condition, crowd, item, at) => {
      const compiled = conditionCompiler(vocabulary)(condition);
      const selected = new Set(placesIn(columnsOf(crowd, vocabulary, at).select(condition, item).bits));
      crowd.forEach((visitor, place) => {
        const scene = { visitor, item, request: at };
        const naive = holds(condition, scene, vocabulary);
        const truth = naive === undefined ? UNKNOWN : naive ? TRUE : FALSE;
        expect(trace(condition, scene, vocabulary).truth).toBe(truth);
        expect(compiled(visitor, item, at)).toBe(naive === true);
        expect(selected.has(place)).toBe(naive === true);
      });
    }),
    { numRuns: cases },
  );
});

it('never turns an unknown into an opening by denying it', () => {
  fc.assert(
    fc.property(conditions, visitors, itemsOrNone, requests, (condition, visitor, item, at) => {
      const compile = conditionCompiler(vocabulary);
      expect(compile(condition)(visitor, item, at) && compile(not(condition))(visitor, item, at)).toBe(false);
    }),
  );
});

it('is unknown in every form where a test is badly written, so neither it nor its opposite opens', () => {
  const odd = fc.constantFrom<unknown>(
    undefined,
    '',
    'x',
    '12',
    Number.NaN,
    Number.POSITIVE_INFINITY,
    -1,
    5,
    [],
    [1],
    ['a', 'b', 'c'],
    [1, 'a'],
    true,
    null,
    {},
  );
  const mutated = fc
    .tuple(tests, odd, fc.constantFrom('value', 'subject', 'op', 'swap'), tests)
    .map(([one, value, part, other]): Test => {
      if (part === 'op') return { ...one, op: other.op };
      if (part === 'swap') return { ...other, fact: one.fact };
      return { ...one, [part]: value } as Test;
    })
    .filter((one) => problemOf(one, vocabulary) !== null);
  fc.assert(
    fc.property(mutated, visitors, itemsOrNone, requests, (one, visitor, item, at) => {
      const compile = conditionCompiler(vocabulary);
      const scene = { visitor, item, request: at };
      expect(trace(one, scene, vocabulary).truth).toBe(UNKNOWN);
      expect(compile(one)(visitor, item, at) || compile(not(one))(visitor, item, at)).toBe(false);
      const { bits } = columnsOf([visitor], vocabulary, at).select(any(one, not(one)), item);
      expect([...placesIn(bits)]).toEqual([]);
    }),
    { numRuns: 1500 },
  );
});

it('knows no day that does not exist, and no network address that reads two ways', () => {
  const expiring = profile(expires, 'before', '2030-01-01');
  const someday = (day: string) => truthOf(expiring, { ...people.marek, profile: { [expires]: day } });
  expect(['2025-02-28', '2025-02-30', '2025-13-01', '2025-2-1', '02025-02-1'].map(someday)).toEqual([
    TRUE,
    ...[UNKNOWN, UNKNOWN, UNKNOWN, UNKNOWN],
  ]);
  const from = (network: string, ...ranges: readonly string[]) =>
    truthOf(test('network', 'one of', ranges), people.guest, { network });
  expect(from('10.1.2.3', '::ffff:10.0.0.0/104')).toBe(TRUE);
  expect(from('10.1.2.3', '::ffff:0:0/96')).toBe(TRUE);
  expect(from('::ffff:10.1.2.3', '10.0.0.0/8')).toBe(TRUE);
  expect(from('11.1.2.3', '::ffff:10.0.0.0/104')).toBe(FALSE);
  expect(from('10.1.2.3', '::/0')).toBe(TRUE);
  expect(from('010.1.2.3', '8.0.0.0/8')).toBe(UNKNOWN);
  expect(from('10.1.2.3', '010.0.0.0/8')).toBe(UNKNOWN);
});

it('agrees with the calendar on every day there is', () => {
  fc.assert(
    fc.property(fc.nat(9999), fc.nat(20), fc.nat(40), (year, month, day) => {
      const text = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
      const time = Date.parse(text);
      const there = !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
      expect([text, isDay(text)]).toEqual([text, there]);
    }),
    { numRuns: 3000 },
  );
});

it('does not let a guest pass as "not in Suspended": nobody knows whether they are', () => {
  const notSuspended = not(inGroup(suspended));
  expect(truthOf(notSuspended, people.guest)).toBe(UNKNOWN);
  expect(truthOf(notSuspended, people.marek)).toBe(TRUE);
  expect(truthOf(notSuspended, people.basil)).toBe(FALSE);
});

it('treats a missing level as unknown to every comparison, and as known to "is not set"', () => {
  expect(truthOf(not(level('at least', observer)), people.marek)).toBe(UNKNOWN);
  expect(truthOf(level('at most', observer), people.marek)).toBe(UNKNOWN);
  expect(truthOf(hasNoLevel, people.marek)).toBe(TRUE);
  expect(truthOf(hasNoLevel, people.guest)).toBe(TRUE);
});

it('tells "at least" from "exactly"', () => {
  expect(truthOf(level('at least', observer), people.ines)).toBe(TRUE);
  expect(truthOf(level('exactly', observer), people.ines)).toBe(FALSE);
  expect(truthOf(level('exactly', observer), people.tobin)).toBe(TRUE);
});

it('makes a test unknown when what it names no longer exists, even for somebody who still has it', () => {
  const gone = asId<typeof crew>('gone');
  const visitor = { ...people.ines, groups: [gone] };
  expect(truthOf(inGroup(gone), visitor)).toBe(UNKNOWN);
  expect(truthOf(not(inGroup(gone)), visitor)).toBe(UNKNOWN);
  expect(truthOf(testOf('purchase', 'gone', 'is not set'), visitor)).toBe(UNKNOWN);
  expect(truthOf(not(inAudience(asId<AudienceId>('gone'))), visitor)).toBe(UNKNOWN);
});

it('reads "all of nothing" as everyone and "any of nothing" as nobody', () => {
  expect(truthOf(everyone, people.guest)).toBe(TRUE);
  expect(truthOf(nobody, people.priya)).toBe(FALSE);
  expect(truthOf(all(any(), everyone), people.priya)).toBe(FALSE);
});

it('shares one closure between equal conditions', () => {
  const compile = conditionCompiler(vocabulary);
  expect(compile(inGroup(crew))).toBe(compile(inGroup(crew)));
});

it('compares profile fields by their type; a field nobody filled in is neither', () => {
  const ines = {
    ...people.ines,
    profile: { team: 'Optics', certificate: true, 'certificate-expires': '2027-06-08', hours: 140 },
  };
  const holdsOf = (condition: Condition) => truthOf(condition, ines);
  expect(holdsOf(profile(team, 'is', 'optics'))).toBe(TRUE);
  expect(holdsOf(profile(team, 'is not', 'Grounds'))).toBe(TRUE);
  expect(holdsOf(profile(certificate, 'is yes'))).toBe(TRUE);
  expect(holdsOf(profile(expires, 'after', 'today'))).toBe(TRUE);
  expect(holdsOf(profile(hours, 'at least', 100))).toBe(TRUE);
  expect(holdsOf(profile(valley, 'is not', 'Fell'))).toBe(UNKNOWN);
  expect(holdsOf(not(profile(valley, 'contains', 'Fell')))).toBe(UNKNOWN);
  expect(holdsOf(profile(valley, 'is not set'))).toBe(TRUE);
});

it('takes a text that is not a number for unknown, not for zero', () => {
  const odd = {
    ...people.ines,
    profile: { hours: 'many', 'certificate-expires': 'soon', certificate: 'yes' },
  };
  expect(truthOf(profile(hours, 'at least', 0), odd)).toBe(UNKNOWN);
  expect(truthOf(not(profile(hours, 'at least', 0)), odd)).toBe(UNKNOWN);
  expect(truthOf(profile(expires, 'after', '2000-01-01'), odd)).toBe(UNKNOWN);
  expect(truthOf(profile(certificate, 'is no'), odd)).toBe(UNKNOWN);
});

it('does not take what objects inherit for a profile or a parameter', () => {
  for (const name of ['__proto__', 'constructor', 'toString']) {
    expect(truthOf(testOf('parameter', name, 'is set'), people.guest)).toBe(FALSE);
    const odd = { ...vocabulary, fields: [{ ...vocabulary.fields[0], id: name }] } as never;
    const asked = testOf('profile', name, 'is set');
    expect(trace(asked, { visitor: people.ines, item: null, request }, odd).truth).toBe(FALSE);
  }
});

it('compares texts whatever their case and composition', () => {
  const from = (town: string) => ({ ...people.ines, profile: { valley: town } });
  expect(truthOf(profile(valley, 'is', 'ÉTAGE'), from('e\u0301tage'))).toBe(TRUE);
  expect(truthOf(profile(valley, 'starts with', 'strass'), from('Straße'))).toBe(TRUE);
});

it('asks purchases for what is owned now: not what failed, ended or was refunded', () => {
  const bought = (state: 'paid' | 'failed' | 'refunded', until: string | null) => ({
    ...people.marek,
    purchases: [{ product: pass, on: '2026-11-01', until, state }],
  });
  expect(truthOf(owns(pass), bought('paid', null))).toBe(TRUE);
  expect(truthOf(owns(pass), bought('paid', '2026-11-20'))).toBe(TRUE);
  expect(truthOf(owns(pass), bought('paid', '2026-11-19'))).toBe(FALSE);
  expect(truthOf(owns(pass), bought('failed', null))).toBe(FALSE);
  expect(truthOf(testOf('refunded', pass, 'is'), bought('refunded', null))).toBe(TRUE);
  expect(truthOf(testOf('subscribed', 'atlas', 'is'), bought('paid', null))).toBe(FALSE);
  expect(truthOf(testOf('purchase', pass, 'within the last', 19), bought('paid', null))).toBe(TRUE);
  expect(truthOf(testOf('purchase', pass, 'within the last', 18), bought('paid', null))).toBe(FALSE);
  expect(truthOf(testOf('purchase', pass, 'at least ago', 19), bought('paid', null))).toBe(TRUE);
  expect(truthOf(owns(pass), people.guest)).toBe(UNKNOWN);
});

it('asks the request: what is not there is unknown', () => {
  const at = (over: Partial<typeof request>) => (condition: Condition) =>
    truthOf(condition, people.guest, over);
  expect(at({ minute: 30 })(test('time', 'between', ['22:00', '06:00']))).toBe(TRUE);
  expect(at({ minute: 360 })(test('time', 'between', ['22:00', '06:00']))).toBe(FALSE);
  expect(at({})(not(testOf('parameter', 'ref', 'is', 'x')))).toBe(UNKNOWN);
  expect(at({ network: '10.9.9.9' })(test('network', 'one of', ['10.0.0.0/8']))).toBe(TRUE);
  expect(at({ network: '::ffff:10.9.9.9' })(test('network', 'one of', ['10.0.0.0/8']))).toBe(TRUE);
  expect(at({ network: '11.0.0.1' })(test('network', 'one of', ['10.0.0.0/8', '2001:db8::/32']))).toBe(FALSE);
  expect(at({ network: 'nonsense' })(test('network', 'one of', ['0.0.0.0/0']))).toBe(UNKNOWN);
  expect(at({ languages: ['en-GB', 'de'] })(test('language', 'one of', ['en']))).toBe(TRUE);
  expect(at({ languages: ['enx'] })(test('language', 'one of', ['en']))).toBe(FALSE);
  expect(at({})(test('weekday', 'one of', ['Friday', 'Saturday']))).toBe(TRUE);
});

it('asks an audience what it stands for', () => {
  expect(truthOf(inAudience(nightCrew), people.ines)).toBe(TRUE);
  expect(truthOf(inAudience(nightCrew), people.marek)).toBe(FALSE);
  expect(truthOf(inAudience(nightCrew), people.guest)).toBe(UNKNOWN);
});

it.each([
  ['οδος', 'ΟΔΟΣ', true],
  ['οδοσ', 'ΟΔΟΣ', true],
  ['STRASSE', 'straße', true],
  ['STRAẞE', 'straße', true],
  ['ﬁn', 'FIN', true],
  ['ı', 'i', false],
  ['ı', 'I', false],
  ['I', 'i', true],
  ['ſ', 's', true],
  ['é', 'E\u0301', true],
])('reads %s and %s as the same letters: %s', (one, other, same) => {
  expect(foldCase(one) === foldCase(other)).toBe(same);
  expect(foldCase(foldCase(one))).toBe(foldCase(one));
});
