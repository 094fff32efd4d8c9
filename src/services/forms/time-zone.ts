import { z } from 'zod';
import { momentIn } from '@/core';

/** The name of a time zone (IANA). */
export const timeZone = z
  .string()
  .max(100)
  .refine((zone) => {
    try {
      return momentIn(zone, new Date(0)) !== null;
    } catch {
      return false;
    }
  }, 'That is no time zone. Write one like Europe/Stockholm.');
