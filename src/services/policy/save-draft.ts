/** Saving the draft. A save names the version it was based on; one that comes too late is refused with the newer one. */
import { z } from 'zod';
import type { Policy } from '@/core';
import { updateDraft } from '@/store';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { requireGatePermission } from './gate-reach';
import { type PolicyProblem, readPolicy } from './read-policy';

export type SaveAnswer =
  | { readonly kind: 'saved'; readonly version: number }
  /** Somebody saved first. Theirs is sent back, so that both can be looked at; nothing was written. */
  | {
      readonly kind: 'stale';
      readonly theirs: { readonly policy: Policy; readonly version: number; readonly by: string };
    }
  | { readonly kind: 'wrong'; readonly problems: readonly PolicyProblem[] };

const request = z.strictObject({ version: z.number().int(), policy: z.unknown() });

export async function saveDraft(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<SaveAnswer> {
  requirePermission(administrator, 'gates');
  const parsed = request.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', problems: [{ gate: null, message: 'A save names a version and a policy.' }] };
  const read = readPolicy(parsed.data.policy, trivet.state);
  if ('problems' in read) return { kind: 'wrong', problems: read.problems };
  const version = await trivet.change((state) => {
    // One that comes too late is not looked at: it differs by what others did as well.
    if (state.draft.version === parsed.data.version)
      requireGatePermission(administrator, state, state.draft.policy, read.policy);
    return updateDraft(trivet.db, read.policy, parsed.data.version, administrator.name);
  });
  if (version !== null) return { kind: 'saved', version };
  const { draft } = trivet.state;
  return { kind: 'stale', theirs: { policy: draft.policy, version: draft.version, by: draft.by } };
}
