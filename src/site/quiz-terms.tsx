/** On what terms a quiz is taken, in a line. */
import { counted } from '@/core';
import type { QuizOutline } from '@/services';

export const QuizTerms = ({
  outline: { questions, minutes, passMark, attempts },
}: {
  readonly outline: QuizOutline;
}) => (
  <p className="quiz-terms">
    {[
      counted(questions, 'question'),
      minutes === null ? 'no hurry' : counted(minutes, 'minute'),
      passMark > 0 ? `passed with ${passMark} %` : null,
      attempts === null ? null : counted(attempts, 'attempt'),
    ]
      .filter((one) => one !== null)
      .join(' · ')}
  </p>
);
