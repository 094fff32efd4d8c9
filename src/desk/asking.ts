/** Questions that are asked by typing: a person and an item, and a few forms. Only names are understood, and nothing is guessed. */
import { foldCase, type Item, isOpenable, nameInContext, type Outline } from '@/core';

/** What was asked, with names as far as they are typed. */
export type Question =
  | { readonly kind: 'who opens'; readonly item: string }
  | { readonly kind: 'apart'; readonly one: string; readonly other: string }
  | { readonly kind: 'what opens'; readonly item: string; readonly person: string }
  /** What somebody gets at something: an item that begins like one half, and a person by the other. */
  | { readonly kind: 'gets'; readonly item: string; readonly person: string };

const FORMS: readonly (readonly [RegExp, (first: string, second: string) => Question])[] = [
  [/^who (?:can )?opens? (.+)$/, (item) => ({ kind: 'who opens', item })],
  [
    /^what does (.+?) get that (.+?)(?: do(?:es)?(?:n.?t?| not?)?(?: get)?)?$/,
    (one, other) => ({ kind: 'apart', one, other }),
  ],
  [/^what would open (.+) for (.+)$/, (item, person) => ({ kind: 'what opens', item, person })],
];

const SHORTEST = 3;

/** What a text asks, in every way in which it can be meant. */
export function questionsIn(text: string, outline: Outline): readonly Question[] {
  const typed = foldCase(text).replace(/\?+$/, '').trim().replace(/\s+/g, ' ');
  for (const [form, question] of FORMS) {
    const [, first, second = ''] = form.exec(typed) ?? [];
    if (first !== undefined) return [question(first.trim(), second.trim())];
  }
  const words = typed.split(' ');
  return words.slice(1).flatMap((_, at): readonly Question[] => {
    const halves = [words.slice(0, at + 1).join(' '), words.slice(at + 1).join(' ')] as const;
    return [halves, halves.toReversed()].flatMap(([item = '', person = '']): readonly Question[] =>
      item.length >= SHORTEST && person.length >= SHORTEST && itemsLike(item, outline, 1).length > 0
        ? [{ kind: 'gets', item, person }]
        : [],
    );
  });
}

/** The text by which members are to be looked for: a name in a question, or all of it. */
export function personIn(text: string, outline: Outline): string {
  const [question] = questionsIn(text, outline);
  switch (question?.kind) {
    case 'what opens':
    case 'gets':
      return question.person;
    case 'apart':
      // The one that is being typed.
      return question.other;
    case 'who opens':
    case undefined:
      return text;
    default:
      return question satisfies never;
  }
}

/** The items that begin like what was typed, those that are called just so first. */
export function itemsLike(typed: string, outline: Outline, most: number): readonly Item[] {
  const found: Item[] = [];
  const exact: Item[] = [];
  for (const item of outline.items.values()) {
    if (!isOpenable(item)) continue;
    const name = foldCase(nameInContext(item, outline));
    if (name === typed) exact.push(item);
    else if (name.startsWith(typed)) found.push(item);
  }
  return [...exact, ...found].slice(0, most);
}

/** Whether somebody is called like what was typed: every word of it begins a word of their name. */
export function isCalled(name: string, typed: string): boolean {
  const words = foldCase(name).split(/\s+/);
  return typed.split(' ').every((one) => words.some((word) => word.startsWith(one)));
}
