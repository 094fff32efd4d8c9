/**
 * Tests as English: as a clause for many ("are in Dome crew"), for one ("is in Dome crew"), denied ("are not in Dome crew"),
 * and with the word that joins it to people ("who", "whose"). A denied test holds only of those of whom the fact is known,
 * and its words say so: "bought the atlas but not within the last 30 days", not "did not buy".
 */
import { factNamed, goneNamesIn, listOf, problemOf, type Test } from '../condition';
import { indefinite, listed, plural } from '../english';
import { type NameKind, nameOfId, type Vocabulary } from '../site';
import { predicate, quote, when } from './predicate';
import { inQuotes, inSentence, thingInSentence } from './words';

/** How many the clause is about. */
export type Grammar = 'one' | 'many';

/** "who" or "whose": what joins a test's clause to the people it is about. */
export function pronounOf(test: Test, vocabulary: Vocabulary, holds = true): 'who' | 'whose' {
  if (impossible(test, vocabulary, holds)) return 'who';
  return factNamed(test.fact).whose ? 'whose' : 'who';
}

/**
 * Why nobody can come out of a test as wanted, where its sentence would not say so by itself: what it names is gone, or it
 * is badly written, and it is unknown of everybody. "In a group that no longer exists" does say so.
 */
function impossible(test: Test, vocabulary: Vocabulary, holds: boolean): string | null {
  const problem = problemOf(test, vocabulary);
  if (problem === null) return null;
  const [kind] = goneNamesIn(test, vocabulary)[0]?.split(' ') ?? [];
  if (!problem.gone || kind === undefined) return 'it is badly written';
  const saysSo = holds && kind !== 'choice' && kind !== 'field';
  return saysSo ? null : `its ${kind} no longer exists`;
}

/** "pass a test that nobody can pass since its choice no longer exists". */
export function unpassable(why: string, holds: boolean, number: Grammar): string {
  const [verb, third] = holds ? ['pass', 'passes'] : ['fail', 'fails'];
  return `${number === 'one' ? third : verb} a test that nobody can ${verb} since ${why}`;
}

/** One test, or a test denied, as a clause that follows the pronoun. */
export function clauseOf(test: Test, vocabulary: Vocabulary, holds = true, number: Grammar = 'many'): string {
  const why = impossible(test, vocabulary, holds);
  if (why !== null) return unpassable(why, holds, number);
  const one = number === 'one';
  const be = one ? 'is' : 'are';
  const are = holds ? be : `${be} not`;
  const were = (one ? 'was' : 'were') + (holds ? '' : ' not');
  const have = one ? 'has' : 'have';
  const verb = (many: string, positive = true) =>
    positive ? (one ? `${many}s` : many) : `${one ? 'does' : 'do'} not ${many}`;
  const of = (kind: NameKind) => thingInSentence(vocabulary, kind, test.subject ?? '');
  const value = (kind: NameKind) => thingInSentence(vocabulary, kind, String(test.value));
  // Whether there is anything, for tests of presence.
  const there = (test.op === 'is set') === holds;
  const presence = test.op === 'is set' || test.op === 'is not set';
  switch (test.fact) {
    case 'signed in':
      return `${are} signed in`;
    case 'role': {
      const name = nameOfId(vocabulary, 'role', String(test.value));
      if (name === null) return `${are} in a role that no longer exists`;
      if (asNoun(name) === null) return `${are} in the role ${inSentence(name)}`;
      return one ? `${are} ${indefinite(name)}` : `${are} ${plural(name)}`;
    }
    case 'group':
      return `${are} in ${value('group')}`;
    case 'level':
      if (presence) return `${have} ${there ? 'a' : 'no'} level`;
      return `${be} at ${levels(test, vocabulary, holds)}`;
    case 'profile':
      return `${fieldName(test, vocabulary)} ${predicate(test, vocabulary, holds, 'filled in')}`;
    case 'owns':
      return `${verb('own', holds)} ${of('product')}`;
    case 'subscribed':
      return `${holds ? have : verb('have', false)} an active subscription to ${of('product')}`;
    case 'purchase':
      if (presence) return `${have} ${there ? 'a' : 'no'} paid purchase of ${of('product')}`;
      return `bought ${of('product')} ${when(test, holds)}`;
    case 'refunded':
      return `${were} refunded ${of('product')}`;
    case 'ever owned':
      return `${holds ? 'at some time' : 'never'} owned ${of('product')}`;
    case 'ended':
      return holds
        ? `${have} ${of('product')} no longer`
        : `${be} not among those who have ${of('product')} no longer`;
    case 'late':
      return `${are} late in paying for ${of('product')}`;
    case 'trial':
      return `${are} on a trial of ${of('product')}`;
    case 'renewal':
      return `next renewal of ${of('product')} ${predicate(test, vocabulary, holds, 'known')}`;
    case 'voucher':
      return holds
        ? `bought ${of('product')} with a voucher`
        : `${be} not among those who bought ${of('product')} with a voucher`;
    case 'joined':
      if (presence) return `${have} ${there ? 'a' : 'no'} known day of joining`;
      return `joined ${when(test, holds)}`;
    case 'enrolled':
      return `${are} enrolled in ${of('course')}`;
    case 'enrolment':
      if (presence) return `${there ? '' : 'never '}enrolled in ${of('course')}`;
      return `enrolled in ${of('course')} ${when(test, holds)}`;
    case 'completed':
      return `${have}${holds ? '' : ' not'} completed ${of('activity')}`;
    case 'completed unit':
      return `${have}${holds ? '' : ' not'} completed the unit ${of('unit')}`;
    case 'completed course':
      return `${have}${holds ? '' : ' not'} completed the course ${of('course')}`;
    case 'completed the one before':
      return `${have}${holds ? '' : ' not'} completed the activity before it`;
    case 'score':
      return `score in ${of('activity')} ${predicate(test, vocabulary, holds, 'known')}`;
    case 'person': {
      if (presence) return `${have} ${there ? 'a' : 'no'} known mail address`;
      if (!['is', 'is not', 'one of'].includes(test.op))
        return `${have} a mail address that ${predicate(test, vocabulary, holds, 'known')}`;
      const persons = listed(listOf(test.value).map(String).map(inPlace), 'or');
      return `${be} ${(test.op === 'is not') === holds ? 'somebody other than ' : ''}${persons}`;
    }
    case 'mail domain':
      return `mail domain ${predicate(test, vocabulary, holds, 'known')}`;
    case 'desk right': {
      if (presence) return `${have} ${there ? 'a' : 'no'} right at the desk`;
      const rights = listed(
        listOf(test.value).map((right) => `${indefinite(String(right))}’s`),
        'or',
      );
      return (test.op === 'is not') === holds
        ? `${have} a right at the desk other than ${rights}`
        : `${have} ${rights} right at the desk`;
    }
    case 'passphrase':
      return `${verb('know', holds)} ${nameOfId(vocabulary, 'passphrase', String(test.value)) === null ? '' : 'the passphrase '}${value('passphrase')}`;
    case 'share':
      return `${be} ${holds ? 'in' : 'outside'} a stable ${test.value} % of all members`;
    case 'visitor owns item':
      return holds ? `${verb('own')} the item` : `${be} somebody other than the item’s owner`;
    case 'visitor in item group':
      return holds ? `${be} in the item’s group` : `${be} outside the group that the item has`;
    case 'item kind':
    case 'item address':
    case 'item category':
    case 'item tag':
    case 'item author':
    case 'item owner':
    case 'item group':
    case 'item date':
    case 'item picture':
    case 'item course':
    case 'item unit':
    case 'activity type':
      return `${verb('look')} at something ${ofItem(test, vocabulary, holds, there)}`;
    case 'date':
      return `${verb('visit')} ${when(test, holds)}`;
    case 'time': {
      const [from, to] = listOf(test.value);
      return `${verb('visit')} ${holds ? '' : 'outside the time '}between ${from} and ${to}`;
    }
    case 'weekday': {
      const other = (test.op === 'is not') === holds;
      const days = listOf(test.value).map(String);
      const on = other
        ? `a day other than ${listed(days, 'or')}`
        : listed(
            days.map((day) => `${day}s`),
            'or',
          );
      return `${verb('visit')} on ${on}`;
    }
    case 'parameter':
      return `address parameter ${inSentence(test.subject ?? '')} ${predicate(test, vocabulary, holds, 'given')}`;
    case 'referrer':
      if (presence) return `${verb('come', there)} from another page`;
      return `${verb('come')} from a host that ${predicate(test, vocabulary, holds, 'known')}`;
    case 'device': {
      if (presence) return `${verb('use', there)} a known device`;
      const devices = listed(
        listOf(test.value).map((device) => `a ${device}`),
        'or',
      );
      return `${verb('use')} ${(test.op === 'is not') === holds ? 'something other than ' : ''}${devices}`;
    }
    case 'browser':
      return `browser family ${predicate(test, vocabulary, holds, 'known')}`;
    case 'language':
      return `language ${predicate(test, vocabulary, holds, 'known')}`;
    case 'network':
      return `network address is ${holds ? 'in' : 'outside'} ${listed(listOf(test.value).map(String), 'or')}`;
    default:
      return test.fact satisfies never;
  }
}

/**
 * Whether the words of a clause are true of guests although it can't hold of them: "are not in Suspended", of somebody of
 * whom no group is known.
 */
export function soundsTrueOfGuests(test: Test, holds: boolean): boolean {
  if (test.fact === 'person')
    return ['is', 'is not', 'one of'].includes(test.op) && (test.op === 'is not') === holds;
  const { of, session, type } = factNamed(test.fact);
  const unknownOfGuests =
    of === 'visitor and item' || (of === 'visitor' && !session && test.fact !== 'signed in');
  const deniedSimply = type === 'truth' || type === 'set' || type === 'share';
  return !holds && unknownOfGuests && deniedSimply;
}

/** A role's name as a noun for many, or null where that could be read as something else. */
export const asNoun = (name: string): string | null =>
  inSentence(name) === name && inSentence(plural(name)) === plural(name) ? plural(name) : null;

function levels(test: Test, vocabulary: Vocabulary, holds: boolean): string {
  const id = String(test.value);
  const name = thingInSentence(vocabulary, 'level', id);
  if (nameOfId(vocabulary, 'level', id) === null) return name;
  switch (test.op) {
    case 'at least':
      return holds ? `${name} level or above` : `a level below ${name}`;
    case 'exactly':
      return holds ? `exactly ${name} level` : `a level other than ${name}`;
    default:
      return holds ? `${name} level or below` : `a level above ${name}`;
  }
}

/** What a test says of an item, after "something". */
function ofItem(test: Test, vocabulary: Vocabulary, holds: boolean, there: boolean): string {
  const noun = test.fact.replace(/^(item|activity) /, '');
  if (test.op === 'is set' || test.op === 'is not set')
    return `${there ? 'with' : 'without'} ${indefinite(noun)}`;
  switch (test.fact) {
    case 'item kind': {
      const kinds = listed(listOf(test.value).map(String).map(indefinite), 'or');
      return `that is ${(test.op === 'is not') === holds ? 'not ' : ''}${kinds}`;
    }
    case 'item tag':
      return `tagged ${holds ? '' : 'but not with '}${quote(test.value)}`;
    case 'item group':
    case 'item course':
    case 'item unit': {
      const id = String(test.value);
      const kind = noun as 'group' | 'course' | 'unit';
      const thing = thingInSentence(vocabulary, kind, id);
      if (nameOfId(vocabulary, kind, id) === null) return `of ${thing}`;
      return `of ${holds ? `the ${kind}` : `a ${kind} other than`} ${thing}`;
    }
    case 'activity type': {
      const types = listed(
        listOf(test.value).map((type) => indefinite(String(type))),
        'or',
      );
      return `to do that is ${(test.op === 'is not') === holds ? 'not ' : ''}${types}`;
    }
    default:
      return `whose ${noun} ${predicate(test, vocabulary, holds, 'there')}`;
  }
}

/** A mail address bare, anything else in quotes. */
const inPlace = (text: string): string => (/^[\w.+-]+@[\w.-]+\w$/.test(text) ? text : inQuotes(text));

/** A field's name, in quotes when it is more than a word, so that the sentence stays in one piece. */
function fieldName(test: Test, vocabulary: Vocabulary): string {
  const name = nameOfId(vocabulary, 'field', test.subject ?? '') ?? '';
  return /\s/.test(name) ? inQuotes(name) : inSentence(name);
}
