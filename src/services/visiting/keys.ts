/** Keys that members make for apps and for a feed of their own, and take back. A key is shown once. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { byMessages, type PersonId } from '@/core';
import { deleteKey, insertKey, type Key, type KeyUse, readKeyOwner, readKeys } from '@/store';
import type { Person, Trivet } from '../running';
import { hashToken, messagesOf, newToken } from '../running';

export type { Key, KeyUse };

const MOST_KEYS = 50;

const formIn = byMessages(({ keys: words }) =>
  z.object({
    use: z.enum(['api', 'feed'], { error: words.noUse }),
    name: z.string({ error: words.oneName }).trim().min(1, words.noName).max(100, words.longName),
  }),
);

export type KeyAnswer =
  | { readonly kind: 'made'; readonly key: string; readonly use: KeyUse; readonly name: string }
  | { readonly kind: 'wrong'; readonly problem: string };

/** Makes a key. It is answered here and never again. */
export async function makeKey(
  trivet: Trivet,
  person: PersonId,
  fields: Readonly<Record<string, unknown>>,
  now: Date,
): Promise<KeyAnswer> {
  const messages = messagesOf(trivet.state);
  const parsed = formIn(messages).safeParse(fields);
  if (!parsed.success) return { kind: 'wrong', problem: parsed.error.issues[0]?.message ?? '' };
  if ((await readKeys(trivet.db, person)).length >= MOST_KEYS)
    return { kind: 'wrong', problem: messages.keys.tooMany(MOST_KEYS) };
  const key = `trivet-${parsed.data.use}-${newToken()}`;
  await insertKey(trivet.db, { id: randomUUID(), person, ...parsed.data, hash: hashToken(key), at: now });
  return { kind: 'made', key, ...parsed.data };
}

export const keysOf = (trivet: Trivet, person: PersonId): Promise<readonly Key[]> =>
  readKeys(trivet.db, person);

/** Takes a key back. From then on it opens nothing. */
export async function revokeKey(trivet: Trivet, person: PersonId, id: unknown): Promise<void> {
  await deleteKey(trivet.db, person, typeof id === 'string' ? id.slice(0, 100) : '');
  trivet.forgetKeys();
}

/** Whose key this is, or null for none that is good for this. */
export async function personWithKey(trivet: Trivet, key: string, use: KeyUse): Promise<Person | null> {
  if (key.length > 200) return null;
  const hash = hashToken(key);
  const owner = trivet.keys.get(`${use} ${hash}`) ?? (await ownerInDatabase(trivet, hash, use));
  return (owner && trivet.state.people.get(owner)) ?? null;
}

async function ownerInDatabase(trivet: Trivet, hash: string, use: KeyUse): Promise<PersonId | null> {
  const { endings } = trivet;
  const owner = await readKeyOwner(trivet.db, hash, use);
  // One that was taken back while it was read must not be remembered.
  if (owner !== null && endings === trivet.endings) trivet.keys.set(`${use} ${hash}`, owner);
  return owner;
}
