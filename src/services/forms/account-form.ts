/** What makes an account, as people type it. */
import { z } from 'zod';

/** In lower case, so that one mailbox is one account. */
export const mailAddress = z
  .string({ error: 'Type one mail address.' })
  .trim()
  .toLowerCase()
  .pipe(z.email('Type a mail address like name@place.example.').max(254, 'That is too long.'));

export const newPassword = z
  .string({ error: 'Choose one password.' })
  .min(8, 'A password has at least 8 characters.')
  .max(1000, 'That is too long for a password.');

export const personName = z
  .string({ error: 'Type one name.' })
  .trim()
  .min(1, 'Type your name.')
  .max(200, 'A name has at most 200 letters.');
