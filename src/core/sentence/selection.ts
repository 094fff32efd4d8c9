/** Selections as plain language: "posts in Night logs", "pages that are either tagged winter or by Ines Calloway". */
import { type Condition, listOf, type Test } from '../condition';
import { indefinite, listed } from '../english';
import { dayInWords, ITEM_KINDS, type ItemKind, isDay, KINDS, nameOfId, type Vocabulary } from '../site';
import { type Clause, type Leaf, nounPhrase, plain } from './compose';
import { inQuotes, inSentence, thingInSentence } from './words';

/** What a selection takes, as a noun phrase. */
export const describeSelection = (where: Condition, vocabulary: Vocabulary): string =>
  nounPhrase(plain(where), {
    everyone: 'everything',
    nobody: 'nothing',
    pronoun: 'that are',
    noun: kinds,
    anybody: () => 'items',
    impliedBy: () => false,
    clause: (leaf) => clause(leaf, vocabulary),
  });

const polarity = (leaf: Leaf): [Exclude<Leaf, { kind: 'not' }>, boolean] =>
  leaf.kind === 'not' ? [leaf.of, false] : [leaf, true];

/** "pages", "pages and posts", "everything but sections". With more said of it, only one kind is as clear. */
function kinds(leaf: Leaf, alone: boolean): string | null {
  const [test, holds] = polarity(leaf);
  if (test.kind === 'audience' || test.fact !== 'item kind') return null;
  const denied = (test.op === 'is not') === holds;
  if (!alone) return denied || listOf(test.value).length > 1 ? null : kindsOf(test, 'or');
  return `${denied ? 'everything but ' : ''}${kindsOf(test, 'and')}`;
}

const kindsOf = (test: Test, word: 'and' | 'or'): string =>
  listed(
    listOf(test.value).map((kind) => (isKind(kind) ? KINDS[kind].many : inQuotes(String(kind)))),
    word,
  );

const isKind = (kind: unknown): kind is ItemKind => (ITEM_KINDS as readonly unknown[]).includes(kind);

const bare = (text: string): Clause => ({ pronoun: 'that are', text, bare: true });

function clause(leaf: Leaf, vocabulary: Vocabulary): Clause {
  const [test, holds] = polarity(leaf);
  if (test.kind === 'audience') return bare(holds ? 'in an audience' : 'outside an audience');
  const there = (test.op === 'is set') === holds;
  const thing = test.fact.replace('item ', '');
  if (test.op === 'is set' || test.op === 'is not set')
    return bare(`${there ? 'with' : 'without'} ${indefinite(thing)}`);
  const denied = (test.op === 'is not') === holds ? 'not ' : '';
  const before = PLAIN[test.fact];
  if (before !== undefined && PLAIN_OPERATORS.includes(test.op))
    return bare(`${denied}${before} ${values(test, inSentence)}`);
  if (test.fact === 'item kind')
    return {
      pronoun: 'that are',
      text: `${denied && 'other than '}${kindsOf(test, 'or')}`,
      bare: denied !== '',
    };
  if (test.fact === 'item group') {
    const id = String(test.value);
    const the = nameOfId(vocabulary, 'group', id) === null ? '' : 'the group ';
    return bare(`${denied}of ${the}${thingInSentence(vocabulary, 'group', id)}`);
  }
  return { pronoun: 'whose', text: `${thing} ${compared(test, holds)}` };
}

const PLAIN: Readonly<Partial<Record<Test['fact'], string>>> = {
  'item category': 'in',
  'item tag': 'tagged',
  'item author': 'by',
  'item address': 'at',
};
const PLAIN_OPERATORS: readonly Test['op'][] = ['is', 'is not', 'one of', 'includes'];

/** What is said of a fact of an item: one without it is not before a day, nor does it contain anything. */
function compared(test: Test, holds: boolean): string {
  switch (test.op) {
    case 'contains':
      return `${holds ? 'contains' : 'does not contain'} ${values(test, inQuotes)}`;
    case 'starts with':
      return `${holds ? 'starts' : 'does not start'} with ${values(test, inQuotes)}`;
    case 'ends with':
      return `${holds ? 'ends' : 'does not end'} with ${values(test, inQuotes)}`;
    case 'before':
    case 'after':
    case 'between':
      return `${holds ? 'is' : 'is not'} ${test.op} ${values(test, inSentence)}`;
    default:
      return `${(test.op === 'is not') === holds ? 'is not' : 'is'} ${values(test, inSentence)}`;
  }
}

const values = (test: Test, shown: (text: string) => string): string =>
  listed(
    listOf(test.value).map((value) => (isDay(value) ? dayInWords(value) : shown(String(value)))),
    test.op === 'between' ? 'and' : 'or',
  );
