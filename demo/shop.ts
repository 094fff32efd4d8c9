/** What Larkfell sells, for how much, and what it gives. */
import { addDays, type Day } from '@/core';
import type { SiteFile } from '@/services';

type Shop = NonNullable<SiteFile['shop']>;

const price = (
  id: string,
  amount: number,
  months: number | null = null,
  more: { readonly trialDays?: number; readonly who?: string } = {},
) => ({ id, amount, currency: 'EUR', months, ...more });

export const shopOn = (today: Day): Shop => ({
  graceDays: 7,
  products: [
    {
      product: 'observer-pass',
      about: 'The Observers’ room, its charts, and nights at the small dome.',
      grants: { level: 'observer' },
      prices: [price('observer-month', 1200, 1), price('observer-year', 12_000, 12)],
    },
    {
      product: 'keeper-pass',
      about: 'Everything that Observers have, the Keepers’ evening, and a key to the lower room.',
      grants: { level: 'keeper' },
      prices: [
        price('keeper-month', 2500, 1, { trialDays: 14 }),
        price('keeper-year', 25_000, 12),
        price('keeper-school', 12_500, 12, { who: 'in group "Hollin School"' }),
      ],
    },
    {
      product: 'comet-night',
      about: 'The comet from the west lawn, with soup. Forty of us, and no more.',
      prices: [price('comet-seat', 900)],
      seats: 40,
      day: addDays(today, 21),
    },
    {
      product: 'winter-atlas',
      about: 'Eighty fields of the winter sky, to be read by red light.',
      prices: [price('atlas', 1800)],
    },
    {
      product: 'astro-course',
      about: 'Eight evenings’ worth of Astrophotography, with a tutor who looks at what you made.',
      grants: { enrolments: [{ course: 'astrophotography', days: 120 }] },
      prices: [price('course', 7500)],
    },
  ],
});
