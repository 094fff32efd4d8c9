/** What makes an account, as people type it; what is wrong is said in the language of whoever types. */
import { z } from 'zod';
import { byMessages, english } from '@/core';

export const accountForm = byMessages(({ signIn, signUp }) => ({
  /** In lower case, so that one mailbox is one account. */
  mailAddress: z
    .string({ error: signIn.oneEmail })
    .trim()
    .toLowerCase()
    .pipe(z.email(signUp.badEmail).max(254, signUp.longEmail)),
  newPassword: z
    .string({ error: signUp.onePassword })
    .min(8, signUp.shortPassword)
    .max(1000, signIn.longPassword),
  personName: z.string({ error: signUp.oneName }).trim().min(1, signUp.noName).max(200, signUp.longName),
}));

/** The same as the desk says it. */
export const { mailAddress, newPassword, personName } = accountForm(english);
