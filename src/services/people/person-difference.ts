/** What a change did to one person, in words: which facts were otherwise before. */
import { dayInWords, isDay, type NameKind, nameOfId, type Purchase, type SiteNames, same } from '@/core';
import type { PersonRecord } from '@/store';

/** One fact before and after; nothing where there was none. */
export interface FactChange {
  readonly fact: string;
  readonly before: string | null;
  readonly after: string | null;
}

/** The facts that differ between two records of a person. Somebody who came or went differs in everything they have. */
export function personDifference(
  before: PersonRecord | null,
  after: PersonRecord | null,
  names: SiteNames,
): readonly FactChange[] {
  const texts = [before, after].map((record) =>
    record ? factTexts(record, names) : new Map<string, string>(),
  );
  const [was = new Map<string, string>(), is = new Map<string, string>()] = texts;
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((fact) => {
    const pair = { before: was.get(fact) ?? null, after: is.get(fact) ?? null };
    return same(pair.before, pair.after) ? [] : [{ fact, ...pair }];
  });
}

/** What is known of a person, a fact at a time: so each group is one, and each purchase. */
function factTexts(record: PersonRecord, names: SiteNames): Map<string, string> {
  const vocabulary = { ...names, audiences: [] };
  const named = (kind: NameKind, id: string) => nameOfId(vocabulary, kind, id) ?? `${id}, which is gone`;
  const shown = (value: unknown) =>
    typeof value === 'boolean' ? (value ? 'yes' : 'no') : isDay(value) ? dayInWords(value) : String(value);
  const texts = new Map<string, string>([
    ['Name', record.name],
    ['Mail address', record.email],
  ]);
  if (record.level) texts.set('Level', named('level', record.level));
  for (const role of record.roles) texts.set(`Role ${named('role', role)}`, 'has it');
  for (const group of record.groups) texts.set(`Group ${named('group', group)}`, 'in it');
  for (const [field, value] of Object.entries(record.profile)) texts.set(named('field', field), shown(value));
  for (const purchase of record.purchases)
    texts.set(`Bought ${named('product', purchase.product)}`, boughtText(purchase));
  for (const { course, on, until } of record.enrolments)
    texts.set(
      `Enrolled in ${named('course', course)}`,
      dayInWords(on) + (until === null ? '' : `, until ${dayInWords(until)}`),
    );
  const kindOf = (id: string) =>
    (['activity', 'unit', 'course'] as const).find((kind) => nameOfId(vocabulary, kind, id) !== null);
  for (const { item, on, score } of record.completions)
    texts.set(
      `Completed ${named(kindOf(item) ?? 'activity', item)}`,
      dayInWords(on) + (score === null ? '' : `, score ${score}`),
    );
  if (record.joined) texts.set('Joined', dayInWords(record.joined));
  if (record.desk)
    texts.set(
      'Right at the desk',
      record.desk.right + (record.desk.branch ? ` for ${record.desk.branch}` : ''),
    );
  return texts;
}

const boughtText = ({ on, until, state }: Purchase): string =>
  `${state} ${dayInWords(on)}${until ? `, until ${dayInWords(until)}` : ''}`;
