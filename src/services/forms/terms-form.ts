/** What a product is sold for and gives, as it comes from outside. What it names is checked where it is known. */
import { z } from 'zod';
import {
  asId,
  type Condition,
  type ItemId,
  isCurrency,
  MOST_AMOUNT,
  nameOfId,
  type Outline,
  type Product,
  type ProductTerms,
  type Vocabulary,
} from '@/core';
import { dayForm, newId } from './text-form';

const MOST_PRICES = 20;
const MOST_GRANTED = 50;
const MOST_SEATS = 100_000;
const day = dayForm.nullable().default(null);
const list = z.array(newId).max(MOST_GRANTED, `A product gives at most ${MOST_GRANTED} of them.`).default([]);

/** A price, with the condition of who can have it as it is read by `who`. */
const priceShape = <T extends z.ZodType>(who: T) =>
  z.strictObject({
    id: newId,
    amount: z
      .int('An amount is a whole number of the smallest coin.')
      .min(1, 'A price is more than nothing. For what costs nothing there are gates, and vouchers.')
      .max(MOST_AMOUNT, 'That is more than can be charged.'),
    currency: z
      .string()
      .regex(/^[A-Z]{3}$/, 'Write a currency as in ISO 4217, like EUR.')
      .refine(isCurrency, 'There is no such currency. Write one as in ISO 4217, like EUR.'),
    months: z
      .int()
      .min(1, 'A period is at least a month.')
      .max(120, 'A period is at most ten years.')
      .nullable()
      .default(null),
    trialDays: z
      .int()
      .min(0, 'A trial has no days, or some.')
      .max(366, 'A trial is a year at most.')
      .default(0),
    from: day,
    until: day,
    who,
  });

/** The terms of a product, with conditions in the shape that is given. */
export const termsShape = <T extends z.ZodType>(who: T) =>
  z.strictObject({
    about: z.string().trim().max(2000, 'At most 2,000 letters.').default(''),
    sold: z.boolean().default(true),
    page: newId.nullable().default(null),
    grants: z
      .strictObject({
        level: newId.nullable().default(null),
        roles: list,
        groups: list,
        enrolments: z
          .array(z.strictObject({ course: newId, days: z.int().min(1).max(3650).nullable().default(null) }))
          .max(MOST_GRANTED)
          .default([]),
      })
      .default({ level: null, roles: [], groups: [], enrolments: [] }),
    prices: z
      .array(priceShape(who))
      .max(MOST_PRICES, `A product has at most ${MOST_PRICES} prices.`)
      .default([]),
    seats: z
      .int('Seats are counted in whole numbers.')
      .min(1, 'There is at least one seat.')
      .max(MOST_SEATS, 'That is more seats than can be sold here.')
      .nullable()
      .default(null),
    day,
  });

/** The same, read; ids are known to be well formed. */
export const termsIn = (
  read: Omit<z.output<ReturnType<typeof termsShape>>, 'prices'> & {
    readonly prices: readonly { readonly id: string; readonly who: Condition }[];
  },
): ProductTerms => read as unknown as ProductTerms;

/** What is wrong with the terms of a product on a site, a sentence each, by where it is wrong. */
export function termsProblems(
  { kind }: Pick<Product, 'kind'>,
  { grants, prices, page, seats, day: on }: ProductTerms,
  vocabulary: Vocabulary,
  { items }: Pick<Outline, 'items'>,
): readonly { readonly at: string; readonly message: string }[] {
  const found: { at: string; message: string }[] = [];
  const wrong = (at: string, message: string) => found.push({ at, message });
  const gone = (of: 'level' | 'role' | 'group' | 'course', id: string) =>
    nameOfId(vocabulary, of, id) === null &&
    wrong('grants', `It gives a ${of} that is not there (${id}). Choose another.`);
  if (grants.level !== null) gone('level', grants.level);
  for (const id of grants.roles) gone('role', id);
  for (const id of grants.groups) gone('group', id);
  for (const { course } of grants.enrolments) gone('course', course);
  if (new Set(prices.map(({ id }) => id)).size < prices.length)
    wrong('prices', 'Two prices have the same id.');
  for (const price of prices) {
    const at = `prices ${price.id}`;
    if ((price.months !== null) !== (kind === 'subscription'))
      wrong(
        at,
        kind === 'subscription'
          ? 'Say how often a subscription is paid.'
          : 'Only subscriptions are paid again and again.',
      );
    if (price.trialDays > 0 && kind !== 'subscription') wrong(at, 'Only subscriptions can be tried first.');
    if (price.from !== null && price.until !== null && price.from > price.until)
      wrong(at, 'Its last day is before its first.');
  }
  const item = page === null ? null : items.get(asId<ItemId>(page));
  if (page !== null && item?.kind !== 'page')
    wrong('page', 'Its page is not there any more. Choose another, or none.');
  if (kind !== 'ticket' && (seats !== null || on !== null))
    wrong('seats', 'Only tickets have seats and a day.');
  return found;
}
