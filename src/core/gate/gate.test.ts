import fc from 'fast-check';
import { expect, it } from 'vitest';
import { everyone, level } from '../condition';
import { gateWith } from '../testing/arbitraries';
import { gates, id, items, keeper, observer, outline, vocabulary } from '../testing/larkfell';
import { coverage, pointAt, remarksOn } from '.';

const anItem = fc.constantFrom(...items.map((item) => item.id).filter((one) => one !== 'site'));
const branchOf = (item: string) => ({ targets: [{ kind: 'branch' as const, item: id(item) }], except: [] });
const named = (what: Parameters<typeof coverage>[0]) => [...coverage(what, outline)].sort();

it('covers an item when it is pointed at, and leaves it out when it was covered', () => {
  fc.assert(
    fc.property(gateWith(fc.constant('also')), anItem, ({ what }, item) => {
      const before = coverage(what, outline).has(item);
      fc.pre(before || !what.except.some((target) => target.kind === 'branch'));
      expect(coverage(pointAt(what, item, outline), outline).has(item)).toBe(!before);
    }),
  );
});

it('takes back an exclusion rather than adding a target', () => {
  const without = pointAt(branchOf('crew'), id('rota'), outline);
  expect(named(without)).toEqual(['crew']);
  expect(pointAt(without, id('rota'), outline)).toEqual(branchOf('crew'));
});

it('remarks on a gate that covers nothing, on an exact level and on a case that hides others', () => {
  const remarks = (over: object) =>
    remarksOn({ ...gates.crew, ...over }, outline, vocabulary).map(({ kind }) => kind);
  expect(remarks({})).toEqual([]);
  expect(remarks({ what: { targets: [], except: [] } })).toEqual(['covers nothing']);
  expect(remarks({ stance: 'instead' })).toEqual(['sets aside']);
  expect(remarks({ who: everyone })).toEqual(['lets everyone by']);
  expect(remarks({ who: everyone, stance: 'instead' })).toEqual(['sets aside']);
  expect(remarks({ who: level('exactly', observer) })).toEqual(['exact level']);
  expect(remarks({ who: level('exactly', keeper) })).toEqual([]);
  const cases = [{ when: everyone, give: gates.crew.otherwise.last }, ...gates.observers.otherwise.cases];
  expect(remarks({ otherwise: { cases, last: gates.crew.otherwise.last } })).toEqual(['shadowed case']);
});
