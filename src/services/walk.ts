/**
 * Walking through the site as a stand-in. A walk has a token of its own in its addresses; it works only together with
 * the session that started it, for an hour, and shows the site with the facts the stand-in has now.
 */
import { z } from 'zod';
import { factsOf, type StandIn } from '@/core';
import { insertWalk, readWalk } from '@/store';
import { plainRequest } from './clock';
import type { Administrator } from './desk-right';
import { hashToken, newToken } from './secrets';
import { readStandIn, standInOf } from './stand-ins';
import type { Trivet } from './trivet';
import type { Look } from './view';

const WALK_MS = 60 * 60_000;

const request = z.strictObject({ standIn: z.unknown(), side: z.enum(['draft', 'live']) });

/** Starts a walk. Answers its token, or null when there is no such stand-in. */
export async function startWalk(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<string | null> {
  const parsed = request.safeParse(input);
  const chosen = parsed.success ? readStandIn(trivet.state, parsed.data.standIn) : null;
  if (!parsed.success || !chosen) return null;
  const token = newToken();
  const walk = {
    tokenHash: hashToken(token),
    session: administrator.session,
    standIn: chosen.ref,
    side: parsed.data.side,
    expiresAt: new Date(now.getTime() + WALK_MS),
  };
  await insertWalk(trivet.db, walk, now);
  return token;
}

/** A walk under way: as whom, through which policy. */
export interface WalkUnderWay {
  readonly standIn: StandIn;
  readonly side: 'draft' | 'live';
  readonly look: Look;
}

/** The walk with this token, if it belongs to this administrator's session and is not over. */
export async function walkOf(
  trivet: Trivet,
  administrator: Administrator | null,
  token: string,
  now: Date,
): Promise<WalkUnderWay | null> {
  if (!administrator || token.length > 100) return null;
  const walk = await readWalk(trivet.db, hashToken(token), administrator.session, now);
  const { state } = trivet;
  const standIn = walk && standInOf(state, walk.standIn);
  if (!walk || !standIn) return null;
  const look = {
    state,
    compiled: state[walk.side].compiled,
    facts: factsOf(standIn),
    person: standIn.kind === 'member' ? (state.people.get(standIn.member.id) ?? null) : null,
    request: plainRequest(state, now),
    base: `/walk/${token}`,
  };
  return { standIn, side: walk.side, look };
}
