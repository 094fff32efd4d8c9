/**
 * The stand-ins on an administrator's board: members as references, read with the facts they have now; made-up ones whole.
 * Sets of them have names, and are there for every administrator.
 */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  asId,
  DESK_RIGHTS,
  factsOf,
  guest,
  member,
  type PersonId,
  type StandIn,
  type VisitorFacts,
} from '@/core';
import {
  type BoardSet,
  deleteBoardSet,
  readBoard,
  readBoardSets,
  type StandInRef,
  writeBoard,
  writeBoardSet,
} from '@/store';
import { dayForm, id } from '../forms';
import type { SiteState, Trivet } from '../running';
import { type Administrator, memberOf, type Person, requirePermission } from '../running';
import { enrolmentForm, factsForm, purchaseForm } from './person-form';

/** What a till would know of it, so that what is late or on trial can be tried. */
const orderForm = z.strictObject({
  id,
  paidUntil: dayForm.nullable(),
  trialUntil: dayForm.nullable(),
  renews: dayForm.nullable(),
  voucher: z.boolean(),
});

const madeUp = z.strictObject({
  id,
  name: z.string().trim().min(1, 'Give the stand-in a name.').max(60, 'A name has at most 60 letters.'),
  facts: z
    .strictObject({
      ...factsForm,
      signedIn: z.boolean(),
      id: z.null(),
      email: z.string().trim().toLowerCase().max(254).nullable(),
      roles: factsForm.roles.nullable(),
      groups: factsForm.groups.nullable(),
      profile: factsForm.profile.nullable(),
      purchases: z
        .array(purchaseForm.extend({ order: orderForm.optional() }))
        .max(1000)
        .nullable(),
      // What purchases give follows from them, whenever it is asked.
      granted: z
        .array(z.unknown())
        .max(1000)
        .transform(() => [])
        .default([]),
      // Those through a group follow from the group, whenever it is asked.
      enrolments: z
        .array(enrolmentForm.extend({ through: id.optional() }))
        .max(1000)
        .transform((list) => list.filter(({ through }) => through === undefined))
        .nullable(),
      completions: factsForm.completions.nullable(),
      passphrases: z.array(id).max(100),
      desk: z.enum(DESK_RIGHTS).nullable().default(null),
      share: z.number().min(0).lt(100).nullable(),
    })
    .transform((facts): VisitorFacts => {
      const made = facts as unknown as VisitorFacts;
      // Of a guest nothing is known but what they typed.
      return made.signedIn ? member(made) : { ...guest, passphrases: made.passphrases };
    }),
});

const ref = z.union([
  z.literal('guest'),
  z.strictObject({ person: id }),
  z.strictObject({ madeUp }),
]) as unknown as z.ZodType<StandInRef>;
const MOST = 50;
const refs = z.array(ref).max(MOST);

/** The stand-in that a reference means, or null when the person is gone. */
export function standInOf(state: SiteState, reference: StandInRef): StandIn | null {
  if (reference === 'guest') return { kind: 'guest' };
  if ('madeUp' in reference) {
    const { facts, ...madeUp } = reference.madeUp;
    // What was kept before there was a fact lacks it, and missing is not known.
    const known = { ...guest, ...facts };
    const derived = known.signedIn ? factsOf({ ...known, groupsSince: {} }, state) : known;
    return { kind: 'made up', madeUp: { ...madeUp, facts: derived } };
  }
  const person = state.people.get(asId<PersonId>(reference.person));
  return person ? { kind: 'member', member: memberOf(person) } : null;
}

/** The pages about oneself need somebody; whoever is made up is nobody on the site. */
export function personBehind(standIn: StandIn, state: SiteState): Person | null {
  if (standIn.kind === 'member') return state.people.get(standIn.member.id) ?? null;
  if (standIn.kind === 'guest' || !standIn.madeUp.facts.signedIn) return null;
  const { name, facts } = standIn.madeUp;
  return {
    id: asId<PersonId>('made-up'),
    name,
    email: facts.email ?? '',
    desk: null,
    level: facts.level,
    roles: facts.roles ?? [],
    groups: facts.groups ?? [],
    groupsSince: {},
    profile: facts.profile ?? {},
    joined: facts.joined,
    purchases: facts.purchases ?? [],
    enrolments: facts.enrolments ?? [],
    completions: facts.completions ?? [],
    facts,
  };
}

const standInsOf = (state: SiteState, list: readonly StandInRef[]): readonly StandIn[] =>
  list.map((one) => standInOf(state, one)).filter((one) => one !== null);

/** Reads one reference as it came from a browser. */
export function readStandIn(state: SiteState, input: unknown): { ref: StandInRef; standIn: StandIn } | null {
  const parsed = ref.safeParse(input);
  const standIn = parsed.success ? standInOf(state, parsed.data) : null;
  return parsed.success && standIn ? { ref: parsed.data, standIn } : null;
}

/** The administrator's board; a guest alone until there is more. */
export async function boardOf(trivet: Trivet, administrator: Administrator): Promise<readonly StandIn[]> {
  requirePermission(administrator, 'look');
  const kept: readonly StandInRef[] = (await readBoard(trivet.db, administrator.id)) ?? ['guest'];
  return standInsOf(trivet.state, kept);
}

/** Keeps the order and choice of stand-ins. Answers what is wrong, or null when it is kept. */
export async function keepBoard(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<string | null> {
  requirePermission(administrator, 'look');
  const parsed = refs.safeParse(input);
  if (!parsed.success) return wrongIn(parsed.error, input);
  await writeBoard(trivet.db, administrator.id, parsed.data);
  return null;
}

const wrongIn = (error: z.ZodError, input: unknown): string =>
  Array.isArray(input) && input.length > MOST
    ? `A board holds at most ${MOST} visitors. Take some off first.`
    : `One of the visitors can’t be kept: ${error.issues[0]?.message ?? 'it is no stand-in'}`;

/** A set of stand-ins with its name, as the desk shows it. */
export interface NamedStandIns {
  readonly id: string;
  readonly name: string;
  readonly by: string;
  readonly standIns: readonly StandIn[];
}

/** Every set, by name; people who are gone are left out. */
export async function boardSets(
  trivet: Trivet,
  administrator: Administrator,
): Promise<readonly NamedStandIns[]> {
  requirePermission(administrator, 'look');
  const sets = await readBoardSets(trivet.db);
  return sets.map(({ standIns, ...set }: BoardSet) => ({
    ...set,
    standIns: standInsOf(trivet.state, standIns),
  }));
}

const set = z.strictObject({
  name: z.string().trim().min(1, 'Give the set a name.').max(60, 'A name has at most 60 letters.'),
  standIns: refs.min(1, 'Put somebody on the board first.'),
});

/** Keeps a set under a name; one of the same name is replaced. Answers what is wrong, or null. */
export async function keepBoardSet(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<string | null> {
  requirePermission(administrator, 'look');
  const parsed = set.safeParse(input);
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'That can’t be kept.';
  await writeBoardSet(trivet.db, { ...parsed.data, id: randomUUID(), by: administrator.name });
  return null;
}

/** Drops a set. Boards that began as it stay as they are. */
export async function dropBoardSet(trivet: Trivet, administrator: Administrator, id: string): Promise<void> {
  requirePermission(administrator, 'look');
  await deleteBoardSet(trivet.db, id);
}
