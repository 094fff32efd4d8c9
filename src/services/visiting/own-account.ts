/** What members change of themselves: the fields that are theirs to fill in, and the open groups they follow. */
import {
  type FieldValue,
  fieldValueProblem,
  type GroupId,
  type Messages,
  type PersonId,
  type SiteNames,
} from '@/core';
import type { FormProblems } from '../people';
import { applyChange } from '../people';
import type { Trivet } from '../running';
import { messagesOf, type Person, recordOf } from '../running';

export type OwnAnswer =
  | { readonly kind: 'kept' }
  | {
      readonly kind: 'wrong';
      readonly problems: FormProblems;
      readonly typed: Readonly<Record<string, FieldValue>>;
    };

/** Keeps the fields of a member's own form. Fields that are not theirs to fill in are not looked at. */
export async function keepOwnFields(
  trivet: Trivet,
  person: Person,
  form: Readonly<Record<string, unknown>>,
  now: Date,
): Promise<OwnAnswer> {
  const own = trivet.state.names.fields.filter(({ editable }) => editable);
  const { problems, typed, cleared } = fieldsIn(own, form, messagesOf(trivet.state));
  if (Object.keys(problems).length > 0) return { kind: 'wrong', problems, typed };
  await applyChange(
    trivet,
    person,
    (state) => {
      const current = state.people.get(person.id);
      if (!current) return 'This account is gone.';
      const before = recordOf(current);
      const kept = Object.entries(before.profile).filter(([id]) => !cleared.has(id));
      const profile = { ...Object.fromEntries(kept), ...typed };
      return {
        summary: `${before.name} changed their profile`,
        people: [{ before, after: { ...before, profile } }],
        names: null,
      };
    },
    now,
  );
  return { kind: 'kept' };
}

/** The fields that a form fills in, those that it empties, and what is wrong, by field. */
export function fieldsIn(
  fields: SiteNames['fields'],
  form: Readonly<Record<string, unknown>>,
  messages: Messages,
): {
  readonly problems: Readonly<Record<string, string>>;
  readonly typed: Readonly<Record<string, FieldValue>>;
  readonly cleared: ReadonlySet<string>;
} {
  const problems: Record<string, string> = {};
  const typed: Record<string, FieldValue> = {};
  const cleared = new Set<string>();
  for (const field of fields) {
    const given = form[`field-${field.id}`];
    if (given === undefined) continue;
    if (typeof given !== 'string' || given.length > 2000) {
      problems[field.id] = messages.account.oneValue;
      continue;
    }
    const text = given.trim();
    if (text === '') {
      cleared.add(field.id);
      continue;
    }
    const value = readValue(field.type, text);
    typed[field.id] = value;
    const problem = fieldValueProblem(field, value, messages);
    if (problem !== null) problems[field.id] = problem;
  }
  return { problems, typed, cleared };
}

function readValue(type: string, text: string): FieldValue {
  if (type === 'number') return Number(text.replace(',', '.'));
  if (type === 'yes/no') return text === 'true' ? true : text === 'false' ? false : text;
  return text;
}

/** Joins or leaves an open group. Answers whether there is such a group. */
export async function followGroup(
  trivet: Trivet,
  person: PersonId,
  group: string,
  follows: boolean,
  now: Date,
): Promise<boolean> {
  const there = trivet.state.names.groups.find((one) => one.id === group && one.open);
  const member = trivet.state.people.get(person);
  if (!there || !member) return false;
  await applyChange(
    trivet,
    member,
    (state) => {
      const current = state.people.get(person);
      const open = state.names.groups.some((one) => one.id === group && one.open);
      if (!current || !open) return 'That group is not open any more.';
      const before = recordOf(current);
      const others = before.groups.filter((one) => one !== group);
      const after = { ...before, groups: follows ? [...others, group as GroupId].sort() : others };
      // Who is in it already, in whatever order, stays as they are.
      const same = before.groups.includes(group as GroupId) === follows;
      return {
        summary: `${before.name} ${follows ? 'follows' : 'left'} ${there.name}`,
        people: same ? [] : [{ before, after }],
        names: null,
      };
    },
    now,
  );
  return true;
}
