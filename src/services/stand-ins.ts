/** The stand-ins on an administrator's board: kept as references, read with the facts people have now. */
import { z } from 'zod';
import { asId, type Member, type PersonId, type StandIn } from '@/core';
import { readBoard, type StandInRef, writeBoard } from '@/store';
import type { Administrator } from './desk-right';
import type { Person } from './person';
import type { SiteState } from './site-state';
import type { Trivet } from './trivet';

const ref = z.union([z.literal('guest'), z.strictObject({ person: z.string().min(1).max(100) })]);
const refs = z.array(ref).max(50);

export const memberOf = ({ id, name, facts }: Person): Member => ({ id, name, facts });

/** The stand-in that a reference means, or null when the person is gone. */
export function standInOf(state: SiteState, reference: StandInRef): StandIn | null {
  if (reference === 'guest') return { kind: 'guest' };
  const person = state.people.get(asId<PersonId>(reference.person));
  return person ? { kind: 'member', member: memberOf(person) } : null;
}

/** Reads one reference as it came from a browser. */
export function readStandIn(state: SiteState, input: unknown): { ref: StandInRef; standIn: StandIn } | null {
  const parsed = ref.safeParse(input);
  const standIn = parsed.success ? standInOf(state, parsed.data) : null;
  return parsed.success && standIn ? { ref: parsed.data, standIn } : null;
}

/** The administrator's board; a guest alone until there is more. */
export async function boardOf(trivet: Trivet, administrator: Administrator): Promise<readonly StandIn[]> {
  const kept: readonly StandInRef[] = (await readBoard(trivet.db, administrator.id)) ?? ['guest'];
  return kept.map((one) => standInOf(trivet.state, one)).filter((one) => one !== null);
}

/** Keeps the order and choice of stand-ins. Answers what is wrong, or null when it is kept. */
export async function keepBoard(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<string | null> {
  const parsed = refs.safeParse(input);
  if (!parsed.success) return 'A board is a list of at most 50 stand-ins.';
  await writeBoard(trivet.db, administrator.id, parsed.data);
  return null;
}
