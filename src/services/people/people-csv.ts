/**
 * People as CSV (RFC 4180), out and in. What a spreadsheet would take for a formula is written with an apostrophe before
 * it and read without. Reading is a dry run first; then all or nothing.
 */
import { randomUUID } from 'node:crypto';
import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import {
  asId,
  counted,
  type Field,
  fieldValueText,
  foldCase,
  isDay,
  type Named,
  neutralised,
  nothingHeld,
  readFieldValue,
  restored,
  SHEET,
  type SiteNames,
  same,
} from '@/core';
import type { PeopleChange, PersonRecord } from '@/store';
import type { SiteState, Trivet } from '../running';
import { type Administrator, recordOf, requirePermission, yielder } from '../running';
import { applyChange, type ChangeAnswer } from './apply-change';
import { type CsvProblem, type Row, type Table, tableOf } from './csv-table';
import { draftVocabulary, peopleWhere } from './find-people';
import { withField } from './person-form';

const mailAddress = z.email().max(254);
const BOM = '\ufeff';
const SEPARATOR = ';';
const MOST_PROBLEMS = 500;
/** So many rows are written at a time. */
const ROWS_AT_ONCE = 200;
const TOO_LARGE = 'That file is too large. Cut it into several.';
/** The largest file that is read, in bytes. */
export const LARGEST_CSV = 64_000_000;

/** What a column of a file holds. */
type Target = 'name' | 'email' | 'level' | 'roles' | 'groups' | 'joined' | `field ${string}` | 'ignore';

/** The id of the field that a column holds. */
const fieldIn = (target: string): string => target.slice('field '.length);

/** The columns there can be, with how they are headed. */
function columnsOf(names: SiteNames): readonly { readonly target: Target; readonly header: string }[] {
  return [
    { target: 'name', header: 'name' },
    { target: 'email', header: 'mail address' },
    { target: 'level', header: 'level' },
    { target: 'roles', header: 'roles' },
    { target: 'groups', header: 'groups' },
    { target: 'joined', header: 'joined' },
    ...names.fields.map(({ id, name }) => ({ target: `field ${id}` as const, header: name })),
  ];
}

/** The people of whom a text and a condition are true, as CSV; or what is wrong with the condition. */
export async function exportPeople(
  trivet: Trivet,
  administrator: Administrator,
  who: { readonly text: string; readonly condition: string },
  withBom: boolean,
  now: Date,
): Promise<{ readonly csv: string } | { readonly problem: string }> {
  requirePermission(administrator, 'people');
  const { state } = trivet;
  const found = await peopleWhere(state, draftVocabulary(state), who, now);
  if ('error' in found) return { problem: found.error.message };
  const columns = columnsOf(state.names);
  const rest = yielder();
  let csv = withBom ? BOM : '';
  let rows = [columns.map(({ header }) => neutralised(header))];
  for (const person of found.people()) {
    rows.push(columns.map(({ target }) => neutralised(cellOf(person, target, state.names))));
    if (rows.length < ROWS_AT_ONCE) continue;
    csv += stringify(rows, SHEET);
    rows = [];
    await rest();
  }
  return { csv: csv + stringify(rows, SHEET) };
}

function cellOf(person: PersonRecord, target: Target, names: SiteNames): string {
  const nameOf = (list: readonly Named[], id: string) => list.find((one) => one.id === id)?.name ?? '';
  switch (target) {
    case 'name':
      return person.name;
    case 'email':
      return person.email;
    case 'level':
      return person.level === null ? '' : nameOf(names.levels, person.level);
    case 'roles':
      return person.roles.map((id) => nameOf(names.roles, id)).join(`${SEPARATOR} `);
    case 'groups':
      return person.groups.map((id) => nameOf(names.groups, id)).join(`${SEPARATOR} `);
    case 'joined':
      return person.joined ?? '';
    case 'ignore':
      return '';
    default:
      return fieldValueText(person.profile[fieldIn(target)]);
  }
}

const request = z.strictObject({
  csv: z.union([
    z.string().max(LARGEST_CSV, TOO_LARGE),
    z.instanceof(Uint8Array).refine(({ length }) => length <= LARGEST_CSV, TOO_LARGE),
  ]),
  /** What each column holds, in order; null to go by the headers. */
  columns: z.array(z.string().max(200)).max(1000).nullable(),
});

/** What reading a file would do. */
export interface CsvDryRun {
  readonly kind: 'dry run';
  /** How the file was read, in a sentence. */
  readonly readAs: string;
  readonly headers: readonly string[];
  readonly columns: readonly string[];
  readonly choices: readonly { readonly target: string; readonly header: string }[];
  readonly lines: number;
  readonly adds: number;
  readonly changes: number;
  readonly unchanged: number;
  /** The first of them; `problemCount` says how many there are. */
  readonly problems: readonly CsvProblem[];
  readonly problemCount: number;
}

export type CsvAnswer = CsvDryRun | ChangeAnswer;

/** Reads a file of people: a dry run, or all of it. A file with any problem changes nothing. */
export async function importPeople(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  dryRun: boolean,
  now: Date,
): Promise<CsvAnswer> {
  requirePermission(administrator, 'people');
  const parsed = request.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be read.' };
  const table = await tableOf(parsed.data.csv);
  if (dryRun) {
    const { people: _, ...report } = await read(table, parsed.data.columns, trivet.state);
    return report;
  }
  return applyChange(
    trivet,
    administrator,
    async (state) => {
      const { people, problemCount, problems } = await read(table, parsed.data.columns, state);
      const [first] = problems;
      if (first)
        return `Line ${first.line}: ${first.message} ${problemCount > 1 ? `There are ${problemCount} such problems. ` : ''}Nothing was changed.`;
      return { summary: `From a file: ${counted(people.length, 'person', 'people')}`, people, names: null };
    },
    now,
  );
}

/** Makes people of rows, with every problem. */
async function read(
  { rows, problem, readAs }: Table,
  wanted: readonly string[] | null,
  state: SiteState,
): Promise<CsvDryRun & { readonly people: readonly PeopleChange[] }> {
  const choices = columnsOf(state.names);
  const [header, ...records] = rows;
  const headers = header?.cells ?? [];
  const columns: readonly Target[] = headers.map((text, at) => {
    const asked = wanted?.[at];
    if (asked !== undefined) return choices.find(({ target }) => target === asked)?.target ?? 'ignore';
    return (
      choices.find((one) => foldCase(one.header) === foldCase(restored(text).trim()))?.target ?? 'ignore'
    );
  });
  const problems: CsvProblem[] = [];
  let problemCount = 0;
  const complain = (line: number, column: number, message: string) => {
    problemCount += 1;
    if (problems.length < MOST_PROBLEMS) problems.push({ line, column, message });
  };
  if (problem) complain(problem.line, problem.column, problem.message);
  if (!header && !problem) complain(1, 0, 'The file is empty. The first line names the columns.');
  const emailAt = columns.indexOf('email');
  if (header && emailAt < 0)
    complain(1, 0, 'No column holds the mail address, which tells people apart. Choose which one does.');
  const twice = columns.find((one, at) => one !== 'ignore' && columns.indexOf(one) < at);
  if (twice)
    complain(
      1,
      columns.lastIndexOf(twice) + 1,
      'Two columns hold the same. Choose another, or leave one out.',
    );
  const people = problemCount > 0 ? [] : await peopleIn(records, columns, emailAt, state, complain);
  const adds = people.filter(({ before }) => before === null).length;
  const changes = people.filter(({ before, after }) => before !== null && !same(before, after)).length;
  return {
    kind: 'dry run',
    readAs,
    headers,
    columns,
    choices,
    lines: records.length,
    adds,
    changes,
    unchanged: people.length - adds - changes,
    problems,
    problemCount,
    people,
  };
}

async function peopleIn(
  records: readonly Row[],
  columns: readonly Target[],
  emailAt: number,
  state: SiteState,
  complain: (line: number, column: number, message: string) => void,
): Promise<readonly PeopleChange[]> {
  const byEmail = new Map([...state.people.values()].map((person) => [person.email, person]));
  const lineOf = new Map<string, number>();
  const readers = columns.map((target) => readerFor(target, state.names));
  const people: PeopleChange[] = [];
  const rest = yielder();
  for (const { line, cells } of records) {
    await rest();
    if (cells.length !== columns.length) {
      complain(line, 0, `This line has ${counted(cells.length, 'column')}; the first has ${columns.length}.`);
      continue;
    }
    const email = restored(cells[emailAt] ?? '')
      .trim()
      .toLowerCase();
    if (!mailAddress.safeParse(email).success) {
      complain(line, emailAt + 1, `“${email.slice(0, 60)}” is not a mail address.`);
      continue;
    }
    const earlier = lineOf.get(email);
    if (earlier !== undefined) {
      complain(line, emailAt + 1, `${email} stands on line ${earlier} already. Leave one of them out.`);
      continue;
    }
    lineOf.set(email, line);
    const known = byEmail.get(email);
    const before = known ? recordOf(known) : null;
    let after: PersonRecord = before ?? { ...blankPerson, email, name: '' };
    readers.forEach((reader, at) => {
      const result = reader(restored(cells[at] ?? '').trim(), after);
      if ('problem' in result) complain(line, at + 1, result.problem);
      else after = result.person;
    });
    if (after.name === '')
      complain(line, columns.indexOf('name') + 1, `Somebody new needs a name: ${email} has none.`);
    if (before === null) after = { ...after, id: asId(randomUUID()) };
    people.push({ before, after });
  }
  return people;
}

const blankPerson: Omit<PersonRecord, 'email' | 'name'> = {
  id: '' as PersonRecord['id'],
  desk: null,
  ...nothingHeld,
  groupsSince: {},
};

type Reader = (
  cell: string,
  person: PersonRecord,
) => { readonly person: PersonRecord } | { readonly problem: string };

/** Reads one column. An empty cell clears what it is for; a name can't be cleared. */
function readerFor(target: Target, names: SiteNames): Reader {
  if (target.startsWith('field ')) return fieldReader(target, names);
  switch (target) {
    case 'ignore':
    case 'email':
      return (_cell, person) => ({ person });
    case 'name':
      return (cell, person) =>
        cell.length > 200
          ? { problem: 'A name has at most 200 letters.' }
          : cell === '' && person.id !== ''
            ? { problem: 'A name can’t be empty.' }
            : { person: { ...person, name: cell } };
    case 'level': {
      const find = finder('level', names.levels);
      return (cell, person) => {
        if (cell === '') return { person: { ...person, level: null } };
        const found = find(cell);
        return typeof found === 'string' ? { problem: found } : { person: { ...person, level: found.id } };
      };
    }
    case 'roles':
      return listReader('role', names.roles, (person, roles) => ({ ...person, roles }));
    case 'groups':
      return listReader('group', names.groups, (person, groups) => ({ ...person, groups }));
    case 'joined':
      return (cell, person) =>
        cell === ''
          ? { person: { ...person, joined: null } }
          : isDay(cell as unknown)
            ? { person: { ...person, joined: cell } }
            : { problem: `“${cell.slice(0, 40)}” is not a day. Write it like 2026-12-01.` };
    default:
      throw new Error(`No column holds "${target}".`);
  }
}

function fieldReader(target: Target, names: SiteNames): Reader {
  const id = fieldIn(target);
  const field = names.fields.find((one) => one.id === id) as Field;
  return (cell, person) => {
    const value = readFieldValue(field, cell);
    if ('problem' in value) return value;
    return { person: { ...person, profile: withField(person.profile, field.id, value.value) } };
  };
}

function finder<T extends Named>(kind: string, list: readonly T[]): (cell: string) => T | string {
  const byName = new Map(list.map((one) => [foldCase(one.name), one]));
  const some = list.slice(0, 8).map(({ name }) => name);
  const there = some.length > 0 ? ` There are ${some.join(', ')}.` : '';
  return (cell) => byName.get(foldCase(cell)) ?? `There is no ${kind} called “${cell.slice(0, 60)}”.${there}`;
}

function listReader<T extends Named>(
  kind: string,
  list: readonly T[],
  put: (person: PersonRecord, ids: T['id'][]) => PersonRecord,
): Reader {
  const find = finder(kind, list);
  return (cell, person) => {
    const ids: T['id'][] = [];
    for (const part of cell.split(SEPARATOR).map((one) => one.trim())) {
      if (part === '') continue;
      const found = find(part);
      if (typeof found === 'string') return { problem: found };
      if (!ids.includes(found.id)) ids.push(found.id);
    }
    return { person: put(person, ids) };
  };
}
