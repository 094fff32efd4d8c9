/** What an item says, as opposed to where it stands: not part of any policy. */
import type { HandInTerms } from '../core/course/hand-in';
import type { Quiz } from '../core/course/quiz';
import type { Enrolling } from '../core/site/facts-of';
import type { DoneWhen } from '../core/site/kinds';
import type { SectionContent } from './section-content';

export interface Content {
  readonly summary: string;
  /** Markdown, for items that have a text. */
  readonly body: string;
  /** For sections that are more than a text. */
  readonly section?: SectionContent;
  /** For quizzes. The right answers are in it: it leaves the server for those who write it, and for nobody else. */
  readonly quiz?: Quiz;
  /** For hand-ins. */
  readonly task?: HandInTerms;
  /** For activities of which learners say that they are done. */
  readonly doneWhen?: DoneWhen;
  /** For courses. */
  readonly enrolling?: Enrolling;
  /** For pictures: what they show, and a version too coarse for anything to be made out, as a data URI. */
  readonly picture?: {
    readonly alt: string;
    readonly width: number;
    readonly height: number;
    readonly coarse: string;
  };
}

export const noContent: Content = { summary: '', body: '' };
