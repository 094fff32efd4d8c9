/** Drawing something while writing down what is asked, so that it can be kept for whoever gives the same answers. */
import { type Question, self, type View } from './context';
import type { Asked } from './kept';

/** A view that writes down what it is asked, each question once. */
export class Recording implements View {
  readonly state: View['state'];
  readonly compiled: View['compiled'];
  readonly base: string;
  /** What was asked, in order. */
  readonly trail: Asked[] = [];
  readonly #answers = new Map<unknown, unknown>();

  constructor(private readonly of: View) {
    ({ state: this.state, compiled: this.compiled, base: this.base } = of);
  }

  ask<Answer>(about: unknown, question: Question<Answer>): Answer {
    if (this.#answers.has(about)) return this.#answers.get(about) as Answer;
    const answer = this.of.ask(about, question);
    this.#answers.set(about, answer);
    this.trail.push({ about, question, answer });
    return answer;
  }

  /** Whether it shows something that is one person's own, and fits nobody else. */
  get isPersonal(): boolean {
    return this.#answers.has(self);
  }
}
