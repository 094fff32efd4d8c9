/** What was changed, by whom, when and why: revisions of the gates, and changes of people and names. */
import { z } from 'zod';
import type { Policy } from '@/core';
import { type RevisionRecord, readChanges, readRevision, readRevisions } from '@/store';
import { type FactChange, personDifference } from '../people';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';

const AT_ONCE = 50;

/** A revision as the desk shows it. */
export type Revision = Omit<RevisionRecord, 'at'> & { readonly at: string; readonly live: boolean };

/** Revisions from the newest on, or from before one. */
export async function revisionsOf(
  trivet: Trivet,
  administrator: Administrator,
  before: number | null,
): Promise<readonly Revision[]> {
  requirePermission(administrator, 'look');
  const rows = await readRevisions(trivet.db, AT_ONCE, before);
  return rows.map((row) => ({
    ...row,
    at: row.at.toISOString(),
    live: row.number === trivet.state.live.revision,
  }));
}

/** One revision with its gates, and those of the one before it. */
export async function revisionAt(
  trivet: Trivet,
  administrator: Administrator,
  number: number,
): Promise<{
  readonly revision: Revision;
  readonly policy: Policy;
  readonly previous: Policy | null;
} | null> {
  requirePermission(administrator, 'look');
  if (!Number.isInteger(number) || number < 1 || number > 2 ** 31 - 1) return null;
  const found = await readRevision(trivet.db, number);
  if (!found) return null;
  const { policy, ...revision } = found;
  const previous = number > 1 ? await readRevision(trivet.db, number - 1) : null;
  return {
    revision: { ...revision, at: revision.at.toISOString(), live: number === trivet.state.live.revision },
    policy,
    previous: previous?.policy ?? null,
  };
}

/** A change of people or names as the desk shows it. */
export interface PastChange {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly summary: string;
  readonly why: string;
  readonly undone: boolean;
  /** How many people it touched. */
  readonly count: number;
  /** The first of them, with what was otherwise. */
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly kind: 'came' | 'went' | 'changed';
    readonly facts: readonly FactChange[];
  }[];
}

const asking = z.object({
  person: z.string().max(100).nullable().catch(null),
  before: z.iso.datetime().nullable().catch(null),
});
const MOST_PEOPLE = 12;

/** Changes of people and names, newest first: all, or those of one person. */
export async function pastChanges(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<readonly PastChange[]> {
  requirePermission(administrator, 'look');
  const { person, before } = asking.parse(input);
  const { names } = trivet.state;
  const rows = await readChanges(trivet.db, {
    person,
    before: before === null ? null : new Date(before),
    most: AT_ONCE,
  });
  return rows.map(({ id, at, by, summary, why, undone, people }) => ({
    id,
    at: at.toISOString(),
    by,
    summary,
    why,
    undone,
    count: people.length,
    people: people
      .filter((one) => person === null || (one.after ?? one.before)?.id === person)
      .slice(0, MOST_PEOPLE)
      .map((one) => ({
        id: (one.after ?? one.before)?.id ?? '',
        name: (one.after ?? one.before)?.name ?? '',
        kind: !one.before ? 'came' : !one.after ? 'went' : 'changed',
        facts: one.before && one.after ? personDifference(one.before, one.after, names) : [],
      })),
  }));
}
