/** Finding people: by a part of their name or mail address, and by a condition in the text form. */
import { z } from 'zod';
import {
  asId,
  countOf,
  groupsAt,
  hasPlace,
  levelAt,
  type PersonId,
  parseCondition,
  placesIn,
  rolesAt,
  type TextError,
  type Vocabulary,
  vocabularyOf,
} from '@/core';
import type { PersonRecord } from '@/store';
import type { SiteState, Trivet } from '../running';
import { type Administrator, type Person, plainRequest, recordOf, requirePermission } from '../running';
import { membershipOf } from './columns';
import { folded, placesSaying } from './find-members';

const question = z.strictObject({
  /** A part of a name or a mail address. */
  text: z.string().max(200).default(''),
  /** Who, in the text form; empty for everybody. */
  condition: z.string().default(''),
  from: z.number().int().min(0).default(0),
  most: z.number().int().min(1).max(500).default(100),
});

/** Some of the people found, in the order of their names. */
export interface PeoplePage {
  readonly kind: 'found';
  readonly of: number;
  readonly count: number;
  readonly from: number;
  readonly people: readonly PersonInList[];
}

export type FindAnswer =
  | PeoplePage
  | { readonly kind: 'wrong condition'; readonly error: TextError }
  | { readonly kind: 'wrong'; readonly message: string };

/** Answers a question about people. Conditions are read with the names of the draft. */
export async function findPeople(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<FindAnswer> {
  requirePermission(administrator, 'look');
  const parsed = question.safeParse(input);
  if (!parsed.success) return { kind: 'wrong', message: 'That can’t be looked for.' };
  const { text, condition, from, most } = parsed.data;
  const { state } = trivet;
  const found = await peopleWhere(state, draftVocabulary(state), { text, condition }, now);
  if ('error' in found) return { kind: 'wrong condition', error: found.error };
  return {
    kind: 'found',
    of: state.people.size,
    count: found.count,
    from,
    people: [...found.people(from, most)].map((person) => inList(state, person, now)),
  };
}

/** Somebody in a list: what is kept of them, and what they have today with what they bought. */
export interface PersonInList extends PersonRecord {
  readonly has: Pick<PersonRecord, 'level' | 'roles' | 'groups'>;
}

function inList(state: SiteState, person: Person, now: Date): PersonInList {
  const { today } = plainRequest(state, now);
  const { facts } = person;
  return {
    ...recordOf(person),
    has: {
      level: levelAt(facts, today, state.names.levels),
      roles: rolesAt(facts, today) ?? [],
      groups: groupsAt(facts, today) ?? [],
    },
  };
}

export const draftVocabulary = (state: SiteState): Vocabulary =>
  vocabularyOf(state.names, state.draft.policy);

/** Those who were found, in the order of their names. */
export interface FoundPeople {
  readonly count: number;
  /** All of them, or so many from one of them on. */
  readonly people: (from?: number, most?: number) => Iterable<Person>;
}

/** The people of whom a text and a condition are true, or what is wrong with the condition. */
export async function peopleWhere(
  state: SiteState,
  vocabulary: Vocabulary,
  { text, condition }: { readonly text: string; readonly condition: string },
  now: Date,
): Promise<FoundPeople | { readonly error: TextError }> {
  const parsed = condition.trim() === '' ? null : parseCondition(condition, vocabulary);
  if (parsed && !parsed.ok) return { error: parsed.error };
  const selected =
    parsed && (await membershipOf(state, vocabulary, now, [parsed.condition])).select(parsed.condition).bits;
  const said = folded(text) === '' ? null : await placesSaying(state.people, text);
  const places = said && selected ? said.filter((place) => hasPlace(selected, place)) : said;
  const count = places?.length ?? (selected ? countOf(selected) : state.people.size);
  return {
    count,
    people: (from = 0, most = count) =>
      state.people.at(some(places ?? (selected ? placesIn(selected) : Array(count).keys()), from, most)),
  };
}

/** So many of a list from one of them on. */
function* some<T>(list: Iterable<T>, from: number, most: number): Generator<T> {
  let at = 0;
  for (const one of list) {
    if (at >= from + most) return;
    if (at >= from) yield one;
    at += 1;
  }
}

/** The people who were chosen: one by one, or as they are found. */
export async function peopleChosen(
  state: SiteState,
  who: { readonly ids: readonly string[] } | { readonly text: string; readonly condition: string },
  now: Date,
): Promise<FoundPeople | { readonly error: TextError }> {
  if (!('ids' in who)) return peopleWhere(state, draftVocabulary(state), who, now);
  const people = who.ids.flatMap((one) => state.people.get(asId<PersonId>(one)) ?? []);
  return { count: people.length, people: () => people };
}
