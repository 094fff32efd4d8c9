/**
 * The catalogue: every fact that a condition can test, declared once. Checking a condition, the composer's choices, the
 * text form, the sentences and evaluation all work from these entries; the site's own names extend them through the
 * {@link Vocabulary}.
 */
import { ITEM_KINDS, type Item, isAddressed } from '../site/item';
import { DEVICES, ENGINES, type RequestFacts, WEEKDAYS } from '../site/request';
import type { Purchase, VisitorFacts } from '../site/visitor';
import { type Named, type NameKind, namesOf, type Vocabulary } from '../site/vocabulary';
import type { Test } from './condition';
import type { FactName } from './fact-names';
import { type FactType, type Met, OPERATORS, type Operator, type OperatorName } from './operators';

/** Reads a fact, or null where it is missing. */
export type Reader = (visitor: VisitorFacts, item: Item | null, request: RequestFacts) => Met | null;

/** One fact of the catalogue. */
export interface Fact {
  readonly name: FactName;
  /** How the composer names it. */
  readonly label: string;
  /** How it begins in the text form. */
  readonly phrase: string;
  readonly of: 'visitor' | 'item' | 'request';
  /** What it is a fact of, where that needs saying: a thing with a name, or any text (`'text'`). */
  readonly subject: NameKind | 'text' | null;
  /** Its type; null for profile fields, which have their own. */
  readonly type: FactType | null;
  /** The kind of thing that its values are, for sets and ranks. */
  readonly values: NameKind | null;
  /** The values there are, for choices that are the same on every site. */
  readonly choices: readonly string[];
  /** Whether visitors can make it up, so that it is fit for presentation and not for protection. */
  readonly fakeable: boolean;
  /** Never named in a reason that visitors read. */
  readonly private: boolean;
  readonly read: (subject: string, vocabulary: Vocabulary) => Reader;
}

const fact = (
  name: FactName,
  type: FactType | null,
  of: Fact['of'],
  label: string,
  read: Fact['read'],
  more: Partial<Omit<Fact, 'name' | 'type' | 'of' | 'label' | 'read'>> = {},
): Fact => ({
  name,
  type,
  of,
  label,
  read,
  phrase: name,
  subject: null,
  values: null,
  choices: [],
  fakeable: false,
  private: false,
  ...more,
});

const running = (purchase: Purchase, product: string, request: RequestFacts): boolean =>
  purchase.product === product &&
  purchase.state === 'paid' &&
  (purchase.until === null || purchase.until >= request.today);

/** The latest day in a list; null for none. */
const latest = (days: readonly string[]): string | null =>
  days.reduce<string | null>((last, day) => (last === null || day > last ? day : last), null);

const domainOf = (email: string): string => email.slice(email.lastIndexOf('@') + 1);

/** The entries, in the order in which the composer offers them. */
export const catalogue: readonly Fact[] = [
  fact('signed in', 'truth', 'visitor', 'Signed in', () => (visitor) => visitor.signedIn),
  fact('level', 'rank', 'visitor', 'Level', () => (visitor) => visitor.level, { values: 'level' }),
  fact('group', 'set', 'visitor', 'In group', () => (visitor) => visitor.groups, {
    phrase: 'in group',
    values: 'group',
  }),
  fact('role', 'set', 'visitor', 'Role', () => (visitor) => visitor.roles, { values: 'role' }),
  fact(
    'profile',
    null,
    'visitor',
    'Profile field',
    (field) => (visitor) => {
      const value = visitor.profile?.[field];
      // What objects inherit are functions and objects, so these types are the profile's own; asking is quicker.
      return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean'
        ? value
        : null;
    },
    { subject: 'field' },
  ),
  fact(
    'owns',
    'truth',
    'visitor',
    'Owns',
    (product) =>
      ({ purchases }, _item, request) =>
        purchases === null ? null : purchases.some((one) => running(one, product, request)),
    { subject: 'product' },
  ),
  fact(
    'subscribed',
    'truth',
    'visitor',
    'Active subscription to',
    (product, { products }) => {
      const subscription = products.some(({ id, kind }) => id === product && kind === 'subscription');
      return ({ purchases }, _item, request) =>
        purchases === null ? null : subscription && purchases.some((one) => running(one, product, request));
    },
    { phrase: 'subscribed to', subject: 'product' },
  ),
  fact(
    'purchase',
    'date',
    'visitor',
    'Bought on',
    (product) =>
      ({ purchases }) =>
        latest(
          (purchases ?? [])
            .filter((one) => one.product === product && one.state === 'paid')
            .map(({ on }) => on),
        ),
    { phrase: 'purchase of', subject: 'product' },
  ),
  fact(
    'refunded',
    'truth',
    'visitor',
    'Bought and was refunded',
    (product) =>
      ({ purchases }) =>
        purchases === null
          ? null
          : purchases.some((one) => one.product === product && one.state === 'refunded'),
    { subject: 'product' },
  ),
  fact('joined', 'date', 'visitor', 'Joined', () => (visitor) => visitor.joined),
  fact(
    'enrolled',
    'truth',
    'visitor',
    'Enrolled in',
    (course) =>
      ({ enrolments }) =>
        enrolments === null ? null : enrolments.some((one) => one.course === course),
    { phrase: 'enrolled in', subject: 'course' },
  ),
  fact(
    'enrolment',
    'date',
    'visitor',
    'Enrolled on',
    (course) =>
      ({ enrolments }) =>
        latest((enrolments ?? []).filter((one) => one.course === course).map(({ on }) => on)),
    { phrase: 'enrolment in', subject: 'course' },
  ),
  fact(
    'completed',
    'truth',
    'visitor',
    'Completed',
    (activity) =>
      ({ completions }) =>
        completions === null ? null : completions.some((one) => one.activity === activity),
    { subject: 'activity' },
  ),
  fact(
    'score',
    'number',
    'visitor',
    'Score in',
    (activity) =>
      ({ completions }) =>
        completions?.find((one) => one.activity === activity)?.score ?? null,
    { phrase: 'score in', subject: 'activity' },
  ),
  fact('person', 'text', 'visitor', 'One person', () => (visitor) => visitor.email, { private: true }),
  fact(
    'mail domain',
    'text',
    'visitor',
    'Mail domain',
    () =>
      ({ email }) =>
        email === null ? null : domainOf(email),
  ),
  fact('passphrase', 'set', 'visitor', 'Knows the passphrase', () => (visitor) => visitor.passphrases, {
    phrase: 'knows passphrase',
    values: 'passphrase',
    // Its name is the administrator's, like an audience's.
    private: true,
  }),
  fact('share', 'share', 'visitor', 'A stable share of members', () => (visitor) => visitor.share, {
    private: true,
  }),
  fact('visitor owns item', 'truth', 'item', 'Owns the item', () => (visitor, item) => {
    const owner = item?.facts?.owner;
    return owner === undefined || visitor.id === null ? null : owner === visitor.id;
  }),
  fact('visitor in item group', 'truth', 'item', 'In the item’s group', (_, vocabulary) => {
    const groups = new Set(vocabulary.groups.map(({ id }) => id));
    return (visitor, item) => {
      const group = item?.facts?.group;
      // Nobody is in a group that is gone, and nobody is known to be outside it either.
      if (group === undefined || !groups.has(group) || visitor.groups === null) return null;
      return visitor.groups.includes(group);
    };
  }),
  fact('item kind', 'choice', 'item', 'Kind of the item', () => (_visitor, item) => item?.kind ?? null, {
    choices: ITEM_KINDS,
  }),
  fact(
    'item address',
    'text',
    'item',
    'Address of the item',
    () => (_visitor, item) => (item && isAddressed(item) ? item.address : null),
  ),
  fact('item category', 'text', 'item', 'Category of the item', () => (_visitor, item) => {
    return item?.facts?.category ?? null;
  }),
  fact('item tag', 'words', 'item', 'Tag of the item', () => (_visitor, item) => item?.facts?.tags ?? null),
  fact('item author', 'text', 'item', 'Author of the item', () => (_visitor, item) => {
    return item?.facts?.author ?? null;
  }),
  fact('item owner', 'presence', 'item', 'Owner of the item', () => (_visitor, item) => {
    return item?.facts?.owner ?? null;
  }),
  fact(
    'item group',
    'set',
    'item',
    'Group of the item',
    () => (_visitor, item) => {
      const group = item?.facts?.group;
      return group === undefined ? null : [group];
    },
    { values: 'group' },
  ),
  fact('item date', 'date', 'item', 'Date of the item', () => (_visitor, item) => item?.facts?.date ?? null),
  fact('item picture', 'presence', 'item', 'Picture of the item', () => (_visitor, item) => {
    return item?.facts?.picture ?? null;
  }),
  fact('date', 'date', 'request', 'Date', () => (_visitor, _item, request) => request.today),
  fact('time', 'time', 'request', 'Time of day', () => (_visitor, _item, request) => request.minute),
  fact('weekday', 'choice', 'request', 'Weekday', () => (_visitor, _item, request) => request.weekday, {
    choices: WEEKDAYS,
  }),
  fact(
    'parameter',
    'text',
    'request',
    'Address parameter',
    (name) =>
      (_visitor, _item, { parameters }) =>
        Object.hasOwn(parameters, name) ? (parameters[name] ?? null) : null,
    { subject: 'text', fakeable: true, private: true },
  ),
  fact(
    'referrer',
    'text',
    'request',
    'Referring host',
    () => (_visitor, _item, request) => request.referrer,
    {
      fakeable: true,
      private: true,
    },
  ),
  fact('device', 'choice', 'request', 'Device', () => (_visitor, _item, request) => request.device, {
    choices: DEVICES,
    fakeable: true,
  }),
  fact(
    'browser',
    'choice',
    'request',
    'Browser family',
    () => (_visitor, _item, request) => request.browser,
    {
      choices: ENGINES,
      fakeable: true,
      private: true,
    },
  ),
  fact('language', 'language', 'request', 'Language', () => (_visitor, _item, request) => request.languages, {
    fakeable: true,
  }),
  fact(
    'network',
    'network',
    'request',
    'Network address',
    () => (_visitor, _item, request) => request.network,
    { private: true },
  ),
];

const byName = new Map(catalogue.map((entry) => [entry.name, entry]));

/** The catalogue's entry for a fact. */
export function factNamed(name: FactName): Fact {
  const found = byName.get(name);
  if (!found) throw new Error(`The catalogue has no fact "${name}".`);
  return found;
}

/** The type of what a test compares on this site, or null when the profile field is gone. */
export function typeOf(test: Pick<Test, 'fact' | 'subject'>, vocabulary: Vocabulary): FactType | null {
  const { type } = factNamed(test.fact);
  return type ?? vocabulary.fields.find((field) => field.id === test.subject)?.type ?? null;
}

/** The operators that a fact of a subject has on this site; for a field that is gone, those of every type. */
export function operatorsFor(
  test: Pick<Test, 'fact' | 'subject'>,
  vocabulary: Vocabulary,
): readonly Operator[] {
  const type = typeOf(test, vocabulary);
  if (type !== null) return withoutNeedless(test.fact, OPERATORS[type]);
  return ANY_FIELD;
}

const ANY_FIELD = (['number', 'date', 'text', 'choice', 'yes/no'] as const).flatMap(
  (type) => OPERATORS[type],
);

// What is always there can't be asked for.
const ALWAYS: readonly FactName[] = ['date', 'weekday', 'item kind'];
const withoutNeedless = (name: FactName, operators: readonly Operator[]): readonly Operator[] =>
  ALWAYS.includes(name) ? operators.filter(({ op }) => op !== 'is set' && op !== 'is not set') : operators;

/** The operator that a test uses, or null when its fact has none of that name. */
export const operatorOf = (test: Test, vocabulary: Vocabulary): Operator | null =>
  operatorsFor(test, vocabulary).find((entry) => entry.op === test.op) ?? null;

/** The texts that can be chosen from, for choices. */
export const choicesFor = (
  test: Pick<Test, 'fact' | 'subject'>,
  vocabulary: Vocabulary,
): readonly string[] =>
  test.fact === 'profile'
    ? (vocabulary.fields.find((field) => field.id === test.subject)?.choices ?? [])
    : factNamed(test.fact).choices;

/** The things a test's value can be on this site; none for tests whose values have no ids. */
export function thingsFor(name: FactName, vocabulary: Vocabulary): readonly Named[] {
  const { values } = factNamed(name);
  return values === null ? [] : namesOf(vocabulary, values);
}

/** Whether visitors can make up what a test asks: what their browser says, and fields they fill in themselves. */
export const isFakeable = (test: Test, vocabulary: Vocabulary): boolean =>
  factNamed(test.fact).fakeable ||
  (test.fact === 'profile' && vocabulary.fields.some((field) => field.id === test.subject && field.editable));

/** Whether a test must not be named to visitors. */
export function isPrivate(test: Test, vocabulary: Vocabulary): boolean {
  if (factNamed(test.fact).private) return true;
  if (test.fact === 'profile')
    return vocabulary.fields.some((field) => field.id === test.subject && field.private);
  return (
    factNamed(test.fact).values === 'group' &&
    vocabulary.groups.some((group) => group.id === test.value && group.private)
  );
}

export type { OperatorName };
