import fc from 'fast-check';
import { expect, it } from 'vitest';
import { everyone, level } from '../condition';
import { gateWith } from '../testing/arbitraries';
import { gates, id, items, keeper, observer, outline, vocabulary } from '../testing/larkfell';
import { coverage, coverToo, type Gate, pointAt, remarksOn, type What } from '.';

const anItem = fc.constantFrom(...items.map((item) => item.id).filter((one) => one !== 'site'));
const branchOf = (item: string) => ({ targets: [{ kind: 'branch' as const, item: id(item) }], except: [] });
const covered = (gate: Pick<Gate, 'what' | 'stance'>) => coverage(gate, outline, vocabulary);
const also = (what: What) => ({ what, stance: 'also' as const });
const named = (what: What) => [...covered(also(what))].sort();

it('covers an item when it is pointed at, and leaves it out when it was covered', () => {
  fc.assert(
    fc.property(gateWith(fc.constant('also')), anItem, (gate, item) => {
      const before = covered(gate).has(item);
      fc.pre(before || !gate.what.except.some((target) => target.kind !== 'item'));
      expect(covered(also(pointAt(gate, item, outline, vocabulary))).has(item)).toBe(!before);
    }),
  );
});

it('takes back an exclusion rather than adding a target', () => {
  const without = pointAt(also(branchOf('crew')), id('rota'), outline, vocabulary);
  expect(named(without)).toEqual(['crew']);
  expect(pointAt(also(without), id('rota'), outline, vocabulary)).toEqual(branchOf('crew'));
});

it('covers several items too, and what it covered before as it was', () => {
  const gate = { ...gates.crew, what: branchOf('crew') };
  expect(coverToo(gate, [id('rota'), id('home'), id('charts')], outline, vocabulary).what).toEqual({
    targets: [...branchOf('crew').targets, { kind: 'item', item: 'home' }, { kind: 'item', item: 'charts' }],
    except: [],
  });
  fc.assert(
    fc.property(gateWith(fc.constant('also')), fc.array(anItem), (one, wanted) => {
      fc.pre(!one.what.except.some((target) => target.kind !== 'item'));
      const [before, after] = [covered(one), covered(coverToo(one, wanted, outline, vocabulary))];
      expect(after).toEqual(new Set([...before, ...wanted]));
    }),
  );
});

it('covers nothing that is no longer there', () => {
  expect(
    named({
      targets: [
        { kind: 'item', item: id('gone') },
        { kind: 'item', item: id('home') },
      ],
      except: [],
    }),
  ).toEqual(['home']);
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
