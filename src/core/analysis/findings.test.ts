/** Each mistake is found where it is made, and not where it is just short of being one. */
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  everyone,
  guests,
  hasNoLevel,
  inGroup,
  level,
  nobody,
  not,
  profile,
  signedIn,
  test,
  testOf,
} from '../condition';
import type { Gate } from '../gate';
import { asId } from '../ids';
import { compile, decide } from '../policy';
import { addDays } from '../site';
import {
  crew,
  friend,
  gates,
  hours,
  id,
  keeper,
  observer,
  outline,
  policy,
  request,
  school,
  team,
  valley,
  vocabulary,
} from '../testing/larkfell';
import { compiled, found, gate, kinds } from '../testing/made-up-gates';
import { analyse } from './analyse';
import { nothingFollows } from './axioms';
import { aboutOf, keyOfFinding } from './finding';

describe('nobody can pass', () => {
  it.each<[string, Condition]>([
    ['two levels at once', all(level('at least', keeper), level('at most', friend))],
    ['a group of guests', all(guests, inGroup(crew))],
    ['a number above and below', all(profile(hours, 'at least', 100), profile(hours, 'at most', 99.5))],
    [
      'a day before another and after it',
      all(test('date', 'before', '2026-12-01'), test('date', 'after', '2026-12-01')),
    ],
    ['a day that is over', test('date', 'before', '2026-11-20')],
    ['a choice that is none', all(profile(team, 'is', 'Optics'), profile(team, 'is', 'Grounds'))],
    [
      'someone who joined tomorrow a week ago',
      all(test('joined', 'within the last', 7), test('joined', 'after', 'today')),
    ],
  ])('%s', (_, who) => expect(kinds(gate('one', who, 'observers'))).toContain('one: nobody passes'));

  it.each<[string, Condition]>([
    ['one level', all(level('at least', observer), level('at most', observer))],
    ['guests who know nothing', guests],
    ['a number between', all(profile(hours, 'at least', 99), profile(hours, 'at most', 99.5))],
    ['a day between two', all(test('date', 'before', '2026-12-02'), test('date', 'after', '2026-11-30'))],
    ['the last day', test('date', 'before', '2026-11-21')],
    ['somebody who says that nobody is to', nobody],
    ['someone who joined today', all(test('joined', 'within the last', 7), test('joined', 'is', 'today'))],
  ])('but not: %s', (_, who) =>
    expect(kinds(gate('one', who, 'observers'))).not.toContain('one: nobody passes'),
  );
});

it('finds two gates that nobody passes both of, and says over what', () => {
  const low = gate('low', level('at most', friend), 'observers');
  const high = gate('high', level('at least', observer), 'observers');
  const [one] = found(low, high).filter(({ kind }) => kind === 'contradiction');
  expect(one).toMatchObject({ gate: 'low', other: 'high' });
  expect(one?.kind === 'contradiction' && one.items).toContain('observers');
  expect(kinds(low, gate('high', level('at least', friend), 'observers'))).not.toContain(
    'low: contradiction',
  );
  expect(kinds(low, gate('high', level('at least', observer), 'crew'))).not.toContain('low: contradiction');
});

it('finds a gate that turns nobody away who is not turned away anyway, or that is set aside', () => {
  const strict = gate('strict', all(inGroup(crew), level('at least', observer)), 'observers');
  expect(kinds(strict, gate('loose', inGroup(crew), 'observers'))).toEqual(['loose: changes nothing']);
  expect(kinds(strict, gate('loose', inGroup(school), 'observers'))).toEqual([]);
  expect(kinds(strict, gate('instead', inGroup(crew), 'observers', { stance: 'instead' }))).toEqual([
    'strict: set aside',
    'instead: opened by instead',
  ]);
  // Over one thing more, it is not needless any more.
  const { targets } = gate('', everyone, 'crew').what;
  const wider = gate('loose', inGroup(crew), 'observers', {
    what: { targets: [...targets, ...strict.what.targets], except: [] },
  });
  expect(kinds(strict, wider)).toEqual([]);
});

it('finds cases that nobody comes to', () => {
  const give = gates.crew.otherwise.last;
  const cases = (...whens: readonly Condition[]): Gate =>
    gate('one', signedIn, 'observers', {
      otherwise: { cases: whens.map((when) => ({ when, give })), last: give },
    });
  expect(kinds(cases(guests))).toEqual([]);
  expect(found(cases(guests, inGroup(crew)))).toEqual([
    { gate: 'one', kind: 'case never reached', index: 1 },
  ]);
  expect(kinds(cases(signedIn))).toEqual(['one: case never reached']);
  expect(kinds(cases(test('device', 'is', 'phone'), test('device', 'is not', 'phone'), guests))).toEqual([]);
});

it('finds a link that is hidden from somebody who can open its page, and shows them', () => {
  const link = [...outline.items.values()].find(
    (item) => item.kind === 'link' && item.target.kind === 'item' && item.published,
  );
  if (link?.kind !== 'link' || link.target.kind !== 'item') throw new Error('There is no link to a page.');
  const over = (name: string, who: Condition, item: string) =>
    gate(name, who, item, { what: { targets: [{ kind: 'item', item: id(item) }], except: [] } });
  const page = over('page', any(inGroup(crew), inGroup(school)), link.target.item);
  const hidden = over('hidden', inGroup(crew), link.id);
  const [one] = found(page, hidden).filter(({ kind }) => kind === 'hidden link');
  if (one?.kind !== 'hidden link') throw new Error('It was not found.');
  expect(one).toMatchObject({ gate: 'hidden', link: link.id, page: link.target.item });
  expect(one.witness.visitor.groups).toEqual([school]);
  const site = compiled(page, hidden);
  expect(decide(site, one.page, one.witness.visitor, request).kind).toBe('open');
  expect(decide(site, one.link, one.witness.visitor, request).kind).toBe('turned away');
  const shown = over('hidden', any(inGroup(school), inGroup(crew), not(signedIn)), link.id);
  expect(kinds(page, shown)).not.toContain('hidden: hidden link');
});

it('says of what can’t be decided that it is not', () => {
  const many = Array.from(
    { length: 11 },
    (_, at) => profile(team, 'is', 'Optics') && test('person', 'contains', `p${at}`),
  );
  expect(kinds(gate('one', any(...many), 'observers'), gate('two', inGroup(crew), 'crew'))).toEqual([
    'one: not decided',
  ]);
});

describe('made to explode', () => {
  const plain = gate('plain', all(level('at least', keeper), level('at most', friend)), 'crew');
  const days = Array.from({ length: 100 }, (_, at) => addDays('2027-01-01', at * 40));
  /** Which of many things hold in pairs: whatever comes first has to be remembered until the last. */
  const pairs = all(
    ...Array.from({ length: 40 }, (_, at) => {
      const [a, b] = [test('person', 'is', `a${at}@x.example`), testOf('parameter', `p${at}`, 'is', 'x')];
      const [c, d] = [testOf('parameter', `q${at}`, 'is', 'x'), testOf('parameter', `a${at}`, 'is', 'x')];
      return any(all(a, b), all(not(c), not(d)), all(c, d));
    }),
  );
  it.each<[string, Condition, string]>([
    [
      'texts within texts',
      any(...days.map((day) => profile(valley, 'contains', day))),
      'looks for more than',
    ],
    [
      'starts and ends',
      any(
        ...days.flatMap((day) => [profile(valley, 'starts with', day), profile(valley, 'ends with', day)]),
        ...days.slice(0, 9).map((day) => profile(valley, 'contains', day)),
      ),
      'too much',
    ],
    [
      'days beside days',
      any(
        ...days.flatMap((day, at) => [test('joined', 'after', day), test('joined', 'within the last', at)]),
      ),
      'too much',
    ],
    ['pairs', pairs, 'too much'],
  ])('by %s, it is not decided, and the rest is', (_, who, why) => {
    const [one, ...others] = found(gate('one', who, 'observers'), plain);
    expect(one).toMatchObject({ gate: 'one', kind: 'not decided', why: expect.stringContaining(why) });
    expect(others).toEqual([{ gate: 'plain', kind: 'nobody passes' }]);
  });

  it('in a case, the gates after it have their room all the same', () => {
    const give = gates.crew.otherwise.last;
    const otherwise = { cases: [{ when: pairs, give }], last: give };
    expect(kinds(gate('one', inGroup(crew), 'observers', { otherwise }), plain)).toEqual([
      'one: not decided',
      'plain: nobody passes',
    ]);
  });

  it('by parity, it is decided: that is small', () => {
    const small = Array.from({ length: 12 }, (_, at) =>
      testOf('parameter', `p${at}`, 'is', 'x'),
    ).reduce<Condition>((a, b) => any(all(a, not(b)), all(not(a), b)), nobody);
    expect(kinds(gate('one', small, 'observers'))).toEqual(['one: made up']);
    expect(kinds(gate('one', all(small, not(small)), 'observers'))).toContain('one: nobody passes');
  });
});

it('finds whom a gate opens to that says instead, unless it says everyone', () => {
  const above = gate('above', level('at least', observer), 'observers');
  const instead = (who: Condition) => gate('instead', who, 'charts', { stance: 'instead' });
  const [one] = found(above, instead(inGroup(crew)));
  expect(one).toMatchObject({ gate: 'instead', kind: 'opened by instead', item: 'charts' });
  expect(one?.kind === 'opened by instead' && one.witness.visitor).toMatchObject({
    groups: [crew],
    level: null,
  });
  expect(kinds(above, instead(all(inGroup(crew), level('at least', keeper))))).toEqual([]);
  expect(kinds(above, instead(everyone))).toEqual([]);
});

it('finds those above a level that is asked for exactly, unless they are let in as well', () => {
  const exactly = gate('exactly', level('exactly', observer), 'observers');
  expect(found(exactly)).toMatchObject([{ kind: 'exact level', witness: { visitor: { level: keeper } } }]);
  expect(kinds(gate('top', level('exactly', keeper), 'observers'))).toEqual([]);
  expect(
    kinds(gate('both', any(level('exactly', observer), level('exactly', keeper)), 'observers')),
  ).not.toContain('both: exact level');
});

it('finds what is gone, and what visitors can make up', () => {
  const gone = gate('gone', any(inGroup(asId('no-longer')), inGroup(crew)), 'observers');
  expect(found(gone).filter(({ kind }) => kind === 'names what is gone')).toHaveLength(1);
  const phone = test('device', 'is', 'phone');
  expect(kinds(gate('phones', phone, 'observers'))).toEqual(['phones: made up']);
  expect(kinds(gate('phones', all(phone, signedIn), 'observers'))).toEqual([]);
});

it('has a key for each finding, which is another for another', () => {
  const list = found(
    gate('low', level('at most', friend), 'observers'),
    gate('high', level('at least', observer), 'observers'),
    gate('phones', test('device', 'is', 'phone'), 'crew'),
  );
  expect(new Set(list.map(keyOfFinding)).size).toBe(list.length);
  const [one] = list;
  if (!one) throw new Error('Nothing was found.');
  expect(aboutOf(one, compiled(gate('low', everyone, 'observers')).policy)).toMatchObject([{ id: 'low' }]);
});

it('finds of the small Larkfell only what could be said with less, and an audience that nobody uses', () => {
  const site = compile(policy, outline, vocabulary);
  expect(analyse(site, request.today, nothingFollows, new Set()).findings).toMatchObject([
    { gate: 'join', kind: 'can be simpler', who: hasNoLevel },
    { gate: null, kind: 'audiences unused', audiences: ['keepers-or-night'] },
  ]);
});
