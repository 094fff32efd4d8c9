import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  operatorsFor,
  parseCondition,
  printCondition,
  problemOf,
  type Vocabulary,
  vocabularyOf,
} from '@/core';
import { readSiteFile } from '@/services';
import { larkfell } from '../../../demo/larkfell';
import { choiceOf, factChoices, newTest, partFor, withOperator } from './new-test';

const site = await readSiteFile(larkfell);
if ('problems' in site) throw new Error(site.problems.join('\n'));
const vocabulary: Vocabulary = vocabularyOf(site.names, site.policy);
const choices = factChoices(vocabulary).flatMap(({ options }) => options.map(({ value }) => value));
// What only the author can write is asked for where it stands.
const empty = (message: string) => message === 'Write what to compare with.';

it('offers every fact once', () => {
  expect(new Set(choices).size).toBe(choices.length);
  expect(choices).toEqual(expect.arrayContaining(['level', 'profile team', 'audience', 'network', 'owns']));
});

it('leaves out what the site has nothing of', () => {
  const bare = { ...vocabulary, products: [], fields: [], audiences: [], passphrases: [] };
  const offered = factChoices(bare).flatMap(({ options }) => options.map(({ value }) => value));
  expect(offered).not.toContain('owns');
  expect(offered).not.toContain('passphrase');
  expect(offered).not.toContain('audience');
  expect(factChoices(bare).map(({ heading }) => heading)).not.toContain('Profile');
});

it.each(choices)('begins %s with a part that is whole', (choice) => {
  const part = partFor(choice, vocabulary);
  expect(choiceOf(part)).toBe(choice);
  if (part.kind === 'audience') return;
  const problem = problemOf(part, vocabulary);
  if (problem !== null) expect(empty(problem.message)).toBe(true);
  else expect(parseCondition(printCondition(part, vocabulary), vocabulary)).toMatchObject({ ok: true });
});

describe('asking in another way', () => {
  const tests = choices.flatMap((choice) => {
    const part = partFor(choice, vocabulary);
    return part.kind === 'test' ? [part] : [];
  });

  it('keeps the test whole, whichever way one goes through the comparisons', () => {
    fc.assert(
      fc.property(fc.constantFrom(...tests), fc.array(fc.nat(20), { maxLength: 6 }), (test, steps) => {
        let now = test;
        for (const step of steps) {
          const operators = operatorsFor(now, vocabulary);
          now = withOperator(now, operators[step % operators.length], vocabulary);
          const problem = problemOf(now, vocabulary);
          if (problem !== null)
            expect([now, problem.message]).toEqual([now, expect.stringMatching(/^Write what/)]);
        }
      }),
      { numRuns: 500 },
    );
  });

  it('keeps the value where it still fits', () => {
    const operators = operatorsFor({ fact: 'profile', subject: 'hours-logged' }, vocabulary);
    const asked = { ...newTest('profile', vocabulary, 'hours-logged'), value: 140 };
    const op = (name: string) => operators.find((one) => one.op === name);
    expect(withOperator(asked, op('at most'), vocabulary).value).toBe(140);
    const between = withOperator(asked, op('between'), vocabulary);
    expect(between.value).toEqual([140, 140]);
    expect(withOperator(between, op('is'), vocabulary).value).toBe(140);
    expect(withOperator(asked, op('is set'), vocabulary)).not.toHaveProperty('value');
  });
});
