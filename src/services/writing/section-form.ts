/** Sections as they come from outside: from a site file and from the desk. */
import { z } from 'zod';
import {
  asId,
  type Calling,
  type ItemId,
  type LinkTarget,
  nameOfId,
  OPENABLE_KINDS,
  oneOfKinds,
  ownWordProblem,
  parseRegions,
  pathOf,
  renameOwnWords,
  renameRegions,
  SECTIONS,
  type Section,
  type SectionType,
  type Shared,
  type Vocabulary,
  valuesOf,
} from '@/core';
import type { Content, SectionContent, StoredItem } from '@/store';
import { as, newId as id, spaced, webAddress, words } from '../forms';
import { markdownProblem } from '../texts';

export const title = words(200, 'Give it a title.', 'A title has at most 200 letters.');

export const target = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('item'), item: as<ItemId>(id) }),
  z.strictObject({
    kind: z.literal('outside'),
    url: webAddress,
  }),
  z.strictObject({ kind: z.literal('sign in') }),
  z.strictObject({ kind: z.literal('sign up') }),
  z.strictObject({ kind: z.literal('sign out') }),
]);

const text = z.string().max(200_000, 'A text has at most 200,000 characters.').default('');
const line = spaced(500, 'That is too long.').default('');
const some = words(200, 'Name it.').nullable().default(null);
const base = {
  id,
  /** For the desk, and for those who are told that there is something. */
  title,
  summary: spaced(2000).default(''),
  published: z.boolean().default(true),
};

const formField = z.strictObject({
  label: words(200, 'Say what is asked.'),
  type: z.enum(['text', 'long', 'mail', 'choice', 'tick']).default('text'),
  choices: z.array(words(200, 'A choice has a name.')).max(50).default([]),
  required: z.boolean().default(false),
});

const sections = {
  text: z.strictObject({ ...base, type: z.literal('text'), text }),
  picture: z.strictObject({
    ...base,
    type: z.literal('picture'),
    file: id.nullable().default(null),
    alt: line,
    caption: line,
  }),
  video: z.strictObject({
    ...base,
    type: z.literal('video'),
    file: id.nullable().default(null),
    caption: line,
    captions: id.nullable().default(null),
    /** What is said in it. */
    text: text.default(''),
  }),
  form: z.strictObject({
    ...base,
    type: z.literal('form'),
    text,
    fields: z.array(formField).max(40, 'A form asks at most 40 things.').default([]),
    button: words(100, 'Say what stands on the button.').default('Send'),
    mailTo: z.email('Say to which mail address it goes.').max(254),
    thanks: spaced(1000).default('Thank you. It has been sent.'),
  }),
  call: z.strictObject({
    ...base,
    type: z.literal('call'),
    text,
    label: words(100, 'Say what stands on the button.'),
    to: target,
  }),
  posts: z.strictObject({
    ...base,
    type: z.literal('posts'),
    category: some,
    tag: some,
    count: z.int().min(1, 'Show at least one post.').max(50, 'A list shows at most 50 posts.').default(5),
  }),
  files: z.strictObject({ ...base, type: z.literal('files'), category: some }),
  outline: z.strictObject({ ...base, type: z.literal('outline'), course: id }),
  follow: z.strictObject({ ...base, type: z.literal('follow'), text, group: id }),
  prices: z.strictObject({
    ...base,
    type: z.literal('prices'),
    text,
    products: z.array(id).max(100, 'A table has at most 100 products.').default([]),
  }),
  account: z.strictObject({ ...base, type: z.literal('account') }),
} satisfies Record<SectionType, z.ZodObject>;
export const sectionShape = z.discriminatedUnion('type', valuesOf(sections));

export type SectionRead = z.output<typeof sectionShape>;

/** A text with what it names called by ids, which is how it is kept, so that new names change nothing; or by names. */
const renamed = (text: string, vocabulary: Vocabulary, calling: Calling): string =>
  renameOwnWords(renameRegions(text, vocabulary, calling), vocabulary, calling);

/** A section as it is kept; with where it stands, if many pages share it. */
export function storedSection(
  read: SectionRead,
  parent: ItemId,
  rank: number,
  vocabulary: Vocabulary,
  shared?: Shared,
): StoredItem & { readonly item: Section } {
  const { id: own, title: name, summary, published, type, ...rest } = read;
  const { text: body = '', ...more } = { text: undefined, ...rest };
  return {
    item: {
      kind: 'section',
      id: asId(own),
      parent,
      rank,
      title: name,
      published,
      type,
      ...(shared && { shared }),
    },
    content: {
      summary,
      body: renamed(body ?? '', vocabulary, 'by id'),
      ...(Object.keys(more).length > 0 && { section: { type, ...more } as unknown as SectionContent }),
    },
  };
}

/** A section as it is edited, with the names that its regions use at present. */
export function editedSection(item: Section, content: Content, vocabulary: Vocabulary): SectionRead {
  const { type: _, ...more } = content.section ?? { type: item.type };
  const text = SECTIONS[item.type].text ? { text: renamed(content.body, vocabulary, 'by name') } : {};
  return {
    id: item.id,
    title: item.title,
    summary: content.summary,
    published: item.published,
    type: item.type,
    ...more,
    ...text,
  } as SectionRead;
}

/** What is wrong with a section, where. */
export interface SectionProblem {
  readonly section: string;
  /** Within its text, counted from 1; null for the section as a whole. */
  readonly line: number | null;
  readonly column: number | null;
  readonly message: string;
}

/** What is wrong with sections beyond their shape: regions, texts, what they name. */
export function sectionProblems(
  sections: readonly SectionRead[],
  vocabulary: Vocabulary,
  itemOf: (id: string) => Parameters<typeof pathOf>[0],
  areShared = false,
): readonly SectionProblem[] {
  return sections.flatMap((section): SectionProblem[] => {
    const whole = (message: string): SectionProblem => ({
      section: section.id,
      line: null,
      column: null,
      message,
    });
    const problems: SectionProblem[] = [];
    if ('text' in section) {
      for (const wrong of [
        parseRegions(section.text, vocabulary, areShared).problem,
        ownWordProblem(section.text, vocabulary),
      ])
        if (wrong) problems.push({ section: section.id, ...wrong });
      const hard = markdownProblem(section.text);
      if (hard) problems.push({ section: section.id, column: null, ...hard });
    }
    if ('file' in section && section.file !== null) {
      const file = itemOf(section.file);
      if (file?.kind !== 'file' || !file.mediaType.startsWith(SECTIONS[section.type].shows))
        problems.push(whole(`There is no such ${section.type}. Choose another.`));
    }
    if (section.type === 'video' && section.captions !== null) {
      const captions = itemOf(section.captions);
      if (captions?.kind !== 'file' || captions.mediaType !== 'text/vtt')
        problems.push(whole('There are no such captions. Choose a WebVTT file, or none.'));
    }
    if (section.type === 'outline' && itemOf(section.course)?.kind !== 'course')
      problems.push(whole('There is no such course. Choose another.'));
    if (section.type === 'call') problems.push(...leads(section.to, itemOf).map(whole));
    if (section.type === 'form') {
      if (section.fields.length === 0) problems.push(whole('A form asks for something. Add a question.'));
      for (const field of section.fields)
        if (field.type === 'choice' && field.choices.length === 0)
          problems.push(whole(`Give “${field.label}” something to choose from.`));
    }
    if (section.type === 'prices')
      for (const product of section.products)
        if (nameOfId(vocabulary, 'product', product) === null)
          problems.push(whole(`There is no product “${product}” any more. Take it out.`));
    if (section.type === 'follow') {
      const group = vocabulary.groups.find((one) => one.id === section.group);
      if (!group?.open) {
        const name = nameOfId(vocabulary, 'group', section.group) ?? section.group;
        problems.push(whole(`${name} is no open group. Open it under Names, or choose another.`));
      }
    }
    return problems;
  });
}

const leads = (
  to: z.output<typeof target> | LinkTarget,
  itemOf: (id: string) => Parameters<typeof pathOf>[0],
) =>
  to.kind === 'item' && pathOf(itemOf(to.item)) === null
    ? [`The button leads to nothing. Choose ${oneOfKinds(OPENABLE_KINDS)}.`]
    : [];
