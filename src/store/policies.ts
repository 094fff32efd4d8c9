/** The draft, what is live, and every revision there was. */
import { and, desc, eq, getTableColumns, lt, sql } from 'drizzle-orm';
import type { Given, Policy } from '@/core';
import type { Database } from './database';
import { policyState, revisions } from './schema';

/** The draft with the version that a save has to name. */
export interface Draft {
  readonly policy: Policy;
  readonly version: number;
  /** Who saved it last. */
  readonly by: string;
}

/** What visitors get. */
export interface Live {
  readonly policy: Policy;
  readonly revision: number;
  readonly author: string;
  readonly note: string;
  readonly at: Date;
}

/** Both policies, read in one statement, or null when there is no site yet. */
export async function readPolicies(
  db: Database,
): Promise<{ readonly draft: Draft; readonly live: Live } | null> {
  const [row] = await db
    .select()
    .from(policyState)
    .innerJoin(revisions, eq(revisions.number, policyState.live));
  if (!row) return null;
  const { policy_state: state, revisions: live } = row;
  return {
    draft: { policy: whole(state.draft), version: state.draftVersion, by: state.draftBy },
    live: {
      policy: whole(live.policy),
      revision: live.number,
      author: live.author,
      note: live.note,
      at: live.at,
    },
  };
}

/**
 * Policies that were stored before there were audiences, named turn-aways, landing rules, defaults and expectations, and teasers that
 * knew only a text of their own.
 */
const whole = (policy: Policy): Policy => ({
  ...policy,
  gates: policy.gates.map((gate) => ({
    ...gate,
    otherwise: {
      cases: gate.otherwise.cases.map((one) => ({ ...one, give: wholeGiven(one.give) })),
      last: wholeGiven(gate.otherwise.last),
    },
  })),
  audiences: policy.audiences ?? [],
  turnAways: policy.turnAways ?? [],
  landings: policy.landings ?? [],
  defaults: policy.defaults ?? [],
  expectations: policy.expectations ?? [],
});

function wholeGiven(given: Given): Given {
  if (given.kind !== 'teaser' || given.show) return given;
  const { text, ...rest } = given as Given & { readonly kind: 'teaser' } & { readonly text?: string | null };
  return {
    ...rest,
    show: typeof text === 'string' ? { kind: 'text', text } : { kind: 'summary' },
    preview: false,
  };
}

/** Saves the draft if it is still at the version named. Answers the new version, or null when somebody was quicker. */
export async function updateDraft(
  db: Database,
  policy: Policy,
  version: number,
  by: string,
): Promise<number | null> {
  const [row] = await db
    .update(policyState)
    .set({ draft: policy, draftVersion: sql`${policyState.draftVersion} + 1`, draftBy: by })
    .where(eq(policyState.draftVersion, version))
    .returning({ version: policyState.draftVersion });
  return row?.version ?? null;
}

/** A revision about to be recorded. */
export type NewRevision = Omit<typeof revisions.$inferInsert, 'number' | 'at'>;

/**
 * Records a revision and makes it live, in one transaction, if draft and live are still those named. Answers the new
 * number, or null when something changed meanwhile.
 */
export async function switchLive(
  db: Database,
  expected: { readonly draftVersion: number; readonly live: number },
  revision: NewRevision,
): Promise<number | null> {
  return db.transaction(async (tx) => {
    const number = expected.live + 1;
    const [state] = await tx
      .select({ id: policyState.id })
      .from(policyState)
      .where(and(eq(policyState.draftVersion, expected.draftVersion), eq(policyState.live, expected.live)))
      .for('update');
    if (!state) return null;
    await tx.insert(revisions).values({ ...revision, number });
    await tx.update(policyState).set({ live: number });
    return number;
  });
}

/** Writes draft and live anew, as a revision of its own. Belongs in a transaction of whoever has the site to themselves. */
export async function writeBothPolicies(
  db: Database,
  {
    draft,
    live,
    author,
    note,
  }: { readonly draft: Policy; readonly live: Policy; readonly author: string; readonly note: string },
): Promise<void> {
  const [state] = await db.select({ live: policyState.live }).from(policyState).for('update');
  const number = (state?.live ?? 0) + 1;
  await db.insert(revisions).values({ number, policy: live, author, note });
  await db
    .update(policyState)
    .set({ draft, live: number, draftVersion: sql`${policyState.draftVersion} + 1`, draftBy: author });
}

/** The first revision of a new site, which is live and is the draft. */
export async function insertFirstPolicy(db: Database, policy: Policy, author: string): Promise<void> {
  await db.insert(revisions).values({ number: 1, policy, author, note: 'The site was loaded.' });
  await db.insert(policyState).values({ draft: policy, draftBy: author, live: 1 });
}

/** A revision without its policy. */
export type RevisionRecord = Omit<typeof revisions.$inferSelect, 'policy'>;

const { policy: _policy, ...revisionColumns } = getTableColumns(revisions);

/** Revisions from the newest on, or from before a number. */
export const readRevisions = (
  db: Database,
  most: number,
  before: number | null,
): Promise<readonly RevisionRecord[]> =>
  db
    .select(revisionColumns)
    .from(revisions)
    .where(before === null ? undefined : lt(revisions.number, before))
    .orderBy(desc(revisions.number))
    .limit(most);

/** One revision with its policy, or null. */
export async function readRevision(
  db: Database,
  number: number,
): Promise<(RevisionRecord & { readonly policy: Policy }) | null> {
  const [row] = await db.select().from(revisions).where(eq(revisions.number, number));
  return row ? { ...row, policy: whole(row.policy) } : null;
}
