/** The language of a site, and its letters, as they come from outside. */
import { z } from 'zod';
import { LETTER_KINDS, LONGEST_LETTER, LONGEST_SUBJECT, languageTag, letterProblems } from '@/core';
import type { SiteLetters } from '@/store';

export const languageShape = z
  .string()
  .max(35, 'A language is a tag like "en", "de" or "pt-BR".')
  .refine((tag) => languageTag(tag) === tag, 'A language is a tag like "en", "de" or "pt-BR".');

// What is longer has its own words for it, as far as anybody types one.
const template = z.strictObject({
  subject: z.string().max(10 * LONGEST_SUBJECT, `It has at most ${LONGEST_SUBJECT} letters.`),
  text: z.string().max(10 * LONGEST_LETTER, `It has at most ${LONGEST_LETTER} letters.`),
});

/** A letter of some kind, with what is wrong with it at its part. */
export const letterShape = z
  .object({ kind: z.enum(LETTER_KINDS, 'There is no such letter.'), letter: template })
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
