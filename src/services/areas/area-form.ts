/** Areas as they are asked for: names with people, typed or as CSV. */
import { z } from 'zod';
import { foldCase } from '@/core';
import { id, mailAddress, personName } from '../forms';
import { type CsvProblem, tableOf } from '../people';

export const MOST_AREAS = 200;
export const MOST_IN_ONE = 500;
const MOST_PEOPLE = 5000;
const LONGEST_NAME = 100;
const TOO_LARGE = 'That file is too large. Cut it into several.';
/** The largest file of areas that is read, in bytes. */
const LARGEST_AREAS = 2_000_000;
// A name of 200 letters and a mail address of 254, with what stands between them.
const LONGEST_LINE = 500;

const typed = z.strictObject({
  name: z.string().max(500),
  /** A person a line: a name and a mail address, or the address alone. */
  people: z.string().max(100_000, 'That are too many people for one area.'),
});

export const makingForm = z.strictObject({
  /** Areas as they were typed, or all of them as CSV. */
  areas: z.union([
    z.array(typed).min(1).max(MOST_AREAS, `At most ${MOST_AREAS} areas are made at once.`),
    z.strictObject({ csv: z.string().max(LARGEST_AREAS, TOO_LARGE) }),
    // As it is, so that what its bytes stand for is found here.
    z.strictObject({ file: z.base64().max((LARGEST_AREAS * 4) / 3, TOO_LARGE) }),
  ]),
  /** The page that they begin as copies of, with all beneath it; null for an empty page. */
  source: id.nullable(),
  /** What they stand below. */
  below: id,
  /** The menu or link in which a link to each stands; null for none. */
  menu: id.nullable(),
  /** Who else may enter. */
  also: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('nobody') }),
    z.strictObject({ kind: z.literal('role'), id }),
    z.strictObject({ kind: z.literal('group'), id }),
  ]),
  lands: z.boolean(),
  /** Whether the new name stands wherever the copied page's title stands in its texts. */
  renames: z.boolean(),
  invite: z.boolean(),
  /** What was looked at; what is then made has to name it. Null to look. */
  basis: z.string().max(100).nullable(),
});
export type Making = z.output<typeof makingForm>;

/** Somebody who is to be in an area. */
export interface Wanted {
  readonly name: string;
  readonly email: string;
}

/** An area that is asked for. */
export interface WantedArea {
  readonly name: string;
  readonly people: readonly Wanted[];
  /** Where it was asked for: a line of a file, or the place among those that were typed. */
  readonly line: number;
}

/** Something wrong with what is asked for: on a line of the file, or in a line of an area's people. */
export interface AreaProblem {
  readonly area: number | null;
  readonly line: number | null;
  readonly message: string;
}

type Read = { readonly areas: readonly WantedArea[]; readonly problems: readonly AreaProblem[] };

/** Reads what is asked for, as far as it can be read, with everything that is wrong with it. */
export async function readWanted(asked: Making['areas']): Promise<Read> {
  const ofFile = !Array.isArray(asked);
  const read = ofFile
    ? await fromCsv('csv' in asked ? asked.csv : Buffer.from(asked.file, 'base64'))
    : fromTyped(asked);
  const problems = [...read.problems];
  const seen = new Map<string, WantedArea>();
  let people = 0;
  for (const area of read.areas) {
    people += area.people.length;
    const at = (message: string) =>
      problems.push({
        area: ofFile ? null : area.line,
        line: ofFile ? area.line : null,
        message,
      });
    if (area.name === '') at('Give the area a name.');
    if (area.name.length > LONGEST_NAME) at(`A name has at most ${LONGEST_NAME} letters.`);
    if (area.people.length > MOST_IN_ONE) at(`At most ${MOST_IN_ONE} people come into an area with it.`);
    const other = seen.get(foldCase(area.name));
    if (other && area.name !== '') at(`“${other.name}” is here twice. Give one of them another name.`);
    else seen.set(foldCase(area.name), area);
  }
  if (people > MOST_PEOPLE)
    problems.push({ area: null, line: null, message: `At most ${MOST_PEOPLE} people come in at once.` });
  return { areas: read.areas, problems };
}

function fromTyped(asked: readonly z.output<typeof typed>[]): Read {
  const problems: AreaProblem[] = [];
  const areas = asked.map(({ name, people }, area) => {
    const wanted: Wanted[] = [];
    for (const [at, text] of people.split('\n').entries()) {
      if (text.trim() === '') continue;
      const found = wantedIn(text);
      if ('problem' in found) problems.push({ area, line: at + 1, message: found.problem });
      else wanted.push(found);
    }
    return { name: name.trim(), people: once(wanted), line: area };
  });
  return { areas, problems };
}

/** The people of a text, one a line; or what is wrong with it. */
export function peopleIn(text: string): {
  readonly people: readonly Wanted[];
  readonly problems: readonly AreaProblem[];
} {
  const { areas, problems } = fromTyped([{ name: '', people: text }]);
  return { people: areas[0]?.people ?? [], problems };
}

/** "Ada Berg <ada@place.example>", "Ada Berg, ada@place.example", or the address alone. */
function wantedIn(text: string): Wanted | { readonly problem: string } {
  const short = text.slice(0, LONGEST_LINE);
  const [, name = '', address = ''] = /^\s*(.*?)[\s,;<]*([^\s,;<>]+@[^\s,;<>]+)>?[\s,;]*$/u.exec(short) ?? [];
  const email = mailAddress.safeParse(address);
  if (!email.success)
    return { problem: 'Write a name and a mail address, as in: Ada Berg, ada@place.example' };
  return named(name, email.data);
}

function named(name: string, email: string): Wanted | { readonly problem: string } {
  const bare = name.replace(/^["'\s]+|["'\s]+$/g, '');
  const read = personName.safeParse(bare === '' ? email.slice(0, email.indexOf('@')) : bare);
  return read.success
    ? { name: read.data, email }
    : { problem: read.error.issues[0]?.message ?? 'Write a name.' };
}

const once = (wanted: readonly Wanted[]): readonly Wanted[] => [
  ...new Map(wanted.map((one) => [one.email, one])).values(),
];

const HEADERS = {
  area: ['area'],
  name: ['name'],
  mail: ['mail', 'mail address', 'email', 'e-mail'],
} as const;

async function fromCsv(csv: string | Uint8Array): Promise<Read> {
  const { rows, problem } = await tableOf(csv);
  if (problem) return { areas: [], problems: [inFile(problem)] };
  const [header, ...lines] = rows;
  const heads = (header?.cells ?? []).map((cell) => cell.trim().toLowerCase());
  const column = (of: keyof typeof HEADERS) =>
    heads.findIndex((head) => (HEADERS[of] as readonly string[]).includes(head));
  const [area, name, mail] = [column('area'), column('name'), column('mail')];
  if (area < 0 || (name >= 0 && mail < 0))
    return {
      areas: [],
      problems: [
        {
          area: null,
          line: 1,
          message: 'The first line names the columns: area, name, mail address. One line is one person.',
        },
      ],
    };
  const problems: AreaProblem[] = [];
  const found = new Map<string, { name: string; people: Wanted[]; line: number }>();
  for (const { line, cells } of lines) {
    const called = cells[area]?.trim() ?? '';
    const one = found.get(called) ?? { name: called, people: [], line };
    found.set(called, one);
    const address = cells[mail]?.trim() ?? '';
    if (address === '') {
      if ((cells[name]?.trim() ?? '') !== '')
        problems.push({ area: null, line, message: 'This person has no mail address. Write one.' });
      continue;
    }
    const email = mailAddress.safeParse(address);
    const wanted = email.success
      ? named(cells[name] ?? '', email.data)
      : { problem: `“${address.slice(0, 100)}” is no mail address. Write one like name@place.example.` };
    if ('problem' in wanted) problems.push({ area: null, line, message: wanted.problem });
    else one.people.push(wanted);
  }
  if (found.size === 0)
    problems.push({ area: null, line: 1, message: 'There is no line below the first one. Add an area.' });
  if (found.size > MOST_AREAS)
    problems.push({ area: null, line: null, message: `At most ${MOST_AREAS} areas are made at once.` });
  const areas = [...found.values()].slice(0, MOST_AREAS);
  return { areas: areas.map((one) => ({ ...one, people: once(one.people) })), problems };
}

const inFile = ({ line, message }: CsvProblem): AreaProblem => ({ area: null, line, message });
