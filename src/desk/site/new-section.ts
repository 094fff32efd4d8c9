import { capital, SECTIONS, type SectionType } from '@/core';
import type { SectionRead } from '@/services';

/** A section of a type to begin with. */
export function newSection(type: SectionType, group: string | null): SectionRead | null {
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
      return { ...base, type, file: null, caption: '' };
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
    case 'files':
      return { ...base, type, category: null };
    case 'follow':
      return group === null ? null : { ...base, type, text: '', group };
    case 'account':
      return { ...base, type };
    default:
      return type satisfies never;
  }
}
