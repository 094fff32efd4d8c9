/**
 * Reading expectations: `[only] WHO (opens | never opens | never sees | gets OUTCOME at) WHAT`, where WHO is a condition in
 * the text form. The grammar is in docs/expectations.md.
 */
import { type Condition, foldCase, LONGEST_CONDITION } from '../condition';
import { selectionProblem, type Target, TURN_AWAY_KINDS, TURN_AWAYS, type What } from '../gate';
import type { ItemId } from '../ids';
import { ITEM_KINDS, type Item, type ItemKind, KINDS, type Outline, pathOf, type Vocabulary } from '../site';
import { type Completions, completionsBy } from '../text/complete';
import { nearest } from '../text/names';
import {
  type CouldStand,
  exactly,
  type Phrase,
  phrase,
  Refusal,
  reading,
  type TextError,
  type TextReader,
} from '../text/parse';
import { quoted } from '../text/quote';
import type { Claim, Expectation } from './expectation';

/** The names that an expectation can use: the site's, and its items'. */
export interface Nameable {
  readonly vocabulary: Vocabulary;
  readonly outline: Outline;
}

/** What an expectation says, without an id. */
export type Expected = Omit<Expectation, 'id'>;

export type ParsedExpectation =
  | { readonly ok: true; readonly expected: Expected }
  | { readonly ok: false; readonly error: TextError };

const CLAIMS: readonly Phrase<Claim>[] = [
  phrase('opens', { kind: 'opens' }),
  phrase('never opens', { kind: 'never opens' }),
  phrase('never sees', { kind: 'never sees' }),
  ...TURN_AWAY_KINDS.map((outcome) =>
    phrase<Claim>(`gets ${TURN_AWAYS[outcome].outcome} at`, { kind: 'gets', outcome }),
  ),
];

type Begin =
  | { readonly kind: 'branch' | 'items where' }
  | { readonly kind: 'of a kind'; readonly of: ItemKind };

const TARGETS: readonly Phrase<Begin>[] = [
  phrase('branch', { kind: 'branch' }),
  phrase('items where', { kind: 'items where' }),
  ...ITEM_KINDS.map((of) => phrase<Begin>(KINDS[of].many, { kind: 'of a kind', of })),
];

/** Reads an expectation. Items are found by their titles or addresses, whatever their case. */
export function parseExpectation(text: string, { vocabulary, outline }: Nameable): ParsedExpectation {
  const read = reading(text.slice(0, LONGEST_CONDITION + 1), vocabulary, (reader): Expected => {
    if (text.length > LONGEST_CONDITION)
      throw new Refusal(
        `That is ${text.length} characters long; an expectation has at most ${LONGEST_CONDITION}. Give parts of it names as audiences.`,
        reader.token(),
      );
    const only = reader.take([phrase('only', true)]) ?? false;
    const who = reader.condition();
    const claim = reader.take(only ? [phrase<Claim>('opens', { kind: 'only opens' })] : CLAIMS);
    if (claim === null) return reader.refuse();
    const what = whatIn(reader, outline);
    reader.end();
    return { who, claim, what };
  });
  return 'error' in read ? { ok: false, error: read.error } : { ok: true, expected: read.value };
}

function whatIn(reader: TextReader, outline: Outline): What {
  const list = (): Target[] => {
    const targets = [target(reader, outline)];
    while (reader.takeMark(',')) targets.push(target(reader, outline));
    return targets;
  };
  const targets = list();
  return { targets, except: reader.take([phrase('except', true)]) ? list() : [] };
}

function target(reader: TextReader, outline: Outline): Target {
  const named = item(reader, outline, true);
  if (named !== null) return { kind: 'item', item: named };
  const start = reader.token();
  const begin = reader.take(TARGETS);
  switch (begin?.kind) {
    case undefined:
      return reader.refuse();
    case 'branch': {
      const branch = item(reader, outline, false);
      return branch === null ? reader.refuse() : { kind: 'branch', item: branch };
    }
    case 'items where': {
      if (!reader.takeMark('(')) reader.refuse();
      const where = reader.condition();
      if (!reader.takeMark(')')) reader.refuse();
      const problem = selectionProblem(where);
      if (problem !== null) throw new Refusal(problem, start);
      return { kind: 'selection', where };
    }
    case 'of a kind':
      return { kind: 'selection', where: ofKind(reader, begin.of) };
    default:
      return begin satisfies never;
  }
}

/** "posts", "posts in category "Night logs"" */
function ofKind(reader: TextReader, kind: ItemKind): Condition {
  const isKind = { kind: 'test', fact: 'item kind', op: 'is', value: kind } as const;
  if (!reader.take([phrase('in category', true)])) return isKind;
  reader.note(0, () => [{ insert: '', label: 'the name of a category in quotes' }]);
  const { kind: shape, value } = reader.token();
  if (shape !== 'quoted') reader.refuse();
  reader.skip(1);
  return { kind: 'all', of: [isKind, { kind: 'test', fact: 'item category', op: 'is', value }] };
}

/** An item by its title, its address or `id "…"`; null where something else may stand and none does. */
function item(reader: TextReader, outline: Outline, optional: boolean): ItemId | null {
  reader.note(0, () => namesOf(outline));
  const { kind, value } = reader.token();
  if (kind === 'word' && value === 'id' && reader.token(1).kind === 'quoted') {
    reader.skip(2);
    return reader.token(-1).value as ItemId;
  }
  if (kind !== 'quoted') return optional ? null : reader.refuse();
  const found = itemsCalled(value, outline);
  const [first] = found;
  if (first === undefined) {
    const near = nearest(value, titlesOf(outline));
    throw new Refusal(
      `There is no item called “${value}”.${near === null ? ' Write its title or its address, like “/visit”.' : ` Did you mean “${near}”?`}`,
      reader.token(),
      namesOf(outline),
    );
  }
  if (found.length > 1) throw new Refusal(several(value, found), reader.token(), found.map(uniqueName));
  reader.skip(1);
  return first.id;
}

const several = (title: string, found: readonly Item[]): string =>
  `${found.length} items are called “${title}”. Write which one: ${found
    .slice(0, 4)
    .map((one) => uniqueName(one).insert)
    .join(', ')}${found.length > 4 ? ' …' : ''}.`;

const uniqueName = (one: Item): CouldStand => {
  const path = pathOf(one);
  return exactly(path === null ? `id ${quoted(one.id)}` : quoted(path));
};

/**
 * The items that a title or an address names. What can be opened comes before what merely bears the same title: a menu link
 * is mostly called like its page.
 */
export function itemsCalled(given: string, outline: Outline): readonly Item[] {
  const items = [...outline.items.values()];
  if (given.startsWith('/')) {
    const at = items.filter((one) => pathOf(one) === given);
    if (at.length > 0) return at;
  }
  const exact = items.filter(({ title }) => title === given);
  const folded = foldCase(given);
  const called = exact.length > 0 ? exact : items.filter(({ title }) => foldCase(title) === folded);
  const openable = called.filter((one) => pathOf(one) !== null);
  return openable.length > 0 ? openable : called;
}

const titlesOf = (outline: Outline): readonly string[] => [
  ...new Set([...outline.items.values()].map(({ title }) => title).filter((title) => title !== '')),
];

/** What can be opened is offered by title; whoever means a section knows what it is called. */
const namesOf = (outline: Outline): readonly CouldStand[] =>
  [...outline.items.values()]
    .filter((one) => pathOf(one) !== null && one.title !== '')
    .map(({ title }) => exactly(quoted(title)));

/** What could stand at a place in an expectation. */
export const expectationCompletionsAt = (text: string, cursor: number, names: Nameable): Completions =>
  completionsBy(text, cursor, (before) => {
    const parsed = parseExpectation(before, names);
    return parsed.ok ? null : parsed.error;
  });
