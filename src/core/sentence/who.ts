/**
 * Conditions as plain language: for administrators ("members who are at Observer level or above and are not in
 * Suspended") and as a reason for visitors ("This opens to Observers and above."), from which private facts are left out.
 */
import { type Condition, expanded, isFakeable, isPrivate, problemOf, type Test } from '../condition';
import { nameOfId, type Vocabulary } from '../site';
import { clauseOf, pronounOf } from './test';
import { listed, plural } from './words';

type Voice = 'administrator' | 'visitor';

/** The people a condition lets through, as a noun phrase for administrators. */
export const describeWho = (condition: Condition, vocabulary: Vocabulary): string =>
  people(simplify(condition), vocabulary, 'administrator');

/** One test, or a test denied, as a phrase for one visitor ("is in Dome crew", "team is Optics"). */
export const describeTestOfOne = (test: Test, vocabulary: Vocabulary, holds = true): string =>
  clauseOf(test, vocabulary, holds, 'one');

/**
 * Why something is closed, as a sentence for visitors. What is private is not named, nor what a visitor could make up and
 * then get in by; where a part is kept back the sentence says that there is more, so that what it does say stays true. If
 * nothing can be told, it says only that it isn't open to everyone. Audiences are told as what they stand for: their names
 * are the administrator's.
 */
export function reasonFor(condition: Condition, vocabulary: Vocabulary): string {
  const whole = simplify(expanded(condition, vocabulary.audiences));
  const kind = whole.kind === 'any' ? 'any' : 'all';
  const parts = whole.kind === 'all' || whole.kind === 'any' ? whole.of : [whole];
  const told = parts.filter((part) => canBeTold(part, vocabulary));
  if (told.length === 0 || isNobody(whole)) return 'This isn’t open to everyone.';
  const who = people(simplify({ kind, of: told }), vocabulary, 'visitor');
  if (told.length === parts.length) return `This opens to ${who}.`;
  return kind === 'any'
    ? `This opens to ${who}, and to some others.`
    : `This opens to ${who}, on a further condition.`;
}

/** A condition as what follows "those": "who are at Observer level or above and are not in Suspended". */
export function describeThose(condition: Condition, vocabulary: Vocabulary): string {
  const simple = simplify(condition);
  return relative(simple.kind === 'all' && simple.of.length > 0 ? simple.of : [simple], vocabulary);
}

const isEveryone = (condition: Condition) => condition.kind === 'all' && condition.of.length === 0;
const isNobody = (condition: Condition) => condition.kind === 'any' && condition.of.length === 0;

/** Pushes *not* down to the tests and unwraps groups of one, which changes no truth value and reads better. */
function simplify(condition: Condition, holds = true): Condition {
  switch (condition.kind) {
    case 'not':
      return simplify(condition.of, !holds);
    case 'test':
    case 'audience':
      return holds ? condition : { kind: 'not', of: condition };
    case 'all':
    case 'any': {
      const kind = (condition.kind === 'all') === holds ? 'all' : 'any';
      const of = condition.of
        .map((part) => simplify(part, holds))
        .flatMap((part) => (part.kind === kind ? part.of : [part]));
      return of.length === 1 && of[0] ? of[0] : { kind, of };
    }
    default:
      return condition satisfies never;
  }
}

/** Whether all of a part may be named to visitors: with something of it kept back the rest of it would not be true. */
function canBeTold(condition: Condition, vocabulary: Vocabulary): boolean {
  switch (condition.kind) {
    case 'all':
    case 'any':
      return condition.of.every((part) => canBeTold(part, vocabulary));
    case 'not':
      return canBeTold(condition.of, vocabulary);
    case 'audience':
      return false;
    case 'test':
      return (
        !isPrivate(condition, vocabulary) &&
        !isFakeable(condition, vocabulary) &&
        problemOf(condition, vocabulary) === null
      );
    default:
      return condition satisfies never;
  }
}

function people(condition: Condition, vocabulary: Vocabulary, voice: Voice): string {
  if (isEveryone(condition)) return 'everyone';
  if (isNobody(condition)) return 'nobody';
  if (condition.kind === 'any') {
    return listed(
      condition.of.map((part) => people(part, vocabulary, voice)),
      'or',
    );
  }
  const parts = condition.kind === 'all' ? condition.of : [condition];
  const head = parts.find((part) => noun(part, vocabulary, voice) !== null);
  const rest = parts.filter((part) => part !== head && !(head && impliedBy(part)));
  const who = (head && noun(head, vocabulary, voice)) ?? 'people';
  return rest.length === 0 ? who : `${who} ${relative(rest, vocabulary)}`;
}

/** Having a level or a role means being signed in, so saying both is noise. */
const impliedBy = (part: Condition): boolean => part.kind === 'test' && part.fact === 'signed in';

/** Clauses joined, each with its pronoun where that changes: "who are in A and are not in B and whose team is C". */
function relative(parts: readonly Condition[], vocabulary: Vocabulary): string {
  const clauses = parts.map((part) => clause(part, vocabulary));
  if (parts.some((part) => part.kind === 'any') && clauses.length > 1)
    return clauses.map(({ pronoun, text }) => `${pronoun} ${text}`).join(', and ');
  const [first] = clauses;
  // "who are in A and are not in B" shares its pronoun; otherwise each clause brings its own.
  return clauses.every(({ pronoun }) => pronoun === 'who')
    ? `who ${listed(clauses.map(({ text }) => text))}`
    : clauses.length === 1 && first
      ? `${first.pronoun} ${first.text}`
      : listed(clauses.map(({ pronoun, text }) => `${pronoun} ${text}`));
}

/** Conditions that read best as a noun of their own. */
function noun(condition: Condition, vocabulary: Vocabulary, voice: Voice): string | null {
  if (condition.kind === 'not')
    return condition.of.kind === 'test' && condition.of.fact === 'signed in' ? 'guests' : null;
  if (condition.kind === 'audience') {
    const name = nameOfId(vocabulary, 'audience', condition.audience);
    return name === null ? 'people in an audience that no longer exists' : `people in the audience ${name}`;
  }
  if (condition.kind !== 'test') return null;
  const value = String(condition.value);
  switch (condition.fact) {
    case 'signed in':
      return 'members';
    case 'role': {
      const name = nameOfId(vocabulary, 'role', value);
      return name === null ? null : plural(name);
    }
    case 'group':
      return `people in ${nameOfId(vocabulary, 'group', value) ?? 'a group that no longer exists'}`;
    case 'owns':
      return `owners of ${nameOfId(vocabulary, 'product', condition.subject ?? '') ?? 'a product that no longer exists'}`;
    case 'level':
      return levelNoun(condition, vocabulary, voice);
    default:
      return null;
  }
}

function levelNoun(test: Test, vocabulary: Vocabulary, voice: Voice): string | null {
  if (test.op === 'is set') return 'members with a level';
  if (test.op === 'is not set') return voice === 'visitor' ? 'people without a level' : null;
  const name = nameOfId(vocabulary, 'level', String(test.value));
  if (name === null) return null;
  const op = test.op as 'at least' | 'exactly' | 'at most';
  if (voice === 'visitor') {
    return {
      'at least': `${plural(name)} and above`,
      exactly: `${plural(name)} only`,
      'at most': `${plural(name)} and below`,
    }[op];
  }
  return {
    'at least': `people at ${name} level or above`,
    exactly: `people at exactly ${name} level`,
    'at most': `people at ${name} level or below`,
  }[op];
}

interface Clause {
  readonly pronoun: 'who' | 'whose';
  readonly text: string;
}

function clause(condition: Condition, vocabulary: Vocabulary, holds = true): Clause {
  switch (condition.kind) {
    case 'test':
      return { pronoun: pronounOf(condition), text: clauseOf(condition, vocabulary, holds) };
    case 'not':
      return clause(condition.of, vocabulary, !holds);
    case 'audience': {
      const name = nameOfId(vocabulary, 'audience', condition.audience);
      const what = name === null ? 'an audience that no longer exists' : `the audience ${name}`;
      return { pronoun: 'who', text: `${holds ? 'are' : 'are not'} in ${what}` };
    }
    case 'all':
    case 'any': {
      if (condition.of.length === 0)
        return { pronoun: 'who', text: (condition.kind === 'all') === holds ? 'are anyone' : 'don’t exist' };
      const parts = condition.of.map((part) => {
        const made = clause(part, vocabulary, holds);
        const nested = part.kind === 'all' || part.kind === 'any';
        return nested ? { ...made, text: `(${made.text})` } : made;
      });
      const word = (condition.kind === 'any') === holds ? 'or' : 'and';
      const [first] = parts;
      if (first && parts.some(({ pronoun }) => pronoun === 'whose')) {
        const texts = parts.map(({ pronoun, text }, at) => (at === 0 ? text : `${pronoun} ${text}`));
        return { pronoun: first.pronoun, text: listed(texts, word) };
      }
      const texts = parts.map(({ text }) => text);
      return { pronoun: 'who', text: word === 'or' ? `either ${listed(texts, 'or')}` : listed(texts) };
    }
    default:
      return condition satisfies never;
  }
}
