/** Amounts of money: whole numbers of a currency's minor unit (ISO 4217), never fractions of one. */
import { onceFor } from '../once';

/** An amount in a currency's minor unit: 1200 of EUR are 12.00 €. */
export interface Money {
  readonly amount: number;
  /** Three capitals, as in ISO 4217. */
  readonly currency: string;
}

/** How many decimals the minor unit of a currency is (ISO 4217, table A.1), where it is not two. */
const DECIMALS: Readonly<Record<string, number>> = {
  BIF: 0,
  CLP: 0,
  DJF: 0,
  GNF: 0,
  ISK: 0,
  JPY: 0,
  KMF: 0,
  KRW: 0,
  PYG: 0,
  RWF: 0,
  UGX: 0,
  UYI: 0,
  VND: 0,
  VUV: 0,
  XAF: 0,
  XOF: 0,
  XPF: 0,
  BHD: 3,
  IQD: 3,
  JOD: 3,
  KWD: 3,
  LYD: 3,
  OMR: 3,
  TND: 3,
  CLF: 4,
  UYW: 4,
};

/** The largest amount that is taken, in minor units. */
export const MOST_AMOUNT = 99_999_999_999;

/** Whether there is a currency of that name. */
export const isCurrency = (code: string): boolean => currencies().has(code);

let known: ReadonlySet<string> | null = null;
function currencies(): ReadonlySet<string> {
  known ??= new Set(Intl.supportedValuesOf('currency'));
  return known;
}

/** How many decimals amounts of a currency are written with. */
export const decimalsOf = (currency: string): number => DECIMALS[currency] ?? 2;

/** "12.00 €", "1,000 ¥", "3.500 KWD". */
export function moneyInWords({ amount, currency }: Money): string {
  const decimals = decimalsOf(currency);
  const digits = String(Math.abs(amount)).padStart(decimals + 1, '0');
  const whole = digits.slice(0, digits.length - decimals).replace(/\B(?=(\d{3})+$)/g, ',');
  const rest = decimals === 0 ? '' : `.${digits.slice(-decimals)}`;
  return `${amount < 0 ? '−' : ''}${whole}${rest} ${signOf(currency)}`;
}

/** As it is typed and kept in tables: "12.00". */
export function plainAmount({ amount, currency }: Money): string {
  const decimals = decimalsOf(currency);
  const digits = String(Math.abs(amount)).padStart(decimals + 1, '0');
  const sign = amount < 0 ? '-' : '';
  return decimals === 0 ? sign + digits : `${sign}${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
}

/** Reads an amount as somebody types it: "12", "12.5", "12,50". Answers what is wrong with it where it is none. */
export function readAmount(text: string, currency: string): number | { readonly problem: string } {
  const decimals = decimalsOf(currency);
  const example = plainAmount({ amount: 12 * 10 ** decimals, currency });
  const found = /^(\d{1,20})(?:[.,](\d{1,4}))?$/.exec(text.trim());
  if (!found) return { problem: `Type an amount like ${example}.` };
  const [, whole = '', rest = ''] = found;
  if (rest.length > decimals)
    return {
      problem: `${currency} has ${decimals === 0 ? 'no decimals' : `${decimals} decimals`}. Type an amount like ${example}.`,
    };
  const amount = Number(whole + rest.padEnd(decimals, '0'));
  if (amount > MOST_AMOUNT)
    return {
      problem: `That is more than can be charged: at most ${moneyInWords({ amount: MOST_AMOUNT, currency })}.`,
    };
  return amount;
}

const signOf = onceFor((currency: string): string => {
  const parts = /^[A-Z]{3}$/.test(currency)
    ? new Intl.NumberFormat('en', {
        style: 'currency',
        currency,
        currencyDisplay: 'narrowSymbol',
      }).formatToParts(0)
    : [];
  return parts.find(({ type }) => type === 'currency')?.value ?? currency;
});

/** Sums of amounts, one for each currency, in the order of their names. */
export function sumsOf(list: Iterable<Money>): readonly Money[] {
  const sums = new Map<string, number>();
  for (const { amount, currency } of list) sums.set(currency, (sums.get(currency) ?? 0) + amount);
  return [...sums]
    .toSorted(([one], [other]) => (one < other ? -1 : 1))
    .map(([currency, amount]) => ({ currency, amount }));
}
