/** Putting the draft live: atomically, recorded with its author and its effect, and only the draft that was looked at. */
import { z } from 'zod';
import { difference } from '@/core';
import { switchLive } from '@/store';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { effectAgainstLive, recordOfEffect } from './effect-of-draft';
import { requireGatePermission } from './gate-reach';

const request = z.strictObject({
  version: z.number().int(),
  revision: z.number().int(),
  note: z.string().trim().max(500, 'A note has at most 500 characters.').default(''),
});

export type PutLiveAnswer =
  | { readonly kind: 'live'; readonly revision: number }
  | { readonly kind: 'nothing to do' }
  | { readonly kind: 'stale'; readonly message: string }
  | { readonly kind: 'wrong'; readonly message: string };

export async function putLive(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<PutLiveAnswer> {
  requirePermission(administrator, 'gates');
  const parsed = request.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be put live.' };
  const { version, revision, note } = parsed.data;
  return trivet.changePolicies(async (state): Promise<PutLiveAnswer> => {
    const stale = {
      kind: 'stale',
      message:
        'Somebody changed the draft or put one live meanwhile. Look at the difference again; nothing was put live.',
    } as const;
    if (state.draft.version !== version || state.live.revision !== revision) return stale;
    if (difference(state.live.policy, state.draft.policy).length === 0) return { kind: 'nothing to do' };
    requireGatePermission(administrator, state, state.live.policy, state.draft.policy);
    const effect = await effectAgainstLive(state, state.draft.policy, now);
    const number = await switchLive(
      trivet.db,
      { draftVersion: version, live: revision },
      {
        policy: state.draft.policy,
        author: administrator.name,
        note,
        gained: effect.gains.count,
        lost: effect.loses.count,
        effect: recordOfEffect(effect, state, now),
      },
    );
    return number === null ? stale : { kind: 'live', revision: number };
  });
}
