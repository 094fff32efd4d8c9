import fc from 'fast-check';
import { expect, it } from 'vitest';
import { columnsOf, placesIn, type Subset } from '../columns';
import { all, everyone, hasRole, inGroup, nobody, not, profile } from '../condition';
import { asId, type ItemId } from '../ids';
import { containerOf, guest, type VisitorFacts } from '../site';
import { policies, visitors } from '../testing/arbitraries';
import {
  gates,
  id,
  items,
  members,
  outline,
  policy,
  request,
  school,
  soundOutline,
  suspended,
  trustee,
  vocabulary,
} from '../testing/larkfell';
import {
  breakdownOf,
  compile,
  type Decision,
  decide,
  effectOf,
  effectSteps,
  openPolicy,
  outcomeOf,
  type Policy,
  sameToVisitor,
} from '.';

const columns = columnsOf(
  members.map(({ facts }) => facts),
  vocabulary,
  request,
);
const named = ({ bits }: Subset) => [...placesIn(bits)].map((place) => members[place]?.name);

it('names who gains, who loses and what guests notice', () => {
  const opened: Policy = {
    ...policy,
    gates: policy.gates.map((gate) =>
      gate.id === 'crew'
        ? { ...gate, who: inGroup(school) }
        : gate.id === 'account'
          ? { ...gate, who: everyone }
          : gate,
    ),
  };
  const effect = effectOf(
    compile(policy, outline, vocabulary),
    compile(opened, outline, vocabulary),
    columns,
    request,
  );
  expect(named(effect.gains)).toEqual(['sunniva']);
  expect(named(effect.loses)).toEqual(['ines', 'wren']);
  const account = effect.shifts.find(({ items }) => items.some((item) => item.id === id('account')));
  expect(account?.guests).toMatchObject({ before: { kind: 'turned away' }, after: { kind: 'open' } });
  expect(account?.gains.count).toBe(0);
  const [share, ...others] = effect.byGate;
  expect(others).toEqual([]);
  expect(share?.gate).toBe('crew');
  expect([share?.gains, share?.loses].map((one) => one && named(one))).toEqual([
    ['sunniva'],
    ['ines', 'wren'],
  ]);
});

it('has no effect when nothing changes', () => {
  const compiled = compile(policy, outline, vocabulary);
  expect(effectOf(compiled, compile(policy, outline, vocabulary), columns, request)).toMatchObject({
    shifts: [],
    gains: { count: 0 },
    loses: { count: 0 },
    byGate: [],
  });
});

it('tells of a course what is done to it, and not again of all that is in it', () => {
  const gate = {
    ...gates.crew,
    what: { targets: [{ kind: 'item', item: id('induction') }], except: [] },
  } as const;
  const effect = effectOf(
    compile(openPolicy, outline, vocabulary),
    compile({ ...openPolicy, gates: [gate] }, outline, vocabulary),
    columns,
    request,
  );
  expect(effect.shifts.flatMap(({ items: those }) => those.map((item) => item.id as string))).toEqual([
    'induction',
  ]);
});

it('notices that a reason reads differently, and not that one more private test was added', () => {
  const withWho = (who: (typeof gates.school)['who']): Policy => ({
    ...policy,
    gates: [{ ...gates.school, who }],
  });
  const touched = (before: Policy, after: Policy) =>
    effectOf(compile(before, outline, vocabulary), compile(after, outline, vocabulary), columns, request)
      .shifts.length;
  expect(touched(withWho(inGroup(school)), withWho(all(inGroup(school), hasRole(trustee))))).toBe(1);
  const quiet = all(nobody, inGroup(school), not(inGroup(suspended)));
  const more = profile(asId('birth-year'), 'at least', 2000);
  expect(touched(withWho(quiet), withWho(all(nobody, inGroup(school), not(inGroup(suspended)), more)))).toBe(
    0,
  );
});

const hidden = fc.subarray(
  items.filter(({ parent }) => parent !== null).map((item) => item.id),
  { maxLength: 4 },
);
const without = (hides: readonly ItemId[]) =>
  soundOutline(items.map((item) => (hides.includes(item.id) ? { ...item, published: false } : item)));

it('finds for everybody what deciding one by one finds', () => {
  fc.assert(
    fc.property(
      policies,
      policies,
      fc.array(visitors, { maxLength: 40 }),
      hidden,
      hidden,
      (a, b, people, hides, hidesNow) => {
        const before = compile(a, without(hides), vocabulary);
        const after = compile(b, without(hidesNow), vocabulary);
        const { outline } = after;
        const effect = effectOf(before, after, columnsOf(people, vocabulary, request), request);
        const places = (selection: Subset | undefined) => (selection ? [...placesIn(selection.bits)] : []);
        const all = { gains: new Set<number>(), loses: new Set<number>() };
        for (const item of outline.items.values()) {
          const pairs = people.map((facts) => ({
            was: decide(before, item.id, facts, request),
            is: decide(after, item.id, facts, request),
          }));
          const where = (wanted: (pair: (typeof pairs)[number]) => boolean) =>
            pairs.flatMap((pair, place) => (wanted(pair) ? [place] : []));
          const gains = where(({ was, is }) => was.kind !== 'open' && is.kind === 'open');
          const loses = where(({ was, is }) => was.kind === 'open' && is.kind !== 'open');
          const sees = where(
            ({ was, is }) => was.kind !== 'open' && is.kind !== 'open' && !sameToVisitor(was, is),
          );
          for (const place of gains) all.gains.add(place);
          for (const place of loses) all.loses.add(place);
          const shift = effect.shifts.find(({ items }) => items.includes(item));
          const guests = [before, after].map((one) => decide(one, item.id, guest, request));
          const container = ['section', 'file', 'unit', 'activity'].includes(item.kind)
            ? containerOf(outline, item)
            : null;
          // A section or a file may be left out where everybody, guests too, notices no more than at what it is in.
          if (!shift && container) {
            const at = (side: typeof before, facts: VisitorFacts) =>
              decide(side, container.id, facts, request);
            const above = people.map((facts) => ({ was: at(before, facts), is: at(after, facts) }));
            for (const [place, { was, is }] of [
              ...above,
              { was: at(before, guest), is: at(after, guest) },
            ].entries()) {
              const here = pairs[place] ?? { was: guests[0] as Decision, is: guests[1] as Decision };
              if (sameToVisitor(here.was, here.is)) continue;
              expect(sameToVisitor(was, is)).toBe(false);
              expect([here.was.kind, here.is.kind]).toEqual([was.kind, is.kind]);
            }
            continue;
          }
          expect([places(shift?.gains), places(shift?.loses), places(shift?.sees)]).toEqual([
            gains,
            loses,
            sees,
          ]);
          expect(shift?.guests ? 'noticed' : 'alike').toBe(
            guests[0] && guests[1] && sameToVisitor(guests[0], guests[1]) ? 'alike' : 'noticed',
          );
        }
        expect([places(effect.gains), places(effect.loses)]).toEqual(
          [all.gains, all.loses].map((set) => [...set].sort((x, y) => x - y)),
        );
      },
    ),
    { numRuns: 200 },
  );
});

it('tells how far it is, and can be left at any step', () => {
  const opened = { ...policy, gates: policy.gates.map((gate) => ({ ...gate, who: everyone })) };
  const steps = effectSteps(
    compile(policy, outline, vocabulary),
    compile(opened, outline, vocabulary),
    columns,
    request,
  );
  const told = [...steps];
  expect(told.length).toBeGreaterThan(3);
  expect(told.at(-1)).toBe(1);
  expect(told).toEqual(told.toSorted((a, b) => a - b));
});

it('says of one item what everybody gets', () => {
  fc.assert(
    fc.property(policies, fc.array(visitors, { maxLength: 40 }), hidden, (some, people, hides) => {
      const compiled = compile(some, without(hides), vocabulary);
      const made = columnsOf(people, vocabulary, request);
      for (const item of outline.items.values()) {
        const counts = new Map<string, number>();
        for (const facts of people) {
          const outcome = outcomeOf(decide(compiled, item.id, facts, request));
          counts.set(outcome, (counts.get(outcome) ?? 0) + 1);
        }
        const reach = breakdownOf(compiled, item.id, made, request);
        const found = new Map<string, number>(
          reach && reach.open.count > 0 ? [['open', reach.open.count]] : [],
        );
        for (const { outcome, people: those } of reach?.away ?? [])
          found.set(outcome, (found.get(outcome) ?? 0) + those.count);
        expect(Object.fromEntries(found)).toEqual(Object.fromEntries(counts));
      }
    }),
    { numRuns: 100 },
  );
});
