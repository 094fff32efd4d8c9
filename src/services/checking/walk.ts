/**
 * Walking through the site as a stand-in. A walk has a token of its own in its addresses; it works only together with
 * the session that started it, for half an hour, and shows the site with the facts the stand-in has now, at a time and with
 * a browser of one's choosing.
 */
import { z } from 'zod';
import {
  DEVICES,
  isDay,
  type Moment,
  momentIn,
  permits,
  type RequestFacts,
  requestAt,
  type StandIn,
  standInFacts,
} from '@/core';
import { insertWalk, readWalk, type Walk, type WalkScene } from '@/store';
import { personBehind, readStandIn, standInOf } from '../people';
import type { SiteState, Trivet } from '../running';
import { type Administrator, hashToken, newToken, plainRequest, requirePermission } from '../running';
import { type ViewContext, viewOf } from '../view';
import { parametersOf } from '../visiting';

const WALK_MS = 30 * 60_000;

const time = /^([01]\d|2[0-3]):[0-5]\d$/;

const scene = z.strictObject({
  at: z
    .string()
    .refine((text) => isDay(text.slice(0, 10)) && text[10] === 'T' && time.test(text.slice(11)), {
      message: 'Write the moment like 2026-12-24T18:30.',
    })
    .optional(),
  device: z.enum(DEVICES).optional(),
  referrer: z
    .string()
    .trim()
    .toLowerCase()
    .regex(/^[a-z0-9.-]{1,253}$/, 'Write the host alone, like news.example.')
    .optional(),
  language: z
    .string()
    .trim()
    .regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, 'Write a language like en or de-AT.')
    .optional(),
});

const request = z.strictObject({
  standIn: z.unknown(),
  side: z.enum(['draft', 'live']),
  scene: scene.default({}),
});

export type WalkAnswer =
  | { readonly kind: 'walk'; readonly token: string }
  | { readonly kind: 'wrong'; readonly message: string };

/** Starts a walk, or says why it can't begin. */
export async function startWalk(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<WalkAnswer> {
  requirePermission(administrator, 'look');
  const parsed = request.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That is no walk.' };
  const chosen = readStandIn(trivet.state, parsed.data.standIn);
  if (!chosen) return { kind: 'wrong', message: 'There is no such visitor any more.' };
  const token = newToken();
  const walk = {
    tokenHash: hashToken(token),
    session: administrator.session,
    standIn: chosen.ref,
    side: parsed.data.side,
    scene: parsed.data.scene as WalkScene,
    expiresAt: new Date(now.getTime() + WALK_MS),
  };
  await insertWalk(trivet.db, walk, now);
  return { kind: 'walk', token };
}

/** A walk under way: as whom, through which policy, in which scene. */
export interface WalkUnderWay {
  readonly token: string;
  readonly standIn: StandIn;
  readonly side: 'draft' | 'live';
  readonly scene: WalkScene;
  readonly context: ViewContext;
}

/** The walk with this token, if it belongs to this administrator's session and is not over; at an address with its query. */
export async function walkOf(
  trivet: Trivet,
  administrator: Administrator | null,
  token: string,
  now: Date,
  url: URL | null = null,
): Promise<WalkUnderWay | null> {
  if (!administrator || !permits(administrator.desk, 'look') || token.length > 100) return null;
  const walk = await walkNamed(trivet, hashToken(token), administrator.session, now);
  const { state } = trivet;
  const standIn = walk && standInOf(state, walk.standIn);
  if (!walk || !standIn) return null;
  const context = viewOf({
    state,
    compiled: state[walk.side].compiled,
    facts: standInFacts(standIn),
    person: personBehind(standIn, state),
    request: sceneAt(state, walk.scene, now, url),
    base: `/walk/${token}`,
  });
  return { token, standIn, side: walk.side, scene: walk.scene, context };
}

/** A walk of this session that is not over. Whoever asks has a session that is good, and a walk ends with its own. */
async function walkNamed(
  trivet: Trivet,
  tokenHash: string,
  session: string,
  now: Date,
): Promise<Walk | null> {
  const known = trivet.walks.get(tokenHash);
  if (known) return known.session === session && known.expiresAt > now ? known : null;
  const walk = await readWalk(trivet.db, tokenHash, session, now);
  if (walk) trivet.rememberWalk(walk);
  return walk;
}

/** What a request of the walk brings. */
function sceneAt(
  state: SiteState,
  { at, device, referrer, language }: WalkScene,
  now: Date,
  url: URL | null,
): RequestFacts {
  return {
    ...(at === undefined ? plainRequest(state, now) : requestAt(momentOf(at))),
    device: device ?? null,
    referrer: referrer ?? null,
    languages: language === undefined ? null : [language],
    parameters: url ? parametersOf(url) : {},
  };
}

/** A moment as it is written, by whatever clock: nothing is known of the zone, and nothing needs to be. */
const momentOf = (text: string): Moment => momentIn('UTC', new Date(`${text}:00Z`));
