import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  type Condition,
  evaluatorOf,
  factNamed,
  guests,
  inAudience,
  not,
  type Scene,
  signedIn,
  type Test,
  TRUE,
  testsIn,
  trace,
} from '../condition';
import { selectorsOf } from '../gate';
import { asId, type PersonId } from '../ids';
import { guest, type Item, type VisitorFacts } from '../site';
import { conditions, itemsOrNone, requests, selections, tests, visitors } from '../testing/arbitraries';
import { vocabulary } from '../testing/larkfell';
import { readSentence, type Words } from '../testing/reader';
import { describeSelection } from './selection';
import { clauseOf, pronounOf } from './test';
import { describeWho } from './who';

const isTrue = (condition: Condition) => (scene: Scene) => trace(condition, scene, vocabulary).truth === TRUE;

/** Visitors as they can be: of a guest nothing is known but passphrases, of a member what everybody has is. */
const possible = (facts: VisitorFacts): VisitorFacts =>
  facts.signedIn
    ? {
        ...facts,
        id: facts.id ?? asId<PersonId>('ines'),
        email: facts.email ?? 'ines@larkfell.example',
        roles: facts.roles ?? [],
        groups: facts.groups ?? [],
        profile: facts.profile ?? {},
        purchases: facts.purchases ?? [],
        enrolments: facts.enrolments ?? [],
        completions: facts.completions ?? [],
        share: facts.share ?? 3,
      }
    : { ...guest, passphrases: facts.passphrases };

const scenes: fc.Arbitrary<Scene> = fc.record({
  visitor: visitors.map(possible),
  item: itemsOrNone,
  request: requests,
});

/** What the words of a test say, as people hear them: a guest is not in Suspended, has not completed anything, … */
function heard(test: Test, holds: boolean): [string, (scene: Scene) => boolean] {
  const phrase = `${pronounOf(test, vocabulary, holds)} ${clauseOf(test, vocabulary, holds)}`;
  const truth = isTrue(holds ? test : not(test));
  const ofThemselves = factNamed(test.fact).of !== 'request' && test.fact !== 'passphrase';
  const denies = /^who (?:(?:are|do|have|were) not|are outside|are somebody other) /.test(phrase);
  return [
    phrase,
    (scene) =>
      truth(scene) || (denies && ofThemselves && !scene.visitor.signedIn && test.fact !== 'signed in'),
  ];
}

/** The words for the tests and the audiences of a condition. */
function wordsFor(condition: Condition): Words<Scene> {
  const clauses = new Map<string, (scene: Scene) => boolean>();
  const nouns = new Map<string, (scene: Scene) => boolean>([
    ['people', () => true],
    ['members', isTrue(signedIn)],
    ['guests', isTrue(guests)],
  ]);
  const nounFor = (leaf: Condition) => {
    const alone = describeWho(leaf, vocabulary);
    if (!/ (?:who|whose) /.test(alone.replace(/“.*”/g, ''))) nouns.set(alone, isTrue(leaf));
  };
  for (const test of testsIn(condition)) {
    for (const holds of [true, false]) clauses.set(...heard(test, holds));
    nounFor(test);
  }
  for (const id of [...vocabulary.audiences.map(({ id }) => id), asId<never>('no-longer-there')]) {
    const named = inAudience(id);
    const noun = describeWho(named, vocabulary);
    nouns.set(noun, isTrue(named));
    const within = noun.replace('people ', '');
    clauses.set(`who are ${within}`, isTrue(named));
    clauses.set(`who are not ${within}`, (scene) => isTrue(not(named))(scene) || !scene.visitor.signedIn);
  }
  clauses.set('who are signed in', isTrue(signedIn));
  clauses.set('who are not signed in', isTrue(guests));
  clauses.set('who fail a test that nobody can fail since its audience no longer exists', () => false);
  return { nouns, clauses, pronouns: ['who', 'whose'], everyone: 'everyone', nobody: 'nobody' };
}

it('says the same of two tests only where they are the same for everybody', () => {
  const met = new Map<string, { readonly test: Test; readonly holds: boolean }[]>();
  const all = fc.sample(tests, { numRuns: 3000, seed: 11 });
  const asked = fc.sample(scenes, { numRuns: 60, seed: 12 });
  for (const test of all)
    for (const holds of [true, false]) {
      const phrase = `${pronounOf(test, vocabulary, holds)} ${clauseOf(test, vocabulary, holds)}`;
      met.set(phrase, [...(met.get(phrase) ?? []), { test, holds }]);
    }
  expect(met.size).toBeGreaterThan(500);
  for (const [phrase, same] of met) {
    const answers = same.map(({ test, holds }) => {
      const evaluate = evaluatorOf(test, vocabulary);
      const wanted = holds ? TRUE : -TRUE;
      return asked.map(({ visitor, item, request }) => evaluate(visitor, item, request) === wanted).join();
    });
    expect(new Set(answers).size, phrase).toBe(1);
  }
});

it('can be read back by what its words say belongs together', () => {
  fc.assert(
    fc.property(conditions, fc.array(scenes, { minLength: 8, maxLength: 8 }), (condition, asked) => {
      const sentence = describeWho(condition, vocabulary);
      const meaning = readSentence(sentence, wordsFor(condition));
      const truth = isTrue(condition);
      for (const scene of asked) expect([sentence, meaning(scene)]).toEqual([sentence, truth(scene)]);
    }),
    { numRuns: 2000, endOnFailure: true },
  );
});

/** The words for the tests of a selection, by what each says alone. */
function wordsForItems(where: Condition): Words<Item> {
  const nouns = new Map<string, (item: Item) => boolean>([['items', () => true]]);
  const clauses = new Map<string, (item: Item) => boolean>();
  for (const test of testsIn(where))
    for (const leaf of [test, not(test)]) {
      const said = describeSelection(leaf, vocabulary);
      const meaning = selectorsOf(leaf, vocabulary).closed;
      if (test.fact !== 'item kind') {
        const clause = said.replace('items ', '');
        clauses.set(clause.startsWith('whose ') ? clause : `that are ${clause}`, meaning);
        continue;
      }
      nouns.set(said, meaning);
      const clause = said.replace('everything but', 'other than').replace(' and ', ' or ');
      clauses.set(`that are ${clause}`, meaning);
    }
  return { nouns, clauses, pronouns: ['that are', 'whose'], everyone: 'everything', nobody: 'nothing' };
}

it('reads selections back alike', () => {
  const known = fc.array(itemsOrNone, { minLength: 12, maxLength: 12 });
  fc.assert(
    fc.property(selections, known, (where, some) => {
      const sentence = describeSelection(where, vocabulary);
      const meaning = readSentence(sentence, wordsForItems(where));
      const takes = selectorsOf(where, vocabulary).closed;
      for (const item of some) if (item) expect([sentence, meaning(item)]).toEqual([sentence, takes(item)]);
    }),
    { numRuns: 2000, endOnFailure: true },
  );
});
