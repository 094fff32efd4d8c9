/** Putting the draft live: atomically, recorded with its author and its effect, and only the draft that was looked at. */
import { z } from 'zod';
import { difference } from '@/core';
import { switchLive } from '@/store';
import type { Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission } from '../running';
import { effectAgainstLive, recordOfEffect } from './effect-of-draft';
import { requireGatePermission } from './gate-reach';
import { type BrokenExpectation, brokenIn } from './prove';

const request = z.strictObject({
  version: z.number().int(),
  revision: z.number().int(),
  note: z.string().trim().max(500, 'A note has at most 500 characters.').default(''),
  /** Why it goes live though an expectation is broken; an owner alone may say so. */
  despite: z
    .string()
    .trim()
    .min(1, 'Say why it goes live all the same.')
    .max(500, 'A reason has at most 500 characters.')
    .nullable()
    .default(null),
});

export type PutLiveAnswer =
  | { readonly kind: 'live'; readonly revision: number }
  | { readonly kind: 'nothing to do' }
  | { readonly kind: 'stale'; readonly message: string }
  /** Something that must stay so would not. */
  | { readonly kind: 'broken'; readonly message: string; readonly expectations: readonly BrokenExpectation[] }
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
  const { version, revision, note, despite } = parsed.data;
  if (despite !== null) requirePermission(administrator, 'everything');
  return trivet.change(async (state): Promise<PutLiveAnswer> => {
    const stale = {
      kind: 'stale',
      message:
        'Somebody changed the draft or put one live meanwhile. Look at the difference again; nothing was put live.',
    } as const;
    if (state.draft.version !== version || state.live.revision !== revision) return stale;
    if (difference(state.live.policy, state.draft.policy).length === 0) return { kind: 'nothing to do' };
    requireGatePermission(administrator, state, state.live.policy, state.draft.policy);
    const { today } = plainRequest(state, now);
    const broken = await brokenIn(state.draft.compiled, state, today);
    if (broken.length > 0 && despite === null)
      return {
        kind: 'broken',
        message: `${broken.length === 1 ? 'An expectation' : `${broken.length} expectations`} would be broken, so nothing was put live.`,
        expectations: broken,
      };
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
        effect: {
          ...recordOfEffect(effect, state),
          ...(broken.length > 0 && despite !== null && { despite: { reason: despite, broken } }),
        },
      },
    );
    return number === null ? stale : { kind: 'live', revision: number };
  });
}
