/**
 * Conditions as plain language: for administrators ("members who are at Observer level or above and are not in
 * Suspended") and as a reason for visitors ("This opens to Observers and above."), from which private facts are left out.
 */
import { type Condition, nameOfValue, type Test } from '../condition';
import type { Vocabulary } from '../site';
import { listed, plural } from './words';

type Voice = 'administrator' | 'visitor';

/** The people a condition lets through, as a noun phrase for administrators. */
export const describeWho = (condition: Condition, vocabulary: Vocabulary): string =>
  people(simplify(condition), vocabulary, 'administrator');

/** One test, or a test denied, as a phrase that follows "who" ("are in Dome crew"). */
export const describeTest = (test: Test, vocabulary: Vocabulary, holds = true): string =>
  verb(test, holds, vocabulary);

/** The same for one visitor ("is in Dome crew"). */
export const describeTestOfOne = (test: Test, vocabulary: Vocabulary, holds = true): string =>
  test.fact === 'role'
    ? `${holds ? 'is' : 'is not'} a ${nameOfValue(test, vocabulary) ?? 'role that no longer exists'}`
    : verb(test, holds, vocabulary)
        .replace(/^are\b/, 'is')
        .replace(/^have\b/, 'has');

/**
 * Why something is closed, as a sentence for visitors. What is private is left out; if nothing else remains, the
 * sentence says only that it isn't open to everyone.
 */
export function reasonFor(condition: Condition, vocabulary: Vocabulary): string {
  const told = withoutPrivate(simplify(condition), vocabulary);
  if (told === null || isEveryone(told) || isNobody(told)) return 'This isn’t open to everyone.';
  return `This opens to ${people(told, vocabulary, 'visitor')}.`;
}

const isEveryone = (condition: Condition) => condition.kind === 'all' && condition.of.length === 0;
const isNobody = (condition: Condition) => condition.kind === 'any' && condition.of.length === 0;

/** Pushes *not* down to the tests and unwraps groups of one, which changes no truth value and reads better. */
function simplify(condition: Condition, holds = true): Condition {
  switch (condition.kind) {
    case 'not':
      return simplify(condition.of, !holds);
    case 'test':
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

function withoutPrivate(condition: Condition, vocabulary: Vocabulary): Condition | null {
  if (condition.kind === 'all' || condition.kind === 'any') {
    const of = condition.of.map((part) => withoutPrivate(part, vocabulary)).filter((part) => part !== null);
    return of.length === 0 && condition.of.length > 0 ? null : simplify({ kind: condition.kind, of });
  }
  const test = condition.kind === 'not' ? (condition.of as Test) : condition;
  const hidden =
    test.fact === 'group' && vocabulary.groups.some((group) => group.id === test.value && group.private);
  return hidden || ('value' in test && nameOfValue(test, vocabulary) === null) ? null : condition;
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
  if (rest.length === 0) return who;
  const phrases = rest.map((part) => clause(part, vocabulary));
  return `${who} who ${phrases.length > 1 && rest.some((part) => part.kind === 'any') ? phrases.join(', and who ') : listed(phrases)}`;
}

/** Having a level or a role means being signed in, so saying both is noise. */
const impliedBy = (part: Condition): boolean => part.kind === 'test' && part.fact === 'signed in';

/** Conditions that read best as a noun of their own. */
function noun(condition: Condition, vocabulary: Vocabulary, voice: Voice): string | null {
  if (condition.kind === 'not') {
    return condition.of.kind === 'test' && condition.of.fact === 'signed in' ? 'guests' : null;
  }
  if (condition.kind !== 'test') return null;
  const name = nameOfValue(condition, vocabulary);
  switch (condition.fact) {
    case 'signed in':
      return 'members';
    case 'role':
      return name === null ? null : plural(name);
    case 'group':
      return `people in ${name ?? 'a group that no longer exists'}`;
    case 'level':
      if (condition.op === 'is set') return 'members with a level';
      if (condition.op === 'is not set') return voice === 'visitor' ? 'people without a level' : null;
      if (name === null) return null;
      if (voice === 'visitor') {
        return {
          'at least': `${plural(name)} and above`,
          exactly: `${plural(name)} only`,
          'at most': `${plural(name)} and below`,
        }[condition.op];
      }
      return {
        'at least': `people at ${name} level or above`,
        exactly: `people at exactly ${name} level`,
        'at most': `people at ${name} level or below`,
      }[condition.op];
    default:
      return condition satisfies never;
  }
}

function clause(condition: Condition, vocabulary: Vocabulary): string {
  if (condition.kind === 'test') return verb(condition, true, vocabulary);
  if (condition.kind === 'not' && condition.of.kind === 'test') return verb(condition.of, false, vocabulary);
  if (condition.kind === 'not') return `are not (${clause(condition.of, vocabulary)})`;
  if (isNobody(condition)) return 'don’t exist';
  const parts = condition.of.map((part) =>
    part.kind === 'all' || part.kind === 'any' ? `(${clause(part, vocabulary)})` : clause(part, vocabulary),
  );
  return condition.kind === 'any' ? `either ${listed(parts, 'or')}` : listed(parts);
}

function verb(test: Test, holds: boolean, vocabulary: Vocabulary): string {
  const are = holds ? 'are' : 'are not';
  const name = nameOfValue(test, vocabulary) ?? `a ${test.fact} that no longer exists`;
  switch (test.fact) {
    case 'signed in':
      return `${are} signed in`;
    case 'role':
      return `${are} ${plural(name)}`;
    case 'group':
      return `${are} in ${name}`;
    case 'level':
      switch (test.op) {
        case 'is set':
          return holds ? 'have a level' : 'have no level';
        case 'is not set':
          return holds ? 'have no level' : 'have a level';
        case 'at least':
          return holds ? `are at ${name} level or above` : `are at a level below ${name}`;
        case 'exactly':
          return holds ? `are at exactly ${name} level` : `are at a level other than ${name}`;
        case 'at most':
          return holds ? `are at ${name} level or below` : `are at a level above ${name}`;
        default:
          return test satisfies never;
      }
    default:
      return test satisfies never;
  }
}
