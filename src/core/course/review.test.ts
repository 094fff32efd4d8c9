import fc from 'fast-check';
import { expect, it } from 'vitest';
import { knownAnswer, questions } from '../testing/quizzes';
import { drawn, newQuiz, reviewOf, rightAnswer } from '.';

const base = { id: 'q', text: 'What?', points: 1, feedback: 'So it is.' };

it('says of the right answer that it is right, and of no answer what would have been', () => {
  fc.assert(
    fc.property(questions, fc.nat(), (question, seed) => {
      const [asked] = drawn({ ...newQuiz, questions: [question], shuffle: true }, () => (seed % 1000) / 1000);
      if (!asked) throw new Error('nothing was drawn');
      expect(reviewOf(asked, knownAnswer(asked))).toMatchObject({ worth: 'right', right: [] });
      expect(reviewOf(asked, [])).toMatchObject({
        worth: 'not answered',
        given: [],
        right: rightAnswer(asked),
      });
    }),
  );
});

it('says what was answered in the words that were shown, and what is said to whoever chose it', () => {
  const options = [
    { text: 'bucket', right: true, feedback: '' },
    { text: 'pocket', right: false, feedback: 'It will fall.' },
  ];
  expect(reviewOf({ question: { ...base, kind: 'one', options }, shown: [1, 0] }, ['0'])).toEqual({
    given: ['pocket'],
    worth: 'wrong',
    right: ['bucket'],
    feedback: ['It will fall.', 'So it is.'],
  });
  const steps = ['look', 'call', 'open'];
  const order = { question: { ...base, kind: 'order' as const, steps }, shown: [2, 0, 1] };
  expect(reviewOf(order, ['3', '2', '1'])).toMatchObject({
    given: ['call', 'look', 'open'],
    worth: 'partly right',
  });
  expect(reviewOf(order, ['', '1', ''])).toMatchObject({ given: ['look'] });
  const pairs = {
    question: {
      ...base,
      kind: 'pairs' as const,
      pairs: [
        { left: 'tea', right: 'bucket' },
        { left: 'torch', right: 'feet' },
      ],
    },
    shown: [1, 0],
  };
  expect(reviewOf(pairs, ['1', '']).given).toEqual(['tea: bucket']);
});
