import fc from 'fast-check';
import { expect, it } from 'vitest';
import { QUESTION_KINDS, type QuestionKind } from '@/core';
import { questions } from '@/core/testing/quizzes';
import { asKind, newQuestion } from './new-question';

const kinds = fc.constantFrom(...QUESTION_KINDS);

it('keeps what is asked, its points and what is said, whatever kind a question becomes', () => {
  fc.assert(
    fc.property(questions, kinds, (question, kind) => {
      const { id, text, points, feedback } = question;
      expect(asKind(question, kind)).toMatchObject({ id, text, points, feedback, kind });
    }),
  );
});

it('has enough to choose from, and one right answer where there is one, along any way of kinds', () => {
  fc.assert(
    fc.property(fc.array(kinds, { maxLength: 6 }), (way) => {
      const made = way.reduce((question, kind) => asKind(question, kind), newQuestion());
      if ('options' in made) expect(made.options.length).toBeGreaterThanOrEqual(2);
      if (made.kind === 'one') expect(made.options.filter(({ right }) => right)).toHaveLength(1);
      if (made.kind === 'order') expect(made.steps.length).toBeGreaterThanOrEqual(2);
      if (made.kind === 'pairs') expect(made.pairs.length).toBeGreaterThanOrEqual(2);
      if (made.kind === 'text') expect(made.accepted.length).toBeGreaterThanOrEqual(1);
    }),
  );
});

it('keeps the words of its answers where the other kind has some', () => {
  const order = asKind({ ...newQuestion(), kind: 'order', steps: ['look', 'call', 'open'] } as never, 'one');
  expect('options' in order && order.options.map(({ text, right }) => [text, right])).toEqual([
    ['look', true],
    ['call', false],
    ['open', false],
  ]);
  const there = (kind: QuestionKind) => asKind(order, kind);
  expect(there('text')).toMatchObject({ accepted: ['look', 'call', 'open'] });
  expect(there('pairs')).toMatchObject({ pairs: [{ left: 'look' }, { left: 'call' }, { left: 'open' }] });
  expect(asKind(asKind(order, 'number'), 'number')).toMatchObject({ right: 0, tolerance: 0 });
});
