/** Generators of visitors and requests that there can be, out of those that are drawn at random. */
import type fc from 'fast-check';
import { choicesFor } from '../condition';
import {
  type FieldValue,
  guest,
  isDay,
  member,
  nothingHeld,
  type RequestFacts,
  type VisitorFacts,
  WEEKDAYS,
} from '../site';
import { requests, visitors } from './arbitraries';
import { vocabulary } from './larkfell';

/** Somebody there can be, out of somebody drawn at random. */
function possible(one: VisitorFacts): VisitorFacts {
  if (!one.signedIn) return { ...guest, passphrases: one.passphrases };
  const { level } = one;
  const fields = vocabulary.fields.flatMap(({ id, type }): readonly (readonly [string, FieldValue])[] => {
    const value = one.profile?.[id];
    const fits =
      type === 'number'
        ? typeof value === 'number'
        : type === 'yes/no'
          ? typeof value === 'boolean'
          : type === 'date'
            ? isDay(value)
            : type === 'choice'
              ? choicesFor({ fact: 'profile', subject: id }, vocabulary).includes(String(value))
              : typeof value === 'string';
    return fits && value !== undefined ? [[id, value]] : [];
  });
  return member({
    ...one,
    id: one.id ?? ('somebody' as never),
    email: one.email ?? 'somebody@elsewhere.example',
    roles: one.roles ?? nothingHeld.roles,
    groups: one.groups ?? nothingHeld.groups,
    level: vocabulary.levels.some(({ id }) => id === level) ? level : null,
    profile: Object.fromEntries(fields),
    purchases: one.purchases ?? nothingHeld.purchases,
    granted: [],
    enrolments: one.enrolments ?? nothingHeld.enrolments,
    completions: one.completions ?? nothingHeld.completions,
    share: one.share ?? 50,
  });
}

/** Visitors there can be: nothing of them is unknown, and they have only what the site knows. */
export const somebody = visitors.map(possible);
/** Requests whose weekday is that of their day. */
export const somehow: fc.Arbitrary<RequestFacts> = requests.map((one) => ({
  ...one,
  weekday: WEEKDAYS[(new Date(`${one.today}T00:00:00Z`).getUTCDay() + 6) % 7] ?? 'Monday',
}));
