/** An answer in words, beside what would have been right. */
import { english, type Messages } from '../messages/english';
import { type Answer, isAnswered, rightAnswer, worthOf } from './answering';
import type { Asked } from './drawing';
import type { Question } from './quiz';

export interface Review {
  /** What was answered, a line each. */
  readonly given: readonly string[];
  readonly worth: 'right' | 'partly right' | 'wrong' | 'not answered';
  /** What would have been right, a line each; nothing where it was. */
  readonly right: readonly string[];
  readonly feedback: readonly string[];
}

export function reviewOf(asked: Asked, answer: Answer, messages: Messages = english): Review {
  const { question, shown } = asked;
  const worth = worthOf(asked, answer);
  const said =
    question.kind === 'one' || question.kind === 'several'
      ? answer.flatMap((place) => question.options[shown[Number(place)] ?? -1]?.feedback || [])
      : [];
  return {
    given: given(asked, answer),
    worth: !isAnswered(answer) ? 'not answered' : worth >= 1 ? 'right' : worth > 0 ? 'partly right' : 'wrong',
    right: worth >= 1 ? [] : rightAnswer(asked, messages),
    feedback: [...said, ...(question.feedback === '' ? [] : [question.feedback])],
  };
}

/** What there is to choose or to put in order, in its author's order. */
export function choicesOf(question: Question): readonly string[] {
  switch (question.kind) {
    case 'one':
    case 'several':
      return question.options.map(({ text }) => text);
    case 'order':
      return question.steps;
    case 'pairs':
      return question.pairs.map(({ right }) => right);
    case 'number':
    case 'text':
      return [];
    default:
      return question satisfies never;
  }
}

function given({ question, shown }: Asked, answer: Answer): readonly string[] {
  const choices = choicesOf(question);
  const shownAt = (place: string | undefined) => choices[shown[Number(place || Number.NaN)] ?? -1] ?? '';
  switch (question.kind) {
    case 'one':
    case 'several':
      return answer.map(shownAt);
    case 'number':
    case 'text':
      return answer.filter((text) => text.trim() !== '');
    case 'order':
      return answer
        .map((place, at) => ({ place: Number(place), text: shownAt(String(at)) }))
        .filter(({ place }) => place > 0)
        .toSorted((one, other) => one.place - other.place)
        .map(({ text }) => text);
    case 'pairs':
      return question.pairs.flatMap(({ left }, at) =>
        answer[at] ? [`${left}: ${shownAt(answer[at])}`] : [],
      );
    default:
      return question satisfies never;
  }
}
