/** Who may make an account, as it is set. */
import { z } from 'zod';
import { SIGN_UPS } from '@/store';

const domain = z
  .string()
  .trim()
  .toLowerCase()
  .max(253)
  .regex(
    /^[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)+$/,
    'Write domains like place.example.',
  );

export const signUpShape = z
  .strictObject({
    who: z.enum(SIGN_UPS, 'Choose who may sign up.'),
    domains: z.array(domain).max(100, 'At most 100 domains.').default([]),
  })
  .refine(({ who, domains }) => who !== 'domains' || domains.length > 0, {
    message: 'Write the domains of those who may sign up.',
    path: ['domains'],
  });
