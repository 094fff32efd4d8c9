import fc from 'fast-check';
import { expect, it } from 'vitest';
import { everyone, signedIn } from '../condition';
import { type AudienceId, asId } from '../ids';
import { policies } from '../testing/arbitraries';
import { gates, policy } from '../testing/larkfell';
import { difference, type Policy } from '.';

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

it('tells audiences apart as well', () => {
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
});
