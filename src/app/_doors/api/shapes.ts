/** What the API answers, as shapes: the OpenAPI document is made of them, and a test holds the answers to it. */
import { z } from 'zod';
import { ACTIVITY_TYPES, OPENABLE_KINDS } from '@/core';

const day = z.string().nullable();

export const entryShape = z
  .object({
    id: z.string(),
    kind: z.enum(OPENABLE_KINDS),
    title: z.string(),
    address: z.string().describe('The path on the site.'),
    access: z
      .enum(['open', 'teaser'])
      .describe('Whether all of it is open to whoever asks, or a teaser is shown.'),
    category: z.string().nullable(),
    tags: z.array(z.string()),
    author: z.string().nullable(),
    date: day.describe('A day like 2026-12-01.'),
    summary: z.string().describe('The summary, or what the teaser shows.'),
    reason: z.string().nullable().describe('For a teaser: why the rest is not open, if that may be told.'),
  })
  .meta({ id: 'Entry' });

export const sectionShape = z
  .object({
    id: z.string(),
    kind: z
      .string()
      .describe(
        'What is given: text, picture, video, form, call, posts, outline, files, follow, teaser, locked, message, swap.',
      ),
    html: z.string().optional(),
    title: z.string().optional(),
    text: z.string().optional(),
    reason: z.string().nullable().optional(),
    address: z
      .string()
      .optional()
      .describe('The path of a picture, a video or a course, or where a call leads.'),
    caption: z.string().optional(),
    entries: z.array(z.string()).optional().describe('The ids of posts, files or activities.'),
  })
  .meta({ id: 'Section' });

export const itemShape = entryShape
  .extend({
    sections: z.array(sectionShape).describe('For a page or post that is open.'),
    mediaType: z.string().optional().describe('For a file.'),
    size: z.int().optional().describe('For a file: its length in bytes.'),
  })
  .meta({ id: 'Item' });

export const listShape = z
  .object({
    items: z.array(entryShape),
    next: z.string().nullable().describe('The path of the rest, or null at the end.'),
  })
  .meta({ id: 'Items' });

const closedShape = {
  open: z.boolean(),
  reason: z.string().nullable().describe('Why it is closed, if that may be told.'),
};

export const courseShape = z
  .object({
    id: z.string(),
    title: z.string(),
    address: z.string().describe('The path on the site.'),
    progress: z
      .object({ done: z.int(), of: z.int() })
      .nullable()
      .describe('How many of the activities that are told of the key’s member has done; null for guests.'),
    units: z
      .array(
        z.object({
          id: z.string(),
          title: z.string(),
          ...closedShape,
          activities: z
            .array(
              z.object({
                id: z.string(),
                title: z.string(),
                type: z.enum(ACTIVITY_TYPES),
                address: z.string().nullable().describe('The path on the site; null where it is closed.'),
                done: z.boolean(),
                ...closedShape,
              }),
            )
            .describe('Empty where the unit is closed.'),
        }),
      )
      .describe('What is left out for whoever asks is not among it.'),
  })
  .meta({ id: 'Course' });

export const problemShape = z
  .object({
    type: z.string().optional(),
    title: z.string(),
    status: z.int(),
    detail: z.string().optional(),
    location: z.string().optional().describe('Where a browser would be sent.'),
  })
  .meta({ id: 'Problem', description: 'Problem details (RFC 9457).' });

export type Course = z.infer<typeof courseShape>;
export type Entry = z.infer<typeof entryShape>;
export type Item = z.infer<typeof itemShape>;
export type List = z.infer<typeof listShape>;
export type Section = z.infer<typeof sectionShape>;
export type Problem = z.infer<typeof problemShape>;
