/** A visitor with one fact changed, so that a test comes out as wanted: for trying what would open something. */
import { type Fact, factNamed, listOf, type Test, typeOf } from '../condition';
import { addDays, type Day, isDay } from '../site/day';
import { type FieldValue, member, type VisitorFacts } from '../site/visitor';
import type { Vocabulary } from '../site/vocabulary';

export const canBeAssumed = (test: Test): boolean => factNamed(test.fact).assume !== null;

/**
 * The visitor with facts that make a test hold, or fail. A guest becomes a member for it, except for what their session
 * brings. Facts that nobody can change (what the browser says, the item) are left as they are.
 */
export function assume(
  visitor: VisitorFacts,
  test: Test,
  holds: boolean,
  today: Day,
  vocabulary: Vocabulary,
): VisitorFacts {
  const fact = factNamed(test.fact);
  const { session, assume: make } = fact;
  const facts = visitor.signedIn || session ? visitor : member({ passphrases: visitor.passphrases });
  return (
    make?.(facts, {
      subject: test.subject ?? '',
      value: String(test.value ?? ''),
      holds,
      met: hasOneValue(fact) ? witness(test, holds, today, vocabulary) : null,
      today,
    }) ?? facts
  );
}

/** Whether a fact has one value, of which several tests can ask something, rather than being a set or a yes or no. */
export const hasOneValue = ({ type }: Pick<Fact, 'type'>): boolean => type !== 'set' && type !== 'truth';

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
