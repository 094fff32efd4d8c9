/**
 * The grammar of composed sentences: how clauses are joined so that it can be heard what belongs to what, however deep.
 *
 * - Alternatives of people: "guests or members"; where one of them is more than a noun, "either guests, or people in Dome
 *   crew whose team is Optics", and where one has commas of its own, "either …, or else …". Short nouns come first.
 * - What is asked besides: "members who are in Dome crew and are not in Suspended"; where a part has an *or* in it, each part
 *   brings its own pronoun behind a comma: "members who either are in Dome crew or own the pass, and who are not in Suspended".
 * - Within a part: "either … or …" for one of several, "both … and …" and "at once …, … and …" for all of them. Below that,
 *   parentheses.
 */
import { type AudienceUse, type Condition, foldPushed, type Test } from '../condition';
import { listed } from '../english';

/** One thing asked, or denied. */
export type Leaf = Test | AudienceUse | { readonly kind: 'not'; readonly of: Test | AudienceUse };

/** A condition whose *not* stands at its tests. */
export type Plain = Leaf | { readonly kind: 'all' | 'any'; readonly of: readonly Plain[] };

/** What follows a pronoun: `who` and "are in Dome crew", `whose` and "team is Optics". */
export interface Clause {
  readonly pronoun: string;
  readonly text: string;
  /** Whether the pronoun can be left out right behind the noun: "posts in Night logs". */
  readonly bare?: boolean;
}

/** What the sentences are about: people, or items. */
export interface Lexicon {
  readonly everyone: string;
  readonly nobody: string;
  /** The pronoun whose clauses can share it. */
  readonly pronoun: string;
  /** What reads best as a noun of its own; `null` where there is none. `alone`: nothing is added to it. */
  readonly noun: (part: Leaf, alone: boolean) => string | null;
  /** The noun for parts none of which has one. */
  readonly anybody: (parts: readonly Plain[]) => string;
  /** Whether one of the parts says nothing that another of them does not say. */
  readonly impliedBy: (part: Plain, parts: readonly Plain[]) => boolean;
  readonly clause: (part: Leaf) => Clause;
}

/** Pushes *not* down to the tests, and takes out what changes no truth value: groups of one, repeats, everyone and nobody. */
export const plain = (condition: Condition): Plain =>
  foldPushed<Plain>(condition, {
    all: (parts) => joined('all', parts),
    any: (parts) => joined('any', parts),
    audience: leaf,
    test: leaf,
  });

const leaf = (part: Exclude<Leaf, { kind: 'not' }>, holds: boolean): Plain =>
  holds ? part : { kind: 'not', of: part };

function joined(kind: 'all' | 'any', list: readonly Plain[]): Plain {
  const parts = list.flatMap((part) => (part.kind === kind ? part.of : [part]));
  const decided = parts.find((part) => part.kind !== kind && isEmpty(part));
  if (decided) return decided;
  const of = [...new Map(parts.map((part) => [JSON.stringify(part), part])).values()];
  return of.length === 1 && of[0] ? of[0] : { kind, of };
}

export const isGroup = (part: Plain): part is Extract<Plain, { kind: 'all' | 'any' }> =>
  part.kind === 'all' || part.kind === 'any';
const isEmpty = (part: Plain): boolean => isGroup(part) && part.of.length === 0;

/** How much a phrase holds: only itself, words that join (*or*, *and*), or commas too. */
const GRADES = ['bare', 'joined', 'comma'] as const;
type Grade = (typeof GRADES)[number];

interface Phrase {
  readonly text: string;
  readonly grade: Grade;
}

const gradeOf = (text: string): Grade => {
  const own = text.replace(/“(?:[^”]|””)*”/g, '');
  return own.includes(',') ? 'comma' : /\b(?:and|or|but)\b/.test(own) ? 'joined' : 'bare';
};

const worst = (grades: readonly Grade[]): Grade =>
  GRADES[Math.max(0, ...grades.map((grade) => GRADES.indexOf(grade)))] ?? 'comma';

/** Whom, or what, a condition is true of, as a noun phrase. */
export const nounPhrase = (condition: Plain, lexicon: Lexicon): string => phraseOf(condition, lexicon).text;

function phraseOf(condition: Plain, lexicon: Lexicon): Phrase {
  if (isEmpty(condition))
    return { text: condition.kind === 'all' ? lexicon.everyone : lexicon.nobody, grade: 'bare' };
  if (condition.kind === 'any') return alternatives(condition.of, lexicon);
  const parts = condition.kind === 'all' ? condition.of : [condition];
  const asked = parts.filter((part) => !lexicon.impliedBy(part, parts));
  const alone = asked.length === 1;
  const head = asked.find((part): part is Leaf => !isGroup(part) && lexicon.noun(part, alone) !== null);
  const rest = asked.filter((part) => part !== head);
  const noun = (head && lexicon.noun(head, alone)) ?? lexicon.anybody(parts);
  if (rest.length === 0) return { text: noun, grade: gradeOf(noun) };
  const { text, grade } = relative(rest, lexicon);
  return { text: `${noun} ${text}`, grade: worst([grade, 'joined']) };
}

function alternatives(parts: readonly Plain[], lexicon: Lexicon): Phrase {
  const phrases = parts.map((part) => phraseOf(part, lexicon));
  // What a reader could take for more of the one before it comes first: "Trustees or people in Hollin School".
  const order = ({ text, grade }: Phrase) => (/\s/.test(text) ? 1 + GRADES.indexOf(grade) : 0);
  const inOrder = phrases.toSorted((one, other) => order(one) - order(other));
  const texts = inOrder.map(({ text }) => text);
  switch (worst(phrases.map(({ grade }) => grade))) {
    case 'bare':
      return { text: listed(texts, 'or'), grade: texts.length > 2 ? 'comma' : 'joined' };
    case 'joined':
      return { text: `either ${texts.join(', or ')}`, grade: 'comma' };
    default:
      return { text: `either ${texts.join(', or else ')}`, grade: 'comma' };
  }
}

/** A clause and its grade. Without a pronoun, its parts bring their own. */
interface Part extends Phrase {
  readonly pronoun: string | null;
  readonly bare?: boolean;
}

const withPronoun = ({ pronoun, text }: Part): string => (pronoun === null ? text : `${pronoun} ${text}`);

function relative(parts: readonly Plain[], lexicon: Lexicon): Phrase {
  const clauses = parts.map((part) => partOf(part, lexicon, null));
  const grade = worst(clauses.map((clause) => clause.grade));
  // "who are in A and are not in B" shares its pronoun; otherwise each clause brings its own.
  const shared = grade === 'bare' && clauses.every(({ pronoun }) => pronoun === lexicon.pronoun);
  const texts = clauses.map((clause, at) =>
    (at > 0 && shared) || (at === 0 && clause.bare) ? clause.text : withPronoun(clause),
  );
  if (texts.length === 1) return { text: texts.join(), grade: worst([grade, 'joined']) };
  return grade === 'bare'
    ? { text: listed(texts), grade: texts.length > 2 ? 'comma' : 'joined' }
    : { text: texts.join(', and '), grade: 'comma' };
}

/**
 * A part as a clause. Within a group, what is in a group of its own stands in parentheses where its end could not be heard:
 * behind commas, and where *either* is in *both*.
 */
function partOf(part: Plain, lexicon: Lexicon, within: 'all' | 'any' | null): Part {
  if (!isGroup(part)) {
    const clause = lexicon.clause(part);
    return { ...clause, grade: gradeOf(clause.text) };
  }
  const made = groupOf(part, lexicon);
  if (within === null || (within === 'any' && made.grade !== 'comma')) return made;
  return { text: `(${withPronoun(made)})`, pronoun: null, grade: 'comma' };
}

function groupOf(group: Extract<Plain, { kind: 'all' | 'any' }>, lexicon: Lexicon): Part {
  const parts = group.of.map((part) => partOf(part, lexicon, group.kind));
  const [before, word] =
    group.kind === 'any'
      ? ['either', 'or' as const]
      : [parts.length > 2 ? 'at once' : 'both', 'and' as const];
  const grade = worst(parts.map((part) => part.grade));
  if (grade === 'bare' && parts.every(({ pronoun }) => pronoun === lexicon.pronoun)) {
    const text = `${before} ${listed(
      parts.map((part) => part.text),
      word,
    )}`;
    return { text, pronoun: lexicon.pronoun, grade: parts.length > 2 ? 'comma' : 'joined' };
  }
  const texts = parts.map(withPronoun);
  return grade === 'bare'
    ? {
        text: `${before} ${listed(texts, word)}`,
        pronoun: null,
        grade: texts.length > 2 ? 'comma' : 'joined',
      }
    : { text: `${before} ${texts.join(`, ${word} `)}`, pronoun: null, grade: 'comma' };
}
