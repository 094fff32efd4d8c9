/** Shared sections on their hosts, held against the plainest reading: the gates over the section ask the host, then the host decides. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnsOf, hasPlace, placesIn as peopleIn, type Subset } from '../columns';
import { inGroup, test } from '../condition';
import { type Gate, hostsOf, type What } from '../gate';
import { asId, type GateId } from '../ids';
import {
  guest,
  type Item,
  isAddressed,
  outlineOf,
  placeId,
  type SharedSection,
  type Spot,
  sharedIn,
  type VisitorFacts,
} from '../site';
import { gates as anyGate, policies, requests, selections, visitors } from '../testing/arbitraries';
import { crew, id, items, members, request, soundOutline, vocabulary } from '../testing/larkfell';
import { naiveDecision } from '../testing/naive';
import {
  breakdownOf,
  type CompiledPolicy,
  compile,
  type Decision,
  decide,
  decideAlong,
  effectOf,
  explain,
  openPolicy,
  type Policy,
  sameToVisitor,
} from '.';
import { asksAboutItem } from './places';

const shared = (name: string, on: What, over: Partial<SharedSection['shared']> = {}): SharedSection => ({
  id: id(name),
  kind: 'section',
  type: 'text',
  parent: id('site'),
  rank: 1,
  title: name,
  published: true,
  shared: { spot: 'before', on, elsewhere: false, ...over },
});
const post: What = { targets: [{ kind: 'selection', where: test('item kind', 'is', 'post') }], except: [] };
const allButJoin: What = {
  targets: [{ kind: 'branch', item: id('site') }],
  except: [{ kind: 'item', item: id('join') }],
};
const banner = shared('banner', post);
const notice = shared('notice', allButJoin, { elsewhere: true });
const sharing = [...items, banner, notice];
const outline = soundOutline(sharing);

/** A gate over a shared section, or over whatever a gate covers. */
const gate: fc.Arbitrary<Gate> = fc.oneof(
  anyGate,
  fc.tuple(anyGate, fc.constantFrom(banner, notice)).map(([one, { id: item }]) => ({
    ...one,
    what: { targets: [{ kind: 'item' as const, item }], except: [] },
  })),
);
const somePolicy: fc.Arbitrary<Policy> = fc
  .tuple(policies, fc.array(gate, { maxLength: 4 }))
  .map(([policy, more]) => ({ ...policy, gates: [...policy.gates, ...more] }));

/** Whether a shared section is there for somebody: its own gates, asked about the host, and then the host's. */
function naively(
  policy: Policy,
  section: SharedSection,
  host: Item,
  visitor: typeof guest,
  at: typeof request,
): 'open' | string {
  // The gates that cover the section, each asked as if the host stood there in its place.
  const own = naiveDecision(
    {
      ...policy,
      gates: policy.gates.map((one) => ({
        ...one,
        what: {
          targets: covers(policy, one, section) ? [{ kind: 'item' as const, item: host.id }] : [],
          except: [],
        },
      })),
    },
    { ...outline, items: new Map([[host.id, { ...host, kind: 'page', parent: null } as Item]]) },
    vocabulary,
    // A page of its own: nothing but those gates is asked.
    { ...host, published: section.published } as Item,
    visitor,
    at,
  );
  if (own !== 'open') return own.by;
  const above = naiveDecision(policy, outline, vocabulary, host, visitor, at);
  return above === 'open' ? 'open' : above.by;
}
const covers = (policy: Policy, one: Gate, section: SharedSection): boolean =>
  (compile(policy, outline, vocabulary).covering.get(section.id) ?? []).some(
    ({ gate: { id } }) => id === one.id,
  );

const aPlace = fc.constantFrom(
  ...[banner, notice].flatMap((section) =>
    [...hostsOf(section, outline, vocabulary)].map((host) => ({
      section,
      host: outline.items.get(host) as Item,
    })),
  ),
);

describe('a shared section', () => {
  it('stands on the pages and posts that are meant, minus exclusions, and nothing else', () => {
    expect([...hostsOf(banner, outline, vocabulary)]).toEqual(
      items.filter(({ kind }) => kind === 'post').map((one) => one.id),
    );
    const hosts = hostsOf(notice, outline, vocabulary);
    expect(hosts.has(id('join'))).toBe(false);
    expect([...hosts].length).toBe(items.filter(isAddressed).length - 1);
  });

  it('stands nowhere where that is in doubt: of a group that is gone, of a fact that is missing', () => {
    const on = (where: ReturnType<typeof test>): What => ({
      targets: [{ kind: 'selection', where }],
      except: [],
    });
    const hosts = (what: What) => [...hostsOf(shared('x', what), outline, vocabulary)].length;
    expect(hosts(on(test('item group', 'includes', 'gone')))).toBe(0);
    expect(hosts(on(test('item category', 'is not', 'Night logs')))).toBe(
      items.filter((one) => isAddressed(one) && one.facts?.category && one.facts.category !== 'Night logs')
        .length,
    );
    expect(hosts({ targets: [{ kind: 'branch', item: id('gone') }], except: [] })).toBe(0);
  });

  it('loses no host that is certain, and gains none, when what is said of the hosts says less', () => {
    fc.assert(
      fc.property(selections, selections, (where, except) => {
        const on = (targets: What['targets'], without: What['except']) =>
          hostsOf(shared('x', { targets, except: without }), outline, vocabulary);
        const all = on([{ kind: 'selection', where }], []);
        const fewer = on([{ kind: 'selection', where }], [{ kind: 'selection', where: except }]);
        for (const host of fewer) expect(all.has(host)).toBe(true);
      }),
    );
  });

  it('is decided on each host as the gates over it say of that host, and never where the host is closed', () => {
    fc.assert(
      fc.property(somePolicy, aPlace, visitors, requests, (policy, { section, host }, visitor, at) => {
        const compiled = compile(policy, outline, vocabulary);
        const place = placeId(section.id, host.id);
        const decision = decide(compiled, place, visitor, at);
        expect(explain(compiled, place, visitor, at).decision).toEqual(decision);
        const plain = naively(policy, section, host, visitor, at);
        if (decision.kind === 'open' || plain === 'open') expect(decision.kind).toBe(plain);
        else
          expect(decision.because.kind === 'gate' ? decision.because.gate : decision.because.kind).toBe(
            plain,
          );
        // Where the host is open its gates have nothing more to say, and where it is not nothing is shown.
        if (decide(compiled, host.id, visitor, at).kind !== 'open') expect(decision.kind).not.toBe('open');
        else expect(decideAlong(compiled.places.own(section, host), visitor, at)).toEqual(decision);
      }),
    );
  });

  it('is open of itself to whoever gets it somewhere, and to nobody else', () => {
    fc.assert(
      fc.property(
        somePolicy,
        fc.constantFrom(banner, notice),
        visitors,
        requests,
        (policy, section, visitor, at) => {
          const compiled = compile(policy, outline, vocabulary);
          const whole = decide(compiled, section.id, visitor, at);
          expect(explain(compiled, section.id, visitor, at).decision).toEqual(whole);
          const { places } = compiled;
          const elsewhere =
            section.shared.elsewhere &&
            places.hurdlesAt(section, null).every((one) => one.passes(visitor, one.at, at));
          const somewhere = [...places.hosts(section)].some(
            (host) => decide(compiled, placeId(section.id, host), visitor, at).kind === 'open',
          );
          expect(whole.kind === 'open').toBe(elsewhere || somewhere);
        },
      ),
    );
  });

  it('puts hosts together at which everybody gets the same', () => {
    fc.assert(
      fc.property(somePolicy, visitors, requests, (policy, visitor, at) => {
        const compiled = compile(policy, outline, vocabulary);
        for (const section of [banner, notice]) {
          const kinds = compiled.places.kindsOf(section);
          expect(kinds.flatMap(({ hosts }) => hosts).toSorted()).toEqual(
            [...compiled.places.hosts(section)].toSorted(),
          );
          for (const { hosts } of kinds) {
            const got = new Set(
              hosts.map((host) => {
                const { kind } = decide(compiled, placeId(section.id, host), visitor, at);
                return kind;
              }),
            );
            expect(got.size).toBe(1);
          }
        }
      }),
    );
  });

  it('makes one kind of the hosts at which a gate that asks about them asks the same', () => {
    const over = (who: Gate['who']): Gate => ({
      id: asId<GateId>('asking'),
      what: { targets: [{ kind: 'item', item: notice.id }], except: [] },
      who,
      otherwise: { cases: [], last: { kind: 'leave out', keepSpace: false } },
      stance: 'also',
    });
    const kinds = (who: Gate['who']) =>
      compile({ ...openPolicy, gates: [over(who)] }, outline, vocabulary).places.kindsOf(notice);
    // What is not published is a kind of its own.
    const closed = [id('attic'), id('rail')];
    expect(kinds(test('item picture', 'is not set')).map(({ hosts }) => hosts.length)).toEqual([15, 2]);
    const byCategory = kinds(test('item category', 'is', 'Night logs'));
    // In it, in another, and in none: nothing known is neither yes nor no.
    const few = byCategory.map(({ hosts }) => hosts).filter(({ length }) => length <= 2);
    expect(few.toSorted()).toEqual([closed, [id('first-light')], [id('mist')]]);
    expect(byCategory).toHaveLength(4);
  });

  it('decides by the same value whenever it decides the same, so that what was made of it is found', () => {
    fc.assert(
      fc.property(somePolicy, aPlace, visitors, requests, (policy, { section, host }, visitor, at) => {
        const compiled = compile(policy, outline, vocabulary);
        const place = placeId(section.id, host.id);
        expect(decide(compiled, place, visitor, at)).toBe(decide(compiled, place, visitor, at));
      }),
    );
  });

  it('asks about no host where there is none: nothing that is not set opens it', () => {
    const gates: readonly Gate[] = [
      {
        id: asId<GateId>('bare'),
        what: { targets: [{ kind: 'item', item: notice.id }], except: [] },
        who: test('item picture', 'is not set'),
        otherwise: { cases: [], last: { kind: 'leave out', keepSpace: false } },
        stance: 'also',
      },
    ];
    const { places, ...compiled } = compile({ ...openPolicy, gates }, outline, vocabulary);
    const passes = (host: Item | null) =>
      places.hurdlesAt(notice, host).every((one) => one.passes(guest, one.at, request));
    expect(passes(outline.items.get(id('home')) as Item)).toBe(true);
    expect(passes(null)).toBe(false);
    expect(decide({ places, ...compiled }, notice.id, guest, request).kind).toBe('open');
  });

  it('belongs below the site, and nothing else does without saying where it stands', () => {
    const wrong = (item: Item) => {
      const made = outlineOf([...items, item]);
      return 'problems' in made ? made.problems.map(({ message }) => message) : [];
    };
    expect(wrong({ ...banner, parent: id('home') })).toEqual([
      '"banner" is shared, so it belongs below the site itself and not in "Home".',
    ]);
    const { shared: _, ...plain } = banner;
    expect(wrong(plain)).toEqual(['"banner" stands below the site itself: say at which spot, and on what.']);
    const spots: readonly Spot[] = ['foot', 'top', 'before'];
    const several = soundOutline([
      ...items,
      ...spots.map((spot, rank) => ({ ...shared(`at-${spot}`, post, { spot }), rank })),
    ]);
    expect(sharedIn(several).map(({ title }) => title)).toEqual(['at-top', 'at-before', 'at-foot']);
  });
});

describe('the effect of a gate over a shared section', () => {
  const columns = columnsOf(
    members.map(({ facts }) => facts),
    vocabulary,
    request,
  );
  const names = ({ bits }: Subset) => [...peopleIn(bits)].map((place) => members[place]?.name);

  it('says who sees it from then on, and on how many of its hosts', () => {
    const forCrew: Policy = {
      ...openPolicy,
      gates: [
        {
          id: asId<GateId>('crew'),
          what: { targets: [{ kind: 'item', item: banner.id }], except: [] },
          who: inGroup(crew),
          otherwise: { cases: [], last: { kind: 'leave out', keepSpace: false } },
          stance: 'also',
        },
      ],
    };
    const [before, after] = [forCrew, openPolicy].map((policy) => compile(policy, outline, vocabulary));
    if (!before || !after) throw new Error('nothing was compiled');
    const { shifts } = effectOf(before, after, columns, request);
    expect(shifts.map(({ items: [first] }) => first?.id)).toEqual([banner.id]);
    expect(shifts[0]?.hosts.get(banner.id)).toBe(
      compile(forCrew, outline, vocabulary).places.hosts(banner).size,
    );
    expect(shifts[0]?.guests?.after.kind).toBe('open');
    const inCrew = members.filter(({ facts }) => facts.groups?.includes(crew)).map(({ name }) => name);
    expect(names(shifts[0]?.gains as Subset)).toEqual(
      members.map(({ name }) => name).filter((name) => !inCrew.includes(name)),
    );
    expect(breakdownOf(before, banner.id, columns, request)?.open.count).toBe(inCrew.length);
    expect(breakdownOf(after, banner.id, columns, request)?.open.count).toBe(members.length);
  });

  it('tells hosts apart that were closed to some before, though they are alike now', () => {
    const only = (item: string, who: Gate['who']): Gate => ({
      id: asId<GateId>(item),
      what: { targets: [{ kind: 'item', item: id(item) }], except: [] },
      who,
      otherwise: { cases: [], last: { kind: 'leave out', keepSpace: false } },
      stance: 'also',
    });
    const [before, after] = [[only('first-light', inGroup(crew))], [only('banner', inGroup(crew))]].map(
      (gates) => compile({ ...openPolicy, gates }, outline, vocabulary),
    );
    if (!before || !after) throw new Error('nothing was compiled');
    const { loses, shifts } = effectOf(before, after, columns, request);
    const outside = members.filter(({ facts }) => !facts.groups?.includes(crew)).map(({ name }) => name);
    expect(names(loses)).toEqual(outside);
    const banners = shifts.filter(({ items: list }) => list.some((one) => one.id === banner.id));
    expect(banners.map(({ loses: those }) => names(those))).toContainEqual(outside);
  });

  it('tells of a gate over it alone in one line, with the hosts on which somebody notices it, and who does', () => {
    const overNotice = anyGate.map(
      (one): Gate => ({
        ...one,
        id: asId<GateId>('over-notice'),
        what: { targets: [{ kind: 'item', item: notice.id }], except: [] },
        stance: 'also',
      }),
    );
    fc.assert(
      fc.property(somePolicy, overNotice, overNotice, (policy, was, is) => {
        const [before, after] = [was, is].map((gate) =>
          compile({ ...policy, gates: [...policy.gates, gate] }, outline, vocabulary),
        ) as [CompiledPolicy, CompiledPolicy];
        const at = (host: Item | null, facts: VisitorFacts) =>
          [before, after].map(({ places }) =>
            decideAlong(places.hurdlesAt(notice, host), facts, request),
          ) as [Decision, Decision];
        const hosts = [...hostsOf(notice, outline, vocabulary)].map(
          (host) => outline.items.get(host) as Item,
        );
        const gets = (host: Item, facts: VisitorFacts) =>
          decide(after, host.id, facts, request).kind === 'open';
        const notices = (host: Item | null, facts: VisitorFacts) =>
          (host === null || gets(host, facts)) && !sameToVisitor(...at(host, facts));
        const everybody = [...members.map(({ facts }) => facts), guest];
        const { shifts } = effectOf(before, after, columns, request);
        const told = shifts.filter(({ items: list }) => list.includes(notice));
        // A gate that asks about its host says different things at different hosts.
        if (told.length > 1)
          expect([...policy.gates, was, is].some((one) => asksAboutItem(one, vocabulary))).toBe(true);
        expect(told.reduce((sum, { hosts: on }) => sum + (on.get(notice.id) ?? 0), 0)).toBe(
          hosts.filter((host) => everybody.some((facts) => notices(host, facts))).length,
        );
        const those = (side: 'gains' | 'loses' | 'sees') =>
          members.flatMap(({ name }, place) =>
            told.some((shift) => hasPlace(shift[side].bits, place)) ? [name] : [],
          );
        const where = (wanted: (was: Decision, is: Decision) => boolean) =>
          members
            .filter(({ facts }) =>
              [...hosts, null].some((host) => notices(host, facts) && wanted(...at(host, facts))),
            )
            .map(({ name }) => name);
        expect(those('gains')).toEqual(where((_, now) => now.kind === 'open'));
        expect(those('loses')).toEqual(where((old) => old.kind === 'open'));
        expect(those('sees')).toEqual(where((old, now) => old.kind !== 'open' && now.kind !== 'open'));
        expect(told.some(({ guests }) => guests !== null)).toBe(
          [...hosts, null].some((host) => notices(host, guest)),
        );
      }),
    );
  });

  it('names everybody who gains or loses it on some host, and nobody else', () => {
    const everywhere = [
      ...items.map((one) => one.id),
      ...[banner, notice].flatMap((section) =>
        [...hostsOf(section, outline, vocabulary)].map((host) => placeId(section.id, host)),
      ),
    ];
    fc.assert(
      fc.property(somePolicy, somePolicy, (was, is) => {
        const [before, after] = [compile(was, outline, vocabulary), compile(is, outline, vocabulary)];
        const effect = effectOf(before, after, columns, request);
        const nowhere = ({ places }: typeof before) => places.hurdlesAt(notice, null);
        const opens = (was: Decision, is: Decision) => was.kind !== 'open' && is.kind === 'open';
        const changed = (from: typeof before, to: typeof after) =>
          members
            .filter(
              ({ facts }) =>
                everywhere.some((place) =>
                  opens(decide(from, place, facts, request), decide(to, place, facts, request)),
                ) ||
                // As on the search page, where it stands as well.
                opens(decideAlong(nowhere(from), facts, request), decideAlong(nowhere(to), facts, request)),
            )
            .map(({ name }) => name);
        expect(names(effect.gains)).toEqual(changed(before, after));
        expect(names(effect.loses)).toEqual(changed(after, before));
        for (const { id: section } of [banner, notice]) {
          const told = breakdownOf(after, section, columns, request);
          expect(told && names(told.open)).toEqual(
            members
              .filter(({ facts }) => decide(after, section, facts, request).kind === 'open')
              .map(({ name }) => name),
          );
        }
      }),
      { numRuns: 60 },
    );
  });
});
