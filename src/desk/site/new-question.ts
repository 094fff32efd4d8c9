/** Questions to begin with, and what stays of one when it becomes one of another kind. */
import type { Option, Question, QuestionKind } from '@/core';

const option = (right: boolean): Option => ({ text: '', right, feedback: '' });

export const newQuestion = (): Question => ({
  id: crypto.randomUUID(),
  text: '',
  points: 1,
  feedback: '',
  kind: 'one',
  options: [option(true), option(false)],
});

/** The same question as one of another kind; of its answers stays what that kind has as well. */
export function asKind(question: Question, kind: QuestionKind): Question {
  const { id, text, points, feedback } = question;
  const base = { id, text, points, feedback };
  const words = wordsOf(question);
  const two = words.length >= 2 ? words : [...words, '', ''].slice(0, 2);
  switch (kind) {
    case 'one': {
      const options = optionsOf(question, two);
      const first = options.findIndex(({ right }) => right);
      return {
        ...base,
        kind,
        options: options.map((one, at) => ({ ...one, right: at === Math.max(0, first) })),
      };
    }
    case 'several':
      return { ...base, kind, options: optionsOf(question, two) };
    case 'number':
      return { ...base, kind, right: Number(words[0]) || 0, tolerance: 0 };
    case 'text':
      return { ...base, kind, accepted: words.length > 0 ? words : [''] };
    case 'order':
      return { ...base, kind, steps: two };
    case 'pairs':
      return { ...base, kind, pairs: two.map((left) => ({ left, right: '' })) };
    default:
      return kind satisfies never;
  }
}

const optionsOf = (question: Question, words: readonly string[]): readonly Option[] =>
  question.kind === 'one' || question.kind === 'several'
    ? question.options
    : words.map((text, at) => ({ ...option(at === 0), text }));

/** What a question's answers say, in their order; the right ones of those there are to choose from come first. */
function wordsOf(question: Question): readonly string[] {
  switch (question.kind) {
    case 'one':
    case 'several':
      return question.options
        .toSorted((one, other) => Number(other.right) - Number(one.right))
        .map(({ text }) => text);
    case 'number':
      return [String(question.right)];
    case 'text':
      return question.accepted;
    case 'order':
      return question.steps;
    case 'pairs':
      return question.pairs.map(({ left }) => left);
    default:
      return question satisfies never;
  }
}
