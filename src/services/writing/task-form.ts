/** What may be handed in, as it comes from a site file and from the desk. */
import { z } from 'zod';
import { HANDED_IN_KINDS, type HandInTerms, MOST_HANDED_FILES, MOST_MEGABYTES, newTask } from '@/core';

export const taskShape = z
  .strictObject({
    text: z.boolean().default(newTask.text),
    files: z
      .int('Write a whole number of files.')
      .min(0, 'Write 0 where no files are taken.')
      .max(MOST_HANDED_FILES, `At most ${MOST_HANDED_FILES} files are handed in at once.`)
      .default(newTask.files),
    kinds: z
      .array(z.enum(HANDED_IN_KINDS))
      .max(HANDED_IN_KINDS.length)
      .default([...newTask.kinds]),
    megabytes: z
      .number()
      .min(0.1, 'A file may be at least 0.1 MB large.')
      .max(MOST_MEGABYTES, `A file is at most ${MOST_MEGABYTES} MB large.`)
      .default(newTask.megabytes),
  })
  .refine(({ text, files }) => text || files > 0, 'Let them write something, or hand in a file.')
  .refine(({ files, kinds }) => files === 0 || kinds.length > 0, 'Say which kinds of file are taken.');

/** What may be handed in, as it is edited. */
export const editedTask = ({ kinds, ...rest }: HandInTerms): z.output<typeof taskShape> => ({
  ...rest,
  kinds: [...kinds],
});
