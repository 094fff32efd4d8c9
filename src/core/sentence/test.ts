/**
 * Tests as English, from the catalogue's entries: as a clause for many ("are in Dome crew"), for one ("is in Dome crew"),
 * denied ("are not in Dome crew"), and with the word that joins it to people ("who", "whose").
 */
import { listOf, type Test, TODAY, typeOf } from '../condition';
import { dayInWords, type NameKind, nameOfId, type Vocabulary } from '../site';
import { listed, plural } from './words';

/** How many the clause is about. */
export type Grammar = 'one' | 'many';

/** "who" or "whose": what joins a test's clause to the people it is about. */
export function pronounOf(test: Test): 'who' | 'whose' {
  return ['profile', 'score', 'mail domain', 'parameter', 'network', 'browser', 'language'].includes(
    test.fact,
  )
    ? 'whose'
    : 'who';
}

/** One test, or a test denied, as a clause that follows the pronoun. */
export function clauseOf(test: Test, vocabulary: Vocabulary, holds = true, number: Grammar = 'many'): string {
  const one = number === 'one';
  const are = (one ? 'is' : 'are') + (holds ? '' : ' not');
  const were = (one ? 'was' : 'were') + (holds ? '' : ' not');
  const have = one ? 'has' : 'have';
  const does = (verb: string, third = `${verb}s`) =>
    holds ? (one ? third : verb) : `${one ? 'does' : 'do'} not ${verb}`;
  const did = (past: string, verb: string) => (holds ? past : `did not ${verb}`);
  const of = (kind: NameKind) =>
    nameOfId(vocabulary, kind, test.subject ?? '') ?? `a ${kind} that no longer exists`;
  const value = (kind: NameKind) =>
    nameOfId(vocabulary, kind, String(test.value)) ?? `a ${kind} that no longer exists`;
  const is = predicate(test, vocabulary, holds);
  switch (test.fact) {
    case 'signed in':
      return `${are} signed in`;
    case 'role': {
      const name = nameOfId(vocabulary, 'role', String(test.value));
      if (name === null) return `${are} in a role that no longer exists`;
      return one ? `${are} ${indefinite(name)}` : `${are} ${plural(name)}`;
    }
    case 'group':
      return `${are} in ${value('group')}`;
    case 'level': {
      const name = value('level');
      switch (test.op) {
        case 'is set':
          return holds ? `${have} a level` : `${have} no level`;
        case 'is not set':
          return holds ? `${have} no level` : `${have} a level`;
        case 'at least':
          return holds
            ? `${are} at ${name} level or above`
            : `${one ? 'is' : 'are'} at a level below ${name}`;
        case 'exactly':
          return holds
            ? `${are} at exactly ${name} level`
            : `${one ? 'is' : 'are'} at a level other than ${name}`;
        default:
          return holds
            ? `${are} at ${name} level or below`
            : `${one ? 'is' : 'are'} at a level above ${name}`;
      }
    }
    case 'profile':
      return `${fieldName(test, vocabulary)} ${is}`;
    case 'owns':
      return `${does('own')} ${of('product')}`;
    case 'subscribed':
      return `${holds ? have : `${one ? 'does' : 'do'} not have`} an active subscription to ${of('product')}`;
    case 'purchase':
      if (test.op === 'is set' || test.op === 'is not set')
        return `${(test.op === 'is set') === holds ? 'bought' : 'never bought'} ${of('product')}`;
      return `${did('bought', 'buy')} ${of('product')} ${when(test)}`;
    case 'refunded':
      return `${were} refunded ${of('product')}`;
    case 'joined':
      if (test.op === 'is set' || test.op === 'is not set')
        return (test.op === 'is set') === holds ? 'joined on a known day' : 'joined on a day not known';
      return `${did('joined', 'join')} ${when(test)}`;
    case 'enrolled':
      return `${are} enrolled in ${of('course')}`;
    case 'enrolment':
      if (test.op === 'is set' || test.op === 'is not set')
        return `${(test.op === 'is set') === holds ? 'enrolled' : 'never enrolled'} in ${of('course')}`;
      return `${did('enrolled', 'enrol')} in ${of('course')} ${when(test)}`;
    case 'completed':
      return `${one ? 'has' : 'have'}${holds ? '' : ' not'} completed ${of('activity')}`;
    case 'score':
      return `score in ${of('activity')} ${is}`;
    case 'person':
      if (test.op === 'is' || test.op === 'one of')
        return `${are} ${listed(listOf(test.value).map(String), 'or')}`;
      return `${one ? 'has' : 'have'} a mail address that ${is}`;
    case 'mail domain':
      return `mail domain ${is}`;
    case 'passphrase':
      return `${does('know')} the passphrase ${value('passphrase')}`;
    case 'share':
      return `${are} in a stable ${test.value} % of all members`;
    case 'visitor owns item':
      return `${does('own')} the item`;
    case 'visitor in item group':
      return `${are} in the item’s group`;
    case 'item kind':
      return looks(`something that ${is.replace(/^(is(?: not)?) “(.*)”$/, '$1 a $2')}`, one);
    case 'item address':
      return looks(`something whose address ${is}`, one);
    case 'item category':
      return looks(`something whose category ${is}`, one);
    case 'item tag':
      return looks(`something ${holds ? '' : 'not '}tagged ${quote(test.value)}`, one);
    case 'item author':
      return looks(`something whose author ${is}`, one);
    case 'item owner':
      return looks(
        `something ${(test.op === 'is set') === holds ? 'with an owner' : 'without an owner'}`,
        one,
      );
    case 'item group':
      return looks(`something ${holds ? '' : 'not '}of the group ${value('group')}`, one);
    case 'item date':
      return looks(`something whose date ${is}`, one);
    case 'item picture':
      return looks(`something ${(test.op === 'is set') === holds ? 'with' : 'without'} a picture`, one);
    case 'date':
      return `${does('visit')} ${when(test)}`;
    case 'time': {
      const [from, to] = listOf(test.value);
      return `${does('visit')} between ${from} and ${to}`;
    }
    case 'weekday': {
      const days = listOf(test.value).map((day) => `${day}s`);
      return `${test.op === 'is not' ? (holds ? (one ? 'does not visit' : 'do not visit') : one ? 'visits' : 'visit') : does('visit')} on ${listed(days, 'or')}`;
    }
    case 'parameter':
      return `address parameter ${test.subject} ${is}`;
    case 'referrer':
      if (test.op === 'is set' || test.op === 'is not set')
        return `${(test.op === 'is set') === holds ? (one ? 'comes' : 'come') : one ? 'does not come' : 'do not come'} from another page`;
      return `${one ? 'comes' : 'come'} from a host that ${is}`;
    case 'device':
      if (test.op === 'is' || test.op === 'one of' || test.op === 'is not') {
        const devices = listOf(test.value).map((device) => `a ${device}`);
        const uses =
          (test.op === 'is not') === holds ? (one ? 'does not use' : 'do not use') : one ? 'uses' : 'use';
        return `${uses} ${listed(devices, 'or')}`;
      }
      return `${(test.op === 'is set') === holds ? (one ? 'uses' : 'use') : one ? 'does not use' : 'do not use'} a known device`;
    case 'browser':
      return `browser family ${is}`;
    case 'language':
      return `language ${is}`;
    case 'network':
      return `network address ${holds ? 'is' : 'is not'} in ${listed(listOf(test.value).map(String), 'or')}`;
    default:
      return test.fact satisfies never;
  }
}

const looks = (what: string, one: boolean): string => `${one ? 'looks' : 'look'} at ${what}`;

const indefinite = (name: string): string => `${/^[aeiou]/i.test(name) ? 'an' : 'a'} ${name}`;

/** A field's name, in quotes when it is more than a word, so that the sentence stays in one piece. */
function fieldName(test: Test, vocabulary: Vocabulary): string {
  const name = nameOfId(vocabulary, 'field', test.subject ?? '');
  if (name === null) return 'field that no longer exists';
  return /\s/.test(name) ? `“${name}”` : name;
}

const quote = (value: Test['value']): string =>
  listed(
    listOf(value).map((one) => (typeof one === 'number' ? String(one) : `“${one}”`)),
    'or',
  );

/** What a test says of its value, after a noun of one: "is at least 100", "is not filled in". */
function predicate(test: Test, vocabulary: Vocabulary, holds: boolean): string {
  const type = typeOf(test, vocabulary);
  const is = holds ? 'is' : 'is not';
  const [first, second] = listOf(test.value);
  switch (test.op) {
    case 'is set':
      return holds ? 'is filled in' : 'is not filled in';
    case 'is not set':
      return holds ? 'is not filled in' : 'is filled in';
    case 'is yes':
      return `${is} yes`;
    case 'is no':
      return `${is} no`;
    case 'is not':
      return `${holds ? 'is not' : 'is'} ${shown(test, type)}`;
    case 'contains':
      return `${holds ? 'contains' : 'does not contain'} ${quote(test.value)}`;
    case 'starts with':
      return `${holds ? 'starts with' : 'does not start with'} ${quote(test.value)}`;
    case 'ends with':
      return `${holds ? 'ends with' : 'does not end with'} ${quote(test.value)}`;
    case 'at least':
      return holds ? `is at least ${first}` : `is less than ${first}`;
    case 'at most':
      return holds ? `is at most ${first}` : `is more than ${first}`;
    case 'between':
      return type === 'date' ? `${is} ${when(test)}` : `${is} between ${first} and ${second}`;
    case 'before':
    case 'after':
    case 'within the last':
    case 'within the next':
    case 'at least ago':
      return `${is} ${when(test)}`;
    default:
      return `${is} ${shown(test, type)}`;
  }
}

const shown = (test: Test, type: ReturnType<typeof typeOf>): string =>
  type === 'date'
    ? dayWords(String(test.value))
    : test.fact === 'profile' && type === 'choice'
      ? listed(listOf(test.value).map(String), 'or')
      : quote(test.value);

const dayWords = (day: string): string => (day === TODAY ? 'today' : dayInWords(day));

/** When, after a verb: "before 1 December 2026", "within the last 30 days". */
function when(test: Test): string {
  const [first = '', second = ''] = listOf(test.value).map(String);
  const days = first === '1' ? 'day' : 'days';
  switch (test.op) {
    case 'before':
    case 'after':
      return `${test.op} ${dayWords(first)}`;
    case 'between':
      return `between ${dayWords(first)} and ${dayWords(second)}`;
    case 'within the last':
    case 'within the next':
      return `${test.op} ${first} ${days}`;
    case 'at least ago':
      return `at least ${first} ${days} ago`;
    default:
      return `on ${dayWords(first)}`;
  }
}

/** What has to be done so that a test holds, or fails, as something one can be asked to do: "join Dome crew". */
export function imperativeOf(test: Test, vocabulary: Vocabulary, holds: boolean): string {
  const of = (kind: NameKind) =>
    nameOfId(vocabulary, kind, test.subject ?? '') ?? `a ${kind} that no longer exists`;
  const value = (kind: NameKind) =>
    nameOfId(vocabulary, kind, String(test.value)) ?? `a ${kind} that no longer exists`;
  switch (test.fact) {
    case 'role':
      return holds ? `become ${indefinite(value('role'))}` : `no longer be ${indefinite(value('role'))}`;
    case 'group':
      return `${holds ? 'join' : 'leave'} ${value('group')}`;
    case 'owns':
      return holds ? `buy ${of('product')}` : `no longer own ${of('product')}`;
    case 'subscribed':
      return holds ? `subscribe to ${of('product')}` : `end the subscription to ${of('product')}`;
    case 'refunded':
      return holds ? `be refunded ${of('product')}` : `not be refunded ${of('product')}`;
    case 'enrolled':
      return holds ? `enrol in ${of('course')}` : `leave ${of('course')}`;
    case 'completed':
      return holds ? `complete ${of('activity')}` : `not have completed ${of('activity')}`;
    case 'passphrase':
      return holds
        ? `type the passphrase ${value('passphrase')}`
        : `not know the passphrase ${value('passphrase')}`;
    case 'profile':
      return `have ${clauseOf(test, vocabulary, holds)
        .replace(/ is (?=not filled in)/, ' ')
        .replace(/ is /, ' ')}`;
    default: {
      const clause = clauseOf(test, vocabulary, holds);
      return pronounOf(test) === 'whose' ? `have ${clause.replace(/ is /, ' ')}` : `have ${clause}`;
    }
  }
}
