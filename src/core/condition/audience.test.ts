import { expect, it } from 'vitest';
import { type AudienceId, asId } from '../ids';
import { people, request, vocabulary } from '../testing/larkfell';
import {
  any,
  audienceCycle,
  conditionCompiler,
  expanded,
  inAudience,
  not,
  signedIn,
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
  expect(expanded(condition, cyclic.audiences)).toEqual(not(condition));
});
