/** A copy of a site to be checked: the same names, people and live policy, with marks planted in everything it says. */
import { type PersonId, permits } from '@/core';
import { insertKey, insertSession, insertWalk } from '@/store';
import type { SiteState, Trivet } from '../running';
import { hashToken, newToken, recordOf } from '../running';
import { writeSite } from '../writing';
import { writeWork } from './handed-in';
import type { Planted } from './marks';
import { writeSold } from './sold';

const HOUR_MS = 60 * 60_000;

/** Whom the doors are tried as: with a session, keys and a walk of their own. */
export interface Tester {
  readonly name: string;
  readonly person: PersonId | null;
  /** The token of the session; null for a guest. */
  readonly session: string | null;
  readonly apiKey: string | null;
  readonly feedKey: string | null;
  /** The token of a walk as this visitor, and that of the administrator's session that it belongs to. */
  readonly walk: { readonly token: string; readonly session: string } | null;
}

/** Fills an empty Trivet with the copy, and lets some people (and a guest) in. */
export async function fillCopy(
  copy: Trivet,
  source: SiteState,
  planted: Planted,
  people: readonly PersonId[],
  now: Date,
): Promise<readonly Tester[]> {
  const records = [...source.people.values()].map((person) =>
    recordOf(planted.people.get(person.id) ?? person),
  );
  await copy.db.transaction(async (tx) => {
    const { settings, names, live } = source;
    await writeSite(
      tx,
      { ...planted, settings, names, people: records, policy: live.policy },
      'The leak check',
    );
  });
  const until = new Date(now.getTime() + HOUR_MS);
  const session = async (person: PersonId): Promise<string> => {
    const token = newToken();
    await insertSession(
      copy.db,
      { tokenHash: hashToken(token), person, passphrases: [], expiresAt: until },
      now,
    );
    return token;
  };
  const key = async (person: PersonId, use: 'api' | 'feed'): Promise<string> => {
    const made = newToken();
    await insertKey(copy.db, { id: newToken(), person, use, name: 'Check', hash: hashToken(made), at: now });
    return made;
  };
  const walker = records.find(({ desk }) => desk && permits(desk, 'look'));
  const walkSession = walker ? await session(walker.id) : null;
  const walk = async (standIn: PersonId | null): Promise<Tester['walk']> => {
    if (walkSession === null) return null;
    const token = newToken();
    const ref = standIn === null ? ('guest' as const) : { person: standIn };
    await insertWalk(
      copy.db,
      {
        tokenHash: hashToken(token),
        session: hashToken(walkSession),
        standIn: ref,
        side: 'live',
        scene: {},
        expiresAt: until,
      },
      now,
    );
    return { token, session: walkSession };
  };
  const testers: Tester[] = [
    { name: 'Guest', person: null, session: null, apiKey: null, feedKey: null, walk: await walk(null) },
  ];
  for (const person of people) {
    const record = source.people.get(person);
    if (!record) continue;
    testers.push({
      name: record.name,
      person,
      session: await session(person),
      apiKey: await key(person, 'api'),
      feedKey: await key(person, 'feed'),
      walk: await walk(person),
    });
  }
  await writeWork(copy, planted.work);
  await writeSold(copy, source, planted);
  await copy.reload();
  return testers;
}
