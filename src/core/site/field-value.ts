/** The values of profile fields: checking them, and reading them from what somebody typed or a file holds. */
import { english, type Messages } from '../messages/english';
import { isDay } from './day';
import type { FieldValue } from './visitor';
import type { Field } from './vocabulary';

const LONGEST = 500;

/** What is wrong with a value for a field, or null. */
export function fieldValueProblem(
  field: Field,
  value: unknown,
  { account: { field: says } }: Pick<Messages, 'account'> = english,
): string | null {
  switch (field.type) {
    case 'text':
      if (typeof value !== 'string' || value === '') return says.text(field.name);
      return value.length <= LONGEST ? null : says.long(field.name, LONGEST);
    case 'choice':
      return typeof value === 'string' && field.choices.includes(value)
        ? null
        : says.choice(field.name, field.choices);
    case 'number':
      return typeof value === 'number' && Number.isFinite(value) ? null : says.number(field.name);
    case 'date':
      return isDay(value) ? null : says.date(field.name);
    case 'yes/no':
      return typeof value === 'boolean' ? null : says.yesNo(field.name);
    default:
      return field.type satisfies never;
  }
}

export type ReadFieldValue =
  /** `null` clears the field. */
  { readonly value: FieldValue | null } | { readonly problem: string };

/** Reads a field's value from a text; an empty one clears it. Takes care of case, not of meaning. */
export function readFieldValue(field: Field, text: string): ReadFieldValue {
  const given = text.trim();
  if (given === '') return { value: null };
  const value = valueIn(field, given);
  const problem = fieldValueProblem(field, value);
  return problem === null
    ? { value: value as FieldValue }
    : { problem: `${problem} “${given.slice(0, 40)}” is not.` };
}

function valueIn(field: Field, given: string): unknown {
  switch (field.type) {
    case 'number':
      return /^-?\d+([.,]\d+)?$/.test(given) ? Number(given.replace(',', '.')) : given;
    case 'yes/no':
      return /^(yes|true|1)$/i.test(given) ? true : /^(no|false|0)$/i.test(given) ? false : given;
    case 'choice':
      return field.choices.find((choice) => choice.toLowerCase() === given.toLowerCase()) ?? given;
    default:
      return given;
  }
}

/** A value as a text that {@link readFieldValue} reads back. */
export const fieldValueText = (value: FieldValue | undefined): string =>
  value === undefined ? '' : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);

/**
 * A value after its field has changed type or choices: converted where it can be without a guess, else null, which
 * leaves the field not filled in.
 */
export function convertedFieldValue(value: FieldValue, to: Field): FieldValue | null {
  const read = readFieldValue(to, fieldValueText(value));
  return 'value' in read ? read.value : null;
}
