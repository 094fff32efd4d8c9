/**
 * Reading the text form: a recursive descent that looks ahead no further than the longest phrase, so that it takes time in
 * proportion to the text. The grammar is in docs/conditions.md. At the place it got furthest it knows everything that
 * could stand there; errors and completion are both made of that.
 */
import { catalogue, choicesFor, factNamed, operatorsFor, typeOf } from '../condition/catalogue';
import { DEEPEST, LONGEST_CONDITION, MOST_TESTS, problemOf } from '../condition/check';
import type { Condition, Test, TestValue } from '../condition/condition';
import { foldCase } from '../condition/folding';
import { type Operator, TODAY } from '../condition/operators';
import { asId } from '../ids';
import { type NameKind, namesOf, type Vocabulary } from '../site/vocabulary';
import { nearest, resolveName } from './names';
import { bareOrQuoted, isReserved, quoted } from './quote';
import { type Token, tokensOf } from './tokens';

/** Something that could stand at a place. */
export interface CouldStand {
  /** How it is written; empty for what only the author knows (a number, a text). */
  readonly insert: string;
  /** What it is: itself in quotes, or "a number". */
  readonly label: string;
}

/** Why a text can’t be read. */
export interface TextError {
  /** What is wrong and how to mend it, in one or two sentences. */
  readonly message: string;
  /** Counted from 1, in lines and in characters. */
  readonly line: number;
  readonly column: number;
  /** Where it is in the text, in UTF-16 units. */
  readonly from: number;
  readonly to: number;
  /** What stands there; empty at the end of the text. */
  readonly found: string;
  readonly expected: readonly CouldStand[];
}

export type ParsedCondition =
  | { readonly ok: true; readonly condition: Condition }
  | { readonly ok: false; readonly error: TextError };

/** Reads a condition. Names are looked up in the vocabulary, whatever their case. */
export function parseCondition(text: string, vocabulary: Vocabulary): ParsedCondition {
  if (text.length > LONGEST_CONDITION) {
    const message = `That is ${text.length} characters long; a condition has at most ${LONGEST_CONDITION}. Give parts of it names as audiences.`;
    return { ok: false, error: { message, ...place(text, 0), from: 0, to: 0, found: '', expected: [] } };
  }
  const read = reading(text, vocabulary, (reader) => {
    const condition = reader.condition();
    reader.end();
    return condition;
  });
  return 'error' in read ? { ok: false, error: read.error } : { ok: true, condition: read.value };
}

/** Reads a text with a descent of one's own, or says where it went wrong. */
export function reading<T>(
  text: string,
  vocabulary: Vocabulary,
  read: (reader: TextReader) => T,
): { readonly value: T } | { readonly error: TextError } {
  try {
    return { value: read(readerOf(tokensOf(text), vocabulary)) };
  } catch (thrown) {
    if (!(thrown instanceof Refusal)) throw thrown;
    const { token, message, expected } = thrown;
    const { from, to, raw } = token;
    return { error: { message, ...place(text, from), from, to, found: raw, expected } };
  }
}

/** Thrown while reading only, so that the descent need not carry errors upwards by hand. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly token: Token,
    readonly expected: readonly CouldStand[] = [],
  ) {
    super(message);
  }
}

function place(text: string, offset: number): { readonly line: number; readonly column: number } {
  const before = text.slice(0, offset);
  const start = before.lastIndexOf('\n') + 1;
  return { line: before.split('\n').length, column: [...before.slice(start)].length + 1 };
}

export const exactly = (text: string): CouldStand => ({
  insert: text,
  label: text.startsWith('"') ? text : `“${text}”`,
});

export interface Phrase<T> {
  readonly words: readonly string[];
  readonly means: T;
}

export const phrase = <T>(words: string, means: T): Phrase<T> => ({
  words: words === '' ? [] : words.split(' '),
  means,
});

type Beginning =
  | { readonly kind: 'fact'; readonly fact: (typeof catalogue)[number] }
  | { readonly kind: 'everyone' | 'nobody' | 'audience' | 'not' | 'all of' | 'any of' };

const BEGINNINGS: readonly Phrase<Beginning>[] = [
  ...catalogue.map((fact) => phrase<Beginning>(fact.phrase, { kind: 'fact', fact })),
  ...(['not', 'audience', 'everyone', 'nobody', 'all of', 'any of'] as const).map((words) =>
    phrase<Beginning>(words, { kind: words }),
  ),
];

function readerOf(tokens: readonly Token[], vocabulary: Vocabulary) {
  let at = 0;
  let tests = 0;
  let furthest = 0;
  // Worked out only if something is wrong: a site may have thousands of names.
  let expected: (() => readonly CouldStand[])[] = [];

  const end = tokens.at(-1) as Token;
  const token = (ahead = 0): Token => tokens[at + ahead] ?? end;
  /** Notes what could have stood at a place. */
  const note = (ahead: number, could: () => readonly CouldStand[]): void => {
    const where = at + ahead;
    if (where > furthest) {
      furthest = where;
      expected = [];
    }
    if (where === furthest) expected.push(could);
  };
  const refuse = (): never => {
    const found = tokens[furthest] ?? end;
    const all = expected.flatMap((one) => one());
    const could = [...new Map(all.map((one) => [one.label, one])).values()];
    throw new Refusal(found.problem ?? unexpected(found, could), found, could);
  };
  const isWord = (word: string, ahead = 0): boolean =>
    token(ahead).kind === 'word' && token(ahead).value === word;
  const isMark = (mark: string): boolean => token().kind === 'mark' && token().value === mark;

  /** Takes the longest of some phrases that stands here. */
  const take = <T>(phrases: readonly Phrase<T>[]): T | null => {
    let best: Phrase<T> | null = null;
    let deepest = -1;
    const matchedOf = ({ words }: Phrase<T>): number => {
      let matched = 0;
      while (matched < words.length && isWord(words[matched] ?? '', matched)) matched += 1;
      return matched;
    };
    for (const one of phrases) {
      const matched = matchedOf(one);
      if (matched < one.words.length) deepest = Math.max(deepest, matched);
      else if (best === null || one.words.length > best.words.length) best = one;
    }
    if (deepest >= 0) {
      const start = at;
      note(deepest, () => unfinished(phrases, tokens, start, deepest));
    }
    if (best === null) return null;
    at += best.words.length;
    return best.means;
  };
  const takeWord = (word: string): boolean => take([phrase(word, true)]) ?? false;
  const takeMark = (mark: string): boolean => {
    if (!isMark(mark)) {
      note(0, () => [exactly(mark)]);
      return false;
    }
    at += 1;
    return true;
  };

  const joined = (word: 'or' | 'and', depth: number): Condition => {
    if (depth > DEEPEST) {
      throw new Refusal(
        `Groups are nested more than ${DEEPEST} deep here. Take some apart, or give a part a name as an audience.`,
        token(),
      );
    }
    const next = () => (word === 'or' ? joined('and', depth) : single(depth));
    const parts = [next()];
    while (takeWord(word)) parts.push(next());
    const [only] = parts;
    if (parts.length === 1 && only) return only;
    return { kind: word === 'or' ? 'any' : 'all', of: parts };
  };

  const inside = (depth: number): Condition => {
    if (!takeMark('(')) refuse();
    const condition = joined('or', depth + 1);
    if (!takeMark(')')) refuse();
    return condition;
  };

  const single = (depth: number): Condition => {
    if (isMark('(')) return inside(depth);
    note(0, () => [exactly('(')]);
    const beginning = take(BEGINNINGS);
    switch (beginning?.kind) {
      case undefined:
        return refuse();
      case 'everyone':
        return { kind: 'all', of: [] };
      case 'nobody':
        return { kind: 'any', of: [] };
      case 'not': {
        // Depth is counted here as well: a chain of nots is a nest too.
        if (depth >= DEEPEST) joined('or', DEEPEST + 1);
        return { kind: 'not', of: single(depth + 1) };
      }
      case 'all of':
        return { kind: 'all', of: [inside(depth)] };
      case 'any of':
        return { kind: 'any', of: [inside(depth)] };
      case 'audience':
        return { kind: 'audience', audience: asId(name('audience')) };
      case 'fact':
        return test(beginning.fact);
      default:
        return beginning satisfies never;
    }
  };

  const test = (fact: (typeof catalogue)[number]): Test => {
    const start = token(-1);
    tests += 1;
    if (tests > MOST_TESTS) {
      throw new Refusal(
        `A condition has at most ${MOST_TESTS} tests. Give parts of it names as audiences.`,
        start,
      );
    }
    const subject = fact.subject === null ? undefined : fact.subject === 'text' ? text() : name(fact.subject);
    const begun = { fact: fact.name, ...(subject !== undefined && { subject }) };
    const operators = operatorsFor(begun, vocabulary);
    const chosen = take(operators.map((operator) => phrase(operator.words, operator)));
    if (chosen === null) return refuse();
    const valueAt = token();
    const [value, operator] = valueBehind(begun, chosen, operators);
    const made: Test = {
      kind: 'test',
      ...begun,
      op: operator.op,
      ...(value !== undefined && { value }),
    };
    // Names were looked up already, and a name that is gone is printed and read by its id.
    const wrong = problemOf(made, vocabulary);
    if (wrong !== null && !wrong.gone) throw new Refusal(wrong.message, valueAt);
    return made;
  };

  const valueBehind = (
    begun: Pick<Test, 'fact' | 'subject'>,
    chosen: Operator,
    operators: readonly Operator[],
  ): readonly [TestValue | undefined, Operator] => {
    const alike = operators.filter(({ words }) => words === chosen.words);
    switch (chosen.takes) {
      case 'nothing':
        return [undefined, chosen];
      case 'several': {
        const several = [one(begun)];
        while (takeMark(',')) several.push(one(begun));
        return [several as readonly string[], chosen];
      }
      case 'two': {
        const first = one(begun);
        if (!takeWord('and')) refuse();
        return [[first, one(begun)] as readonly string[], chosen];
      }
      case 'one':
      case 'days': {
        // "at least 5" and "at least 5 days ago" begin alike; what stands behind the number tells.
        const alone = alike.some(({ suffix }) => suffix === undefined);
        const value = alone ? one(begun) : number();
        const suffixes = alike.flatMap((each) =>
          each.suffix === undefined ? [] : [phrase(each.suffix, each)],
        );
        const counted = typeof value === 'number' ? take(suffixes) : null;
        if (counted !== null) return [value, counted];
        if (!alone) refuse();
        return [value, alike.find(({ suffix }) => suffix === undefined) ?? chosen];
      }
      default:
        return chosen.takes satisfies never;
    }
  };

  /** One value of the kind that a fact compares with. */
  const one = (begun: Pick<Test, 'fact' | 'subject'>): string | number => {
    const { values } = factNamed(begun.fact);
    if (values !== null) return name(values);
    const type = typeOf(begun, vocabulary);
    switch (type) {
      case 'number':
      case 'share':
        return number();
      case 'date': {
        note(0, () => [exactly(TODAY), { insert: '', label: 'a day like 2026-12-01' }]);
        if (!isWord(TODAY) && token().kind !== 'day') refuse();
        at += 1;
        return token(-1).value;
      }
      case 'time': {
        note(0, () => [{ insert: '', label: 'a time like 18:30' }]);
        if (token().kind !== 'time') refuse();
        at += 1;
        return token(-1).value;
      }
      case 'choice': {
        const choices = choicesFor(begun, vocabulary);
        note(0, () => choices.map((choice) => exactly(quoted(choice))));
        // One that is gone is printed and read as that.
        if (isWord('gone') && token(1).kind === 'quoted') {
          at += 2;
          return token(-1).value;
        }
        const given = text(choices.length > 0);
        const found = choices.find((choice) => foldCase(choice) === foldCase(given));
        if (found === undefined) throw unknownName('choice', given, choices, token(-1));
        return found;
      }
      case null:
        if (token().kind === 'number') return number();
        if (token().kind === 'day') {
          at += 1;
          return token(-1).value;
        }
        return text();
      default:
        return text();
    }
  };

  const number = (): number => {
    note(0, () => [{ insert: '', label: 'a number' }]);
    if (token().kind !== 'number') refuse();
    at += 1;
    return Number(token(-1).value);
  };

  const text = (noted = false): string => {
    if (!noted) note(0, () => [{ insert: '', label: 'a text in quotes' }]);
    const { kind, value, raw } = token();
    if (kind !== 'quoted' && (kind !== 'word' || isReserved(value))) refuse();
    at += 1;
    return kind === 'quoted' ? value : raw;
  };

  /** A thing of a kind, by its name or by `id "…"`; answers its id. */
  const name = (kind: NameKind): string => {
    const write = kind === 'field' ? bareOrQuoted : quoted;
    const known = () => namesOf(vocabulary, kind).map((each) => each.name);
    note(0, () => {
      const names = known();
      return names.length > 0
        ? names.map((each) => exactly(write(each)))
        : [{ insert: '', label: `the name of ${article(kind)} (there is none yet)` }];
    });
    if (isWord('id') && token(1).kind === 'quoted') {
      at += 2;
      return token(-1).value;
    }
    const { kind: shape, value, raw } = token();
    if (shape !== 'quoted' && (shape !== 'word' || isReserved(value))) refuse();
    const given = shape === 'quoted' ? value : raw;
    const found = resolveName(kind, given, vocabulary);
    if (!found) throw unknownName(kind, given, known(), token());
    at += 1;
    return found.id;
  };

  const unknownName = (kind: string, given: string, names: readonly string[], where: Token): Refusal => {
    const near = nearest(given, names);
    const hint =
      near !== null
        ? ` Did you mean “${near}”?`
        : names.length > 0
          ? ` There ${names.length === 1 ? 'is' : 'are'} ${shortList(names.map((each) => `“${each}”`))}.`
          : '';
    const could = near === null ? names : [near, ...names.filter((each) => each !== near)];
    return new Refusal(
      `There is no ${kind} called “${given}”.${hint}`,
      where,
      could.map((each) => exactly(quoted(each))),
    );
  };

  return {
    /** A condition, as far as it goes. */
    condition: () => joined('or', 0),
    /** Nothing stands behind. */
    end: () => {
      if (token().kind !== 'end') refuse();
    },
    /** The longest of some phrases, if one stands here. */
    take,
    takeMark,
    /** What stands here, and what does so many tokens behind. */
    token,
    /** Goes on behind so many tokens. */
    skip: (count: number) => {
      at += count;
    },
    note,
    refuse,
  };
}

export type TextReader = ReturnType<typeof readerOf>;

/** What is left of the phrases that begin like what stands at a place, and go on otherwise. */
function unfinished(
  phrases: readonly Phrase<unknown>[],
  tokens: readonly Token[],
  start: number,
  matched: number,
): readonly CouldStand[] {
  const begins = ({ words }: Phrase<unknown>) =>
    words.length > matched &&
    words.slice(0, matched).every((word, ahead) => tokens[start + ahead]?.value === word);
  return phrases.filter(begins).map(({ words }) => exactly(words.slice(matched).join(' ')));
}

const article = (kind: string): string => `${/^[aeiou]/.test(kind) ? 'an' : 'a'} ${kind}`;

function unexpected(found: Token, expected: readonly CouldStand[]): string {
  const words = expected.map(({ label }) => label);
  const near =
    found.kind === 'word'
      ? nearest(
          found.value,
          expected.flatMap(({ insert }) => (insert === '' ? [] : [insert])),
        )
      : null;
  const what = found.kind === 'end' ? 'The text ends too early.' : `“${found.raw}” can’t stand here.`;
  if (near !== null) return `${what} Did you mean “${near}”?`;
  return words.length === 0 ? what : `${what} Here could stand ${shortList(words)}.`;
}

const MOST_LISTED = 8;

function shortList(words: readonly string[]): string {
  const shown = words.slice(0, MOST_LISTED);
  const rest = words.length - shown.length;
  if (rest > 0) return `${shown.join(', ')} or ${rest} more`;
  return shown.length < 2 ? (shown[0] ?? '') : `${shown.slice(0, -1).join(', ')} or ${shown.at(-1)}`;
}
