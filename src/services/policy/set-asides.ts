/** Findings that somebody looked at and left as they are, with the reason. */
import { z } from 'zod';
import { deleteSetAside, readSetAsides, type SetAside, writeSetAside } from '@/store';
import { tooDeep } from '../forms';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';

/** One of them as the desk shows it. */
export type FindingSetAside = Omit<SetAside, 'at'> & { readonly at: string };

const MOST = 2000;
const LARGEST_ABOUT = 100_000;

const asked = z.strictObject({
  finding: z.string().min(1).max(500),
  about: z
    .array(z.unknown())
    .max(20)
    .refine(
      (about) => JSON.stringify(about).length <= LARGEST_ABOUT,
      'What it is about is too long to be kept.',
    ),
  /** Null brings it back. */
  reason: z
    .string()
    .trim()
    .min(1, 'Say why it can stay as it is.')
    .max(500, 'A reason has at most 500 characters.')
    .nullable(),
});

export async function findingsSetAside(
  trivet: Trivet,
  administrator: Administrator,
): Promise<readonly FindingSetAside[]> {
  requirePermission(administrator, 'look');
  return (await readSetAsides(trivet.db)).map((one) => ({ ...one, at: one.at.toISOString() }));
}

/** Sets a finding aside with a reason, or brings it back; answers what is wrong, or null. */
export async function setFindingAside(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<string | null> {
  requirePermission(administrator, 'gates');
  if (tooDeep(input)) return 'What it is about is nested too deep to be kept.';
  const parsed = asked.safeParse(input);
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'That can’t be set aside.';
  const { finding, about, reason } = parsed.data;
  if (reason === null) {
    await deleteSetAside(trivet.db, finding);
    return null;
  }
  const known = await readSetAsides(trivet.db);
  if (known.length >= MOST && !known.some((one) => one.finding === finding))
    return `At most ${MOST} findings can be set aside. Bring some back that are no longer there.`;
  await writeSetAside(trivet.db, { finding, about, reason, by: administrator.name, at: now });
  return null;
}
