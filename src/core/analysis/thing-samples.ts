/** The samples of each kind of thing, rich enough for every combination of answers that the tests of it can give. */
import { choicesFor, type FactName, listOf, operatorOf, type Test, TODAY, typeOf } from '../condition';
import { minuteOf } from '../condition/operators';
import { asId, type ItemId, type LevelId, type PersonId, type ProductId } from '../ids';
import {
  addDays,
  type Day,
  DESK_RIGHTS,
  DEVICES,
  ENGINES,
  type FieldValue,
  guest,
  isDay,
  member,
  type Purchase,
  type RequestFacts,
  type VisitorFacts,
  type Vocabulary,
  WEEKDAYS,
} from '../site';
import { atMost } from './diagram';
import { BESIDE, languageSamples, MOST_SAMPLES, networkSamples, numberSamples, textSamples } from './samples';
import { ACCOUNT, type Asked, type Asking, DAY, type Sample, type Thing } from './things';

/** What samples are made from: the site's names, and the first day that is looked at. */
export interface Ground {
  readonly vocabulary: Vocabulary;
  readonly from: Day;
}

const visitor =
  (change: (visitor: VisitorFacts) => VisitorFacts): Sample =>
  (asking) => ({ ...asking, visitor: change(asking.visitor) });
/** What only members have is not put to guests. */
const ofMember =
  (change: (visitor: VisitorFacts, asking: Asking) => VisitorFacts): Sample =>
  (asking) =>
    asking.visitor.signedIn ? { ...asking, visitor: change(asking.visitor, asking) } : asking;
const request =
  (facts: Partial<RequestFacts>): Sample =>
  ({ visitor: who, request: how }) => ({ visitor: who, request: { ...how, ...facts } });

/** A member of whom nothing is known but what the others put in. */
const somebody = (from: Day): VisitorFacts =>
  member({ id: asId<PersonId>('made-up'), email: 'somebody@made-up.example', joined: from, share: 50 });

/** The days that tests name, and those that they reckon from today, as so many days later. */
interface Dated {
  readonly named: readonly Day[];
  readonly counted: readonly number[];
}

function datedBy(asked: readonly Asked[], vocabulary: Vocabulary): Dated {
  const dated = asked.filter(({ test }) => typeOf(test, vocabulary) === 'date');
  const counts = ({ test }: Asked): readonly number[] => {
    if (operatorOf(test, vocabulary)?.takes !== 'days') return listOf(test.value).includes(TODAY) ? [0] : [];
    const count = Number(test.value);
    return test.op === 'within the next' ? [0, count] : [0, -count];
  };
  return {
    named: dated.flatMap(({ test, item }) => [
      ...listOf(test.value).filter(isDay),
      ...(test.fact === 'item date' && item?.facts?.date !== undefined ? [item.facts.date] : []),
    ]),
    counted: [...new Set(dated.flatMap(counts))],
  };
}

/** The days on which something that tests tell apart is otherwise than the day before, and some beside them. */
export function daySamples(
  byThing: Iterable<readonly Asked[]>,
  { vocabulary, from }: Ground,
): readonly Day[] {
  const edges = new Set<Day>([from]);
  let weekdays = false;
  for (const asked of byThing) {
    const { named, counted } = datedBy(asked, vocabulary);
    for (const day of named) {
      edges.add(day);
      for (const count of counted) edges.add(addDays(day, -count));
      atMost(MOST_SAMPLES, edges.size);
    }
    weekdays ||= asked.some(({ test }) => test.fact === 'weekday');
  }
  // A whole week of days that are alike but for their names, where there is room for one.
  const beside = weekdays ? [...BESIDE, ...WEEKDAYS.map((_, by) => by + 3)] : BESIDE;
  const days = [...edges].flatMap((day) => beside.map((by) => addDays(day, by)));
  return [...new Set([from, ...days])].filter((day) => day >= from);
}

/** A day that somebody has, which may be told from the day on which they ask. */
type DayOf = (asking: Asking) => Day;

/** Days for tests of one date: beside each that is named, and beside each that is reckoned from today. */
function dayOfSamples(asked: readonly Asked[], vocabulary: Vocabulary): readonly DayOf[] {
  const { named, counted } = datedBy(asked, vocabulary);
  return [...new Set(named.flatMap((day) => BESIDE.map((by) => addDays(day, by))))]
    .map(
      (day): DayOf =>
        () =>
          day,
    )
    .concat(
      [...new Set(counted.flatMap((count) => BESIDE.map((by) => count + by)))].map(
        (count): DayOf =>
          ({ request: { today } }) =>
            addDays(today, count),
      ),
    );
}

const always =
  (day: Day): DayOf =>
  () =>
    day;

const weekdayOf = (day: Day) => WEEKDAYS[(new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7] ?? 'Monday';

/** The samples of a thing, for all the tests that read it; `days` are those that there may be. */
export function samplesOf(
  { kind, of }: Thing,
  asked: readonly Asked[],
  days: readonly Day[],
  ground: Ground,
): readonly Sample[] {
  const { vocabulary, from } = ground;
  const tests = asked.map(({ test }) => test);
  const texts = () => textSamples(tests);
  const dated = () => dayOfSamples(asked, vocabulary);
  switch (kind) {
    case ACCOUNT:
      return [visitor(() => guest), visitor(() => somebody(from))];
    case DAY:
      return days.map((today) => request({ today, weekday: weekdayOf(today) }));
    case 'minute':
      return minuteSamples(tests).map((minute) => request({ minute }));
    case 'parameter':
      return [null, ...texts()].map((value) => (asking: Asking) => {
        const { [of]: _, ...others } = asking.request.parameters;
        const parameters = value === null ? others : { ...others, [of]: value };
        return { ...asking, request: { ...asking.request, parameters } };
      });
    case 'referrer':
      return [null, ...texts()].map((referrer) => request({ referrer }));
    case 'device':
      return [null, ...DEVICES].map((device) => request({ device }));
    case 'browser':
      return [null, ...ENGINES].map((browser) => request({ browser }));
    case 'language':
      return [null, ...languageSamples(tests)].map((languages) => request({ languages }));
    case 'network':
      return [null, ...networkSamples(tests)].map((network) => request({ network }));
    case 'passphrase':
      return [false, true].map((has) =>
        visitor((one) => ({
          ...one,
          passphrases: has ? [...one.passphrases, asId<never>(of)] : one.passphrases,
        })),
      );
    case 'level':
      return [null, ...vocabulary.levels.map(({ id }) => id as LevelId | null)].map((level) =>
        ofMember((one) => ({ ...one, level })),
      );
    case 'role':
      return [false, true].map((has) =>
        ofMember((one) => ({ ...one, roles: has ? [...(one.roles ?? []), asId<never>(of)] : one.roles })),
      );
    case 'group':
      return [false, true].map((has) =>
        ofMember((one) => ({ ...one, groups: has ? [...(one.groups ?? []), asId<never>(of)] : one.groups })),
      );
    case 'product':
      return purchaseSamples(asId(of), asked, dated, ground).map((bought) =>
        ofMember((one, asking) => ({ ...one, purchases: [...(one.purchases ?? []), ...bought(asking)] })),
      );
    case 'course':
      return [null, always(from), ...dated()].map((on) =>
        ofMember((one, asking) => ({
          ...one,
          enrolments:
            on === null
              ? one.enrolments
              : [...(one.enrolments ?? []), { course: asId<ItemId>(of), on: on(asking), until: null }],
        })),
      );
    case 'done': {
      const asksScore = tests.some(({ fact }) => fact === 'score');
      const scores = asksScore ? numberSamples(valuesOf(tests)) : [];
      return [undefined, null, ...scores].map((score) =>
        ofMember((one) => ({
          ...one,
          completions:
            score === undefined
              ? one.completions
              : [...(one.completions ?? []), { item: asId<ItemId>(of), on: from, score }],
        })),
      );
    }
    case 'profile':
      return [null, ...fieldSamples(tests, dated, vocabulary)].map((value) =>
        ofMember((one, asking) => {
          const { [of]: _, ...others } = one.profile ?? {};
          const filled = typeof value === 'function' ? value(asking) : value;
          return { ...one, profile: filled === null ? others : { ...others, [of]: filled } };
        }),
      );
    case 'joined':
      return [null, always(from), ...dated()].map((joined) =>
        ofMember((one, asking) => ({ ...one, joined: joined?.(asking) ?? null })),
      );
    case 'identity':
      return identitySamples(asked).map(({ id, email }) =>
        ofMember((one) => ({ ...one, id: asId<PersonId>(id), email })),
      );
    case 'desk':
      return [null, ...DESK_RIGHTS].map((desk) => ofMember((one) => ({ ...one, desk })));
    case 'share':
      return numberSamples([...valuesOf(tests), 0, 99])
        .filter((share) => share >= 0 && share < 100)
        .map((share) => ofMember((one) => ({ ...one, share })));
    default:
      return kind satisfies never;
  }
}

const valuesOf = (tests: readonly Test[]): readonly number[] =>
  tests.flatMap(({ value }) => listOf(value).map(Number));

function minuteSamples(tests: readonly Test[]): readonly number[] {
  const named = tests.flatMap(({ value }) => listOf(value).flatMap((one) => minuteOf(String(one)) ?? []));
  return [...new Set([720, 0, 1439, ...named.flatMap((minute) => [minute, minute - 1, minute + 1])])].filter(
    (minute) => minute >= 0 && minute < 1440,
  );
}

function fieldSamples(
  tests: readonly Test[],
  dated: () => readonly DayOf[],
  vocabulary: Vocabulary,
): readonly (FieldValue | DayOf)[] {
  const [test] = tests;
  if (!test) return [];
  switch (typeOf(test, vocabulary)) {
    case 'number':
      return numberSamples(valuesOf(tests));
    case 'date':
      // Of a date that is only asked for whether it is there, any will do.
      return dated().length === 0 ? ['2000-01-01'] : dated();
    case 'yes/no':
      return [true, false];
    case 'choice':
      return choicesFor(test, vocabulary);
    default:
      return textSamples(tests);
  }
}

/**
 * Whole records of purchases of one product, so that facts of it can't disagree. Whatever somebody bought comes to what three
 * records do: the one bought last, one beside it that is running, and one that was given back.
 */
function purchaseSamples(
  product: ProductId,
  asked: readonly Asked[],
  dated: () => readonly DayOf[],
  { from }: Ground,
): readonly ((asking: Asking) => readonly Purchase[])[] {
  const asks = (...facts: readonly FactName[]) => asked.some(({ test }) => facts.includes(test.fact));
  const past = addDays(from, -1000);
  const far: Day = '9999-12-31';
  const flags = (fact: FactName) => (asks(fact) ? [false, true] : [false]);
  const flagged = flags('late').flatMap((late) =>
    flags('trial').flatMap((trial) => flags('voucher').map((voucher) => ({ late, trial, voucher }))),
  );
  const [none = { late: false, trial: false, voucher: false }] = flagged;
  const record = (
    on: Day,
    until: Day | null,
    { late, trial, voucher }: typeof none,
    renews: Day | null,
  ): Purchase => ({
    product,
    on,
    until,
    state: 'paid',
    order: {
      id: asId('made-up'),
      paidUntil: late ? past : null,
      trialUntil: trial ? far : null,
      renews,
      voucher,
    },
  });
  const bought = asks('purchase') ? [always(past), ...dated()] : [past, from, far].map(always);
  const ends = [() => null, (on: Day) => on, (on: Day) => addDays(on, -1)];
  const last = (flag: typeof none) =>
    bought.flatMap((on) =>
      ends.map((end) => (asking: Asking) => record(on(asking), end(on(asking)), flag, null)),
    );
  const renewals = asks('renewal') ? [null, ...dated(), always(far)] : [null];
  const beside = renewals.flatMap((renews) =>
    flagged.map((flag) => (asking: Asking) => record(past, null, flag, renews?.(asking) ?? null)),
  );
  atMost(MOST_SAMPLES, (bought.length * ends.length + 1) * (renewals.length + 1) * flagged.length);
  // What was given back was had, unless that day is still to come.
  const backs = [past, far].map((on): Purchase => ({ product, on, until: null, state: 'refunded' }));
  const lists = [
    () => [],
    ...[...flagged.flatMap(last), ...beside].map((one) => (asking: Asking) => [one(asking)]),
    ...beside.flatMap((other) => last(none).map((one) => (asking: Asking) => [other(asking), one(asking)])),
  ];
  return asks('refunded', 'ever owned', 'ended')
    ? [...lists, ...backs.flatMap((back) => lists.map((list) => (asking: Asking) => [...list(asking), back]))]
    : lists;
}

/** Who somebody is: an id and a mail address, of which tests ask the whole, the part after the @, or whose an item is. */
function identitySamples(
  asked: readonly Asked[],
): readonly { readonly id: string; readonly email: string }[] {
  const person = asked.filter(({ test }) => test.fact === 'person').map(({ test }) => test);
  const domain = asked.filter(({ test }) => test.fact === 'mail domain').map(({ test }) => test);
  const owners = asked.flatMap(({ test, item }) =>
    test.fact === 'visitor owns item' && item?.facts?.owner !== undefined ? [item.facts.owner as string] : [],
  );
  const parts = person.flatMap(halves);
  const local = textSamples(parts.flatMap(({ before }) => before)).filter((text) => text !== '');
  const after = textSamples([...domain, ...parts.flatMap(({ after: tests }) => tests)]).filter(
    (text) => text !== '',
  );
  const [some = 'somebody'] = local;
  const names = person.length === 0 ? [some] : [...local, 'somebody'];
  atMost(MOST_SAMPLES, names.length * (after.length + 1));
  const emails = names.flatMap((name) =>
    [...after, 'made-up.example'].map((host) => `${name}@${host}`.toLowerCase()),
  );
  atMost(MOST_SAMPLES, (owners.length + 1) * emails.length);
  return ['made-up', ...owners].flatMap((id) => emails.map((email) => ({ id, email })));
}

/** What a test of a whole mail address comes to of the part before its @ and of that after it. */
function halves(test: Test): { readonly before: readonly Test[]; readonly after: readonly Test[] } {
  const made = listOf(test.value)
    .map(String)
    .map((text) => {
      const at = text.lastIndexOf('@');
      const as = (op: Test['op'], value: string): readonly Test[] =>
        value === '' ? [] : [{ ...test, op, value }];
      if (at < 0) return { before: as(test.op, text), after: as(test.op, text) };
      const [front, rear] = [text.slice(0, at), text.slice(at + 1)];
      const whole =
        test.op === 'contains' || test.op === 'starts with' || test.op === 'ends with' ? test.op : 'is';
      return {
        before: as(whole === 'starts with' || whole === 'is' ? 'is' : 'ends with', front),
        after: as(whole === 'ends with' || whole === 'is' ? 'is' : 'starts with', rear),
      };
    });
  return { before: made.flatMap(({ before }) => before), after: made.flatMap(({ after }) => after) };
}
