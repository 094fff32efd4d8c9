/** The settings of a new site. */
import { randomBytes } from 'node:crypto';
import type { Settings } from '@/store';

/** Settings with keys of their own. */
export const newSettings = (timeZone: string): Settings => ({
  timeZone,
  journal: 'counts',
  journalDays: 90,
  graceDays: 7,
  signUp: 'anybody',
  signUpDomains: [],
  look: null,
  words: { foot: '', missing: '' },
  language: 'en',
  letters: {},
  starts: { level: null, roles: [], groups: [], asks: [] },
  clockAhead: 0,
  shareKey: randomBytes(32).toString('hex'),
  passphraseSalt: randomBytes(16).toString('hex'),
});
