/** What conditions can ask of a visitor. */
import { asId, type ItemId } from '../../ids';
import { DESK_RIGHTS } from '../../site/desk-right';
import { groupsAt, levelAt, rolesAt } from '../../site/granted';
import type { RequestFacts } from '../../site/request';
import {
  type Completion,
  isCompleted,
  isEnrolledOn,
  isGoodOn,
  type Purchase,
  type VisitorFacts,
} from '../../site/visitor';
import type { FactEntry, Reader, Wanted } from './fact';

const running = (purchase: Purchase, product: string, request: RequestFacts): boolean =>
  purchase.product === product && purchase.state === 'paid' && isGoodOn(purchase, request.today);

/** Whether a purchase that is good is so only because the site waits for what is owed. */
const late = (purchase: Purchase, product: string, request: RequestFacts): boolean =>
  running(purchase, product, request) &&
  purchase.order?.paidUntil != null &&
  purchase.order.paidUntil < request.today;

/** Whether a purchase was good at any time until now: also one that ended, or was given back after that. */
const wasHeld = ({ on, until, state }: Purchase, { today }: RequestFacts): boolean =>
  on <= today && (state === 'refunded' || (state === 'paid' && (until === null || until >= on)));

/** A fact that some purchase of a product makes true. */
const ofPurchases =
  (holds: (purchase: Purchase, product: string, request: RequestFacts) => boolean) =>
  (product: string): Reader =>
  ({ purchases }, _item, request) =>
    purchases === null ? null : purchases.some((one) => holds(one, product, request));

/** The latest day in a list; null for none. */
const latest = (days: readonly string[]): string | null =>
  days.reduce<string | null>((last, day) => (last === null || day > last ? day : last), null);

const domainOf = (email: string): string => email.slice(email.lastIndexOf('@') + 1);

const held = <T extends string>(list: readonly T[] | null, { value, holds }: Wanted): readonly T[] => {
  const others = (list ?? []).filter((id) => id !== value);
  return holds ? [...others, asId<never>(value)] : others;
};

const dayOf = ({ met }: Wanted): string | null => (met === null ? null : String(met));

/** With one purchase of a product, or with none. */
function bought(
  member: VisitorFacts,
  { subject }: Wanted,
  on: string | null,
  state: Purchase['state'] = 'paid',
): VisitorFacts {
  const others = (member.purchases ?? []).filter(({ product }) => product !== subject);
  return {
    ...member,
    purchases: on === null ? others : [...others, { product: asId(subject), on, until: null, state }],
  };
}

/** The enrolments in a course that have begun and not ended. */
const enrolmentsIn = (course: string, { enrolments }: VisitorFacts, { today }: RequestFacts) =>
  enrolments?.filter((one) => one.course === course && isEnrolledOn(one, today)) ?? null;

function enrolled(member: VisitorFacts, { subject }: Wanted, on: string | null): VisitorFacts {
  const others = (member.enrolments ?? []).filter(({ course }) => course !== subject);
  const made = { course: asId<ItemId>(subject), on: on ?? '', until: null };
  return { ...member, enrolments: on === null ? others : [...others, made] };
}

function completed(
  member: VisitorFacts,
  { subject, today }: Wanted,
  made: Pick<Completion, 'score'> | null,
): VisitorFacts {
  const others = (member.completions ?? []).filter(({ item }) => item !== subject);
  return {
    ...member,
    completions: made === null ? others : [...others, { item: asId(subject), on: today, ...made }],
  };
}

/** What is the same of being done with an activity, a unit and a course. */
const COMPLETED = {
  read:
    (subject: string): Reader =>
    ({ completions }) =>
      completions === null ? null : isCompleted(completions, subject),
  assume: (member: VisitorFacts, wanted: Wanted): VisitorFacts =>
    completed(member, wanted, wanted.holds ? { score: null } : null),
};

export const visitorFacts = {
  'signed in': {
    label: 'Signed in',
    of: 'visitor',
    type: 'truth',
    read: () => (visitor) => visitor.signedIn,
  },
  level: {
    label: 'Level',
    of: 'visitor',
    type: 'rank',
    values: 'level',
    absent: 'no level',
    read:
      (_, { levels }) =>
      (visitor, _item, { today }) =>
        levelAt(visitor, today, levels),
  },
  group: {
    label: 'In group',
    phrase: 'in group',
    of: 'visitor',
    type: 'set',
    values: 'group',
    read:
      () =>
      (visitor, _item, { today }) =>
        groupsAt(visitor, today),
    assume: (member, wanted) => ({ ...member, groups: held(member.groups, wanted) }),
  },
  role: {
    label: 'Role',
    of: 'visitor',
    type: 'set',
    values: 'role',
    read:
      () =>
      (visitor, _item, { today }) =>
        rolesAt(visitor, today),
    assume: (member, wanted) => ({ ...member, roles: held(member.roles, wanted) }),
  },
  profile: {
    label: 'Profile field',
    of: 'visitor',
    type: null,
    subject: 'field',
    whose: true,
    absent: 'not filled in',
    read: (field) => (visitor) => {
      const value = visitor.profile?.[field];
      // What objects inherit are functions and objects, so these types are the profile's own; asking is quicker.
      return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean'
        ? value
        : null;
    },
    assume: (member, { subject, met }) => {
      const { [subject]: _, ...others } = member.profile ?? {};
      return { ...member, profile: met === null ? others : { ...others, [subject]: met } };
    },
  },
  owns: {
    label: 'Owns',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read: ofPurchases(running),
    assume: (member, wanted) => bought(member, wanted, wanted.holds ? wanted.today : null),
  },
  subscribed: {
    label: 'Active subscription to',
    phrase: 'subscribed to',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read: (product, { products }) => {
      const subscription = products.some(({ id, kind }) => id === product && kind === 'subscription');
      return ({ purchases }, _item, request) =>
        purchases === null ? null : subscription && purchases.some((one) => running(one, product, request));
    },
    assume: (member, wanted) => bought(member, wanted, wanted.holds ? wanted.today : null),
  },
  purchase: {
    label: 'Bought on',
    phrase: 'purchase of',
    of: 'visitor',
    type: 'date',
    subject: 'product',
    absent: 'not bought',
    read:
      (product) =>
      ({ purchases }) =>
        latest(
          (purchases ?? [])
            .filter((one) => one.product === product && one.state === 'paid')
            .map(({ on }) => on),
        ),
    assume: (member, wanted) => bought(member, wanted, dayOf(wanted)),
  },
  refunded: {
    label: 'Bought and was refunded',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read: ofPurchases((one, product) => one.product === product && one.state === 'refunded'),
    assume: (member, wanted) => bought(member, wanted, wanted.holds ? wanted.today : null, 'refunded'),
  },
  'ever owned': {
    label: 'Has ever owned',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read: ofPurchases((one, product, request) => one.product === product && wasHeld(one, request)),
    assume: (member, wanted) => bought(member, wanted, wanted.holds ? wanted.today : null),
  },
  ended: {
    label: 'Has no longer',
    phrase: 'no longer has',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read:
      (product) =>
      ({ purchases }, _item, request) => {
        if (purchases === null) return null;
        const theirs = purchases.filter((one) => one.product === product);
        return (
          theirs.some((one) => wasHeld(one, request)) && !theirs.some((one) => running(one, product, request))
        );
      },
  },
  late: {
    label: 'Is late in paying for',
    phrase: 'late in paying for',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read: ofPurchases(late),
  },
  trial: {
    label: 'On trial of',
    phrase: 'on trial of',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read: ofPurchases(
      (one, product, request) =>
        running(one, product, request) &&
        one.order?.trialUntil != null &&
        request.today <= one.order.trialUntil,
    ),
  },
  renewal: {
    label: 'Next renewal on',
    phrase: 'next renewal of',
    of: 'visitor',
    type: 'date',
    subject: 'product',
    whose: true,
    absent: 'none',
    read:
      (product) =>
      ({ purchases }, _item, request) =>
        latest(
          (purchases ?? []).flatMap((one) =>
            running(one, product, request) && one.order?.renews ? [one.order.renews] : [],
          ),
        ),
  },
  voucher: {
    label: 'Bought with a voucher',
    phrase: 'bought with a voucher',
    of: 'visitor',
    type: 'truth',
    subject: 'product',
    read: ofPurchases(
      (one, product) => one.product === product && one.state === 'paid' && one.order?.voucher === true,
    ),
  },
  joined: {
    label: 'Joined',
    of: 'visitor',
    type: 'date',
    read: () => (visitor) => visitor.joined,
    assume: (member, wanted) => ({ ...member, joined: dayOf(wanted) }),
  },
  enrolled: {
    label: 'Enrolled in',
    phrase: 'enrolled in',
    of: 'visitor',
    type: 'truth',
    subject: 'course',
    read: (course) => (visitor, _item, request) => {
      const running = enrolmentsIn(course, visitor, request);
      return running === null ? null : running.length > 0;
    },
    assume: (member, wanted) => enrolled(member, wanted, wanted.holds ? wanted.today : null),
  },
  enrolment: {
    label: 'Enrolled on',
    phrase: 'enrolment in',
    of: 'visitor',
    type: 'date',
    subject: 'course',
    absent: 'none',
    read: (course) => (visitor, _item, request) =>
      // Who is in it twice, by hand and through a group, is in it since the first.
      (enrolmentsIn(course, visitor, request) ?? []).map(({ on }) => on).toSorted()[0] ?? null,
    assume: (member, wanted) => enrolled(member, wanted, dayOf(wanted)),
  },
  completed: {
    label: 'Completed',
    of: 'visitor',
    type: 'truth',
    subject: 'activity',
    ...COMPLETED,
  },
  'completed unit': {
    label: 'Completed unit',
    of: 'visitor',
    type: 'truth',
    subject: 'unit',
    ...COMPLETED,
  },
  'completed course': {
    label: 'Completed course',
    of: 'visitor',
    type: 'truth',
    subject: 'course',
    ...COMPLETED,
  },
  score: {
    label: 'Score in',
    phrase: 'score in',
    of: 'visitor',
    type: 'number',
    subject: 'activity',
    whose: true,
    absent: 'none',
    read:
      (activity) =>
      ({ completions }) =>
        completions?.find((one) => one.item === activity)?.score ?? null,
    assume: (member, wanted) =>
      completed(member, wanted, typeof wanted.met === 'number' ? { score: wanted.met } : null),
  },
  person: {
    label: 'One person',
    of: 'visitor',
    type: 'text',
    private: true,
    read: () => (visitor) => visitor.email,
  },
  'mail domain': {
    label: 'Mail domain',
    of: 'visitor',
    type: 'text',
    whose: true,
    read:
      () =>
      ({ email }) =>
        email === null ? null : domainOf(email),
  },
  'desk right': {
    label: 'Right at the desk',
    of: 'visitor',
    type: 'choice',
    choices: DESK_RIGHTS,
    absent: 'none',
    // How the site is run is nobody's to read.
    private: true,
    read: () => (visitor) => visitor.desk,
  },
  passphrase: {
    label: 'Knows the passphrase',
    phrase: 'knows passphrase',
    of: 'visitor',
    type: 'set',
    values: 'passphrase',
    // Its name is the administrator's, like an audience's.
    private: true,
    session: true,
    read: () => (visitor) => visitor.passphrases,
    assume: (visitor, wanted) => ({ ...visitor, passphrases: held(visitor.passphrases, wanted) }),
  },
  share: {
    label: 'A stable share of members',
    of: 'visitor',
    type: 'share',
    private: true,
    read: () => (visitor) => visitor.share,
  },
} as const satisfies Record<string, FactEntry>;
