/** Quizzes for properties. */
import fc from 'fast-check';
import type { Asked, Option, Question, Quiz } from '../course';

const words = fc.string({ minLength: 1, maxLength: 12 }).filter((text) => text.trim() !== '');
const base = {
  id: fc.uuid(),
  text: words,
  points: fc.constantFrom(0.5, 1, 2, 5),
  feedback: fc.constantFrom('', 'So it is.'),
};

/** Different things to choose from, with at least one that is right. */
const options = (right: 'one' | 'some'): fc.Arbitrary<readonly Option[]> =>
  fc
    .tuple(fc.uniqueArray(words, { minLength: 2, maxLength: 6 }), fc.infiniteStream(fc.boolean()), fc.nat())
    .map(([texts, some, first]) =>
      texts.map((text, at) => ({
        text,
        right: at === first % texts.length || (right === 'some' && some.next().value === true),
        feedback: '',
      })),
    );

export const questions: fc.Arbitrary<Question> = fc.oneof(
  fc.record({ ...base, kind: fc.constant('one' as const), options: options('one') }),
  fc.record({ ...base, kind: fc.constant('several' as const), options: options('some') }),
  fc.record({
    ...base,
    kind: fc.constant('number' as const),
    right: fc.constantFrom(0, 11, -2.5, 0.3, 1_000_000),
    tolerance: fc.constantFrom(0, 0.1, 5),
  }),
  fc.record({
    ...base,
    kind: fc.constant('text' as const),
    accepted: fc.array(words, { minLength: 1, maxLength: 3 }),
  }),
  fc.record({
    ...base,
    kind: fc.constant('order' as const),
    steps: fc.uniqueArray(words, { minLength: 2, maxLength: 6 }),
  }),
  fc.record({
    ...base,
    kind: fc.constant('pairs' as const),
    pairs: fc.array(fc.record({ left: words, right: words }), { minLength: 2, maxLength: 5 }),
  }),
);

export const quizzes: fc.Arbitrary<Quiz> = fc.record({
  passMark: fc.integer({ min: 0, max: 100 }),
  attempts: fc.constantFrom(null, 1, 3),
  wait: fc.constantFrom(0, 30),
  minutes: fc.constantFrom(null, 20),
  draw: fc.constantFrom(null, 1, 3, 50),
  shuffle: fc.boolean(),
  counts: fc.constantFrom('best' as const, 'last' as const),
  answers: fc.constantFrom(
    'never' as const,
    'after the attempt' as const,
    'after passing' as const,
    'after the last attempt' as const,
  ),
  questions: fc.uniqueArray(questions, { maxLength: 6, selector: ({ id }) => id }),
});

/** What somebody fills in who knows everything: found from the question, without the code that marks it. */
export function knownAnswer({ question, shown }: Asked): readonly string[] {
  const placeOf = (wanted: number) => String(shown.indexOf(wanted));
  switch (question.kind) {
    case 'one':
    case 'several':
      return question.options.flatMap(({ right }, at) => (right ? [placeOf(at)] : []));
    case 'number':
      return [String(question.right)];
    case 'text':
      return [question.accepted[0] ?? ''];
    case 'order':
      return shown.map((step) => String(step + 1));
    case 'pairs':
      return question.pairs.map((_, at) => placeOf(at));
    default:
      return question satisfies never;
  }
}
