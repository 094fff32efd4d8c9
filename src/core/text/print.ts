/** Conditions as text. What is printed reads back to the same condition. */
import { factNamed, operatorOf, typeOf } from '../condition/catalogue';
import { isChoice } from '../condition/check';
import type { Condition, Test } from '../condition/condition';
import { listOf } from '../condition/operators';
import { type NameKind, nameOfId, type Vocabulary } from '../site/vocabulary';
import { resolveName } from './names';
import { bareOrQuoted, quoted } from './quote';

/** How things are called: by their names, or by ids, which survive a new name. */
export type Calling = 'by name' | 'by id';

/** The text of a condition. Names that are gone, or shared by two things, are printed by their id, and choices that are gone as that. */
export function printCondition(
  condition: Condition,
  vocabulary: Vocabulary,
  calling: Calling = 'by name',
): string {
  switch (condition.kind) {
    case 'all':
    case 'any': {
      const [first] = condition.of;
      if (!first) return condition.kind === 'all' ? 'everyone' : 'nobody';
      if (condition.of.length === 1)
        return `${condition.kind} of (${printCondition(first, vocabulary, calling)})`;
      const word = condition.kind === 'all' ? ' and ' : ' or ';
      return condition.of.map((part) => grouped(part, vocabulary, calling)).join(word);
    }
    case 'not':
      return `not ${grouped(condition.of, vocabulary, calling)}`;
    case 'audience':
      return `audience ${named('audience', condition.audience, vocabulary, quoted, calling)}`;
    case 'test':
      return printTest(condition, vocabulary, calling);
    default:
      return condition satisfies never;
  }
}

const grouped = (condition: Condition, vocabulary: Vocabulary, calling: Calling): string => {
  const text = printCondition(condition, vocabulary, calling);
  return (condition.kind === 'all' || condition.kind === 'any') && condition.of.length > 1
    ? `(${text})`
    : text;
};

function printTest(test: Test, vocabulary: Vocabulary, calling: Calling): string {
  const { phrase, subject } = factNamed(test.fact);
  const operator = operatorOf(test, vocabulary);
  const about =
    subject === null
      ? ''
      : subject === 'text'
        ? bareOrQuoted(test.subject ?? '')
        : named(
            subject,
            test.subject ?? '',
            vocabulary,
            subject === 'field' ? bareOrQuoted : quoted,
            calling,
          );
  const words = operator?.words ?? test.op;
  return [phrase, about, words, printValue(test, vocabulary, calling), operator?.suffix ?? '']
    .filter((part) => part !== '')
    .join(' ');
}

function printValue(test: Test, vocabulary: Vocabulary, calling: Calling): string {
  const { values } = factNamed(test.fact);
  const type = typeOf(test, vocabulary);
  const parts = listOf(test.value).map((one) => {
    if (values !== null) return named(values, String(one), vocabulary, quoted, calling);
    if (typeof one === 'number') return String(one);
    if (type === 'choice') return isChoice(test, one, vocabulary) ? quoted(one) : `gone ${quoted(one)}`;
    return type === 'date' || type === 'time' ? one : quoted(one);
  });
  return parts.join(operatorOf(test, vocabulary)?.takes === 'two' ? ' and ' : ', ');
}

/** A thing by its name if that leads back to it, else by its id. */
function named(
  kind: NameKind,
  id: string,
  vocabulary: Vocabulary,
  write: (name: string) => string,
  calling: Calling,
): string {
  const name = calling === 'by id' ? null : nameOfId(vocabulary, kind, id);
  return name !== null && resolveName(kind, name, vocabulary)?.id === id ? write(name) : `id ${quoted(id)}`;
}
