/** Changing people: one by their form, or many at once, with a look at what it does before it is done. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  asId,
  changedByHand,
  counted,
  type Day,
  decide,
  describeHandChange,
  type HandChange,
  type LevelId,
  type Member,
  nameOfId,
  type PersonId,
  readFieldValue,
  type SiteNames,
  same,
} from '@/core';
import type { PeopleChange, PersonRecord } from '@/store';
import { dayForm, id } from '../forms';
import type { SiteState, Trivet } from '../running';
import {
  type Administrator,
  memberOf,
  momentAt,
  personOf,
  plainRequest,
  recordOf,
  requirePermission,
  yielder,
} from '../running';
import { applyChange, type ChangeAnswer } from './apply-change';
import type { Crowd } from './columns';
import { peopleChosen } from './find-people';
import { type FormProblems, readPerson, withField } from './person-form';

const edit = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.enum(['join', 'leave']), group: id }),
  z.strictObject({ kind: z.enum(['give', 'take']), role: id }),
  z.strictObject({ kind: z.literal('level'), level: id.nullable() }),
  z.strictObject({ kind: z.literal('field'), field: id, value: z.string().max(500) }),
  z.strictObject({ kind: z.literal('enrol'), course: id, until: dayForm.nullable().default(null) }),
  z.strictObject({ kind: z.literal('end enrolment'), course: id }),
  z.strictObject({ kind: z.literal('remove') }),
]);

/** One thing to do to many people. */
export type PeopleEdit = z.infer<typeof edit>;

const request = z.strictObject({
  who: z.union([
    z.strictObject({ ids: z.array(id).min(1, 'Choose somebody first.').max(100_000) }),
    z.strictObject({ text: z.string().max(200), condition: z.string() }),
  ]),
  edit,
  why: z.string().trim().max(500, 'A reason has at most 500 letters.').default(''),
});

/** What a change of many would do. */
export interface PeoplePreview {
  readonly kind: 'preview';
  readonly summary: string;
  /** Those whom it changes; the others are as it would make them already. */
  readonly changes: Crowd;
  readonly unchanged: number;
  /** Those who would reach more, or less, of the live site; null when there are too many to ask for all. */
  readonly reach: { readonly more: Crowd; readonly less: Crowd } | null;
}

export type PeopleAnswer = ChangeAnswer | PeoplePreview;

const MOST_SHOWN = 8;
const MOST_COMPARED = 2000;

/** Changes many people at once, or says what that would do. */
export async function changePeople(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  preview: boolean,
  now: Date,
): Promise<PeopleAnswer> {
  requirePermission(administrator, 'people');
  const parsed = request.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be done.' };
  const make = (state: SiteState) => changeFor(state, parsed.data, administrator, now);
  if (!preview) return applyChange(trivet, administrator, make, now);
  const made = await make(trivet.state);
  return typeof made === 'string' ? { kind: 'wrong', message: made } : previewOf(trivet.state, made, now);
}

async function changeFor(
  state: SiteState,
  { who, edit: one, why }: z.infer<typeof request>,
  administrator: Administrator,
  now: Date,
) {
  const found = await peopleChosen(state, who, now);
  if ('error' in found) return found.error.message;
  const chosen = [...found.people()];
  if (chosen.length === 0) return 'Nobody is chosen any more. Choose somebody first.';
  const change = editor(one, state.names, momentAt(state, now).today);
  if (typeof change === 'string') return change;
  if (one.kind === 'remove' && chosen.some((person) => person.id === administrator.id))
    return 'You are among them, and can’t take yourself away. Leave yourself out.';
  const people = chosen.map((person): PeopleChange => {
    const before = recordOf(person);
    return { before, after: change.apply(before) };
  });
  const changed = people.filter(({ before, after }) => !same(before, after)).length;
  return { summary: `${change.summary}: ${counted(changed, 'person', 'people')}`, why, people, names: null };
}

/** What an edit does to one person, or why it can't be done. */
function editor(
  one: PeopleEdit,
  names: SiteNames,
  today: Day,
): string | { readonly summary: string; readonly apply: (person: PersonRecord) => PersonRecord | null } {
  const vocabulary = { ...names, audiences: [] };
  const byHand = (change: HandChange, of: 'group' | 'role' | 'level' | 'course', named: string | null) =>
    named !== null && nameOfId(vocabulary, of, named) === null
      ? `There is no such ${of} any more.`
      : {
          summary: describeHandChange(change, vocabulary),
          apply: (person: PersonRecord) => changedByHand(person, change, today),
        };
  switch (one.kind) {
    case 'join':
    case 'leave':
      return byHand({ kind: one.kind, group: asId(one.group) }, 'group', one.group);
    case 'give':
    case 'take':
      return byHand({ kind: one.kind, role: asId(one.role) }, 'role', one.role);
    case 'level':
      return byHand(
        { kind: 'level', level: one.level === null ? null : asId<LevelId>(one.level) },
        'level',
        one.level,
      );
    case 'field': {
      const field = names.fields.find((each) => each.id === one.field);
      if (!field) return 'There is no such field any more.';
      const read = readFieldValue(field, one.value);
      if ('problem' in read) return read.problem;
      return {
        summary: read.value === null ? `${field.name} cleared` : `${field.name} set to ${one.value.trim()}`,
        apply: (person) => ({ ...person, profile: withField(person.profile, field.id, read.value) }),
      };
    }
    case 'enrol':
      if (one.until !== null && one.until < today)
        return 'That day is past. Choose one that is to come, or none.';
      return byHand({ kind: 'enrol', course: asId(one.course), until: one.until }, 'course', one.course);
    case 'end enrolment':
      return byHand({ kind: 'end enrolment', course: asId(one.course) }, 'course', one.course);
    case 'remove':
      return { summary: 'Taken away', apply: () => null };
    default:
      return one satisfies never;
  }
}

async function previewOf(
  state: SiteState,
  { summary, people }: { readonly summary: string; readonly people: readonly PeopleChange[] },
  now: Date,
): Promise<PeoplePreview> {
  const changed = people.filter(({ before, after }) => !same(before, after));
  return {
    kind: 'preview',
    summary,
    changes: crowdOf(changed, state),
    unchanged: people.length - changed.length,
    reach: changed.length > MOST_COMPARED ? null : await reachOf(state, changed, now),
  };
}

async function reachOf(state: SiteState, changed: readonly PeopleChange[], now: Date) {
  const at = plainRequest(state, now);
  const items = [...state.outline.items.keys()];
  const openTo = (record: PersonRecord | null): readonly boolean[] => {
    if (record === null) return items.map(() => false);
    const { facts } = personOf(record, state);
    return items.map((item) => decide(state.live.compiled, item, facts, at).kind === 'open');
  };
  const more: PeopleChange[] = [];
  const less: PeopleChange[] = [];
  const rest = yielder();
  for (const change of changed) {
    await rest();
    const after = openTo(change.after);
    const pairs = openTo(change.before).map((before, item) => [before, after[item]]);
    if (pairs.some(([before, after]) => !before && after)) more.push(change);
    if (pairs.some(([before, after]) => before && !after)) less.push(change);
  }
  return { more: crowdOf(more, state), less: crowdOf(less, state) };
}

function crowdOf(changes: readonly PeopleChange[], state: SiteState): Crowd {
  const members = changes.slice(0, MOST_SHOWN).flatMap(({ before, after }): Member[] => {
    const record = after ?? before;
    return record ? [memberOf(personOf(record, state))] : [];
  });
  return { count: changes.length, first: members };
}

export type SavePersonAnswer =
  | ChangeAnswer
  | { readonly kind: 'problems'; readonly problems: FormProblems }
  | {
      readonly kind: 'saved';
      readonly person: PersonId;
      readonly change: string;
      /** As they are kept, for a form to go on from. */
      readonly known: PersonRecord;
    };

const save = z.strictObject({
  /** The person as the form began with them; null for somebody new. */
  based: z.unknown(),
  person: z.unknown(),
  why: z.string().trim().max(500, 'A reason has at most 500 letters.').default(''),
});

/** Saves one person by their form; somebody new when there is no id. One who was changed meanwhile is not overwritten. */
export async function savePerson(
  trivet: Trivet,
  administrator: Administrator,
  personId: PersonId | null,
  input: unknown,
  now: Date,
): Promise<SavePersonAnswer> {
  requirePermission(administrator, 'people');
  const parsed = save.safeParse(input);
  if (!parsed.success)
    return {
      kind: 'wrong',
      message:
        parsed.error.issues.find(({ path }) => path[0] === 'why')?.message ??
        'Send the person, and what they were before.',
    };
  const { based, person, why } = parsed.data;
  const madeId = asId<PersonId>(randomUUID());
  let saved: PersonId | null = null;
  let problems: FormProblems | null = null;
  const answer = await applyChange(
    trivet,
    administrator,
    (state) => {
      const before = personId === null ? null : state.people.get(personId);
      if (before === undefined) return 'There is no such person any more.';
      if (before && !same(recordOf(before), based))
        return `${before.name} was changed meanwhile. What you typed is kept here: take theirs, or open them anew.`;
      const key = personId ?? madeId;
      const read = readPerson(person, key, state);
      if ('problems' in read) {
        problems = read.problems;
        return 'The form has mistakes.';
      }
      if (before?.id === administrator.id && !same(before.desk, read.person.desk)) {
        problems = { desk: 'You can’t change your own right yourself. Ask another owner.' };
        return 'The form has mistakes.';
      }
      saved = key;
      const summary = before ? `${read.person.name} changed` : `${read.person.name} added`;
      return {
        summary,
        why,
        people: [{ before: before ? recordOf(before) : null, after: read.person }],
        names: null,
      };
    },
    now,
  );
  if (problems !== null) return { kind: 'problems', problems };
  const kept = saved === null ? undefined : trivet.state.people.get(saved);
  if (answer.kind === 'changed' && saved !== null && kept)
    return { kind: 'saved', person: saved, change: answer.change, known: recordOf(kept) };
  return answer;
}
