import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Condition, everyone, nobody, signedIn } from '../condition';
import type { Gate } from '../gate';
import { type AudienceId, asId, type GateId } from '../ids';
import type { SiteNames } from '../site';
import { gates as anyGate, conditions, policies, visitors } from '../testing/arbitraries';
import { gates, items, outline, people, policy, request, vocabulary } from '../testing/larkfell';
import { compile, type Default, decide, type Landing, openedByMerge, type Policy, rebase } from '.';

const names: SiteNames = vocabulary;
const compiled = (one: Policy) => compile(one, outline, names);
const idsOf = (one: Policy) => one.gates.map(({ id }) => id as string);
const withGates = (list: readonly Gate[]): Policy => ({ ...policy, gates: list });
const edited = (name: string, who: Condition = everyone): Policy =>
  withGates(policy.gates.map((gate) => (gate.id === name ? { ...gate, who } : gate)));
const without = (name: string): Policy => withGates(policy.gates.filter((gate) => gate.id !== name));
const added = (id: string, stance: Gate['stance'] = 'also'): Gate => ({
  ...gates.crew,
  id: asId<GateId>(id),
  stance,
});

const landings: fc.Arbitrary<readonly Landing[]> = fc
  .uniqueArray(fc.constantFrom('a', 'b', 'c'), { maxLength: 3 })
  .map((ids) =>
    ids.map((id) => ({
      id: asId(id),
      after: 'sign in',
      when: signedIn,
      to: asId('home'),
      always: false,
    })),
  );
const defaults: fc.Arbitrary<readonly Default[]> = fc.array(
  fc.record({
    kind: fc.constantFrom('page' as const, 'post' as const),
    category: fc.constantFrom(null, 'Night logs'),
    gate: fc.constantFrom(gates.crew.id, gates.account.id),
  }),
  { maxLength: 4 },
);
const whole = fc
  .tuple(policies, landings, defaults)
  .map(([one, rules, standard]): Policy => ({ ...one, landings: rules, defaults: standard }));

/** A policy with edits of every sort: things added, taken away, changed and moved, at any place. */
const editOf = (base: Policy): fc.Arbitrary<Policy> =>
  fc
    .tuple(
      fc.array(fc.tuple(fc.nat(), anyGate), { maxLength: 2 }),
      fc.array(fc.nat(), { maxLength: 2 }),
      fc.array(fc.tuple(fc.nat(), conditions), { maxLength: 2 }),
      fc.option(fc.tuple(fc.nat(), fc.nat())),
      fc.option(conditions),
      landings,
      defaults,
    )
    .map(([more, gone, changed, moved, audience, rules, standard]) => {
      const list = [...base.gates];
      for (const at of gone) list.splice(at % (list.length + 1), 1);
      for (const [at, who] of changed) {
        const gate = list[at % Math.max(1, list.length)];
        if (gate) list[list.indexOf(gate)] = { ...gate, who };
      }
      if (moved && list.length > 0)
        list.splice(moved[0] % list.length, 0, ...list.splice(moved[1] % list.length, 1));
      for (const [at, gate] of more) list.splice(at % (list.length + 1), 0, gate);
      const audiences = audience
        ? base.audiences.map((one, at) => (at === 0 ? { ...one, who: audience } : one))
        : base.audiences;
      return { ...base, gates: list, audiences, landings: rules, defaults: standard };
    });
const three = whole.chain((base) => fc.tuple(fc.constant(base), editOf(base), editOf(base)));

describe('bringing two drafts together', () => {
  it('gives mine when they did nothing, and theirs when I did nothing', () => {
    fc.assert(
      fc.property(three, ([base, mine, theirs]) => {
        expect(rebase(base, mine, base)).toEqual({ policy: mine, contested: [] });
        expect(rebase(base, base, theirs)).toEqual({ policy: theirs, contested: [] });
        expect(rebase(base, mine, mine)).toEqual({ policy: mine, contested: [] });
      }),
      { numRuns: 300 },
    );
  });

  it('opens nothing that both keep closed without naming it', () => {
    const who = [...Object.values(people)];
    fc.assert(
      fc.property(three, fc.array(visitors, { maxLength: 4 }), ([base, mine, theirs], others) => {
        const merged = compiled(rebase(base, mine, theirs).policy);
        const [my, their] = [compiled(mine), compiled(theirs)];
        const named = new Set(openedByMerge(my, their, merged).map(({ id }) => id));
        for (const { id } of items) {
          if (named.has(id)) continue;
          for (const visitor of [...who, ...others]) {
            const closed = [my, their].every((side) => decide(side, id, visitor, request).kind !== 'open');
            if (closed) expect(decide(merged, id, visitor, request).kind).toBe('turned away');
          }
        }
      }),
      { numRuns: 300 },
    );
  });

  it('keeps the order of what each side added, and of what was there unless both moved it', () => {
    fc.assert(
      fc.property(three, ([base, mine, theirs]) => {
        const merged = idsOf(rebase(base, mine, theirs).policy);
        const orderIn = (list: readonly string[], of: ReadonlySet<string>) => list.filter((id) => of.has(id));
        const there = new Set(idsOf(base));
        for (const side of [mine, theirs]) {
          const own = new Set(idsOf(side).filter((id) => !there.has(id)));
          expect(orderIn(merged, own)).toEqual(orderIn(idsOf(side), own));
        }
      }),
      { numRuns: 300 },
    );
  });

  it('loses nothing that one side alone changed, and names what both changed', () => {
    fc.assert(
      fc.property(three, ([base, mine, theirs]) => {
        const { policy: merged, contested } = rebase(base, mine, theirs);
        const find = (one: Policy, id: string) => one.gates.find((gate) => gate.id === id);
        for (const id of new Set([...idsOf(base), ...idsOf(mine), ...idsOf(theirs)])) {
          const [was, my, their, now] = [base, mine, theirs, merged].map((one) => find(one, id));
          const key = JSON.stringify;
          const [iDid, theyDid] = [key(my) !== key(was), key(their) !== key(was)];
          const both = iDid && theyDid && key(my) !== key(their);
          expect(contested.some((one) => one.kind === 'changed' && one.id === id)).toBe(both);
          if (!both) expect(now).toEqual(iDid ? my : theyDid ? their : was);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('puts a gate that sets others aside where its author put it', () => {
    const mine = withGates([added('mine', 'instead'), ...policy.gates]);
    const theirs = withGates([...policy.gates, added('theirs')]);
    expect(idsOf(rebase(policy, mine, theirs).policy)).toEqual(['mine', ...idsOf(policy), 'theirs']);
    // At one place, it sets aside nothing that the other side added there.
    const last = withGates([...policy.gates, added('mine', 'instead')]);
    expect(idsOf(rebase(policy, last, theirs).policy).slice(-2)).toEqual(['mine', 'theirs']);
    expect(idsOf(rebase(policy, theirs, last).policy).slice(-2)).toEqual(['mine', 'theirs']);
  });

  it('names an item of which each took away another gate', () => {
    const twice = withGates([...policy.gates, { ...gates.crew, id: asId<GateId>('again') }]);
    const mine = withGates(twice.gates.filter(({ id }) => id !== 'crew'));
    const merged = rebase(twice, mine, policy).policy;
    expect(merged.gates.some(({ id }) => id === 'crew' || id === 'again')).toBe(false);
    expect(
      openedByMerge(compiled(mine), compiled(policy), compiled(merged)).map(({ id }) => id as string),
    ).toEqual(['crew', 'rota']);
  });

  it('lets mine stand where both changed one, and what was changed where the other took it away', () => {
    expect(rebase(policy, edited('crew'), edited('join', nobody))).toMatchObject({ contested: [] });
    expect(rebase(policy, edited('crew'), edited('crew', nobody))).toEqual({
      policy: edited('crew'),
      contested: [{ kind: 'changed', of: 'gate', id: 'crew', stands: 'mine' }],
    });
    expect(rebase(policy, edited('crew'), without('crew'))).toMatchObject({
      policy: edited('crew'),
      contested: [{ stands: 'mine' }],
    });
    expect(rebase(policy, without('crew'), edited('crew'))).toMatchObject({
      policy: edited('crew'),
      contested: [{ stands: 'theirs' }],
    });
  });

  it('brings audiences, landing rules and defaults together as well', () => {
    const [first, second] = policy.audiences;
    if (!first || !second) throw new Error('no audiences');
    const renamed = { ...policy, audiences: [{ ...first, name: 'Renamed' }, second] };
    const more = {
      ...policy,
      audiences: [...policy.audiences, { id: asId<AudienceId>('new'), name: 'New', who: signedIn }],
    };
    expect(rebase(policy, renamed, more).policy.audiences.map(({ name }) => name)).toEqual([
      'Renamed',
      second.name,
      'New',
    ]);
    const rule = (id: string): Landing => ({
      id: asId(id),
      after: 'sign in',
      when: signedIn,
      to: asId('home'),
      always: false,
    });
    const standard = (category: string): Default => ({ kind: 'post', category, gate: gates.crew.id });
    const mine = { ...policy, landings: [rule('a')], defaults: [standard('Mine')] };
    const theirs = { ...policy, landings: [rule('b')], defaults: [standard('Theirs')] };
    const { policy: merged, contested } = rebase(policy, mine, theirs);
    expect(merged.landings.map(({ id }) => id as string)).toEqual(['b', 'a']);
    expect(merged.defaults.map(({ category }) => category)).toEqual(['Theirs', 'Mine']);
    expect(contested).toEqual([]);
  });

  it('says so when both put what was there into another order', () => {
    const [a, b, c, ...rest] = policy.gates as [Gate, Gate, Gate, ...Gate[]];
    const { policy: merged, contested } = rebase(
      policy,
      withGates([b, a, c, ...rest]),
      withGates([a, c, b, ...rest]),
    );
    expect(contested).toEqual([{ kind: 'ordered', of: 'gates' }]);
    expect(idsOf(merged).slice(0, 3)).toEqual([b.id, a.id, c.id]);
  });
});

it('does not call opened what one of the two opened by itself', () => {
  const [before, theirs] = [compiled(policy), compiled(edited('crew'))];
  expect(openedByMerge(before, theirs, theirs)).toEqual([]);
  expect(openedByMerge(theirs, before, theirs)).toEqual([]);
  expect(openedByMerge(before, before, theirs).map(({ id }) => id)).toContain('crew');
});
