/** Somebody made up to show a claim, in words: "a member at Observer level, in Suspended, on 2 January 2027". */
import { listed } from '../english';
import {
  type Day,
  dayInWords,
  groupsAt,
  isDay,
  levelAt,
  type NameKind,
  nameOfId,
  type RequestFacts,
  rolesAt,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import { timeInWords } from './decision';

/**
 * What tells a witness from a guest or a member of whom nothing is known, who asks today. Of `null` for the request nothing is
 * said of how they ask.
 */
export function describeWitness(
  visitor: VisitorFacts,
  request: RequestFacts | null,
  vocabulary: Vocabulary,
  today: Day,
): string {
  const day = request?.today ?? today;
  const named = (kind: NameKind, id: string) => nameOfId(vocabulary, kind, id) ?? 'something that is gone';
  const names = (kind: NameKind, ids: readonly string[] | null) =>
    [...new Set(ids ?? [])].map((id) => named(kind, id));
  const { profile, purchases, enrolments, completions, joined } = visitor;
  const level = levelAt(visitor, day, vocabulary.levels);
  const bought = (purchases ?? []).map(({ product, on, until, state }) => {
    const what = named('product', product);
    if (state === 'refunded') return `who gave ${what} back`;
    const ended = until !== null && until < day;
    return on > day ? `who has bought ${what} for ${dayInWords(on)}` : `who ${ended ? 'had' : 'has'} ${what}`;
  });
  const passphrases = names('passphrase', visitor.passphrases);
  const parts = [
    ...(level === null ? [] : [`at ${named('level', level)} level`]),
    ...within('in', names('group', groupsAt(visitor, day))),
    ...within('as', names('role', rolesAt(visitor, day))),
    ...[...new Set(bought)],
    ...within('enrolled in', names('course', enrolments?.map(({ course }) => course) ?? [])),
    ...(completions?.length
      ? [`with ${completions.length === 1 ? 'something' : `${completions.length} things`} completed`]
      : []),
    ...Object.entries(profile ?? {}).map(
      ([field, value]) => `whose ${named('field', field)} is ${valueInWords(value)}`,
    ),
    ...(joined !== null && joined !== today ? [`who joined on ${dayInWords(joined)}`] : []),
    ...(visitor.desk === null ? [] : [`with the desk right ${visitor.desk}`]),
    ...within('who knows the passphrase', passphrases),
    ...(request === null ? [] : ofRequest(request, today)),
  ];
  return [visitor.signedIn ? 'a member' : 'a guest', ...parts]
    .join(', ')
    .replace(/^(a \w+), (at|in|as|who|whose|with|on|from) /, '$1 $2 ');
}

const within = (word: string, names: readonly string[]): readonly string[] =>
  names.length === 0 ? [] : [`${word} ${listed(names)}`];

const valueInWords = (value: unknown): string =>
  typeof value === 'boolean' ? (value ? 'yes' : 'no') : isDay(value) ? dayInWords(value) : String(value);

const NOON = 720;

function ofRequest(
  { today: day, minute, parameters, referrer, device, browser, network, languages }: RequestFacts,
  today: Day,
): readonly string[] {
  const asked = Object.entries(parameters).map(([name, value]) => `${name}=${value}`);
  return [
    ...(day === today ? [] : [`on ${dayInWords(day)}`]),
    ...(minute === NOON ? [] : [`at ${timeInWords(minute)}`]),
    ...(asked.length === 0 ? [] : [`with ?${asked.join('&')} in the address`]),
    ...(referrer === null ? [] : [`coming from ${referrer}`]),
    ...(device === null ? [] : [`on a ${device}`]),
    ...(browser === null ? [] : [`with a ${browser} browser`]),
    ...(network === null ? [] : [`from ${network}`]),
    ...(languages === null || languages.length === 0 ? [] : [`reading ${languages[0]}`]),
  ];
}
