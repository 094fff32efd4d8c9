import { capital, type Outline, SECTION_TYPES, SECTIONS, type SectionType, type Vocabulary } from '@/core';
import type { SectionRead } from '@/services';

/** What a section may be about, where the site has some. */
interface About {
  readonly group: string | null;
  readonly course: string | null;
}

/** The first open group and the first course there are. */
export const aboutIn = (
  { groups }: Pick<Vocabulary, 'groups'>,
  { addressed }: Pick<Outline, 'addressed'>,
): About => ({
  group: groups.find(({ open }) => open)?.id ?? null,
  course: [...addressed.values()].find(({ kind }) => kind === 'course')?.id ?? null,
});

/** The types of section that can be made there. */
export const offeredSections = (about: About): readonly SectionType[] =>
  SECTION_TYPES.filter((type) => newSection(type, about) !== null);

/** A section of a type to begin with; null where there is nothing that it could be about. */
export function newSection(type: SectionType, { group, course }: About): SectionRead | null {
  const base = {
    id: crypto.randomUUID(),
    title: capital(SECTIONS[type].name),
    summary: '',
    published: true,
  };
  switch (type) {
    case 'text':
      return { ...base, type, text: '' };
    case 'picture':
      return { ...base, type, file: null, alt: '', caption: '' };
    case 'video':
      return { ...base, type, file: null, caption: '', captions: null, text: '' };
    case 'form':
      return {
        ...base,
        type,
        text: '',
        fields: [{ label: 'Your name', type: 'text', choices: [], required: true }],
        button: 'Send',
        mailTo: '',
        thanks: 'Thank you. It has been sent.',
      };
    case 'call':
      return { ...base, type, text: '', label: 'Sign up', to: { kind: 'sign up' } };
    case 'posts':
      return { ...base, type, category: null, tag: null, count: 5 };
    case 'outline':
      return course === null ? null : { ...base, type, course };
    case 'files':
      return { ...base, type, category: null };
    case 'follow':
      return group === null ? null : { ...base, type, text: '', group };
    case 'prices':
      return { ...base, type, text: '', products: [] };
    case 'account':
      return { ...base, type };
    default:
      return type satisfies never;
  }
}
