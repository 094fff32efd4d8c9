/** Areas: what they are recognised by, and the laws of making them and taking them away. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { any, hasRole, inGroup, signedIn } from '../condition';
import { type Gate, missing } from '../gate';
import { asId, type GateId, type GroupId, type ItemId } from '../ids';
import {
  type Address,
  below,
  guest,
  type Item,
  isAddressed,
  type SiteNames,
  type VisitorFacts,
} from '../site';
import { policies, requests, visitors } from '../testing/arbitraries';
import {
  crew,
  id,
  items,
  outline,
  policy,
  request,
  soundOutline,
  trustee,
  vocabulary,
} from '../testing/larkfell';
import { areasIn, compile, decide, type Policy, withNewAreas, withoutAreas } from '.';

const [alder, birch] = ['alder', 'birch'].map((name) => asId<GroupId>(name)) as [GroupId, GroupId];
const names: SiteNames = {
  ...vocabulary,
  groups: [
    ...vocabulary.groups,
    { id: alder, name: 'Alder', private: true, open: false },
    { id: birch, name: 'Birch', private: true, open: false },
  ],
};
const SOURCES = ['observers', 'charts', 'crew'] as const;

/** Copies of a branch, beside it. */
function copiesOf(source: string, name: string): ReadonlyMap<ItemId, ItemId> {
  return new Map(below(outline, id(source)).map((item) => [item.id, id(`${name}-${item.id}`)]));
}

function siteWith(source: string, copies: readonly ReadonlyMap<ItemId, ItemId>[]) {
  const copied = copies.flatMap((copy) =>
    [...copy].map(([from, to]): Item => {
      const item = outline.items.get(from) as Item;
      return {
        ...item,
        id: to,
        parent: from === source ? item.parent : (copy.get(item.parent as ItemId) as ItemId),
        ...(isAddressed(item) && { address: `/${to}` as Address }),
      } as Item;
    }),
  );
  return soundOutline([...items, ...copied]);
}

const areaGate = (page: string, group: GroupId, over: Partial<Gate> = {}): Gate => ({
  id: asId<GateId>(`${page}-area`),
  what: { targets: [{ kind: 'branch', item: id(page) }], except: [] },
  who: any(inGroup(group), hasRole(trustee)),
  otherwise: { cases: [], last: missing },
  stance: 'also',
  ...over,
});

const making = fc.record({
  base: policies,
  source: fc.constantFrom(...SOURCES),
  /** Whether what is copied is an area itself. */
  isArea: fc.boolean(),
  also: fc.constantFrom(null, hasRole(trustee)),
});

function made({ base, source, isArea, also }: typeof making extends fc.Arbitrary<infer T> ? T : never) {
  const before: Policy = isArea ? { ...base, gates: [...base.gates, areaGate(source, crew)] } : base;
  const areas = (
    [
      ['a', alder],
      ['b', birch],
    ] as const
  ).map(([name, group]) => {
    const copy = copiesOf(source, name);
    return { page: copy.get(id(source)) as ItemId, group, copy };
  });
  const site = siteWith(
    source,
    areas.map(({ copy }) => copy),
  );
  const after = withNewAreas(before, { areas, source: id(source), also, lands: true, newId: (of) => of });
  const copied = new Set(areas.flatMap(({ copy }) => [...copy.values()]));
  return { before, after, areas, site, copied };
}

const withGroup = (visitor: VisitorFacts, group: GroupId): VisitorFacts => ({
  ...visitor,
  groups: [...(visitor.groups ?? []), group],
});

describe('areas', () => {
  it('are a page with all beneath it, under a gate that opens it to a group', () => {
    const found = areasIn({ ...policy, gates: [areaGate('crew', crew), areaGate('observers', alder)] });
    expect(found.map(({ page, group }) => [page, group])).toEqual([
      ['crew', crew],
      ['observers', alder],
    ]);
  });

  it.each([
    [
      'over the page alone',
      areaGate('crew', crew, { what: { targets: [{ kind: 'item', item: id('crew') }], except: [] } }),
    ],
    [
      'over more than one branch',
      areaGate('crew', crew, {
        what: {
          targets: [
            { kind: 'branch', item: id('crew') },
            { kind: 'branch', item: id('join') },
          ],
          except: [],
        },
      }),
    ],
    ['that opens to everybody who is signed in', areaGate('crew', crew, { who: signedIn })],
  ])('are no gates %s', (_, gate) => {
    expect(areasIn({ ...policy, gates: [gate] })).toEqual([]);
  });

  it('are one for each page and one for each group', () => {
    const twice = [areaGate('crew', crew), areaGate('rota', crew), areaGate('crew', alder)];
    expect(areasIn({ ...policy, gates: twice }).map(({ page }) => page)).toEqual(['crew']);
  });
});

describe('making areas', () => {
  it('changes nothing of what anybody gets at what was there', () => {
    fc.assert(
      fc.property(making, visitors, requests, (asked, visitor, at) => {
        const { before, after, site, copied } = made(asked);
        const was = compile(before, outline, names);
        const is = compile(after, site, names);
        for (const item of site.items.values())
          if (!copied.has(item.id))
            expect(decide(is, item.id, visitor, at)).toEqual(decide(was, item.id, visitor, at));
      }),
    );
  });

  it('opens them to nobody else', () => {
    fc.assert(
      fc.property(making, visitors, requests, (asked, visitor, at) => {
        const { after, site, areas } = made(asked);
        const is = compile(after, site, names);
        for (const { page, copy } of areas) {
          const gate = areasIn(after).find((one) => one.page === page)?.gate;
          if (gate === undefined) throw new Error('There is no area.');
          const alone = compile({ ...after, gates: [{ ...gate, stance: 'also' }] }, site, names);
          const passes = decide(alone, page, visitor, at).kind === 'open';
          if (passes) continue;
          // A gate of the area's own that sets others aside was copied with it, and the expectation tells of it.
          const own = after.gates.slice(after.gates.findIndex((one) => one.id === gate.id) + 1);
          if (own.some(({ stance }) => stance === 'instead')) continue;
          for (const item of copy.values()) expect(decide(is, item, visitor, at).kind).not.toBe('open');
        }
      }),
    );
  });

  it('closes to their people what is closed at what was copied, and opens what is open there', () => {
    fc.assert(
      fc.property(making, visitors, (asked, visitor) => {
        const { before, after, site, areas } = made({ ...asked, isArea: false });
        fc.pre(!areasIn(before).some(({ page }) => page === asked.source));
        const is = compile(after, site, names);
        const [first] = areas;
        const inside = withGroup(visitor, alder);
        for (const [from, to] of first?.copy ?? [])
          expect(decide(is, to, inside, request).kind === 'open').toBe(
            decide(is, from, inside, request).kind === 'open',
          );
      }),
    );
  });

  it('is undone by taking them away', () => {
    fc.assert(
      fc.property(making, (asked) => {
        const { before, after, site, areas } = made(asked);
        const found = areasIn(after).filter(({ page }) => areas.some((one) => one.page === page));
        expect(found.length).toBe(2);
        expect(withoutAreas(after, found, site)).toEqual(before);
      }),
    );
  });

  it('asks at a copy for the new group wherever the copied area asks for its own', () => {
    const inner = areaGate('rota', crew, { id: asId<GateId>('inner') });
    const base = { ...policy, gates: [areaGate('crew', crew), inner] };
    const copy = copiesOf('crew', 'a');
    const after = withNewAreas(base, {
      areas: [{ page: id('a-crew'), group: alder, copy }],
      source: id('crew'),
      also: null,
      lands: false,
      newId: (of) => of,
    });
    expect(after.gates.slice(2).map(({ what, who }) => [what.targets, who])).toEqual([
      [[{ kind: 'branch', item: 'a-crew' }], any(inGroup(alder), hasRole(trustee))],
      [[{ kind: 'branch', item: 'a-rota' }], any(inGroup(alder), hasRole(trustee))],
    ]);
    const is = compile(after, siteWith('crew', [copy]), names);
    expect(decide(is, id('a-rota'), withGroup({ ...guest, signedIn: true }, crew), request).kind).toBe(
      'turned away',
    );
  });
});

describe('taking areas away', () => {
  it('opens nothing', () => {
    fc.assert(
      fc.property(policies, fc.constantFrom(...SOURCES), visitors, requests, (base, page, visitor, at) => {
        const before: Policy = { ...base, gates: [areaGate(page, crew), ...base.gates] };
        const areas = areasIn(before).filter((one) => one.page === page);
        const gone = new Set(below(outline, id(page)).map((item) => item.id));
        // A link that leads to what goes is gone with it.
        const left = items.filter(
          (item) =>
            !gone.has(item.id) &&
            !(item.kind === 'link' && item.target.kind === 'item' && gone.has(item.target.item)),
        );
        const site = soundOutline(
          left.filter((item) => item.parent === null || left.some((one) => one.id === item.parent)),
        );
        const groups = vocabulary.groups.filter((one) => one.id !== crew);
        const was = compile(before, outline, vocabulary);
        const is = compile(withoutAreas(before, areas, outline), site, { ...vocabulary, groups });
        const without = { ...visitor, groups: visitor.groups?.filter((one) => one !== crew) ?? null };
        for (const item of site.items.values())
          if (decide(is, item.id, without, at).kind === 'open')
            expect(decide(was, item.id, visitor, at).kind).toBe('open');
      }),
    );
  });
});
