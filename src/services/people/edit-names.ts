/**
 * Changing the names that describe people: fields, roles, groups, levels, products, passphrases. What
 * a change would break is shown before it is made; what can be converted is.
 */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  asId,
  convertedFieldValue,
  counted,
  describeUse,
  FIELD_TYPES,
  type Field,
  foldCase,
  type KeptNames,
  keptNames,
  LISTS,
  namesOf,
  type Policy,
  PRODUCT_KINDS,
  problemOf,
  type SiteNames,
  type Test,
  type Use,
  usesWhere,
} from '@/core';
import type { PeopleChange } from '@/store';
import { id } from '../forms';
import type { SiteState, Trivet } from '../running';
import { type Administrator, hashPassphrase, recordOf, requirePermission } from '../running';
import { applyChange, type ChangeAnswer, type SiteChange } from './apply-change';
import { holdersAtTill } from './holders';
import { losesSomething, withoutName } from './holdings';
import { openedByLoss } from './opened-by-loss';

const name = z.string().trim().min(1, 'Give it a name.').max(100, 'A name has at most 100 letters.');
/** The kinds of names that are kept with the site. */
export const KINDS = ['level', 'role', 'group', 'product', 'field', 'passphrase'] as const;
export type Kind = (typeof KINDS)[number];
const kind = z.enum(KINDS);
const fieldDetails = {
  type: z.enum(FIELD_TYPES),
  choices: z.array(z.string().trim().min(1, 'A choice has a name.').max(100)).max(100),
  private: z.boolean(),
  editable: z.boolean(),
};
const passphrase = z
  .string()
  .trim()
  .min(6, 'A passphrase has at least 6 letters; several words are best.')
  .max(200, 'A passphrase has at most 200 letters.');

const edit = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('add'), of: kind, name }),
  z.strictObject({ kind: z.literal('rename'), of: kind, id, name }),
  z.strictObject({ kind: z.literal('remove'), of: kind, id }),
  z.strictObject({
    kind: z.literal('move'),
    of: z.enum(['level', 'field']),
    id,
    by: z.union([z.literal(1), z.literal(-1)]),
  }),
  z.strictObject({ kind: z.literal('private'), id, private: z.boolean() }),
  z.strictObject({ kind: z.literal('open'), id, open: z.boolean() }),
  z.strictObject({ kind: z.literal('field'), id, ...fieldDetails }),
  z.strictObject({
    kind: z.literal('product'),
    id,
    type: z.enum(PRODUCT_KINDS),
  }),
  z.strictObject({ kind: z.literal('passphrase'), id, passphrase }),
]);

/** One change of the names. */
export type NamesEdit = z.infer<typeof edit>;

/** What a change of names would do. */
export interface NamesPreview {
  readonly kind: 'preview';
  readonly summary: string;
  /** How many people have what changes. */
  readonly people: number;
  /** How many of them lose what they have, because it can't be converted. */
  readonly lose: number;
  /** The places whose conditions would be unknown of everybody from then on: each stays closed. */
  readonly breaks: readonly { readonly side: 'draft' | 'live'; readonly where: string }[];
}

export type NamesAnswer = ChangeAnswer | NamesPreview;

/** Changes the names, or says what that would do. */
export async function editNames(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  preview: boolean,
  now: Date,
): Promise<NamesAnswer> {
  requirePermission(administrator, 'people');
  const parsed = edit.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be done.' };
  const make = async (state: SiteState) => {
    const made = await changeFor(state, parsed.data, now);
    return typeof made === 'string' ? made : (lossProblem(state, parsed.data, made, now) ?? made);
  };
  if (!preview) return applyChange(trivet, administrator, make, now);
  const { state } = trivet;
  const made = await make(state);
  if (typeof made === 'string') return { kind: 'wrong', message: made };
  return {
    kind: 'preview',
    summary: made.summary,
    people: made.people.length,
    lose: made.people.filter(({ before, after }) => before && after && losesSomething(before, after)).length,
    breaks: (['draft', 'live'] as const).flatMap((side) =>
      breaksIn(
        state[side].policy,
        { ...state.names, ...made.names?.before },
        { ...state.names, ...made.names?.after },
      ).map((use) => ({ side, where: describeUse(use, state.outline, state[side].compiled.vocabulary) })),
    ),
  };
}

async function changeFor(state: SiteState, one: NamesEdit, now: Date): Promise<SiteChange | string> {
  const { names } = state;
  const vocabulary = { ...names, audiences: [] };
  const of: Kind =
    'of' in one
      ? one.of
      : one.kind === 'private' || one.kind === 'open'
        ? 'group'
        : one.kind === 'field'
          ? 'field'
          : one.kind;
  const list = namesOf(vocabulary, of);
  const current = 'id' in one ? list.find((each) => each.id === one.id) : undefined;
  if ('id' in one && !current) return `There is no such ${of} any more.`;
  const called = (wanted: string) =>
    list.some((each) => foldCase(each.name) === foldCase(wanted) && each !== current)
      ? `There is a ${of} called “${wanted}” already. Choose another name.`
      : null;
  const withList = (next: readonly unknown[], people: readonly PeopleChange[] = []) => ({
    people,
    names: { before: keptNames(names), after: { ...keptNames(names), [LISTS[of]]: next } as KeptNames },
  });
  const replaced = (change: object) => list.map((each) => (each === current ? { ...each, ...change } : each));
  switch (one.kind) {
    case 'add': {
      const taken = called(one.name);
      if (taken) return taken;
      const made = { id: randomUUID(), name: one.name };
      return { summary: `New ${of}: ${one.name}`, ...withList([...list, { ...made, ...DETAILS[of] }]) };
    }
    case 'rename':
      return (
        called(one.name) ?? {
          summary: `${current?.name} is now called ${one.name}`,
          ...withList(replaced({ name: one.name })),
        }
      );
    case 'remove': {
      const sold = soldProblem(state, of, one.id, now);
      if (sold !== null) return sold;
      const people = [...state.people.values()].flatMap((person): PeopleChange[] => {
        const before = recordOf(person);
        const after = withoutName(before, of, one.id);
        return after === before ? [] : [{ before, after }];
      });
      return {
        summary: `${current?.name} taken away`,
        ...withList(
          list.filter((each) => each !== current),
          people,
        ),
      };
    }
    case 'move': {
      const at = current ? list.indexOf(current) : -1;
      const next = [...list];
      next.splice(at + one.by, 0, ...next.splice(at, 1));
      return at + one.by < 0
        ? 'It stands at the end already.'
        : { summary: `${current?.name} moved`, ...withList(next) };
    }
    case 'private':
      return {
        summary: `${current?.name} is ${one.private ? 'private' : 'no longer private'}`,
        ...withList(replaced({ private: one.private })),
      };
    case 'open':
      return {
        summary: `${current?.name} is ${one.open ? 'open: members join and leave it themselves' : 'no longer open'}`,
        ...withList(replaced({ open: one.open })),
      };
    case 'product':
      return { summary: `${current?.name} is a ${one.type}`, ...withList(replaced({ kind: one.type })) };
    case 'field': {
      const { id: fieldId, kind: _, ...details } = one;
      if (details.type === 'choice' && details.choices.length === 0)
        return 'Give it something to choose from.';
      const folded = details.choices.map(foldCase);
      if (new Set(folded).size < folded.length) return 'Two choices are the same. Take one of them away.';
      const choices = details.type === 'choice' ? details.choices : [];
      const after = { ...(current as Field), ...details, choices };
      const people = [...state.people.values()].flatMap((person): PeopleChange[] => {
        const before = recordOf(person);
        const value = before.profile[fieldId];
        if (value === undefined) return [];
        const converted = convertedFieldValue(value, after);
        if (converted === value) return [];
        const { [fieldId]: _old, ...others } = before.profile;
        const profile = converted === null ? others : { ...others, [fieldId]: converted };
        return [{ before, after: { ...before, profile } }];
      });
      return { summary: `${current?.name} changed`, ...withList(replaced({ ...details, choices }), people) };
    }
    case 'passphrase': {
      const hash = await hashPassphrase(one.passphrase, state.settings.passphraseSalt);
      return {
        summary: `${current?.name} has a new passphrase`,
        people: [],
        names: null,
        passphrase: { id: asId(one.id), hash },
      };
    }
    default:
      return one satisfies never;
  }
}

/** Why a product can't be taken away: somebody paid for it and has it still; or null. */
function soldProblem(state: SiteState, of: Kind, gone: string, now: Date): string | null {
  const count = of === 'product' ? holdersAtTill(state, gone, now) : 0;
  return count === 0
    ? null
    : `${counted(count, 'person', 'people')} paid for it and ${count === 1 ? 'has' : 'have'} it still. Stop selling it in the shop; it can go when the last of them has ended.`;
}

/** Why people can't lose what a change would empty, or null. */
function lossProblem(state: SiteState, one: NamesEdit, { names, people }: SiteChange, now: Date) {
  const level = one.kind === 'remove' && one.of === 'level';
  // A level that goes is lost by those as well to whom a product gives it.
  const given = level
    ? [...state.people.values()]
        .filter(({ facts }) => facts.granted.some((granted) => granted.level === one.id))
        .map((person) => ({ before: recordOf(person), after: recordOf(person) }))
        .filter(({ before }) => !people.some((change) => change.before?.id === before.id))
    : [];
  const losers = [...people, ...given];
  if (!names || losers.length === 0 || !(level || one.kind === 'field')) return null;
  const asks = (test: Test) =>
    level ? test.fact === 'level' : test.fact === 'profile' && 'id' in one && test.subject === one.id;
  return openedByLoss(state, { ...state.names, ...names.after }, losers, asks, now);
}

/** What something new of a kind is like until it is said otherwise. */
const DETAILS: Readonly<Record<Kind, object>> = {
  level: {},
  role: {},
  group: { private: false, open: false },
  product: { kind: 'one-off' },
  field: { type: 'text', choices: [], private: false, editable: false },
  passphrase: {},
};

/** The places of a policy with tests that were right and would no longer be. */
function breaksIn(policy: Policy, before: SiteNames, after: SiteNames): readonly Use[] {
  const { audiences } = policy;
  return usesWhere(
    policy,
    (test) =>
      problemOf(test, { ...before, audiences }) === null && problemOf(test, { ...after, audiences }) !== null,
  );
}
