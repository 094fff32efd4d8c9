/** What of a video somebody has played, and being done with it once that is most of it. */
import {
  asId,
  decide,
  type ItemId,
  joinedRanges,
  playedShare,
  type Ranges,
  type RequestFacts,
  WATCHED,
} from '@/core';
import { addPlayed } from '@/store';
import type { Trivet, Visitor } from '../running';
import { completeActivity } from './learning';

const LONGEST_RANGES = 5000;
const MOST_SECONDS = 24 * 60 * 60;

export type WatchAnswer = 'noted' | 'done' | 'closed' | 'unreadable';

/** Notes what was played. Told as "0-12.5,40-60" with how long the video is, in seconds. */
export async function notePlayed(
  trivet: Trivet,
  visitor: Visitor,
  id: string,
  fields: Readonly<Record<string, unknown>>,
  request: RequestFacts,
  now: Date,
): Promise<WatchAnswer> {
  const { person, facts } = visitor;
  const { live, outline } = trivet.state;
  const activity = outline.items.get(asId<ItemId>(id));
  if (!person || activity?.kind !== 'activity' || activity.activity !== 'video') return 'closed';
  if (decide(live.compiled, activity.id, facts, request).kind !== 'open') return 'closed';
  const seconds = Number(fields.seconds);
  const more = rangesIn(fields.ranges);
  if (more === null || !(seconds > 0 && seconds <= MOST_SECONDS)) return 'unreadable';
  const ranges = await addPlayed(trivet.db, person.id, activity.id, (before) =>
    joinedRanges([...before, ...more]),
  );
  if (playedShare(ranges, seconds) < WATCHED) return 'noted';
  return (await completeActivity(trivet, visitor, id, request, now)) === 'done' ? 'done' : 'closed';
}

/** Ranges as they are sent, or null. */
function rangesIn(text: unknown): Ranges | null {
  if (typeof text !== 'string' || text.length > LONGEST_RANGES) return null;
  const ranges = text.split(',').map((range) => /^(\d{1,5}(?:\.\d)?)-(\d{1,5}(?:\.\d)?)$/.exec(range));
  return ranges.every((range) => range !== null)
    ? ranges.map(([, from, to]) => [Number(from), Number(to)] as const)
    : null;
}
