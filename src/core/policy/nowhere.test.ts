import fc from 'fast-check';
import { expect, it } from 'vitest';
import { redirectToSignIn } from '../gate';
import type { Address, Item } from '../site';
import { policies, requests, visitors } from '../testing/arbitraries';
import { id, items, outline, people, policy, request, soundOutline, vocabulary } from '../testing/larkfell';
import { compile, decide, decideNowhere, sameToVisitor, withWholeSite } from '.';

const address = '/posts/bare' as Address;
const bare: Item = {
  id: id('bare'),
  parent: id('site'),
  rank: 99,
  title: 'Bare',
  published: true,
  kind: 'page',
  address,
};
const withBare = soundOutline([...items, bare]);

it('gives what a page there would get that has nothing of its own', () => {
  fc.assert(
    fc.property(policies, visitors, requests, (one, visitor, at) => {
      const there = decide(compile(one, withBare, vocabulary), bare.id, visitor, at);
      const not = decideNowhere(compile(one, outline, vocabulary), 'page', address, visitor, at);
      expect(sameToVisitor(there, not)).toBe(true);
    }),
    { numRuns: 500 },
  );
});

it('is nothing on a site whose gates stand over some of it, and sign-in behind one over all of it', () => {
  const at = (one: typeof policy, visitor: (typeof people)[keyof typeof people]) =>
    decideNowhere(compile(one, outline, vocabulary), 'page', address, visitor, request);
  expect(at(policy, people.guest).kind).toBe('open');
  const closed = withWholeSite(policy, true);
  expect(at(closed, people.guest)).toMatchObject({ turnAway: redirectToSignIn });
  expect(at(closed, people.marek).kind).toBe('open');
});
