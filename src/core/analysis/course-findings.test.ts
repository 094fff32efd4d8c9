/** What is found of courses: each mistake, what is just short of it, and that nobody can do what nobody is said to. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { all, any, type Condition, everyone, inGroup, not, profile, test, testOf } from '../condition';
import { completing } from '../course';
import { type Gate, missing } from '../gate';
import { asId, type GateId, type ItemId, type ProductId } from '../ids';
import { compile, decide } from '../policy';
import { type Activity, type Following, member, noGrants, type VisitorFacts } from '../site';
import { crew, hours, id, outline, policy, request, school, vocabulary } from '../testing/larkfell';
import { analyse } from './analyse';
import { nothingFollows } from './axioms';
import { describeFinding } from './describe-finding';
import { aboutOf, keyOfFinding } from './finding';

const course = id('induction');
const gate = (item: string, who: Condition): Gate => ({
  id: asId<GateId>(item),
  what: { targets: [{ kind: item === 'safety' ? 'branch' : 'item', item: id(item) }], except: [] },
  who,
  otherwise: { cases: [], last: missing },
  stance: 'also',
});
const compiled = (...gates: readonly Gate[]) =>
  compile({ ...policy, audiences: [], gates }, outline, vocabulary);
const found = (gates: readonly Gate[], following: Following = nothingFollows) =>
  analyse(compiled(...gates), request.today, following, new Set()).findings.filter(
    ({ kind }) => kind === 'never completed' || kind === 'never past',
  );
const done = (item: string): Condition => testOf('completed', id(item), 'is');
const inOrder: Condition = test('completed the one before', 'is');

describe('activities that nobody can ever complete', () => {
  it('are two that wait for one another', () => {
    expect(found([gate('ladder', done('shutter')), gate('shutter', done('ladder'))])).toMatchObject([
      { kind: 'never completed', course, items: ['ladder', 'shutter'], gates: ['ladder', 'shutter'] },
    ]);
    expect(found([gate('ladder', everyone), gate('shutter', done('ladder'))])).toEqual([]);
    const gates = [gate('ladder', done('shutter')), gate('shutter', done('ladder'))];
    expect(found(gates).map((one) => describeFinding(one, compiled(...gates), request.today))).toEqual([
      'Nobody can ever complete “Ladder safety” and “The shutter” of “Dome operator induction”: what has to be done before waits for it, or can’t be done.',
    ]);
  });

  it('are one that waits for itself, and what waits for it', () => {
    expect(found([gate('ladder', done('ladder')), gate('dark', done('ladder'))])).toMatchObject([
      { items: ['ladder', 'dark'] },
    ]);
    expect(found([gate('ladder', any(done('ladder'), inGroup(crew))), gate('dark', done('ladder'))])).toEqual(
      [],
    );
  });

  it('are those that wait for the unit that they are in; not once something of it can be done before', () => {
    const unit: Condition = testOf('completed unit', id('safety'), 'is');
    expect(found([gate('safety', unit)])).toMatchObject([{ items: ['ladder', 'shutter', 'dark'] }]);
    expect(found([gate('dark', unit)])).toEqual([]);
  });

  it('are those that wait for what is not published', () => {
    expect(found([gate('dark', done('rail'))])).toMatchObject([{ kind: 'never completed', items: ['dark'] }]);
  });
});

describe('what somebody who is enrolled never gets past', () => {
  const crewAlone = gate('shutter', inGroup(crew));

  it('is closed to them for good, and asked for by what follows', () => {
    const [one] = found([gate('safety', inOrder), crewAlone]);
    expect(one).toMatchObject({ kind: 'never past', course, item: 'shutter', next: 'dark' });
    expect(one?.kind === 'never past' && one.witness.visitor).toMatchObject({
      signedIn: true,
      groups: [],
      enrolments: [{ course }],
    });
    const site = compiled(gate('safety', inOrder), crewAlone);
    expect(one && describeFinding(one, site, request.today)).toBe(
      'Somebody enrolled in “Dome operator induction” never gets past “The shutter”, which stays closed to them while “In the dark” asks for it: a member, enrolled in Dome operator induction.',
    );
    // In the way are the gates over both: one of them changed, and what was said of it is said anew.
    expect(one && aboutOf(one, site.policy)).toHaveLength(2);
    expect(one && keyOfFinding(one)).toBe('never past||shutter');
  });

  it('is not what asks the same of them as what follows', () => {
    expect(found([gate('safety', inOrder), crewAlone, gate('dark', inGroup(crew))])).toEqual([]);
  });

  it('is not what opens by what they do, buy or fill in themselves', () => {
    const pass = asId<ProductId>('keeper-pass');
    const following: Following = {
      byGroup: new Map(),
      byProduct: new Map([[pass, { ...noGrants, groups: [crew] }]]),
    };
    const order = gate('safety', inOrder);
    expect(found([order, crewAlone], following)).toEqual([]);
    expect(found([order, gate('shutter', testOf('owns', pass, 'is'))])).toEqual([]);
    expect(found([order, gate('shutter', testOf('enrolment', course, 'at least ago', 7))])).toEqual([]);
    expect(found([order, gate('shutter', profile(hours, 'at least', 100))])).toMatchObject([
      { kind: 'never past', item: 'shutter' },
    ]);
  });
});

it('nobody can do what nobody is said to be able to, whatever they are made of at each step', () => {
  const activities = [...outline.items.values()].filter(
    (item): item is Activity => item.kind === 'activity' && item.published,
  );
  const condition = fc.constantFrom<Condition>(
    everyone,
    inOrder,
    inGroup(crew),
    not(inGroup(school)),
    ...activities.flatMap((one) => [done(one.id), not(done(one.id)), all(done(one.id), inGroup(school))]),
    testOf('completed unit', id('safety'), 'is'),
    testOf('completed course', course, 'is'),
  );
  const made = [[], [crew], [school], [crew, school]].map((groups) =>
    member({ groups, enrolments: [{ course, on: '2026-01-01', until: null }] }),
  );
  let stuck = 0;
  fc.assert(
    fc.property(fc.tuple(condition, condition, condition), (those) => {
      const gates = activities.map((one, at) => gate(one.id, those[at] ?? everyone));
      const site = compiled(...gates);
      const able = new Set<ItemId>();
      const seen = new Set<string>();
      const go = (completions: VisitorFacts['completions']): void => {
        const key = (completions ?? [])
          .map(({ item }) => item)
          .sort()
          .join();
        if (seen.has(key)) return;
        seen.add(key);
        for (const one of activities)
          for (const facts of made) {
            const learner = { ...facts, completions };
            if (decide(site, one.id, learner, request).kind !== 'open') continue;
            able.add(one.id);
            const more = completing(site, learner, one, null, request);
            if (more.length > 0) go([...(completions ?? []), ...more]);
          }
      };
      go([]);
      const said = found(gates).flatMap((one) => (one.kind === 'never completed' ? one.items : []));
      stuck += said.length;
      for (const item of said) expect(able.has(item)).toBe(false);
    }),
    { numRuns: 200 },
  );
  expect(stuck).toBeGreaterThan(20);
});
