/**
 * Own words: places in a text that show a fact of whoever reads it, with what stands there when that is not known.
 *
 *     Good evening, :own[name]{or="friend"}. Your pass is good until :own[until "Observer pass"].
 *
 * Written in the manner of inline directives. What they can show is what the catalogue knows as one value of a visitor, and
 * three things that no condition asks for. Private fields and facts are never among it.
 */
import { catalogue, type Fact } from '../condition/catalogue';
import { english, type Messages } from '../messages/english';
import { isDay } from '../site/day';
import { fieldValueProblem } from '../site/field-value';
import type { RequestFacts } from '../site/request';
import type { FieldValue, VisitorFacts } from '../site/visitor';
import { type NameKind, nameOfId, namesOf, type Vocabulary } from '../site/vocabulary';
import type { Completions } from './complete';
import { nearest, resolveName } from './names';
import type { Calling } from './print';
import { bareOrQuoted, quoted } from './quote';
import type { RegionProblem } from './regions';
import { type Token, tokensOf } from './tokens';

/** Whoever reads a text. */
export interface Reader {
  readonly name: string;
  readonly facts: VisitorFacts;
}

/** Something of a reader that a text can show. */
interface Own {
  /** How it is written. */
  readonly phrase: string;
  /** What it is of, where that needs saying. */
  readonly of: NameKind | null;
  readonly value: (
    subject: string,
    reader: Reader,
    vocabulary: Vocabulary,
    request: RequestFacts,
  ) => FieldValue | null;
}

const SINGLE: readonly (Fact['type'] | null)[] = ['rank', 'text', 'number', 'date', null];

/** What a catalogue's fact says of a reader, in words or as a value. */
const ofFact = ({ phrase, subject, values, read }: Fact): Own => ({
  phrase,
  of: subject === 'text' ? null : subject,
  value: (about, { facts }, vocabulary, request) => {
    const met = read(about, vocabulary)(facts, null, request);
    if (met === null || typeof met === 'object') return null;
    return values === null ? met : nameOfId(vocabulary, values, String(met));
  },
});

/** The last day until which something is theirs; null where it does not end, or is not. */
const lastDay = (product: string, { facts }: Reader): string | null =>
  (facts.purchases ?? [])
    .flatMap((one) => (one.product === product && one.state === 'paid' && one.until ? [one.until] : []))
    .toSorted()
    .at(-1) ?? null;

/** Everything that a text can show of its reader, in the order in which it is offered. */
export const OWN_WORDS: readonly Own[] = [
  { phrase: 'name', of: null, value: (_, { name }) => name },
  { phrase: 'mail', of: null, value: (_, { facts }) => facts.email },
  ...catalogue
    .filter((fact) => fact.of === 'visitor' && !fact.private && !fact.session && SINGLE.includes(fact.type))
    .map(ofFact),
  { phrase: 'until', of: 'product', value: lastDay },
];

/** An own word in a text. */
export interface OwnWord {
  readonly own: Own;
  /** The id of what it is of; empty for what is of nothing. */
  readonly subject: string;
  /** What stands there when it is not known, as plain text. */
  readonly or: string;
}

/** A place in a text that looks like an own word: what it means, or what is wrong with it. */
type Found = { readonly from: number; readonly to: number; readonly tail: string } & (
  | { readonly word: OwnWord }
  | { readonly wrong: string; readonly at: number }
);

// Bounded, so that a line of beginnings takes no longer than one of letters. A name has at most 200 letters.
const QUOTED = String.raw`"((?:[^"\\\n]|\\["\\]){0,200})"`;
const INSIDE = String.raw`(?:[^\]"\\\n]|${QUOTED.replace('((', '(?:(')}){0,300}`;
const OR = String.raw`\{or=${QUOTED}\}`;

/** Where own words stand in a text. One behind a backslash is none. */
const PLACES = new RegExp(String.raw`(?<!\\):own\[(?:(${INSIDE})\](?:${OR}|(?!\{))|)`, 'g');

/** Whether a text shows something of its reader. */
export const hasOwnWords = (text: string): boolean => text.includes(':own[') && text.search(PLACES) >= 0;

/** The text with every own word replaced; `at` counts them. */
export const replaceOwnWords = (
  text: string,
  by: (at: number, source: string, or: string) => string,
): string => {
  if (!text.includes(':own[')) return text;
  let at = 0;
  return text.replace(PLACES, (source: string, _inside: string | undefined, or: string | undefined) =>
    by(at++, source, unescaped(or ?? '')),
  );
};

const UNENDED =
  'An own word is written like :own[name] or :own[name]{or="friend"}, on one line and with at most 200 letters in quotes. This one does not end so.';

const unescaped = (text: string): string => text.replace(/\\(["\\])/g, '$1');

function* foundIn(text: string, vocabulary: Vocabulary): Generator<Found> {
  if (!text.includes(':own[')) return;
  for (const { 0: source, 1: inside, 2: or = '', index: from } of text.matchAll(PLACES)) {
    const tail = inside === undefined ? '' : source.slice(`:own[${inside}]`.length);
    const place = { from, to: from + source.length, tail };
    if (inside === undefined) yield { ...place, at: from, wrong: UNENDED };
    else {
      const read = readInside(inside, vocabulary);
      yield 'wrong' in read
        ? { ...place, wrong: read.wrong, at: from + ':own['.length + read.at }
        : { ...place, word: { ...read, or: unescaped(or) } };
    }
  }
}

/** The own words of a text, in order; null for what is wrong, which shows nothing to anybody. */
export const ownWordsIn = (text: string, vocabulary: Vocabulary): readonly (OwnWord | null)[] =>
  [...foundIn(text, vocabulary)].map((found) => ('word' in found ? found.word : null));

const BY_ID = new RegExp(String.raw`^(.+?) id ${QUOTED}\s*$`);

/** What the own words of a text name, as "kind id"; those that are kept by ids, whether there is such a thing or not. */
export const namedInOwnWords = (text: string): readonly string[] =>
  text.includes(':own[')
    ? [...text.matchAll(PLACES)].flatMap(([, inside = '']) => {
        const [, phrase, id] = BY_ID.exec(inside.trim()) ?? [];
        const of = OWN_WORDS.find((own) => own.phrase === phrase)?.of ?? null;
        return of === null || id === undefined ? [] : [`${of} ${unescaped(id)}`];
      })
    : [];

/** What is wrong with the first own word that can't be read, and where; null when all can. */
export function ownWordProblem(text: string, vocabulary: Vocabulary): RegionProblem | null {
  for (const found of foundIn(text, vocabulary)) {
    if ('word' in found) continue;
    const before = text.slice(0, found.at).split('\n');
    return { line: before.length, column: [...(before.at(-1) ?? '')].length + 1, message: found.wrong };
  }
  return null;
}

/** The same text with its own words written anew: by ids, which is how they are kept, or by the names of the day. */
export function renameOwnWords(text: string, vocabulary: Vocabulary, calling: Calling): string {
  let renamed = '';
  let end = 0;
  for (const found of foundIn(text, vocabulary)) {
    if (!('word' in found) || found.word.own.of === null) continue;
    const { own, subject } = found.word;
    const name = called(found.word.own.of, subject, vocabulary, calling);
    renamed += `${text.slice(end, found.from)}:own[${own.phrase} ${name}]${found.tail}`;
    end = found.to;
  }
  return renamed + text.slice(end);
}

function called(kind: NameKind, id: string, vocabulary: Vocabulary, calling: Calling): string {
  const name = calling === 'by id' ? null : nameOfId(vocabulary, kind, id);
  if (name === null || resolveName(kind, name, vocabulary)?.id !== id) return `id ${quoted(id)}`;
  return kind === 'field' ? bareOrQuoted(name) : quoted(name);
}

/** What an own word shows to a reader; null where it is not known, or not to be told any more. */
export function ownValue(
  { own, subject }: OwnWord,
  reader: Reader,
  vocabulary: Vocabulary,
  request: RequestFacts,
  messages: Messages = english,
): string | null {
  if (own.of === 'field' && problemOfField(subject, vocabulary) !== null) return null;
  const value = own.value(subject, reader, vocabulary, request);
  if (value === null || value === '') return null;
  if (own.of === 'field') {
    const field = vocabulary.fields.find(({ id }) => id === subject);
    if (!field || fieldValueProblem(field, value) !== null) return null;
    if (field.type !== 'date') return inWords(value, messages);
  }
  return isDay(value) ? messages.day(value) : inWords(value, messages);
}

const inWords = (value: FieldValue, { account, number }: Messages): string =>
  typeof value === 'boolean'
    ? value
      ? account.yes
      : account.no
    : typeof value === 'number'
      ? number(value)
      : value;

function problemOfField(id: string, { fields }: Vocabulary): string | null {
  const field = fields.find((one) => one.id === id);
  if (!field) return 'This profile field no longer exists. Choose another, or take this out.';
  return field.private
    ? `“${field.name}” is a private field, and those are never shown on the site. Take this out, or make the field public under Names.`
    : null;
}

type Inside =
  | { readonly own: Own; readonly subject: string }
  | { readonly wrong: string; readonly at: number };

function readInside(inside: string, vocabulary: Vocabulary): Inside {
  const tokens = tokensOf(inside);
  const [first = tokens.at(-1) as Token] = tokens;
  const own = OWN_WORDS.filter(({ phrase }) =>
    phrase.split(' ').every((word, at) => tokens[at]?.kind === 'word' && tokens[at]?.value === word),
  ).toSorted((a, b) => b.phrase.length - a.phrase.length)[0];
  if (!own) return { wrong: unknownPhrase(inside), at: first.from };
  const [named, behind, last] = tokens.slice(own.phrase.split(' ').length);
  if (own.of === null)
    return named?.kind === 'end'
      ? { own, subject: '' }
      : { wrong: `Nothing stands behind “${own.phrase}” but the bracket.`, at: named?.from ?? 0 };
  if (!named || (named.kind !== 'quoted' && named.kind !== 'word'))
    return { wrong: `Say of which ${own.of}: ${choices(own.of, vocabulary)}.`, at: named?.from ?? 0 };
  const byId = named.kind === 'word' && named.value === 'id' && behind?.kind === 'quoted';
  const [after, id] = byId ? [last, behind.value] : [behind, idOf(own.of, named, vocabulary)];
  if (id === null) {
    const near = nearest(named.value, offered(own.of, vocabulary));
    const hint =
      near === null ? `There could stand ${choices(own.of, vocabulary)}.` : `Did you mean “${near}”?`;
    return { wrong: `There is no ${own.of} called “${named.value}”. ${hint}`, at: named.from };
  }
  if (after?.kind !== 'end')
    return {
      wrong: 'Nothing stands behind the name but the bracket. Put names in straight quotes.',
      at: after?.from ?? 0,
    };
  if (nameOfId(vocabulary, own.of, id) === null)
    return { wrong: `This ${own.of} no longer exists. Choose another, or take this out.`, at: named.from };
  const closed = own.of === 'field' ? problemOfField(id, vocabulary) : null;
  return closed === null ? { own, subject: id } : { wrong: closed, at: named.from };
}

const idOf = (kind: NameKind, { kind: shape, value, raw }: Token, vocabulary: Vocabulary): string | null =>
  resolveName(kind, shape === 'quoted' ? value : raw, vocabulary)?.id ?? null;

const MOST_LISTED = 8;

function choices(kind: NameKind, vocabulary: Vocabulary): string {
  const names = offered(kind, vocabulary);
  const shown = names.slice(0, MOST_LISTED).map((name) => `“${name}”`);
  const rest = names.length - shown.length;
  if (shown.length === 0) return `there is none yet that could be shown`;
  return shown.join(', ') + (rest > 0 ? ` or ${rest} more` : '');
}

function unknownPhrase(inside: string): string {
  const phrases = OWN_WORDS.map(({ phrase }) => phrase);
  const near = nearest(inside.trim(), phrases);
  const what =
    inside.trim() === ''
      ? 'Say what to show.'
      : `“${inside.trim().slice(0, 40)}” is nothing that can be shown.`;
  return near === null
    ? `${what} There could stand ${phrases.join(', ')}.`
    : `${what} Did you mean “${near}”?`;
}

/** The names of a kind of which something can be shown. */
const offered = (kind: NameKind, vocabulary: Vocabulary): readonly string[] =>
  kind === 'field'
    ? vocabulary.fields.filter((field) => !field.private).map(({ name }) => name)
    : namesOf(vocabulary, kind).map(({ name }) => name);

const LONGEST_INSIDE = 500;

/** Everything that can stand between the brackets, written out. */
export const ownWordChoices = (vocabulary: Vocabulary): readonly string[] =>
  OWN_WORDS.flatMap(({ phrase, of }) =>
    of === null
      ? [phrase]
      : offered(of, vocabulary).map(
          (name) => `${phrase} ${of === 'field' ? bareOrQuoted(name) : quoted(name)}`,
        ),
  );

/** What could be written where the cursor stands within an own word, with the bracket that ends it; null outside of one. */
export function ownCompletionsAt(text: string, cursor: number, vocabulary: Vocabulary): Completions | null {
  const begun = /(?<!\\):own\[([^\]\n]*)$/.exec(
    text.slice(Math.max(0, cursor - LONGEST_INSIDE), cursor),
  )?.[1];
  if (begun === undefined) return null;
  const typed = begun.trimStart().toLowerCase();
  const rest = /^[^\]\n:]*\]/.exec(text.slice(cursor, cursor + LONGEST_INSIDE))?.[0] ?? '';
  const begins = (choice: string) => Number(choice.toLowerCase().startsWith(typed));
  return {
    from: cursor - begun.length,
    to: cursor + rest.length,
    options: ownWordChoices(vocabulary)
      .filter((choice) => choice.toLowerCase().includes(typed))
      .toSorted((a, b) => begins(b) - begins(a))
      .map((choice) => ({ insert: `${choice}]`, label: choice })),
  };
}
