import fc from 'fast-check';
import { expect, it } from 'vitest';
import { all, everyone, hasRole, inGroup, nobody, not, signedIn } from '../condition';
import { type AudienceId, asId } from '../ids';
import { same } from '../same';
import { gates as anyGate, policies } from '../testing/arbitraries';
import {
  gates,
  id,
  members,
  outline,
  policy,
  request,
  school,
  suspended,
  trustee,
  vocabulary,
} from '../testing/larkfell';
import { compile, difference, effectOf, type Policy, rebase } from '.';

const kinds = (before: Policy, after: Policy) => difference(before, after).map((change) => change.kind);
const without = (name: string): Policy => ({
  ...policy,
  gates: policy.gates.filter((gate) => gate.id !== name),
});

it('finds nothing between a policy and itself, and something between any two that differ', () => {
  fc.assert(
    fc.property(policies, policies, (a, b) => {
      expect(difference(a, a)).toEqual([]);
      expect(difference(a, b).length === 0).toBe(JSON.stringify(a) === JSON.stringify(b));
    }),
  );
});

it('counts one gate moved across many as one move', () => {
  const [first, ...rest] = policy.gates;
  if (!first) throw new Error('no gates');
  expect(kinds(policy, { ...policy, gates: [...rest, first] })).toEqual(['moved']);
});

it('tells added, changed and removed apart', () => {
  const changed = { ...gates.crew, who: everyone };
  expect(kinds(without('crew'), policy)).toEqual(['added']);
  expect(kinds(policy, without('crew'))).toEqual(['removed']);
  expect(
    kinds(policy, { ...policy, gates: policy.gates.map((gate) => (gate.id === 'crew' ? changed : gate)) }),
  ).toEqual(['changed']);
});

it('brings edits of different gates together, and lets mine stand where both changed one', () => {
  const edit = (name: string, who = everyone): Policy => ({
    ...policy,
    gates: policy.gates.map((gate) => (gate.id === name ? { ...gate, who } : gate)),
  });
  const merged = rebase(policy, edit('crew'), edit('join', nobody));
  expect(merged.gates.find((gate) => gate.id === 'crew')?.who).toEqual(everyone);
  expect(merged.gates.find((gate) => gate.id === 'join')?.who).toEqual(nobody);
  expect(rebase(policy, edit('crew'), edit('crew', nobody))).toEqual(edit('crew'));
  expect(rebase(policy, edit('crew'), without('crew')).gates.some((gate) => gate.id === 'crew')).toBe(true);
});

it('loses none of my edits when it brings two drafts together', () => {
  fc.assert(
    fc.property(policies, anyGate, policies, (base, mine, theirs) => {
      const merged = rebase(
        base,
        { ...base, gates: [...base.gates, mine] },
        { ...base, gates: [...base.gates, ...theirs.gates] },
      );
      for (const gate of [...base.gates, mine, ...theirs.gates]) {
        expect(merged.gates.some((kept) => same(kept, gate))).toBe(true);
      }
    }),
  );
});

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
    members,
    request,
  );
  expect(effect.gains.map((person) => person.name)).toEqual(['sunniva']);
  expect(effect.loses.map((person) => person.name)).toEqual(['ines', 'wren']);
  const account = effect.items.find((entry) => entry.item.id === id('account'));
  expect(account?.guests).toMatchObject({ before: { kind: 'turned away' }, after: { kind: 'open' } });
  expect(account?.gains).toEqual([]);
});

it('has no effect when nothing changes', () => {
  const compiled = compile(policy, outline, vocabulary);
  expect(effectOf(compiled, compile(policy, outline, vocabulary), members, request)).toEqual({
    items: [],
    gains: [],
    loses: [],
  });
});

it('notices that a reason reads differently, and not that a private test was added', () => {
  const withWho = (who: (typeof gates.school)['who']): Policy => ({
    ...policy,
    gates: [{ ...gates.school, who }],
  });
  const touched = (before: Policy, after: Policy) =>
    effectOf(compile(before, outline, vocabulary), compile(after, outline, vocabulary), members, request)
      .items.length;
  expect(touched(withWho(inGroup(school)), withWho(all(inGroup(school), hasRole(trustee))))).toBe(1);
  const quiet = all(nobody, inGroup(school));
  expect(touched(withWho(quiet), withWho(all(nobody, inGroup(school), not(inGroup(suspended)))))).toBe(0);
});

it('tells audiences apart as well, and brings edits of different ones together', () => {
  const [first, second] = policy.audiences;
  if (!first || !second) throw new Error('no audiences');
  const renamed = { ...policy, audiences: [{ ...first, name: 'Renamed' }, second] };
  const added = {
    ...policy,
    audiences: [...policy.audiences, { id: asId<AudienceId>('new'), name: 'New', who: signedIn }],
  };
  expect(difference(policy, renamed)).toMatchObject([{ kind: 'changed', of: 'audience' }]);
  expect(difference(policy, added)).toMatchObject([{ kind: 'added', of: 'audience' }]);
  expect(difference(added, policy)).toMatchObject([{ kind: 'removed', of: 'audience' }]);
  expect(rebase(policy, renamed, added).audiences.map(({ name }) => name)).toEqual([
    'Renamed',
    second.name,
    'New',
  ]);
});
