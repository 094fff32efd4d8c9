import { expect, it } from 'vitest';
import { type AudienceId, asId } from '../ids';
import { people, request, vocabulary } from '../testing/larkfell';
import {
  any,
  audienceCycle,
  conditionCompiler,
  expanded,
  inAudience,
  keyOf,
  not,
  signedIn,
  spellingOut,
  trace,
  UNKNOWN,
} from '.';

const id = (name: string) => asId<AudienceId>(name);
const audience = (name: string, ...uses: string[]) => ({
  id: id(name),
  name,
  who: any(signedIn, ...uses.map((use) => inAudience(id(use)))),
});

it('finds audiences that come back to themselves, with the path', () => {
  expect(audienceCycle([audience('a', 'b'), audience('b', 'c'), audience('c')])).toBeNull();
  expect(audienceCycle([audience('a', 'b'), audience('b', 'c'), audience('c', 'b')])).toEqual([
    'b',
    'c',
    'b',
  ]);
  expect(audienceCycle([audience('a', 'a')])).toEqual(['a', 'a']);
  expect(audienceCycle([audience('a', 'gone')])).toBeNull();
});

it('takes no longer for many ways to the same audience', () => {
  // Each uses the next one twice: walking every path would take 2^60 steps.
  const ladder = Array.from({ length: 60 }, (_, step) => audience(`${step}`, `${step + 1}`, `${step + 1}`));
  expect(audienceCycle(ladder)).toBeNull();
});

it('leaves a cycle unknown of everybody, should one ever get in', () => {
  const cyclic = { ...vocabulary, audiences: [{ ...audience('a'), who: not(inAudience(id('a'))) }] };
  const condition = inAudience(id('a'));
  expect(trace(condition, { visitor: people.ines, item: null, request }, cyclic).truth).toBe(UNKNOWN);
  expect(conditionCompiler(cyclic)(condition)(people.ines, null, request)).toBe(false);
  expect(expanded(condition, cyclic.audiences)).toEqual(condition);
});

it('is unknown in every form, at once, where audiences double with each step', () => {
  const ladder = Array.from({ length: 60 }, (_, step) => audience(`${step}`, `${step + 1}`, `${step + 1}`));
  const large = { ...vocabulary, audiences: [...ladder, audience('60')] };
  const top = inAudience(id('0'));
  expect(spellingOut(large.audiences)(top)).toBeGreaterThan(2 ** 60);
  expect(trace(top, { visitor: people.ines, item: null, request }, large).truth).toBe(UNKNOWN);
  for (const condition of [top, not(top)])
    expect(conditionCompiler(large)(condition)(people.ines, null, request)).toBe(false);
  expect(expanded(top, large.audiences)).toEqual(top);
  // Near the end of the ladder they are as large as people write them, and mean what they say.
  expect(conditionCompiler(large)(inAudience(id('55')))(people.ines, null, request)).toBe(true);
  expect(keyOf(expanded(inAudience(id('58')), large.audiences))).not.toContain('audience');
});
