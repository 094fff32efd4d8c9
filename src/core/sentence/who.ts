/**
 * Conditions as plain language: for administrators ("people at Observer level or above who are not in Suspended") and as a
 * reason for visitors ("This opens to Observers and above."), from which private facts are left out.
 */
import {
  type Condition,
  evaluatorOf,
  expanded,
  FALSE,
  factNamed,
  fold,
  foldPushed,
  isFakeable,
  isPrivate,
  nobody,
  problemOf,
  soundAudiences,
  type Test,
  TRUE,
} from '../condition';
import { plural } from '../english';
import { guest, nameOfId, requestAt, type Vocabulary } from '../site';
import { type Clause, isGroup, type Leaf, type Lexicon, nounPhrase, type Plain, plain } from './compose';
import { asNoun, clauseOf, pronounOf, soundsTrueOfGuests, unpassable } from './test';
import { inSentence, thingInSentence } from './words';

type Voice = 'administrator' | 'visitor';

/** The people a condition lets through, as a noun phrase for administrators. */
export const describeWho = (condition: Condition, vocabulary: Vocabulary): string =>
  people(condition, vocabulary, 'administrator');

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
  const whole = plain(expanded(condition, vocabulary.audiences));
  const kind = whole.kind === 'any' ? 'any' : 'all';
  const parts = whole.kind === 'all' || whole.kind === 'any' ? whole.of : [whole];
  const told = parts.filter((part) => canBeTold(part, vocabulary));
  if (told.length === 0 || isNobody(whole)) return 'This isn’t open to everyone.';
  const who = people({ kind, of: told }, vocabulary, 'visitor');
  if (told.length === parts.length) return `This opens to ${who}.`;
  return kind === 'any'
    ? `This opens to ${who}, and to some others.`
    : `This opens to ${who}, on a further condition.`;
}

const isNobody = (condition: Condition) => condition.kind === 'any' && condition.of.length === 0;

/** Whether all of a part may be named to visitors: with something of it kept back the rest of it would not be true. */
const canBeTold = (condition: Plain, vocabulary: Vocabulary): boolean =>
  fold<boolean>(condition, {
    group: (parts) => parts.every(Boolean),
    not: (part) => part,
    audience: () => false,
    test: (test) =>
      !isPrivate(test, vocabulary) && !isFakeable(test, vocabulary) && problemOf(test, vocabulary) === null,
  });

function people(condition: Condition, vocabulary: Vocabulary, voice: Voice): string {
  const closedToGuests = membersOnly(vocabulary);
  const lexicon: Lexicon = {
    everyone: 'everyone',
    nobody: 'nobody',
    pronoun: 'who',
    noun: (leaf, alone) => noun(leaf, alone, vocabulary, voice),
    anybody: (parts) => (parts.some(closedToGuests) ? 'members' : 'people'),
    // Being in a group means being signed in, so saying both is noise.
    impliedBy: (part, parts) =>
      isSignedIn(part) &&
      parts.some(
        (other) => !isGroup(other) && !isSignedIn(other) && !soundsOpen(other) && closedToGuests(other),
      ),
    clause: (leaf) => clause(leaf, vocabulary),
  };
  return nounPhrase(sayingMembers(plain(condition), closedToGuests, false), lexicon);
}

const isSignedIn = (part: Plain): boolean => part.kind === 'test' && part.fact === 'signed in';
const signedIn: Plain = { kind: 'test', fact: 'signed in', op: 'is' };

/**
 * A condition with "signed in" added beside what sounds true of guests and is not: somebody who is not signed in is in no
 * group, and yet isn't known to be outside one. `said`: it is said around it.
 */
function sayingMembers(part: Plain, membersOnly: (part: Plain) => boolean, said: boolean): Plain {
  if (part.kind === 'any')
    return { ...part, of: part.of.map((one) => sayingMembers(one, membersOnly, said)) };
  const says = (one: Plain): boolean => {
    if (!isGroup(one)) return membersOnly(one) && !soundsOpen(one);
    return one.kind === 'all' ? one.of.some(says) : one.of.length > 0 && one.of.every(says);
  };
  const parts = part.kind === 'all' ? part.of : [part];
  const unsaid = !said && !parts.some(says) && parts.some(membersOnly);
  if (part.kind !== 'all') return unsaid ? { kind: 'all', of: [signedIn, part] } : part;
  const known = said || unsaid || parts.some(says);
  const of = part.of.map((one) => sayingMembers(one, membersOnly, known));
  return { kind: 'all', of: unsaid ? [signedIn, ...of] : of };
}

/** Whether its words are true of guests though it can't be. */
function soundsOpen(part: Leaf): boolean {
  const [leaf, holds] = part.kind === 'not' ? [part.of, false] : [part, true];
  return leaf.kind === 'audience' ? !holds : soundsTrueOfGuests(leaf, holds);
}

// Whatever they ask for and whenever: tests of other facts than a guest's own may come out either way.
const anyTime = requestAt({ today: '2000-01-01', minute: 0, weekday: 'Saturday' });

/** Whether a condition can be true of members only, whatever page they look at and whenever. */
export const isMembersOnly = (condition: Plain, vocabulary: Vocabulary): boolean =>
  membersOnly(vocabulary)(condition);

function membersOnly(vocabulary: Vocabulary): (part: Plain) => boolean {
  const sound = soundAudiences(vocabulary.audiences);
  const seen = new Map<string, boolean>();
  const letsGuestsBy = (test: Test, holds: boolean): boolean => {
    const { of, session } = factNamed(test.fact);
    if (problemOf(test, vocabulary) !== null || of === 'visitor and item') return false;
    if (of !== 'visitor' || session) return true;
    return evaluatorOf(test, vocabulary)(guest, null, anyTime) === (holds ? TRUE : FALSE);
  };
  const letsGuests = (condition: Condition, wanted: boolean): boolean =>
    foldPushed<boolean>(
      condition,
      {
        all: (parts) => parts.every(Boolean),
        any: (parts) => parts.some(Boolean),
        audience: ({ audience }, holds) => {
          const key = `${holds} ${audience}`;
          const found = seen.get(key) ?? letsGuests(sound.get(audience)?.who ?? nobody, holds);
          seen.set(key, found);
          return found;
        },
        test: letsGuestsBy,
      },
      wanted,
    );
  return (part) => !letsGuests(part, true);
}

/** What reads best as a noun of its own. */
function noun(leaf: Leaf, alone: boolean, vocabulary: Vocabulary, voice: Voice): string | null {
  if (leaf.kind === 'not') return isSignedIn(leaf.of) ? 'guests' : null;
  if (leaf.kind === 'audience') return `people in ${audienceNamed(leaf.audience, vocabulary)}`;
  const value = String(leaf.value);
  switch (leaf.fact) {
    case 'signed in':
      return 'members';
    case 'role': {
      const name = nameOfId(vocabulary, 'role', value);
      return name === null ? null : (asNoun(name) ?? `people in the role ${inSentence(name)}`);
    }
    case 'group':
      return `people in ${thingInSentence(vocabulary, 'group', value)}`;
    case 'owns':
      return `owners of ${thingInSentence(vocabulary, 'product', leaf.subject ?? '')}`;
    case 'level':
      return levelNoun(leaf, alone, vocabulary, voice);
    default:
      return null;
  }
}

const audienceNamed = (id: string, vocabulary: Vocabulary): string =>
  `${nameOfId(vocabulary, 'audience', id) === null ? '' : 'the audience '}${thingInSentence(vocabulary, 'audience', id)}`;

function levelNoun(test: Test, alone: boolean, vocabulary: Vocabulary, voice: Voice): string | null {
  if (test.op === 'is set') return 'members with a level';
  if (test.op === 'is not set') return 'people without a level';
  const name = nameOfId(vocabulary, 'level', String(test.value));
  if (name === null) return null;
  const op = test.op as 'at least' | 'exactly' | 'at most';
  if (voice === 'visitor' && alone && asNoun(name) !== null) {
    return {
      'at least': `${plural(name)} and above`,
      exactly: `${plural(name)} only`,
      'at most': `${plural(name)} and below`,
    }[op];
  }
  return `people ${clauseOf(test, vocabulary).replace(/^are /, '')}`;
}

function clause(leaf: Leaf, vocabulary: Vocabulary): Clause {
  const [part, holds] = leaf.kind === 'not' ? [leaf.of, false] : [leaf, true];
  if (part.kind === 'test')
    return { pronoun: pronounOf(part, vocabulary, holds), text: clauseOf(part, vocabulary, holds) };
  const isThere = nameOfId(vocabulary, 'audience', part.audience) !== null;
  return {
    pronoun: 'who',
    text:
      isThere || holds
        ? `${holds ? 'are' : 'are not'} in ${audienceNamed(part.audience, vocabulary)}`
        : unpassable('its audience no longer exists', false, 'many'),
  };
}
