/**
 * Planting marks: every text, file, name and address of a site gets a word of its own that occurs nowhere else. Wherever
 * such a word turns up, it tells exactly what came through.
 */
import { randomBytes } from 'node:crypto';
import {
  type Address,
  conditionsOfPolicy,
  type Item,
  type ItemId,
  isShared,
  type PersonId,
  type Policy,
  type ProductId,
  parseRegions,
  type Question,
  type Quiz,
  type Section,
  type SiteNames,
  testsIn,
  textsIn,
  type Vocabulary,
} from '@/core';
import type { Content, Order, SectionContent, StoredItem, StoredTerms } from '@/store';
import type { Person, SiteState } from '../running';
import { contentOf } from '../view';
import type { SiteItems } from '../writing';
import { type PlantedWork, plantWork } from './handed-in';
import { plantOrders, plantTerms } from './sold';

/** What a mark stands in. */
export type Part =
  | {
      readonly kind:
        | 'title'
        | 'summary'
        | 'address'
        | 'author'
        | 'tag'
        | 'coarse picture'
        | 'file name'
        | 'file';
    }
  /** A piece of a section's text, by its place among the regions; `words` counts those before it. */
  | {
      readonly kind: 'text';
      readonly path: string;
      readonly words: number;
      readonly with: ItemId | 'nobody' | null;
    }
  /** A person's own name, what their profile says, or what they handed in: for themselves alone. */
  | { readonly kind: 'own word'; readonly person: PersonId }
  /** What is said of a product, for those to whom it is sold. */
  | { readonly kind: 'product'; readonly product: ProductId }
  /** What a quiz asks and offers; and what is told of it afterwards: what would have been right, and why. */
  | { readonly kind: 'question' }
  | { readonly kind: 'right answer' }
  /** A caption, a label, a question of a form. */
  | { readonly kind: 'section part'; readonly with: ItemId | 'nobody' | null };

/**
 * `with` names what else has to be open for a section's words to stand on a page: the file that it shows, what its button
 * leads to. What is for nobody to read (where a form's answers are sent) is with nobody.
 */
export interface Mark {
  readonly word: string;
  /** What it stands in; null for what is a person's own. */
  readonly item: ItemId | null;
  readonly part: Part;
}

/** A copy of a site with its marks. */
export interface Planted extends SiteItems {
  /** Those whose own words are marked, as the copy has them. */
  readonly people: ReadonlyMap<PersonId, Person>;
  readonly marks: ReadonlyMap<string, Mark>;
  readonly work: readonly PlantedWork[];
  readonly terms: readonly StoredTerms[];
  readonly orders: readonly Order[];
}

/** Every mark begins like this; lower case, so that addresses and names can hold it. */
export const MARK = /qz[0-9a-f]{14}/g;
/** A word that stands beside every mark, for finding them all at once. */
export const COMMON = 'plantedeverywhere';

const newWord = (): string => `qz${randomBytes(7).toString('hex')}`;

/** Plants marks in everything a site holds, and in what is said of some people. */
export function plantMarks(state: SiteState, testers: readonly PersonId[], now: Date): Planted {
  const { outline, contents, live, oldAddresses } = state;
  const marks = new Map<string, Mark>();
  const bytes = new Map<ItemId, Uint8Array>();
  const plant = (item: ItemId, part: Part): string => {
    const word = newWord();
    marks.set(word, { word, item, part });
    return word;
  };
  const asked = factsAsked(live.policy);
  const stored = [...outline.items.values()].map((item): StoredItem => {
    const content = contentOf({ contents } as SiteState, item.id);
    if (item.kind === 'site') return { item, content };
    const marked = {
      ...item,
      title: `${item.title} ${plant(item.id, { kind: 'title' })}`.slice(-200),
      ...(item.facts && { facts: markedFacts(item, asked, plant) }),
    } as Item;
    const summary = content.summary && `${content.summary} ${COMMON} ${plant(item.id, { kind: 'summary' })}`;
    switch (marked.kind) {
      case 'page':
      case 'post':
      case 'course':
      case 'activity': {
        const keep = marked.address === '/' || asked.has('item address');
        const address = keep
          ? marked.address
          : (`${marked.address}-${plant(item.id, { kind: 'address' })}` as Address);
        const quiz = content.quiz && markedQuiz(content.quiz, (kind) => plant(item.id, { kind }));
        return { item: { ...marked, address }, content: { ...content, summary, ...(quiz && { quiz }) } };
      }
      case 'section':
        return {
          item: marked,
          content: { ...markedSection(marked, content, live.compiled.vocabulary, plant), summary },
        };
      case 'file': {
        const held = new TextEncoder().encode(`${COMMON} ${plant(item.id, { kind: 'file' })}`);
        bytes.set(item.id, held);
        const name = marked.name.replace(/(\.[^.]*)$/, `-${plant(item.id, { kind: 'file name' })}$1`);
        const { picture } = content;
        const coarse = picture && `data:text/plain,${plant(item.id, { kind: 'coarse picture' })}`;
        return {
          item: { ...marked, name, size: held.length },
          content: {
            ...content,
            summary,
            ...(picture &&
              coarse && {
                picture: { ...picture, coarse, alt: `${picture.alt} ${plant(item.id, { kind: 'title' })}` },
              }),
          },
        };
      }
      case 'menu':
      case 'link':
      case 'unit':
      case 'site':
        return { item: marked, content };
      default:
        return marked satisfies never;
    }
  });
  const ownWord = (person: PersonId): string => {
    const word = newWord();
    marks.set(word, { word, item: null, part: { kind: 'own word', person } });
    return word;
  };
  const people = testers.flatMap((id) => {
    const person = state.people.get(id);
    if (!person) return [];
    return [[id, markedPerson(person, live.policy, state.names, () => ownWord(id))] as const];
  });
  const work = plantWork(
    outline,
    people.map(([id]) => id),
    now,
    ownWord,
  );
  const terms = plantTerms(state, (product) => {
    const word = newWord();
    marks.set(word, { word, item: null, part: { kind: 'product', product } });
    return word;
  });
  const orders = plantOrders(
    people.map(([id]) => id),
    now,
    ownWord,
  );
  return { stored, bytes, marks, formerly: oldAddresses, people: new Map(people), work, terms, orders };
}

/** A person with a mark in their name and in every text of their profile that no gate asks for. */
function markedPerson(person: Person, policy: Policy, { fields }: SiteNames, own: () => string): Person {
  const asked = new Set(
    conditionsOfPolicy(policy)
      .flatMap(testsIn)
      .map(({ subject }) => subject),
  );
  const marked = fields
    .filter(({ id, type }) => type === 'text' && !asked.has(id) && typeof person.profile[id] === 'string')
    .map(({ id }) => [id, `${person.profile[id]} ${own()}`.slice(-500)] as const);
  return {
    ...person,
    name: `${person.name} ${own()}`,
    profile: { ...person.profile, ...Object.fromEntries(marked) },
  };
}

type Plant = (item: ItemId, part: Part) => string;

/** The facts of items that the policy asks for: those can't be changed without changing decisions. */
const factsAsked = (policy: Policy): ReadonlySet<string> =>
  new Set(
    conditionsOfPolicy(policy)
      .flatMap(testsIn)
      .map(({ fact }) => fact),
  );

function markedFacts({ id, facts = {} }: Item, asked: ReadonlySet<string>, plant: Plant): Item['facts'] {
  return {
    ...facts,
    ...(facts.author &&
      !asked.has('item author') && { author: `${facts.author} ${plant(id, { kind: 'author' })}` }),
    ...(facts.tags && !asked.has('item tag') && { tags: [...facts.tags, plant(id, { kind: 'tag' })] }),
  };
}

function markedSection(item: Section, content: Content, vocabulary: Vocabulary, plant: Plant): Content {
  const { id } = item;
  const needs = neededBy(content.section);
  const word = (needed = needs) => `${COMMON} ${plant(id, { kind: 'section part', with: needed })}`;
  return {
    ...content,
    body: markedText(item, content.body, needs, vocabulary, plant),
    ...(content.section && { section: markedParts(content.section, word) }),
  };
}

/** What has to be open beside a section for it to stand on a page. */
function neededBy(section: SectionContent | undefined): ItemId | 'nobody' | null {
  if (section?.type === 'picture' || section?.type === 'video')
    return section.file === null ? 'nobody' : (section.file as ItemId);
  return section?.type === 'call' && section.to.kind === 'item' ? section.to.item : null;
}

function markedParts(
  section: SectionContent,
  word: (needed?: ItemId | 'nobody' | null) => string,
): SectionContent {
  switch (section.type) {
    case 'picture':
      return { ...section, alt: `${section.alt} ${word()}`, caption: `${section.caption} ${word()}` };
    case 'video':
      return { ...section, caption: `${section.caption} ${word()}` };
    case 'form':
      return {
        ...section,
        fields: section.fields.map((field) => ({
          ...field,
          label: `${field.label} ${word()}`,
          choices: field.choices.map((choice) => `${choice} ${word()}`),
        })),
        button: `${section.button} ${word()}`,
        mailTo: `${word('nobody').replace(/ /g, '.')}@place.example`,
        thanks: `${section.thanks} ${word()}`,
      };
    case 'call':
      return { ...section, label: `${section.label} ${word()}` };
    case 'posts':
    case 'outline':
    case 'files':
    case 'follow':
    case 'prices':
      return section;
    default:
      return section satisfies never;
  }
}

/** A quiz with a mark in everything that it asks, and in everything that it tells afterwards. */
function markedQuiz(quiz: Quiz, plantAs: (kind: 'question' | 'right answer') => string): Quiz {
  const asked = (text: string) => `${text} ${COMMON} ${plantAs('question')}`;
  const told = (text: string) => `${text} ${COMMON} ${plantAs('right answer')}`;
  const marked = (question: Question): Question => {
    switch (question.kind) {
      case 'one':
      case 'several':
        return {
          ...question,
          options: question.options.map(({ text, right, feedback }) => ({
            text: asked(text),
            right,
            feedback: told(feedback),
          })),
        };
      case 'number':
        return question;
      case 'text':
        return { ...question, accepted: question.accepted.map(told) };
      case 'order':
        return { ...question, steps: question.steps.map(asked) };
      case 'pairs':
        return {
          ...question,
          pairs: question.pairs.map(({ left, right }) => ({ left: asked(left), right: asked(right) })),
        };
      default:
        return question satisfies never;
    }
  };
  return {
    ...quiz,
    questions: quiz.questions.map((question) => ({
      ...marked(question),
      text: asked(question.text),
      feedback: told(question.feedback),
    })),
  };
}

/** A text with a mark at the beginning and the end of every piece. */
function markedText(
  item: Section,
  body: string,
  needs: ItemId | 'nobody' | null,
  vocabulary: Vocabulary,
  plant: Plant,
): string {
  if (body === '') return '';
  const words: string[] = [];
  const line = () => {
    const word = newWord();
    words.push(word);
    return `\n\n${COMMON} ${word}\n`;
  };
  const heading = /^# .*\n/.exec(body)?.[0] ?? '';
  const rest = body
    .slice(heading.length)
    .split('\n')
    .map((text) => (text.startsWith(':::') ? `${line()}\n${text}\n${line()}` : text))
    .join('\n');
  const marked = `${heading}${line()}\n${rest}${line()}`;
  const placed = new Map<string, Part>();
  for (const piece of textsIn(parseRegions(marked, vocabulary, isShared(item)).pieces)) {
    for (const word of words) {
      const at = piece.text.indexOf(word);
      if (at < 0) continue;
      placed.set(word, {
        kind: 'text',
        path: piece.path,
        words: piece.text.slice(0, at).split(/\s+/).length,
        with: needs,
      });
    }
  }
  // What stands behind something wrong is nobody's, and has no place.
  return words.reduce(
    (text, word) =>
      text.replace(
        word,
        plant(item.id, placed.get(word) ?? { kind: 'text', path: 'nowhere', words: 0, with: 'nobody' }),
      ),
    marked,
  );
}
