/** Drawing the questions of an attempt. What is drawn is whole: changing the quiz changes no attempt that has begun. */
import { shuffler } from 'd3-array';
import type { Question, Quiz } from './quiz';

/** A question as it is asked in an attempt. */
export interface Asked {
  readonly question: Question;
  /**
   * What there is to choose or to put in order, as places in the question's own list, in the order in which it is shown; empty
   * where there is nothing. Whoever answers knows places in what is shown, so that nothing tells what the author's order was.
   */
  readonly shown: readonly number[];
}

/** A number from 0 up to and without 1. */
export type Random = () => number;

/** The questions of one attempt at a quiz. */
export function drawn({ questions, draw: count, shuffle }: Quiz, random: Random): readonly Asked[] {
  const most = count ?? questions.length;
  const chosen = most < questions.length ? someOf(questions, most, random) : questions;
  return (shuffle ? shuffled(chosen, random) : chosen).map((question) => ({
    question,
    shown: shownOf(question, shuffle, random),
  }));
}

function shownOf(question: Question, shuffle: boolean, random: Random): readonly number[] {
  switch (question.kind) {
    case 'one':
    case 'several':
      return shuffle ? shuffled(placesOf(question.options), random) : placesOf(question.options);
    // Their own order is the answer.
    case 'order':
      return outOfOrder(placesOf(question.steps), random);
    case 'pairs':
      return shuffled(placesOf(question.pairs), random);
    case 'number':
    case 'text':
      return [];
    default:
      return question satisfies never;
  }
}

const placesOf = (list: readonly unknown[]): readonly number[] => list.map((_, place) => place);

/** So many of a list, in its order. */
function someOf<T>(list: readonly T[], count: number, random: Random): readonly T[] {
  const chosen = new Set(shuffled(placesOf(list), random).slice(0, count));
  return list.filter((_, place) => chosen.has(place));
}

/** A list in any order, each as likely as another. */
const shuffled = <T>(list: readonly T[], random: Random): readonly T[] => shuffler(random)([...list]);

/** In any order but its own, if it has two things in it. */
function outOfOrder(places: readonly number[], random: Random): readonly number[] {
  const made = shuffled(places, random);
  return made.every((place, at) => place === at) ? [...made.slice(1), ...made.slice(0, 1)] : made;
}
