import fc from 'fast-check';
import { expect, it } from 'vitest';
import { any, everyone, not, test } from '../condition';
import { fits, type Gate, missing } from '../gate';
import { asId, type GateId, type PersonId } from '../ids';
import { type Link, member, type VisitorFacts } from '../site';
import { anItem, gates as anyGate, gateWith, policies, requests, visitors } from '../testing/arbitraries';
import {
  crew,
  gates,
  id,
  items,
  outline,
  people,
  policy,
  request,
  soundOutline,
  vocabulary,
} from '../testing/larkfell';
import { naiveDecision } from '../testing/naive';
import { compile, decide, dependsOnVisitor, explain, openPolicy, outcomeOf, type Policy } from '.';

const compiled = compile(policy, outline, vocabulary);
const withGates = (gates: readonly Gate[]): Policy => ({ ...policy, gates });
const outcome = (item: string, person: keyof typeof people) =>
  outcomeOf(decide(compiled, id(item), people[person], request));

it('agrees with the naive reading and with the explanation', () => {
  fc.assert(
    fc.property(policies, anItem, visitors, requests, (some, item, visitor, at) => {
      const made = compile(some, outline, vocabulary);
      const decision = decide(made, item.id, visitor, at);
      expect(explain(made, item.id, visitor, at).decision).toEqual(decision);
      const naive = naiveDecision(some, outline, vocabulary, item, visitor, at);
      if (naive === 'open' || decision.kind === 'open') expect(decision.kind).toBe(naive);
      else {
        const { because } = decision;
        expect(because.kind === 'gate' ? because.gate : because.kind).toBe(naive.by);
      }
    }),
    { numRuns: 2000 },
  );
});

it('says the same of items in whatever order they are asked about', () => {
  const order = fc.shuffledSubarray([...items], { minLength: items.length });
  fc.assert(
    fc.property(policies, order, visitors, requests, (some, asked, visitor, at) => {
      const [made, other] = [compile(some, outline, vocabulary), compile(some, outline, vocabulary)];
      const first = new Map(items.map(({ id: one }) => [one, decide(made, one, visitor, at)]));
      for (const { id: one } of asked) {
        expect(decide(other, one, visitor, at)).toEqual(first.get(one));
        // Worked out once.
        expect(other.hurdles(one)).toBe(other.hurdles(one));
      }
    }),
    { numRuns: 200 },
  );
});

it('asks the innermost of thousands of links in one another as well as the outermost', () => {
  const many = 5000;
  const nested = Array.from({ length: many }, (_, at) => ({
    ...(outline.items.get(id('to-home')) as Link),
    id: id(`link-${at}`),
    parent: id(at === 0 ? 'top' : `link-${at - 1}`),
  }));
  const deep = soundOutline([...items, ...nested]);
  const closed: Gate = {
    ...gates.crew,
    what: { targets: [{ kind: 'item', item: id('link-0') }], except: [] },
    who: any(),
  };
  const made = compile(withGates([closed]), deep, vocabulary);
  const decision = decide(made, id(`link-${many - 1}`), people.tobin, request);
  expect(decision).toMatchObject({ kind: 'turned away', because: { kind: 'gate', gate: closed.id } });
});

it('never opens anything by adding a gate that says "also", wherever it is put', () => {
  fc.assert(
    fc.property(
      policies,
      gateWith(fc.constant('also')),
      fc.nat(6),
      anItem,
      visitors,
      (some, extra, place, item, visitor) => {
        const more: Policy = { ...some, gates: some.gates.toSpliced(place, 0, extra) };
        if (decide(compile(more, outline, vocabulary), item.id, visitor, request).kind === 'open') {
          expect(decide(compile(some, outline, vocabulary), item.id, visitor, request).kind).toBe('open');
        }
      },
    ),
    { numRuns: 1000 },
  );
});

it('never opens anything by forgetting a fact, unless a gate asks whether it is set or for guests', () => {
  const asksForAbsence = (gate: Gate) => /is (not )?set|signed in/.test(JSON.stringify(gate.who));
  const plain = policies.map((some) => ({
    ...some,
    gates: some.gates.filter((gate) => !asksForAbsence(gate)),
  }));
  fc.assert(
    fc.property(
      plain,
      anItem,
      visitors,
      fc.constantFrom(
        'id',
        'email',
        'roles',
        'groups',
        'level',
        'profile',
        'purchases',
        'joined',
        'enrolments',
        'completions',
        'share',
      ),
      (some, item, visitor, fact) => {
        const made = compile(some, outline, vocabulary);
        if (decide(made, item.id, { ...visitor, [fact]: null }, request).kind === 'open') {
          expect(decide(made, item.id, visitor, request).kind).toBe('open');
        }
      },
    ),
    { numRuns: 1000 },
  );
});

it('gives the order of "also" gates no say in who gets in', () => {
  fc.assert(
    fc.property(
      fc.array(gateWith(fc.constant('also')), { maxLength: 5 }),
      anItem,
      visitors,
      (list, item, visitor) => {
        const forwards = decide(compile(withGates(list), outline, vocabulary), item.id, visitor, request);
        const backwards = decide(
          compile(withGates(list.toReversed()), outline, vocabulary),
          item.id,
          visitor,
          request,
        );
        expect(backwards.kind).toBe(forwards.kind);
      },
    ),
  );
});

it('closes the contents of whatever is closed', () => {
  fc.assert(
    fc.property(policies, visitors, (some, visitor) => {
      const made = compile(some, outline, vocabulary);
      for (const item of items) {
        if (item.kind !== 'link' || decide(made, item.id, visitor, request).kind !== 'open') continue;
        expect(item.parent && decide(made, item.parent, visitor, request).kind).toBe('open');
        if (item.target.kind === 'item')
          expect(decide(made, item.target.item, visitor, request).kind).toBe('open');
      }
    }),
  );
});

it('sends guests to sign in, shows Marek the teaser and lets Tobin in at the Observers’ room', () => {
  expect(outcome('observers', 'guest')).toBe('redirect');
  expect(outcome('charts', 'guest')).toBe('redirect');
  expect(outcome('observers', 'marek')).toBe('teaser');
  expect(outcome('observers', 'tobin')).toBe('open');
  expect(outcome('observers', 'basil')).toBe('teaser');
});

it('makes the crew’s pages missing for all but the crew', () => {
  expect(outcome('crew', 'priya')).toBe('missing');
  expect(outcome('rota', 'guest')).toBe('missing');
  expect(outcome('rota', 'wren')).toBe('open');
});

it('lets a sample page say "instead" inside a gated branch', () => {
  expect(outcome('sample', 'guest')).toBe('open');
  expect(outcome('charts', 'guest')).toBe('redirect');
});

it('shows a menu link to those who can open its target, inside links that are shown', () => {
  expect(outcome('to-observers', 'marek')).toBe('leave out');
  expect(outcome('to-observers', 'tobin')).toBe('open');
  expect(outcome('to-sample', 'tobin')).toBe('open');
  expect(outcome('to-sample', 'marek')).toBe('leave out');
  expect(outcome('to-sign-in', 'guest')).toBe('open');
  expect(outcome('to-sign-in', 'marek')).toBe('leave out');
});

it('makes what is unpublished and what is not there missing', () => {
  expect(outcome('attic', 'priya')).toBe('missing');
  expect(outcome('no-such-item', 'priya')).toBe('missing');
});

it('opens everything published when there are no gates, alike for everyone', () => {
  const bare = compile(openPolicy, outline, vocabulary);
  expect(decide(bare, id('crew'), people.guest, request).kind).toBe('open');
  expect(dependsOnVisitor(bare, id('crew'))).toBe(false);
  expect(dependsOnVisitor(compiled, id('crew'))).toBe(true);
});

it('covers nothing with a gate whose target is gone, and leaves exclusions out of a branch', () => {
  const closed = { ...gates.crew, who: any(), otherwise: { cases: [], last: missing } };
  const except = {
    ...closed,
    what: { ...closed.what, except: [{ kind: 'item' as const, item: id('rota') }] },
  };
  const made = compile(withGates([except]), outline, vocabulary);
  expect(decide(made, id('crew'), people.ines, request).kind).toBe('turned away');
  expect(decide(made, id('rota'), people.ines, request).kind).toBe('open');
  const dangling = {
    ...closed,
    what: { targets: [{ kind: 'branch' as const, item: id('gone') }], except: [] },
  };
  expect(
    decide(compile(withGates([dangling]), outline, vocabulary), id('crew'), people.guest, request).kind,
  ).toBe('open');
});

it('sets aside only the gates above an "instead"', () => {
  const welcome = { ...gates.crew, id: asId<GateId>('welcome'), who: everyone, stance: 'instead' as const };
  const kindOf = (...list: (typeof welcome | typeof gates.crew)[]) =>
    decide(compile(withGates(list), soundOutline(items), vocabulary), id('crew'), people.guest, request).kind;
  expect(kindOf(gates.crew, welcome)).toBe('open');
  expect(kindOf(welcome, gates.crew)).toBe('turned away');
});

it('fits every turn-away to the kind of item it meets', () => {
  fc.assert(
    fc.property(
      fc.array(anyGate, { minLength: 1, maxLength: 4 }),
      anItem,
      visitors,
      (list, item, visitor) => {
        const result = decide(compile(withGates(list), outline, vocabulary), item.id, visitor, request);
        if (result.kind === 'turned away') expect(fits(item.kind, result.turnAway)).toBe(true);
      },
    ),
  );
});

it('shows people what is their own and nobody else’s, and what belongs to their group', () => {
  const facts = { owner: asId<PersonId>('ines'), group: crew };
  const owned = items.map((item) => (item.id === id('attic') ? { ...item, published: true, facts } : item));
  const what = { targets: [{ kind: 'item' as const, item: id('attic') }], except: [] };
  const kindOf = (who: Gate['who'], visitor: VisitorFacts) =>
    decide(
      compile(withGates([{ ...gates.crew, what, who }]), soundOutline(owned), vocabulary),
      id('attic'),
      visitor,
      request,
    ).kind;
  const owns = test('visitor owns item', 'is');
  const inItsGroup = test('visitor in item group', 'is');
  expect(kindOf(owns, member({ id: asId<PersonId>('ines') }))).toBe('open');
  expect(kindOf(owns, member({ id: asId<PersonId>('wren') }))).toBe('turned away');
  expect(kindOf(not(owns), people.guest)).toBe('turned away');
  expect(kindOf(inItsGroup, people.wren)).toBe('open');
  expect(kindOf(inItsGroup, people.marek)).toBe('turned away');
  // Of an item without an owner nobody knows whether it is theirs.
  expect(kindOf(any(owns, not(owns)), people.guest)).toBe('turned away');
});

it('asks the item that the gate stands over: for a link, the page that it leads to', () => {
  const onPages = { ...gates.crew, who: test('item kind', 'is', 'page') };
  const made = compile(withGates([onPages]), outline, vocabulary);
  expect(decide(made, id('crew'), people.guest, request).kind).toBe('open');
  const onHome = { ...onPages, what: { targets: [{ kind: 'item' as const, item: id('home') }], except: [] } };
  const linked = compile(withGates([onHome]), outline, vocabulary);
  expect(decide(linked, id('to-home'), people.guest, request).kind).toBe('open');
});
