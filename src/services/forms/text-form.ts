/**
 * Texts as they come from outside, in forms that a JSON Schema can say as well: what is counted and looked for is the text
 * as it came, so that whoever checks a file by its published schema finds what is found here.
 */
import { z } from 'zod';

/** A text with something in it, without its outer spaces. */
export const words = (most: number, empty: string, long = `That is longer than ${most} letters.`) =>
  z.string().max(most, long).regex(/\S/, empty).trim();

/** A text that may be empty, without its outer spaces. */
export const spaced = (most: number, long = `That is longer than ${most} letters.`) =>
  z.string().max(most, long).trim();

/** An address elsewhere: nothing that could run anything. */
export const webAddress = z
  .string()
  .max(2000, 'That address is too long.')
  .regex(/^https?:\/\/\S+$/i, 'Write a whole address, like https://place.example/.')
  .refine((url) => URL.canParse(url), 'Write a whole address, like https://place.example/.');

const LONG = '(?:0[13578]|1[02])-(?:0[1-9]|[12]\\d|3[01])';
const SHORT = '(?:0[469]|11)-(?:0[1-9]|[12]\\d|30)';
const FEBRUARY = '02-(?:0[1-9]|1\\d|2[0-8])';
const LEAP = '(?:\\d\\d(?:0[48]|[2468][048]|[13579][26])|(?:[02468][048]|[13579][26])00)-02-29';
const DAY = new RegExp(`^(?:\\d{4}-(?:${LONG}|${SHORT}|${FEBRUARY})|${LEAP})$`);

/** A day that exists, in the Gregorian calendar (ISO 8601). */
export const dayForm = z.string().regex(DAY, 'Write a day like 2026-12-01.');

/** An id that is referred to. Whether there is such a thing is asked afterwards. */
export const id = z.string().min(1).max(100);

/** An id that comes from outside and is kept as it is. */
export const newId = z
  .string()
  .min(1)
  .max(100)
  .regex(/^[a-z0-9-]+$/, 'An id is made of small letters, digits and hyphens.');

/** The same as the id of one kind of thing. */
export const as = <T extends string>(form: z.ZodString): z.ZodType<T, string> =>
  form as unknown as z.ZodType<T, string>;

const NO_PERCENTAGE = 'A score is a percentage, from 0 to 100.';

/** A score: 0 to 100. */
export const percentage = z.number(NO_PERCENTAGE).min(0, NO_PERCENTAGE).max(100, NO_PERCENTAGE);
