/** Larkfell Observatory: the demo site as a site file, loaded by the same service as anybody's site. */
import type { Day } from '@/core';
import type { SiteFile } from '@/services';
import { coursesOn } from './courses';
import { policy } from './gates';
import { itemsOn } from './pages';
import { peopleOn } from './people';
import { shared } from './shared';
import { shopOn } from './shop';

/** What the demo's one passphrase is; its page and the sign-in page say so. */
export const DEMO_PASSPHRASE = 'bring a red torch';

/** The demo as it is loaded on a day; people's dates are counted from it. */
export const larkfellOn = (today: Day): SiteFile => ({
  format: 'trivet site',
  version: 1,
  timeZone: 'UTC',
  levels: [
    { id: 'friend', name: 'Friend' },
    { id: 'observer', name: 'Observer' },
    { id: 'keeper', name: 'Keeper' },
  ],
  roles: [
    { id: 'trustee', name: 'Trustee' },
    { id: 'volunteer', name: 'Volunteer' },
    { id: 'tutor', name: 'Tutor' },
  ],
  groups: [
    { id: 'dome-crew', name: 'Dome crew' },
    { id: 'hollin-school', name: 'Hollin School' },
    { id: 'tarn-survey', name: 'Tarn Survey' },
    { id: 'sky-diary', name: 'Sky diary followers', open: true },
    { id: 'suspended', name: 'Suspended', private: true },
    // Easily taken for the role, and nothing asks for it. The findings say so.
    { id: 'trustee-group', name: 'Trustees' },
  ],
  products: [
    { id: 'observer-pass', name: 'Observer pass', kind: 'subscription' },
    { id: 'keeper-pass', name: 'Keeper pass', kind: 'subscription' },
    { id: 'comet-night', name: 'Comet night', kind: 'ticket' },
    { id: 'winter-atlas', name: 'Winter atlas', kind: 'one-off' },
    { id: 'astro-course', name: 'Astrophotography course', kind: 'one-off' },
  ],
  fields: [
    { id: 'team', name: 'team', type: 'choice', choices: ['Optics', 'Grounds', 'Visits'] },
    { id: 'dome-certificate', name: 'dome certificate', type: 'yes/no' },
    { id: 'certificate-expires', name: 'certificate expires', type: 'date' },
    { id: 'valley', name: 'valley', type: 'text', editable: true },
    { id: 'birth-year', name: 'birth year', type: 'number', private: true },
    { id: 'hours-logged', name: 'hours logged', type: 'number' },
    { id: 'newsletter', name: 'newsletter', type: 'yes/no', editable: true },
  ],
  passphrases: [{ id: 'comet-mail', name: 'Comet night by mail', passphrase: DEMO_PASSPHRASE }],
  people: [...peopleOn(today)],
  items: [...itemsOn(today), ...coursesOn(today)],
  shared: [...shared],
  shop: shopOn(today),
  policy,
  board: ['marek', 'tobin'],
});

/** The demo on the day on which tests happen. */
export const larkfell = larkfellOn('2026-11-20');
