/** One person as they are written down by hand: shape, limits, and whether what is named is there. */
import { z } from 'zod';
import {
  DESK_RIGHTS,
  type FieldValue,
  fieldValueProblem,
  nameOfId,
  type PersonId,
  PURCHASE_STATES,
  type SiteNames,
} from '@/core';
import type { PersonRecord } from '@/store';
import { dayForm, id } from '../forms';
import type { SiteState } from '../running';
import { holdingsOf, recordsOfNothing } from './holdings';

/** A right at the desk, as it comes from outside. */
export const deskForm = z
  .discriminatedUnion('right', [
    z.strictObject({
      right: z.literal('owner'),
      branch: z.null('An owner has the whole site. Choose another right to limit it to a branch.'),
    }),
    z.strictObject({ right: z.enum(DESK_RIGHTS).exclude(['owner']), branch: id.nullable() }),
  ])
  .nullable();

export const enrolmentForm = z.strictObject({ course: id, on: dayForm, until: dayForm.nullable() });

export const purchaseForm = z.strictObject({
  product: id,
  on: dayForm,
  until: dayForm.nullable(),
  state: z.enum(PURCHASE_STATES),
});

/** The facts of a person, as they come from outside. */
export const factsForm = {
  level: id.nullable(),
  roles: z.array(id).max(500),
  groups: z.array(id).max(5000),
  profile: z.record(id, z.union([z.string().max(2000), z.number(), z.boolean()])),
  joined: dayForm.nullable(),
  purchases: z.array(purchaseForm).max(1000),
  enrolments: z.array(enrolmentForm).max(1000),
  completions: z.array(z.strictObject({ item: id, on: dayForm, score: z.number().nullable() })).max(5000),
};

const form = z.strictObject({
  name: z.string().trim().min(1, 'Give the person a name.').max(200, 'A name has at most 200 letters.'),
  email: z
    .string()
    .trim()
    .toLowerCase()
    .pipe(z.email('Write a mail address like name@place.example.').max(254, 'That is too long.')),
  desk: deskForm,
  ...factsForm,
  groupsSince: z.record(id, dayForm).default({}),
});

/** What is wrong with a form, by field. */
export type FormProblems = Readonly<Record<string, string>>;

/** Reads a person's form. For somebody new, `personId` is the id they are to have. */
export function readPerson(
  input: unknown,
  personId: PersonId,
  state: SiteState,
): { readonly person: PersonRecord } | { readonly problems: FormProblems } {
  const parsed = form.safeParse(input);
  if (!parsed.success) {
    return {
      problems: Object.fromEntries(
        parsed.error.issues.map(({ path, message }) => [
          path[0] === 'desk' ? 'desk' : path.join('.') || 'form',
          message,
        ]),
      ),
    };
  }
  const person = { ...parsed.data, id: personId } as unknown as PersonRecord;
  const problems = {
    ...nameProblems(person, state.names),
    ...courseProblems(person, state),
    ...addressProblem(person, state),
    ...branchProblem(person, state),
  };
  return Object.keys(problems).length > 0 ? { problems } : { person };
}

function branchProblem({ desk }: PersonRecord, { outline }: SiteState): FormProblems {
  return desk?.branch && !outline.items.has(desk.branch) ? { desk: 'There is no such page any more.' } : {};
}

function addressProblem(person: PersonRecord, { people }: SiteState): FormProblems {
  for (const other of people.values()) {
    if (other.email === person.email && other.id !== person.id)
      return { email: `${other.name} has this mail address already.` };
  }
  return {};
}

/** Records of courses that are not there; those that were there already may stay, for what is taken away may come back. */
function courseProblems(person: PersonRecord, { names, people }: SiteState): FormProblems {
  const before = people.get(person.id);
  const had = new Set([
    ...(before?.enrolments ?? []).map(({ course }) => `enrolments ${course}`),
    ...(before?.completions ?? []).map(({ item }) => `completions ${item}`),
  ]);
  return Object.fromEntries(
    recordsOfNothing(person, names)
      .filter(({ key, id }) => !had.has(`${key} ${id}`))
      .map(({ key }) => [key, 'There is no such course or activity any more.']),
  );
}

/** What a person has that the site does not, and fields that hold what they can't. */
function nameProblems(person: PersonRecord, names: SiteNames): FormProblems {
  const problems: Record<string, string> = {};
  const vocabulary = { ...names, audiences: [] };
  for (const { kind, id, key } of holdingsOf(person))
    if (nameOfId(vocabulary, kind, id) === null)
      problems[kind === 'field' ? `profile.${id}` : key] = `There is no such ${kind} any more.`;
  for (const field of names.fields) {
    const value = person.profile[field.id];
    const problem = value === undefined ? null : fieldValueProblem(field, value);
    if (problem !== null) problems[`profile.${field.id}`] = problem;
  }
  return problems;
}

/** A profile with one field set, or cleared by null. */
export function withField(
  profile: PersonRecord['profile'],
  field: string,
  value: FieldValue | null,
): PersonRecord['profile'] {
  const { [field]: _, ...others } = profile;
  return value === null ? others : { ...others, [field]: value };
}
