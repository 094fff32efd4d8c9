/** The samples of each kind of thing, rich enough for every combination of answers that the tests of it can give. */
import { choicesFor, listOf, type Test, typeOf } from '../condition';
import { minuteOf } from '../condition/operators';
import { asId, type ItemId, type LevelId, type PersonId } from '../ids';
import {
  type Day,
  DESK_RIGHTS,
  DEVICES,
  ENGINES,
  type FieldValue,
  guest,
  member,
  type RequestFacts,
  type VisitorFacts,
  type Vocabulary,
  WEEKDAYS,
} from '../site';
import { always, type DayOf, dayOfSamples, type Ground } from './dates';
import { identitySamples } from './identity-samples';
import { purchaseSamples } from './purchase-samples';
import { languageSamples, networkSamples, numberSamples, textSamples } from './samples';
import { ACCOUNT, type Asked, type Asking, DAY, type Sample, type Thing } from './things';

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
