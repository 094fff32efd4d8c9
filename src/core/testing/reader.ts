/**
 * A reader of sentences about people or items, for tests: takes a sentence apart by what its joining words and commas say belongs
 * together, knowing nothing of how it was made, and answers what it is true of. It hears words as people do: a guest "is not
 * in Suspended".
 *
 *     people      everyone | nobody | "either" one (", or" | ", or else") one … | one ("," one)* "or" one
 *     one         noun clauses?
 *     clauses     clause ((", and" | "and" | ",") clause)*, where a clause without a pronoun shares the one before it
 *     clause      pronoun? (leaf | "either" clause … "or" clause | ("both" | "at once") clause … "and" clause)
 */

/** What a phrase comes to of whoever is asked about. */
export type Meaning<T> = (one: T) => boolean;

/** The nouns and the clauses that a reader knows ("people in Dome crew", "who are in Dome crew"), with what they mean. */
export interface Words<T> {
  readonly nouns: ReadonlyMap<string, Meaning<T>>;
  readonly clauses: ReadonlyMap<string, Meaning<T>>;
  /** The pronoun that clauses can share, and that of the others. */
  readonly pronouns: readonly [shared: string, own: string];
  readonly everyone: string;
  readonly nobody: string;
}

const and =
  <T>(parts: readonly Meaning<T>[]): Meaning<T> =>
  (one) =>
    parts.every((part) => part(one));
const or =
  <T>(parts: readonly Meaning<T>[]): Meaning<T> =>
  (one) =>
    parts.some((part) => part(one));

/** Reads a whole sentence; throws where it can't be read. */
export function readSentence<T>(sentence: string, words: Words<T>): Meaning<T> {
  const [sharing, own] = words.pronouns.map((pronoun) => `${pronoun} `) as [string, string];
  const opening = new RegExp(`^(?:${sharing}|${own}|either |both |at once |\\()`);
  let at = 0;
  const startsWith = (text: string) => sentence.startsWith(text, at);
  const eat = (text: string): boolean => {
    if (!startsWith(text)) return false;
    at += text.length;
    return true;
  };
  const fail = (wanted: string): never => {
    throw new Error(`No ${wanted} at “${sentence.slice(at)}” of “${sentence}”.`);
  };
  /** The longest of what is known that stands here as whole words. */
  const longest = (known: ReadonlyMap<string, Meaning<T>>, before = ''): [string, Meaning<T>] | null => {
    let best: [string, Meaning<T>] | null = null;
    for (const [phrase, meaning] of known) {
      if (!phrase.startsWith(before)) continue;
      const rest = phrase.slice(before.length);
      if (rest.length <= (best?.[0].length ?? 0) || !startsWith(rest)) continue;
      if (/[\p{L}\p{N}]/u.test(sentence[at + rest.length] ?? ' ')) continue;
      best = [rest, meaning];
    }
    return best;
  };

  const people = (): Meaning<T> => {
    if (eat(words.everyone) && at === sentence.length) return and([]);
    at = 0;
    if (eat(words.nobody) && at === sentence.length) return or([]);
    at = 0;
    const either = eat('either ');
    const found = [one()];
    if (either) while (eat(', or else ') || eat(', or ')) found.push(one());
    else while (eat(' or ') || eat(', ')) found.push(one());
    return or(found);
  };

  const one = (): Meaning<T> => {
    const head = longest(words.nouns) ?? fail('noun');
    at += head[0].length;
    if (!eat(' ')) return head[1];
    // Right behind the noun the shared pronoun can be left out.
    if (!opening.test(sentence.slice(at)) && longest(words.clauses, sharing) === null) {
      at -= 1;
      return head[1];
    }
    return and([head[1], ...clauses()]);
  };

  const clauses = (): readonly Meaning<T>[] => {
    const bare = !opening.test(sentence.slice(at));
    const shared = bare || startsWith(sharing) ? sharing : '';
    const found = [clause(bare ? sharing : null)];
    for (;;) {
      const before = at;
      if (!(eat(', and ') || eat(' and ') || eat(', '))) return found;
      const brings = opening.test(sentence.slice(at));
      // A comma before something else belongs to what this stands in.
      if (!brings && longest(words.clauses, shared) === null) {
        at = before;
        return found;
      }
      found.push(clause(brings ? null : shared));
    }
  };

  const clause = (shared: string | null): Meaning<T> => {
    if (eat('(')) {
      const inner = clause(null);
      return eat(')') ? inner : fail('closing parenthesis');
    }
    const pronoun = shared ?? (eat(own) ? own : eat(sharing) ? sharing : '');
    if (eat('either ')) return group(pronoun, 'or', or);
    if (eat('both ') || eat('at once ')) return group(pronoun, 'and', and);
    const leaf = longest(words.clauses, pronoun) ?? fail(`clause after “${pronoun}”`);
    at += leaf[0].length;
    return leaf[1];
  };

  /** The parts of a group: the one behind the joining word is the last, or, behind a comma and the word, one of several. */
  const group = (
    pronoun: string,
    word: 'and' | 'or',
    join: (parts: readonly Meaning<T>[]) => Meaning<T>,
  ): Meaning<T> => {
    const shared = pronoun === '' ? null : pronoun;
    const found = [clause(shared)];
    const behindComma = () => !startsWith(', or else ') && eat(`, ${word} `);
    if (behindComma()) {
      do found.push(clause(shared));
      while (behindComma());
      return join(found);
    }
    while (eat(', ')) found.push(clause(shared));
    if (!eat(` ${word} `)) fail(`“${word}”`);
    found.push(clause(shared));
    return join(found);
  };

  const meaning = people();
  if (at !== sentence.length) fail('end');
  return meaning;
}
