/** On what terms a quiz is taken, in a line. */
import type { QuizOutline } from '@/services';
import { say } from './wording';

export function QuizTerms({
  outline: { questions, minutes, passMark, attempts },
}: {
  readonly outline: QuizOutline;
}) {
  const words = say().quiz;
  const terms = [
    words.questions(questions),
    minutes === null ? words.noHurry : words.minutes(minutes),
    passMark > 0 ? words.passMark(passMark) : null,
    attempts === null ? null : words.attempts(attempts),
  ];
  return <p className="quiz-terms">{terms.filter((one) => one !== null).join(' · ')}</p>;
}
