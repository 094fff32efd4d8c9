/**
 * What was sent and is being looked at: one for each administrator, in a folder of its own that goes with it. It is no part of
 * the site; what is gone can be sent again.
 */
import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PersonId } from '@/core';
import type { Trivet } from '../running';
import type { Material } from './material';
import type { Source } from './source';

/** What is told to whoever there is no room for. */
export const FULL = 'Others are taking something in just now. Try again when they are done.';

const OPEN_MS = 60 * 60_000;
const MOST_HELD = 3;

export interface Held {
  readonly id: string;
  readonly by: PersonId;
  readonly folder: string;
  /** What it is read from; null until that is known. */
  source: Source | null;
  /** What was read; null until it has been. */
  material: Material | null;
  /** Says to whoever reads it that it is let go. */
  readonly stop: AbortController;
  /** How many are at it: who comes while others are waits for them. */
  busy: number;
  turn: Promise<unknown>;
  timer: NodeJS.Timeout | null;
}

const helds = new WeakMap<Trivet, Map<string, Held>>();

const heldBy = (trivet: Trivet): Map<string, Held> => {
  const found = helds.get(trivet) ?? new Map<string, Held>();
  helds.set(trivet, found);
  return found;
};

/** Makes room for what somebody sends, in the place of what they sent before. Null when others hold as much as there is room for. */
export async function hold(trivet: Trivet, by: PersonId): Promise<Held | null> {
  const all = heldBy(trivet);
  for (const one of [...all.values()]) if (one.by === by) await letGo(trivet, one);
  if (all.size >= MOST_HELD) return null;
  const folder = await mkdtemp(join(tmpdir(), 'trivet-take-in-'));
  const held: Held = {
    id: randomUUID(),
    by,
    folder,
    source: null,
    material: null,
    stop: new AbortController(),
    busy: 0,
    turn: Promise.resolve(),
    timer: null,
  };
  all.set(held.id, held);
  stayOpen(trivet, held);
  return held;
}

/** What somebody sent, for another while. */
export function heldAt(trivet: Trivet, id: string, by: PersonId): Held | null {
  const held = heldBy(trivet).get(id);
  if (held?.by !== by) return null;
  stayOpen(trivet, held);
  return held;
}

function stayOpen(trivet: Trivet, held: Held): void {
  if (held.timer) clearTimeout(held.timer);
  held.timer = setTimeout(() => {
    // What is being read is not over.
    if (held.busy > 0) stayOpen(trivet, held);
    else void letGo(trivet, held);
  }, OPEN_MS);
  held.timer.unref();
}

/** Works on what is held once everybody before is done with it. */
export async function inTurn<T>(held: Held, work: () => Promise<T>): Promise<T> {
  held.busy += 1;
  const turn = held.turn.then(work);
  held.turn = turn.catch(() => undefined);
  try {
    return await turn;
  } finally {
    held.busy -= 1;
  }
}

export async function letGo(trivet: Trivet, held: Held): Promise<void> {
  heldBy(trivet).delete(held.id);
  held.stop.abort();
  if (held.timer) clearTimeout(held.timer);
  await held.source?.close();
  await rm(held.folder, { recursive: true, force: true });
}
