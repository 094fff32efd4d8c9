/** A visitor with one fact changed, so that a test comes out as wanted: for trying what would open something. */
import { factNamed, listOf, type Test, typeOf } from '../condition';
import { asId } from '../ids';
import { addDays, type Day, isDay } from '../site/day';
import { type FieldValue, member, type Purchase, type VisitorFacts } from '../site/visitor';
import type { Vocabulary } from '../site/vocabulary';

/** The facts of visitors that can come about: by joining, buying, filling in, learning. */
const CHANGEABLE = [
  'role',
  'group',
  'profile',
  'owns',
  'subscribed',
  'purchase',
  'refunded',
  'enrolled',
  'enrolment',
  'completed',
  'score',
  'passphrase',
  'joined',
] as const satisfies readonly Test['fact'][];

export const canBeAssumed = (test: Test): boolean => (CHANGEABLE as readonly string[]).includes(test.fact);

/**
 * The visitor with facts that make a test hold, or fail. A guest becomes a member for it, except to learn a passphrase.
 * Facts that nobody can change (what the browser says, the item) are left as they are.
 */
export function assume(
  visitor: VisitorFacts,
  test: Test,
  holds: boolean,
  today: Day,
  vocabulary: Vocabulary,
): VisitorFacts {
  const value = String(test.value ?? '');
  if (test.fact === 'passphrase')
    return { ...visitor, passphrases: changed(visitor.passphrases, asId(value), holds) };
  const facts = visitor.signedIn ? visitor : member({ passphrases: visitor.passphrases });
  const subject = test.subject ?? '';
  switch (test.fact) {
    case 'role':
      return { ...facts, roles: changed(facts.roles ?? [], asId(value), holds) };
    case 'group':
      return { ...facts, groups: changed(facts.groups ?? [], asId(value), holds) };
    case 'profile': {
      const { [subject]: _, ...others } = facts.profile ?? {};
      const met = witness(test, holds, today, vocabulary);
      return { ...facts, profile: met === null ? others : { ...others, [subject]: met } };
    }
    case 'owns':
    case 'subscribed':
      return withPurchase(facts, subject, holds ? { on: today, until: null, state: 'paid' } : null);
    case 'refunded':
      return withPurchase(facts, subject, holds ? { on: today, until: null, state: 'refunded' } : null);
    case 'purchase': {
      const on = witness(test, holds, today, vocabulary);
      return withPurchase(
        facts,
        subject,
        on === null ? null : { on: String(on), until: null, state: 'paid' },
      );
    }
    case 'joined': {
      const on = witness(test, holds, today, vocabulary);
      return { ...facts, joined: on === null ? null : String(on) };
    }
    case 'enrolled':
    case 'enrolment': {
      const on = test.fact === 'enrolled' ? (holds ? today : null) : witness(test, holds, today, vocabulary);
      const others = (facts.enrolments ?? []).filter(({ course }) => course !== subject);
      return {
        ...facts,
        enrolments: on === null ? others : [...others, { course: asId(subject), on: String(on) }],
      };
    }
    case 'completed':
    case 'score': {
      const others = (facts.completions ?? []).filter(({ activity }) => activity !== subject);
      const score = test.fact === 'score' ? witness(test, holds, today, vocabulary) : null;
      if (test.fact === 'completed' ? !holds : score === null) return { ...facts, completions: others };
      const made = { activity: asId<(typeof others)[number]['activity']>(subject), on: today };
      return {
        ...facts,
        completions: [...others, { ...made, score: typeof score === 'number' ? score : null }],
      };
    }
    default:
      return facts;
  }
}

const changed = <T extends string>(held: readonly T[], one: T, holds: boolean): readonly T[] =>
  holds ? [...held.filter((id) => id !== one), one] : held.filter((id) => id !== one);

function withPurchase(
  facts: VisitorFacts,
  product: string,
  purchase: Omit<Purchase, 'product'> | null,
): VisitorFacts {
  const others = (facts.purchases ?? []).filter((one) => one.product !== product);
  return {
    ...facts,
    purchases: purchase === null ? others : [...others, { product: asId(product), ...purchase }],
  };
}

/** A value that makes a comparison hold, or fail; null for none at all. */
function witness(test: Test, holds: boolean, today: Day, vocabulary: Vocabulary): FieldValue | null {
  const type = typeOf(test, vocabulary) ?? factNamed(test.fact).type;
  const [first, second = first] = listOf(test.value);
  if (test.op === 'is set' || test.op === 'is not set')
    return (test.op === 'is set') === holds ? anything(test, vocabulary, today) : null;
  if (type === 'yes/no') return (test.op === 'is yes') === holds;
  if (type === 'number') {
    const [from, to] = [Number(first), Number(second)];
    const inside = { 'at least': from, 'at most': from, is: from, between: from }[test.op as 'is'];
    if (test.op === 'is not') return holds ? from + 1 : from;
    if (holds) return inside ?? from;
    return test.op === 'at least' || test.op === 'between'
      ? from - 1
      : test.op === 'at most'
        ? from + 1
        : to + 1;
  }
  if (type === 'date') {
    const day = isDay(first) ? first : today;
    const count = typeof first === 'number' ? first : 0;
    const [yes, no] = {
      is: [day, addDays(day, 1)],
      before: [addDays(day, -1), day],
      after: [addDays(day, 1), day],
      between: [day, addDays(day, -1)],
      'within the last': [today, addDays(today, -(count + 1))],
      'within the next': [today, addDays(today, count + 1)],
      'at least ago': [addDays(today, -count), addDays(today, 1 - count)],
    }[test.op as 'is'] ?? [day, day];
    return (holds ? yes : no) ?? null;
  }
  const text = String(first);
  const choices =
    test.fact === 'profile' ? vocabulary.fields.find(({ id }) => id === test.subject)?.choices : [];
  const given = listOf(test.value);
  // A text of one sign contains, begins or ends with no other text than itself.
  const other = [...(choices ?? []), '–', '+', '·', '='].find((one) => !given.includes(one)) ?? '';
  return (test.op === 'is not') === holds ? other : text;
}

function anything(test: Test, vocabulary: Vocabulary, today: Day): FieldValue {
  const field = vocabulary.fields.find(({ id }) => id === test.subject);
  switch (typeOf(test, vocabulary)) {
    case 'yes/no':
      return true;
    case 'number':
      return 0;
    case 'date':
      return today;
    default:
      return field?.choices[0] ?? 'something';
  }
}
