/** One person as they are written down by hand: shape, limits, and whether what is named is there. */
import { z } from 'zod';
import {
  DESK_RIGHTS,
  type FieldValue,
  fieldValueProblem,
  type PersonId,
  PURCHASE_STATES,
  type SiteNames,
} from '@/core';
import type { PersonRecord } from '@/store';
import { dayForm, id } from '../forms';
import type { SiteState } from '../running';

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

/** The facts of a person, as they come from outside. */
export const factsForm = {
  level: id.nullable(),
  roles: z.array(id).max(500),
  groups: z.array(id).max(5000),
  profile: z.record(id, z.union([z.string().max(2000), z.number(), z.boolean()])),
  joined: dayForm.nullable(),
  purchases: z
    .array(
      z.strictObject({
        product: id,
        on: dayForm,
        until: dayForm.nullable(),
        state: z.enum(PURCHASE_STATES),
      }),
    )
    .max(1000),
  enrolments: z.array(z.strictObject({ course: id, on: dayForm })).max(1000),
  completions: z.array(z.strictObject({ activity: id, on: dayForm, score: z.number().nullable() })).max(5000),
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

/** What a person has that the site does not, and fields that hold what they can't. */
export function nameProblems(person: PersonRecord, names: SiteNames): FormProblems {
  const problems: Record<string, string> = {};
  const missing = (list: readonly { readonly id: string }[], one: string) =>
    !list.some((entry) => entry.id === one);
  if (person.level !== null && missing(names.levels, person.level))
    problems.level = 'There is no such level any more.';
  if (person.roles.some((role) => missing(names.roles, role)))
    problems.roles = 'There is no such role any more.';
  if (person.groups.some((group) => missing(names.groups, group)))
    problems.groups = 'There is no such group any more.';
  if (person.purchases.some(({ product }) => missing(names.products, product)))
    problems.purchases = 'There is no such product.';
  if (person.enrolments.some(({ course }) => missing(names.courses, course)))
    problems.enrolments = 'There is no such course.';
  if (person.completions.some(({ activity }) => missing(names.activities, activity)))
    problems.completions = 'There is no such activity.';
  for (const [fieldId, value] of Object.entries(person.profile)) {
    const field = names.fields.find((one) => one.id === fieldId);
    const problem = field ? fieldValueProblem(field, value) : 'There is no such field any more.';
    if (problem !== null) problems[`profile.${fieldId}`] = problem;
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
