/** Each mistake is found where it is made, and not where it is just short of being one. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  everyone,
  expanded,
  factNamed,
  guests,
  hasLevel,
  hasNoLevel,
  inAudience,
  inGroup,
  level,
  nobody,
  not,
  owns,
  profile,
  signedIn,
  test,
  testOf,
  testsIn,
} from '../condition';
import { type Gate, redirectToSignIn, type Target } from '../gate';
import { type AudienceId, asId, type GateId, type GroupId, type ItemId, type LevelId } from '../ids';
import { arrivalFrom, compile, decide, type Policy } from '../policy';
import {
  type Address,
  addDays,
  type Following,
  type Item,
  isOpenable,
  noGrants,
  type RequestFacts,
  type VisitorFacts,
} from '../site';
import { gates as gatesOfAny, policies } from '../testing/arbitraries';
import {
  crew,
  friend,
  gates,
  hours,
  id,
  keeper,
  observer,
  outline,
  pass,
  policy,
  request,
  school,
  soundOutline,
  team,
  valley,
  vocabulary,
} from '../testing/larkfell';
import { somebody, somehow } from '../testing/possible';
import { analyse } from './analyse';
import { nothingFollows } from './axioms';
import { describeFinding } from './describe-finding';
import { aboutOf, type Finding, keyOfFinding } from './finding';

const SITES = Number(process.env.TRIVET_SITES ?? 1000);

const gate = (name: string, who: Condition, item: string, more: Partial<Gate> = {}): Gate => ({
  ...gates.crew,
  id: asId<GateId>(name),
  what: { targets: [{ kind: 'branch', item: id(item) }], except: [] },
  who,
  ...more,
});
const compiled = (...list: readonly Gate[]) =>
  compile({ ...policy, audiences: [], gates: list } satisfies Policy, outline, vocabulary);
const found = (...list: readonly Gate[]): readonly Finding[] =>
  analyse(compiled(...list), request.today, nothingFollows, new Set()).findings;
const kinds = (...list: readonly Gate[]) => found(...list).map((one) => `${one.gate}: ${one.kind}`);

/** Whether a gate asks about the request. */
const asksHow = ({ who }: Gate): boolean =>
  testsIn(expanded(who, vocabulary.audiences)).some(({ fact }) => factNamed(fact).of === 'request');

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

const sendsTo = (item: string): Gate['otherwise'] => ({
  cases: [],
  last: { kind: 'redirect', to: { kind: 'item', item: id(item) } },
});
const offers = (item: string): Gate['otherwise'] => ({
  cases: [],
  last: {
    kind: 'teaser',
    show: { kind: 'summary' },
    preview: false,
    reason: { kind: 'written' },
    next: { kind: 'item', item: id(item) },
  },
});

describe('leads astray', () => {
  it('those whom a redirect takes to a closed door, and shows one of them', () => {
    const sends = gate('sends', inGroup(crew), 'observers', { otherwise: sendsTo('school') });
    const closedThere = gate('closed', inGroup(school), 'school');
    const [one] = found(sends, closedThere).filter(({ kind }) => kind === 'led astray');
    expect(one).toMatchObject({ gate: 'sends', from: 'observers', at: 'school', how: 'closed' });
    if (one?.kind !== 'led astray') throw new Error('It was not found.');
    const { visitor, request: how } = one.witness;
    expect(arrivalFrom(compiled(sends, closedThere), one.from, visitor, how).path).toEqual([
      'observers',
      'school',
    ]);
    // Whoever is turned away there is let in here.
    const others = gate('closed', any(guests, not(inGroup(crew))), 'school');
    expect(kinds(sends, others)).not.toContain('sends: led astray');
    // To be asked to sign in is an arrival.
    const asks = gate('asks', signedIn, 'school', { otherwise: { cases: [], last: redirectToSignIn } });
    expect(kinds(sends, asks)).toEqual([]);
  });

  it('round in a circle', () => {
    const there = gate('there', inGroup(crew), 'observers', { otherwise: sendsTo('school') });
    const back = gate('back', inGroup(school), 'school', { otherwise: sendsTo('observers') });
    expect(found(there, back).filter(({ kind }) => kind === 'led astray')).toMatchObject([
      { gate: 'there', how: 'circle' },
      { gate: 'back', how: 'circle' },
    ]);
  });

  it('more than twice, wherever they arrive', () => {
    const on = (name: string, from: string, to: string, who: Condition = inGroup(crew)) =>
      gate(name, who, from, {
        what: { targets: [{ kind: 'item', item: id(from) }], except: [] },
        otherwise: sendsTo(to),
      });
    const [first, second] = [on('first', 'observers', 'school'), on('second', 'school', 'charts')];
    expect(kinds(first, second)).toEqual([]);
    const third = on('third', 'charts', 'join', any(inGroup(crew), inGroup(school)));
    const [one, ...more] = found(first, second, third);
    expect(more).toEqual([]);
    expect(one).toMatchObject({
      gate: 'first',
      kind: 'led astray',
      how: 'long',
      from: 'observers',
      at: 'join',
    });
    if (one?.kind !== 'led astray') throw new Error('It was not found.');
    // Whoever is in the school gets the charts, and goes no further.
    expect(one.witness.visitor.groups ?? []).not.toContain(school);
    expect(describeFinding(one, compiled(first, second, third), request.today)).toBe(
      'A guest is sent on from “Observers’ room” more than twice before they arrive at “Join us”.',
    );
    expect(kinds(first, second, on('third', 'charts', 'join', everyone))).toEqual([]);
  });

  it('those who are offered a page that they can’t open', () => {
    const teaser = gate('teaser', level('at least', observer), 'observers', { otherwise: offers('school') });
    const [one] = found(teaser, gate('closed', inGroup(school), 'school'));
    expect(one).toMatchObject({
      gate: 'teaser',
      kind: 'step to a closed door',
      from: 'observers',
      to: 'school',
    });
    expect(kinds(teaser, gate('closed', level('at most', friend), 'school'))).toEqual([
      'teaser: step to a closed door',
    ]);
    expect(kinds(teaser, gate('closed', not(level('at least', observer)), 'school'))).toEqual([
      'teaser: step to a closed door',
    ]);
    expect(kinds(teaser)).toEqual([]);
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

describe('by itself', () => {
  const until = test('date', 'before', '2026-12-01');
  const from = test('date', 'after', '2026-12-24');
  it('finds what closes for good, and what opens on a day to come', () => {
    expect(found(gate('advent', all(inGroup(crew), until), 'observers'))).toEqual([
      { gate: 'advent', kind: 'closes for good', after: '2026-12-01' },
    ]);
    const [one] = found(gate('feast', all(inGroup(crew), from), 'observers'));
    expect(one).toMatchObject({
      gate: 'feast',
      kind: 'opens by itself',
      witness: { visitor: { groups: [crew] } },
    });
    expect(one?.kind === 'opens by itself' && one.witness.request.today > '2026-12-24').toBe(true);
    // Whoever else passes, passes on other days as well.
    expect(kinds(gate('one', any(inGroup(crew), until), 'observers'))).toEqual([]);
    expect(kinds(gate('one', any(inGroup(crew), from), 'observers'))).toEqual([]);
    expect(kinds(gate('one', all(inGroup(crew), test('date', 'after', '2026-11-01')), 'observers'))).toEqual([
      'one: can be simpler',
    ]);
  });

  it('finds a member who can open nothing at all', () => {
    const whole = (who: Condition) =>
      gate('whole', who, 'site', { what: { targets: [{ kind: 'branch', item: outline.root }], except: [] } });
    expect(found(whole(inGroup(crew)))).toMatchObject([
      { gate: null, kind: 'gets nothing', witness: { visitor: { signedIn: true, groups: [] } } },
    ]);
    expect(kinds(whole(signedIn))).toEqual([]);
    expect(kinds(gate('part', inGroup(crew), 'observers'))).toEqual([]);
    // Somebody who has something more than others, and by it less.
    expect(found(whole(not(inGroup(crew))))).toMatchObject([
      { gate: null, kind: 'gets nothing', witness: { visitor: { groups: [crew] } } },
    ]);
  });

  it('and is right about whether there is one', () => {
    fc.assert(
      fc.property(policies, gatesOfAny, fc.array(somebody, { maxLength: 8 }), (some, over, those) => {
        const whole: Gate = {
          ...over,
          id: asId<GateId>('whole'),
          what: { targets: [{ kind: 'branch', item: outline.root }], except: [] },
        };
        const site = compile({ ...some, gates: [...some.gates, whole] }, outline, vocabulary);
        const getsNone = (facts: VisitorFacts, at: RequestFacts) =>
          [...outline.items.values()]
            .filter(isOpenable)
            .every((item) => decide(site, item.id, facts, at).kind !== 'open');
        const { findings } = analyse(site, request.today, nothingFollows, new Set());
        const one = findings.find(({ kind }) => kind === 'gets nothing');
        if (one?.kind === 'gets nothing')
          expect(getsNone(one.witness.visitor, one.witness.request)).toBe(true);
        // How somebody asks makes no member of its own: who gets something at some time of day gets something.
        else if (!site.policy.gates.some(asksHow))
          for (const facts of those) expect(facts.signedIn && getsNone(facts, request)).toBe(false);
      }),
      { numRuns: SITES / 10 },
    );
  });

  it('finds them on a site of which all answers together are too much to work out', () => {
    const groups = Array.from({ length: 40 }, (_, at) => asId<GroupId>(`group-${at}`));
    const some = (at: number) => inGroup(groups[at % groups.length] as GroupId);
    const pages = Array.from(
      { length: 120 },
      (_, at): Item => ({
        id: asId<ItemId>(`page-${at}`),
        kind: 'page',
        parent: id('site'),
        rank: at,
        title: `Page ${at}`,
        published: true,
        address: `/page-${at}` as Address,
      }),
    );
    const site = soundOutline([outline.items.get(id('site')) as Item, ...pages]);
    const over = pages.map((page, at) =>
      gate(
        `over-${at}`,
        any(all(some(at), not(some(at * 7 + 3))), all(some(at * 13 + 5), some(at + 1))),
        page.id,
      ),
    );
    const names = { ...vocabulary, groups: groups.map((one) => ({ id: one, name: one, private: false })) };
    const policyOver = { ...policy, audiences: [], gates: over } satisfies Policy;
    const { findings } = analyse(compile(policyOver, site, names), request.today, nothingFollows, new Set());
    expect(findings.filter(({ kind }) => kind === 'gets nothing')).toMatchObject([
      { witness: { visitor: { signedIn: true, groups: [] } } },
    ]);
  });
});

describe('says with less', () => {
  it.each<[string, Condition, Condition]>([
    [
      'a level below another',
      any(level('at least', observer), level('at least', keeper)),
      level('at least', observer),
    ],
    [
      'what everybody at a level has',
      all(hasLevel, level('at least', observer)),
      level('at least', observer),
    ],
    ['what is said twice', all(inGroup(crew), any(inGroup(crew), inGroup(school))), inGroup(crew)],
    [
      'what is said within',
      any(inGroup(school), all(inGroup(crew), not(inGroup(school)))),
      any(inGroup(school), inGroup(crew)),
    ],
  ])('%s', (_, who, simpler) => {
    expect(found(gate('one', who, 'observers'))).toEqual([
      { gate: 'one', kind: 'can be simpler', who: simpler },
    ]);
  });

  it('nothing that matters, and nothing that reads the same', () => {
    expect(kinds(gate('one', all(signedIn, inGroup(crew)), 'observers'))).toEqual([]);
    expect(kinds(gate('one', all(level('at least', observer), not(inGroup(crew))), 'observers'))).toEqual([]);
  });

  it('and is always true of the same visitors', () => {
    fc.assert(
      fc.property(
        policies,
        fc.array(fc.tuple(somebody, somehow), { minLength: 4, maxLength: 4 }),
        (some, askers) => {
          const site = compile(some, outline, vocabulary);
          for (const one of analyse(site, '2024-02-29', nothingFollows, new Set()).findings) {
            if (one.kind !== 'can be simpler') continue;
            const changed = some.gates.map((each) =>
              each.id === one.gate ? { ...each, who: one.who } : each,
            );
            const after = compile({ ...some, gates: changed }, outline, vocabulary);
            for (const [visitor, how] of askers)
              for (const item of outline.items.keys())
                expect(decide(after, item, visitor, how).kind).toBe(decide(site, item, visitor, how).kind);
          }
        },
      ),
      { numRuns: SITES / 10 },
    );
  });
});

describe('what a gate leaves out', () => {
  const except = (...list: readonly Target[]) =>
    gate('one', inGroup(crew), 'observers', {
      what: { targets: [{ kind: 'branch', item: id('observers') }], except: list },
    });
  const branch = (item: string): Target => ({ kind: 'branch', item: id(item) });
  const described: Target = { kind: 'selection', where: test('item address', 'contains', 'sample') };

  it('is found where it is open to whom the gate would turn away, and not left out by name', () => {
    expect(found(except(branch('charts')))).toMatchObject([
      { gate: 'one', kind: 'left open', items: ['sample'], witness: { visitor: { signedIn: false } } },
    ]);
    expect(found(except(described))).toMatchObject([{ kind: 'left open', items: ['sample'] }]);
    expect(kinds(except({ kind: 'item', item: id('sample') }))).toEqual([]);
    // What is at the top of a branch is named, and below it there is nothing more.
    expect(kinds(except(branch('sample')))).toEqual([]);
    expect(kinds(except(branch('charts'), { kind: 'item', item: id('sample') }))).toEqual([]);
  });

  it('is not found where others close it, or where nobody is turned away', () => {
    const others = gate('two', inGroup(crew), 'sample');
    expect(kinds(except(branch('charts')), others)).toEqual([]);
    expect(kinds({ ...except(branch('charts')), who: everyone })).toEqual([]);
    const wider = gate('two', any(inGroup(crew), inGroup(school)), 'sample');
    expect(found(except(branch('charts')), wider)).toMatchObject([
      { kind: 'left open', witness: { visitor: { groups: [school] } } },
    ]);
  });

  it('asks about what is left out itself', () => {
    const asking = {
      ...except(branch('charts')),
      who: any(inGroup(crew), test('item address', 'is', '/sample-chart')),
    };
    expect(kinds(asking)).not.toContain('one: left open');
    const other = any(inGroup(crew), test('item address', 'is', '/observers/charts'));
    expect(kinds({ ...asking, who: other })).toContain('one: left open');
  });

  it('is said with what is there, and looked at again when more is', () => {
    const site = compiled(except(branch('charts')));
    const [one] = found(except(branch('charts')));
    if (one?.kind !== 'left open') throw new Error('Nothing was found.');
    expect(describeFinding(one, site, request.today)).toBe(
      'A guest gets “A sample chart”, which this gate leaves out by a branch or a description. Whatever comes there is open as well.',
    );
    const more = { ...one, items: [...one.items, id('rota')] };
    expect(aboutOf(one, site.policy)).not.toEqual(aboutOf(more, site.policy));
    expect(keyOfFinding(more)).toBe(keyOfFinding(one));
  });
});

describe('of names', () => {
  const audience = (name: string, who: Condition) => ({ id: asId<AudienceId>(name), name, who });
  const of = (
    more: Partial<Policy>,
    names = vocabulary,
    sold = new Set<string>(),
    following = nothingFollows,
  ) =>
    analyse(
      compile({ ...policy, gates: [], audiences: [], ...more }, outline, names),
      request.today,
      following,
      sold,
    ).findings.map((one) => one.kind);

  it('finds audiences that nobody uses, and two that are the same', () => {
    const used = gate('used', inAudience(asId('one')), 'observers');
    expect(of({ gates: [used], audiences: [audience('one', inGroup(crew))] })).toEqual([]);
    expect(of({ audiences: [audience('one', inGroup(crew))] })).toEqual(['audiences unused']);
    expect(
      of({
        gates: [used, gate('too', inAudience(asId('two')), 'crew')],
        audiences: [audience('one', inGroup(crew)), audience('two', all(signedIn, inGroup(crew)))],
      }),
    ).toEqual(['audiences alike']);
  });

  it('finds a group that is called like a level, unless it is asked for', () => {
    const names = {
      ...vocabulary,
      groups: [...vocabulary.groups, { id: asId<GroupId>('observers'), name: 'Observers', private: false }],
    };
    const levels = gate('level', level('at least', observer), 'observers');
    expect(of({ gates: [levels] }, names)).toEqual(['names alike']);
    expect(of({ gates: [levels, gate('group', inGroup(asId('observers')), 'crew')] }, names)).toEqual([]);
    expect(of({ gates: [levels] })).toEqual([]);
  });

  it('finds a product that opens nothing, and a gate that asks for one that is not sold', () => {
    const gives = (granted: LevelId | null): Following => ({
      byGroup: new Map(),
      byProduct: new Map([[pass, { ...noGrants, level: granted }]]),
    });
    const levels = gate('level', level('at least', observer), 'observers');
    const sold = new Set<string>([pass]);
    expect(of({ gates: [levels] }, vocabulary, sold, gives(null))).toEqual(['product opens nothing']);
    expect(of({ gates: [levels] }, vocabulary, sold, gives(observer))).toEqual([]);
    const owners = gate('owners', owns(pass), 'observers');
    expect(of({ gates: [owners] }, vocabulary, sold)).toEqual([]);
    expect(of({ gates: [owners] })).toEqual(['asks for what is not sold']);
  });
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
