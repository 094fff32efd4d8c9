/**
 * What conditions ask about, taken apart into things that don't depend on one another: the account, the day, a level, a
 * group, a profile field, what was bought of one product … A thing is in one of its samples; together they make a scene.
 */
import { listOf, operatorOf, type Test, TODAY, typeOf } from '../condition';
import { keysOf } from '../keys';
import { beforeOf, type Item, type RequestFacts, type VisitorFacts, type Vocabulary } from '../site';

/** Who asks, and how. */
export interface Asking {
  readonly visitor: VisitorFacts;
  readonly request: RequestFacts;
}

/** A value of a thing: puts it into a scene. Those of the account and of the day are put in before all others. */
export type Sample = (asking: Asking) => Asking;

/** A test, with the item that it is asked about where that matters. */
export interface Asked {
  readonly test: Test;
  readonly item: Item | null;
}

/** Whether a visitor is signed in: of those who are not, hardly anything is known. */
export const ACCOUNT = 'account';
export const DAY = 'day';

/** Kinds of things, in the order in which diagrams ask for them, with whose they are: what members have, guests have not. */
export const THINGS = {
  account: 'visitor',
  day: 'request',
  minute: 'request',
  parameter: 'request',
  referrer: 'request',
  device: 'request',
  browser: 'request',
  language: 'request',
  network: 'request',
  passphrase: 'visitor',
  level: 'member',
  role: 'member',
  group: 'member',
  product: 'member',
  course: 'member',
  done: 'member',
  profile: 'member',
  joined: 'member',
  identity: 'member',
  desk: 'member',
  share: 'member',
} as const satisfies Readonly<Record<string, 'visitor' | 'request' | 'member'>>;
export type ThingKind = keyof typeof THINGS;
export const ORDER = keysOf(THINGS);

/** A thing, by its kind and what it is of: "group crew". */
export interface Thing {
  readonly kind: ThingKind;
  /** The id of what it is of; empty for kinds of which there is one. */
  readonly of: string;
}

export const keyOfThing = ({ kind, of }: Thing): string => (of === '' ? kind : `${kind} ${of}`);

const thing = (kind: ThingKind, of = ''): Thing => ({ kind, of });

/** Whether what a test comes to depends on the day as well: dates that are told from today. */
export const isRelative = (test: Test, vocabulary: Vocabulary): boolean =>
  typeOf(test, vocabulary) === 'date' &&
  (operatorOf(test, vocabulary)?.takes === 'days' || listOf(test.value).includes(TODAY));

/** The things that a test reads, for an item that it is asked about. */
export function thingsRead({ test, item }: Asked, vocabulary: Vocabulary): readonly Thing[] {
  const own = ownThing({ test, item });
  const isOfMember = own !== null && THINGS[own.kind] === 'member';
  const needsDay = isRelative(test, vocabulary) || own?.kind === 'product' || own?.kind === 'course';
  return [
    ...(isOfMember ? [thing(ACCOUNT)] : []),
    ...(needsDay && own?.kind !== DAY ? [thing(DAY)] : []),
    ...(own ? [own] : []),
  ];
}

/** What a test is about; null for what an item alone tells. */
function ownThing({ test, item }: Asked): Thing | null {
  const { fact, subject = '' } = test;
  switch (fact) {
    case 'signed in':
      return thing(ACCOUNT);
    case 'role':
    case 'group':
    case 'passphrase':
      return thing(fact, String(test.value));
    case 'level':
    case 'profile':
    case 'joined':
    case 'share':
    case 'parameter':
    case 'referrer':
    case 'device':
    case 'browser':
    case 'language':
    case 'network':
      return thing(fact, subject);
    case 'desk right':
      return thing('desk');
    case 'person':
    case 'mail domain':
      return thing('identity');
    case 'date':
    case 'weekday':
      return thing(DAY);
    case 'time':
      return thing('minute');
    case 'owns':
    case 'subscribed':
    case 'purchase':
    case 'refunded':
    case 'ever owned':
    case 'ended':
    case 'late':
    case 'trial':
    case 'renewal':
    case 'voucher':
      return thing('product', subject);
    case 'enrolled':
    case 'enrolment':
      return thing('course', subject);
    case 'completed':
    case 'completed unit':
    case 'completed course':
    case 'score':
      return thing('done', subject);
    case 'visitor owns item':
      return item?.facts?.owner === undefined ? null : thing('identity');
    case 'visitor in item group':
      return item?.facts?.group === undefined ? null : thing('group', item.facts.group);
    case 'completed the one before': {
      const before = beforeOf(item);
      // Of the first of its unit, and of nothing that is in a course, being signed in is all that matters.
      return before === null ? null : before.id === null ? thing(ACCOUNT) : thing('done', before.id);
    }
    case 'item course':
    case 'item unit':
    case 'activity type':
    case 'item kind':
    case 'item address':
    case 'item category':
    case 'item tag':
    case 'item author':
    case 'item owner':
    case 'item group':
    case 'item date':
    case 'item picture':
      return null;
    default:
      return fact satisfies never;
  }
}
