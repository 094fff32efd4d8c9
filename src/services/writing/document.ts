/** A page or post as its author sees it: everything that is said on it, and what it is about. */
import { z } from 'zod';
import {
  ACTIVITY_TYPES,
  type Address,
  type Addressed,
  DONE_WHENS,
  type Item,
  type ItemFacts,
  type ItemId,
  isDay,
  isReserved,
  newQuiz,
  newTask,
  normaliseAddress,
  sectionsOf,
} from '@/core';
import { newId as id } from '../forms';
import type { SiteState } from '../running';
import { contentOf } from '../view';
import { editedEnrolling, enrollingOf, enrollingProblem, enrollingShape } from './enrolling-form';
import { editedQuiz, emptyQuiz, quizProblems, quizShape } from './quiz-form';
import { editedSection, type SectionRead, sectionProblems, sectionShape, title } from './section-form';
import { editedTask, taskShape } from './task-form';

const name = z.string().trim().min(1).max(200);
const facts = z.strictObject({
  category: name.nullable().default(null),
  tags: z.array(name).max(50, 'A post has at most 50 tags.').default([]),
  author: name.nullable().default(null),
  date: z.string().refine(isDay, 'Write a day like 2026-12-01.').nullable().default(null),
  picture: id.nullable().default(null),
});

const document = z.strictObject({
  title,
  address: z.string().max(500, 'An address has at most 500 letters.'),
  summary: z.string().trim().max(2000, 'A summary has at most 2,000 letters.').default(''),
  published: z.boolean().default(false),
  facts: facts.default({ category: null, tags: [], author: null, date: null, picture: null }),
  /** Of an activity: what one does in it. */
  activity: z.enum(ACTIVITY_TYPES).nullable().default(null),
  /** Of a course. */
  enrolling: enrollingShape.nullable().default(null),
  /** Of an activity of which its learners say that they are done: whether opening it is enough. */
  doneWhen: z.enum(DONE_WHENS).default('said'),
  task: taskShape.nullable().default(null),
  quiz: quizShape.nullable().default(null),
  sections: z.array(sectionShape).max(100, 'A page has at most 100 sections.').default([]),
});

/** What an author writes; a draft may have anything in it until it goes to the site. */
export type Document = z.output<typeof document>;

/** What is wrong with a document, and where: a path within it, and a line of a text. */
export interface DocumentProblem {
  readonly path: string;
  readonly line: number | null;
  readonly message: string;
}

/** The document of a page or post as it is on the site. */
export function documentOf(state: SiteState, item: Addressed): Document {
  const { outline, live } = state;
  const { category, tags, author, date, picture } = item.facts ?? {};
  return {
    title: item.title,
    address: item.address,
    summary: contentOf(state, item.id).summary,
    published: item.published,
    facts: {
      category: category ?? null,
      tags: [...(tags ?? [])],
      author: author ?? null,
      date: date ?? null,
      picture: picture ?? null,
    },
    activity: item.kind === 'activity' ? item.activity : null,
    enrolling: item.kind === 'course' ? editedEnrolling(contentOf(state, item.id).enrolling) : null,
    doneWhen: contentOf(state, item.id).doneWhen ?? 'said',
    task: taskOf(state, item),
    quiz: quizOf(state, item),
    sections: sectionsOf(outline, item.id).map((section) =>
      editedSection(section, contentOf(state, section.id), live.compiled.vocabulary),
    ),
  };
}

/** What may be handed in, as it is edited; kept like a quiz. */
function taskOf(state: SiteState, item: Addressed): Document['task'] {
  const { task } = contentOf(state, item.id);
  if (task) return editedTask(task);
  return item.kind === 'activity' && item.activity === 'hand-in' ? editedTask(newTask) : null;
}

/** What a quiz asks, as it is edited; what was asked before an activity became something else is kept for its author. */
function quizOf(state: SiteState, item: Addressed): Document['quiz'] {
  const { quiz } = contentOf(state, item.id);
  if (quiz) return editedQuiz(quiz);
  return item.kind === 'activity' && item.activity === 'quiz' ? editedQuiz(newQuiz) : null;
}

/** A document that was read and can go to the site. */
export interface ReadDocument {
  readonly document: Document;
  readonly address: Address;
}

/** Reads a document, or says everything that is wrong with it. */
export function readDocument(
  input: unknown,
  item: Addressed,
  state: SiteState,
): ReadDocument | { readonly problems: readonly DocumentProblem[] } {
  const parsed = document.safeParse(input);
  if (!parsed.success) {
    return {
      problems: parsed.error.issues
        .slice(0, 30)
        .map(({ path, message }) => ({ path: path.join('.'), line: null, message })),
    };
  }
  const read = parsed.data;
  const problems: DocumentProblem[] = [];
  const address = normaliseAddress(read.address.trim());
  const wrong =
    address === null ? 'Write an address like /about/us.' : addressProblem(address, item.id, state);
  if (wrong) problems.push({ path: 'address', line: null, message: wrong });
  problems.push(...idProblems(read.sections, item.id, state));
  const { picture } = read.facts;
  const file = picture === null ? null : state.outline.items.get(picture as ItemId);
  if (picture !== null && !(file?.kind === 'file' && file.mediaType.startsWith('image/')))
    problems.push({
      path: 'facts.picture',
      line: null,
      message: 'There is no such picture. Choose another.',
    });
  const { vocabulary } = state.live.compiled;
  const found = sectionProblems(read.sections, vocabulary, (one) => state.outline.items.get(one as ItemId));
  problems.push(
    ...found.map(({ section, line, message }) => ({
      path: `sections.${read.sections.findIndex((one) => one.id === section)}`,
      line,
      message,
    })),
  );
  problems.push(...quizFaults(read));
  const enrolling = read.enrolling && enrollingProblem(enrollingOf(read.enrolling), state.names);
  if (enrolling) problems.push({ path: 'enrolling', line: null, message: enrolling });
  return problems.length > 0 || address === null ? { problems } : { document: read, address };
}

/** What is wrong with a quiz; one that is not published may ask nothing yet. */
function quizFaults({ quiz, activity, published }: Document): readonly DocumentProblem[] {
  const empty = published ? emptyQuiz(activity, quiz) : null;
  return [
    ...(quiz === null ? [] : quizProblems(quiz)),
    ...(empty === null ? [] : [{ question: null, message: empty }]),
  ].map(({ question, message }) => ({
    path: question === null ? 'quiz' : `quiz.questions.${question}`,
    line: null,
    message,
  }));
}

/** Why an item can't have an address, in words, or null. */
export function addressProblem(address: Address, item: ItemId | null, state: SiteState): string | null {
  if (isReserved(address)) return `${address} belongs to Trivet. Choose another address.`;
  const holder = state.outline.addressed.get(address);
  return holder && holder.id !== item ? `“${holder.title}” has this address. Choose another.` : null;
}

/** Sections keep their ids; none can have that of another item. */
function idProblems(
  sections: readonly SectionRead[],
  item: ItemId,
  state: SiteState,
): readonly DocumentProblem[] {
  const seen = new Set<string>();
  return sections.flatMap((section, index) => {
    const there: Item | undefined = state.outline.items.get(section.id as ItemId);
    const taken = seen.has(section.id) || (there && (there.kind !== 'section' || there.parent !== item));
    seen.add(section.id);
    return taken
      ? [
          {
            path: `sections.${index}`,
            line: null,
            message: 'Another item has the id of this section. Add it anew.',
          },
        ]
      : [];
  });
}

/** The facts of an item as they are kept: what is not given is not there. */
export function factsIn(read: Document, before: ItemFacts | undefined): ItemFacts | undefined {
  const { category, tags, author, date, picture } = read.facts;
  const made: ItemFacts = {
    ...(before?.owner && { owner: before.owner }),
    ...(before?.group && { group: before.group }),
    ...(category && { category }),
    ...(tags.length > 0 && { tags }),
    ...(author && { author }),
    ...(date && { date }),
    ...(picture && { picture: picture as ItemId }),
  };
  return Object.keys(made).length > 0 ? made : undefined;
}
