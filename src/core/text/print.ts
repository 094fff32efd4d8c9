/** Conditions as text. What is printed reads back to the same condition. */
import { factNamed, operatorOf, typeOf } from '../condition/catalogue';
import { isChoice } from '../condition/check';
import type { Condition, Test } from '../condition/condition';
import { fold } from '../condition/fold';
import { listOf } from '../condition/operators';
import { type NameKind, nameOfId, type Vocabulary } from '../site/vocabulary';
import { resolveName } from './names';
import { bareOrQuoted, quoted } from './quote';

/** How things are called: by their names, or by ids, which survive a new name. */
export type Calling = 'by name' | 'by id';

/** The text of a condition. Names that are gone, or shared by two things, are printed by their id, and choices that are gone as that. */
export const printCondition = (
  condition: Condition,
  vocabulary: Vocabulary,
  calling: Calling = 'by name',
): string =>
  fold<string>(condition, {
    group: (texts, { kind, of }) => {
      const [first] = texts;
      if (first === undefined) return kind === 'all' ? 'everyone' : 'nobody';
      if (texts.length === 1) return `${kind} of (${first})`;
      const parts = of.map((part, at) => grouped(part, texts[at] ?? ''));
      return parts.join(kind === 'all' ? ' and ' : ' or ');
    },
    not: (text, { of }) => `not ${grouped(of, text)}`,
    audience: ({ audience }) => `audience ${named('audience', audience, vocabulary, quoted, calling)}`,
    test: (test) => printTest(test, vocabulary, calling),
  });

const grouped = (condition: Condition, text: string): string =>
  (condition.kind === 'all' || condition.kind === 'any') && condition.of.length > 1 ? `(${text})` : text;

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
