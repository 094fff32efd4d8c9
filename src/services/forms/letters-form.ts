/** The language of a site, and its letters, as they come from outside. */
import { z } from 'zod';
import { LETTER_KINDS, LONGEST_LETTER, LONGEST_SUBJECT, languageTag, letterProblems } from '@/core';
import type { SiteLetters } from '@/store';

export const languageShape = z
  .string()
  .max(35, 'A language is a tag like "en", "de" or "pt-BR".')
  .refine((tag) => languageTag(tag) === tag, 'A language is a tag like "en", "de" or "pt-BR".');

// What is longer has its own words for it, as far as anybody types one.
const part = (most: number) =>
  z.string({ error: 'Write it as text.' }).max(10 * most, `It has at most ${most} letters.`);
const template = z.strictObject(
  { subject: part(LONGEST_SUBJECT), text: part(LONGEST_LETTER) },
  { error: 'A letter has a subject and a text, and nothing else.' },
);

/** A letter of some kind, with what is wrong with it at its part. */
export const letterShape = z
  .object(
    { kind: z.enum(LETTER_KINDS, 'There is no such letter.'), letter: template },
    { error: 'Say which letter it is, and what it says.' },
  )
  .superRefine(({ kind, letter }, context) => {
    for (const [part, message] of Object.entries(letterProblems(kind, letter)))
      context.addIssue({ code: 'custom', message, path: [part] });
  });

/** Letters in a site's own words, by kind. */
export const lettersShape = z
  .partialRecord(z.enum(LETTER_KINDS), template)
  .superRefine((letters, context) => {
    for (const kind of LETTER_KINDS) {
      const letter = letters[kind];
      for (const [part, message] of Object.entries(letter ? letterProblems(kind, letter) : {}))
        context.addIssue({ code: 'custom', message, path: [kind, part] });
    }
  });

/** Letters as they are kept. */
export const lettersOf = (read: z.output<typeof lettersShape>): SiteLetters =>
  Object.fromEntries(Object.entries(read).filter(([, letter]) => letter !== undefined));
