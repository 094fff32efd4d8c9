/** Generators for properties: conditions, visitors with and without missing facts, gates, policies. */
import fc from 'fast-check';
import {
  type Condition,
  catalogue,
  choicesFor,
  everyone,
  type Fact,
  guests,
  inAudience,
  type Operator,
  operatorsFor,
  type Test,
  test,
  typeOf,
} from '../condition';
import type { Claim, Expectation } from '../expectation';
import {
  type Gate,
  type Given,
  type NamedTurnAway,
  type Target,
  TURN_AWAY_KINDS,
  TURN_AWAYS,
  type TurnAway,
} from '../gate';
import { type AudienceId, asId, type ExpectationId, type GateId, type TurnAwayId } from '../ids';
import { valuesOf } from '../keys';
import type { Policy } from '../policy';
import {
  DESK_RIGHTS,
  DEVICES,
  ENGINES,
  type FieldValue,
  guest,
  type Item,
  type NameKind,
  namesOf,
  PURCHASE_STATES,
  type RequestFacts,
  type VisitorFacts,
  WEEKDAYS,
} from '../site';
import { crew, items, vocabulary } from './larkfell';

const gone = 'no-longer-there';
const idOf = (kind: NameKind): fc.Arbitrary<string> =>
  fc.constantFrom(...namesOf(vocabulary, kind).map(({ id }) => id), gone);

// Few values of each kind, so that tests and facts often meet.
const day = fc.constantFrom(
  '2026-10-01',
  '2026-11-13',
  '2026-11-20',
  '2026-11-21',
  '2027-06-08',
  '2024-02-29',
);
const number = fc.constantFrom(0, 1, 99.5, 100, 140, -3, 2008, 1e21);
const text = fc.constantFrom(
  'Upper',
  'upper',
  'STRASSE',
  'straße',
  'e\u0301tage',
  'étage',
  'ΟΔΟΣ',
  'οδος',
  'a "b" \\ c',
  'and',
  'x\ny',
);
const addresses = ['10.1.2.3', '10.200.0.1', '192.168.7.7', '2001:db8::1', '2001:db9::1', '::1'];
const ranges = ['10.0.0.0/8', '10.1.0.0/16', '192.168.7.7', '2001:db8::/32', '::1', '0.0.0.0/0'];
const tags = ['en', 'en-GB', 'de', 'EN', 'sv-SE'];

function values(fact: Fact, subject: string, operator: Operator): fc.Arbitrary<Test['value']> {
  const begun = { fact: fact.name, subject };
  if (operator.takes === 'nothing') return fc.constant(undefined);
  if (operator.takes === 'days') return fc.constantFrom(0, 1, 7, 30, 200);
  if (fact.values !== null) return idOf(fact.values);
  const type = typeOf(begun, vocabulary);
  const choices = choicesFor(begun, vocabulary);
  const one: fc.Arbitrary<string | number> =
    type === 'number'
      ? number
      : type === 'share'
        ? fc.constantFrom(1, 20, 50.5, 99)
        : type === 'date'
          ? fc.oneof(day, fc.constant('today'))
          : type === 'time'
            ? fc.constantFrom('00:00', '06:00', '18:30', '20:00', '23:59')
            : type === 'network'
              ? fc.constantFrom(...ranges)
              : type === 'language'
                ? fc.constantFrom(...tags)
                : choices.length > 0
                  ? fc.constantFrom(...choices, 'Vanished')
                  : text;
  if (operator.takes === 'one') return one;
  const [minLength, maxLength] = operator.takes === 'two' ? [2, 2] : [1, 3];
  return fc.array(one, { minLength, maxLength }) as fc.Arbitrary<readonly string[]>;
}

/** Every test there is in the catalogue, well formed; what it names may be gone. */
export const tests: fc.Arbitrary<Test> = fc.constantFrom(...catalogue).chain((fact) => {
  const subject =
    fact.subject === null
      ? fc.constant(undefined)
      : fact.subject === 'text'
        ? fc.constantFrom('ref', 'From', 'is', 'two words')
        : idOf(fact.subject);
  return subject.chain((about) =>
    fc
      .constantFrom(
        ...operatorsFor({ fact: fact.name, ...(about !== undefined && { subject: about }) }, vocabulary),
      )
      .chain((operator) =>
        values(fact, about ?? '', operator).map((value): Test => {
          const made = { kind: 'test' as const, fact: fact.name, op: operator.op };
          return {
            ...made,
            ...(about !== undefined && { subject: about }),
            ...(value !== undefined && { value }),
          };
        }),
      ),
  );
});

const audience = fc
  .constantFrom(...vocabulary.audiences.map(({ id }) => id), asId<AudienceId>(gone))
  .map(inAudience);

export const conditions: fc.Arbitrary<Condition> = fc.letrec<{ condition: Condition }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 4, depthSize: 'small' },
    { arbitrary: tests, weight: 4 },
    { arbitrary: audience, weight: 1 },
    {
      arbitrary: fc.array(tie('condition'), { maxLength: 4 }).map((of): Condition => ({ kind: 'all', of })),
      weight: 2,
    },
    {
      arbitrary: fc.array(tie('condition'), { maxLength: 4 }).map((of): Condition => ({ kind: 'any', of })),
      weight: 2,
    },
    { arbitrary: tie('condition').map((of): Condition => ({ kind: 'not', of })), weight: 2 },
  ),
})).condition;

const some = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(fc.array(arbitrary, { maxLength: 3 }));
const fieldValue: fc.Arbitrary<FieldValue> = fc.oneof(
  number,
  day,
  text,
  fc.boolean(),
  fc.constantFrom('Optics', 'grounds', 'Visits'),
);
const profile = fc
  .array(fc.tuple(idOf('field'), fieldValue), { maxLength: 6 })
  .map((entries): Readonly<Record<string, FieldValue>> => Object.fromEntries(entries));

/** Visitors, among them impossible ones with facts missing at random and values of the wrong type. */
export const visitors: fc.Arbitrary<VisitorFacts> = fc.oneof(
  { arbitrary: fc.constant(guest), weight: 1 },
  {
    weight: 5,
    arbitrary: fc.record({
      signedIn: fc.boolean(),
      id: fc.option(fc.constantFrom('ines', 'wren')),
      email: fc.option(fc.constantFrom('ines@larkfell.example', 'upper@hollin.example', 'étage@x.example')),
      roles: some(idOf('role')),
      groups: some(idOf('group')),
      level: fc.option(idOf('level')),
      profile: fc.option(profile),
      purchases: some(
        fc.record({
          product: idOf('product'),
          on: day,
          until: fc.option(day),
          state: fc.constantFrom(...PURCHASE_STATES),
          order: fc.option(
            fc.record({
              id: fc.constant('order'),
              paidUntil: fc.option(day),
              trialUntil: fc.option(day),
              renews: fc.option(day),
              voucher: fc.boolean(),
            }),
            { nil: undefined },
          ),
        }),
      ),
      granted: fc.array(
        fc.record({
          product: idOf('product'),
          on: day,
          until: fc.option(day),
          level: fc.option(idOf('level')),
          roles: fc.array(idOf('role'), { maxLength: 2 }),
          groups: fc.array(idOf('group'), { maxLength: 2 }),
        }),
        { maxLength: 3 },
      ),
      joined: fc.option(day),
      enrolments: some(fc.record({ course: idOf('course'), on: day, until: fc.option(day) })),
      completions: some(
        fc.record({
          item: fc.oneof(idOf('activity'), idOf('unit'), idOf('course')),
          on: day,
          score: fc.option(number),
        }),
      ),
      passphrases: fc.array(idOf('passphrase'), { maxLength: 2 }),
      desk: fc.option(fc.constantFrom(...DESK_RIGHTS)),
      share: fc.option(fc.double({ min: 0, max: 99.9, noNaN: true })),
    }) as unknown as fc.Arbitrary<VisitorFacts>,
  },
);

export const requests: fc.Arbitrary<RequestFacts> = fc.record({
  today: fc.constantFrom('2026-11-20', '2026-11-21', '2024-02-29'),
  minute: fc.constantFrom(0, 359, 360, 1110, 1200, 1439),
  weekday: fc.constantFrom(...WEEKDAYS),
  parameters: fc
    .array(fc.tuple(fc.constantFrom('ref', 'From', 'is'), text), { maxLength: 2 })
    .map((entries): Readonly<Record<string, string>> => Object.fromEntries(entries)),
  referrer: fc.option(fc.constantFrom('news.example', 'upper')),
  device: fc.option(fc.constantFrom(...DEVICES)),
  browser: fc.option(fc.constantFrom(...ENGINES)),
  network: fc.option(fc.constantFrom(...addresses)),
  languages: fc.option(fc.array(fc.constantFrom(...tags), { maxLength: 2 })),
});

/** Items with facts of their own, and none at all. */
export const itemsOrNone: fc.Arbitrary<Item | null> = fc.option(
  fc
    .tuple(
      fc.constantFrom(...items),
      fc.record(
        {
          category: text,
          tags: fc.array(text, { maxLength: 2 }),
          author: text,
          owner: fc.constantFrom('ines', 'wren'),
          group: idOf('group'),
          date: day,
          picture: fc.constant('/files/a'),
        },
        { requiredKeys: [] },
      ),
    )
    .map(([item, facts]) => ({ ...item, facts }) as unknown as Item),
);

/** One of each kind as it begins, and one more that keeps its reason back. */
const turnAways: fc.Arbitrary<TurnAway> = fc.constantFrom<TurnAway>(
  ...valuesOf(TURN_AWAYS).map(({ begin }) => begin({ kind: 'written' }, { kind: 'none' })),
  TURN_AWAYS.teaser.begin({ kind: 'kept back' }, { kind: 'sign in' }),
);

/** Turn-aways with names, of which gates use some. */
export const namedTurnAways: readonly NamedTurnAway[] = [
  {
    id: asId('members-only'),
    name: 'Members only',
    give: { kind: 'locked', reason: { kind: 'own', text: 'For members.' }, next: { kind: 'sign in' } },
  },
];
const given: fc.Arbitrary<Given> = fc.oneof(
  { arbitrary: turnAways, weight: 4 },
  fc
    .constantFrom('members-only', gone)
    .map((id): Given => ({ kind: 'named', turnAway: asId<TurnAwayId>(id) })),
);

const itemTest: fc.Arbitrary<Condition> = fc.constantFrom<Condition>(
  test('item kind', 'is', 'post'),
  test('item kind', 'one of', ['page', 'file']),
  test('item kind', 'is not', 'section'),
  test('item category', 'is', 'Night logs'),
  test('item category', 'is not', 'Night logs'),
  test('item category', 'is not set'),
  test('item tag', 'includes', 'winter'),
  test('item author', 'contains', 'Calloway'),
  test('item address', 'starts with', '/posts'),
  test('item address', 'is not set'),
  test('item date', 'before', '2026-11-01'),
  test('item owner', 'is set'),
  test('item picture', 'is not set'),
  test('item group', 'includes', gone),
  test('item group', 'includes', crew),
);

/** Conditions over the facts of items, nested up to three deep. */
export const selections: fc.Arbitrary<Condition> = fc.letrec<{ node: Condition }>((tie) => ({
  node: fc.oneof(
    { maxDepth: 3, depthSize: 'small' },
    itemTest,
    fc.array(tie('node'), { maxLength: 3 }).map((of): Condition => ({ kind: 'all', of })),
    fc.array(tie('node'), { maxLength: 3 }).map((of): Condition => ({ kind: 'any', of })),
    tie('node').map((of): Condition => ({ kind: 'not', of })),
  ),
})).node;

const target: fc.Arbitrary<Target> = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.record({
      kind: fc.constantFrom('item' as const, 'branch' as const),
      item: fc.constantFrom(...items.map((item) => item.id), asId<never>(gone)),
    }),
  },
  { weight: 1, arbitrary: selections.map((where): Target => ({ kind: 'selection', where })) },
);

export const gateWith = (stance: fc.Arbitrary<Gate['stance']>): fc.Arbitrary<Gate> =>
  fc.record({
    id: fc.uuid().map((uuid) => asId<GateId>(uuid)),
    what: fc.record({
      targets: fc.array(target, { maxLength: 3 }),
      except: fc.array(target, { maxLength: 1 }),
    }),
    who: conditions,
    otherwise: fc.record({
      cases: fc.array(fc.record({ when: fc.oneof(fc.constant(guests), conditions), give: given }), {
        maxLength: 2,
      }),
      last: given,
    }),
    stance,
  });

export const gates = gateWith(fc.constantFrom('also', 'also', 'instead'));
export const expectations: fc.Arbitrary<Expectation> = fc.record({
  id: fc.uuid().map((uuid) => asId<ExpectationId>(uuid)),
  who: fc.oneof(fc.constantFrom(everyone, guests), conditions),
  claim: fc.oneof(
    fc.record({ kind: fc.constantFrom('opens', 'only opens', 'never opens', 'never sees') }),
    fc.record({ kind: fc.constant('gets'), outcome: fc.constantFrom(...TURN_AWAY_KINDS) }),
  ) as fc.Arbitrary<Claim>,
  what: fc.record({
    targets: fc.array(target, { minLength: 1, maxLength: 2 }),
    except: fc.array(target, { maxLength: 1 }),
  }),
});
export const policies: fc.Arbitrary<Policy> = fc.array(gates, { maxLength: 6 }).map((list) => ({
  gates: list,
  audiences: vocabulary.audiences,
  turnAways: namedTurnAways,
  landings: [],
  defaults: [],
  expectations: [],
}));
export const anItem = fc.constantFrom(...items);
