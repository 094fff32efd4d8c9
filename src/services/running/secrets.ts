/** Passwords and tokens: argon2id for what people choose, SHA-256 of 256 random bits for what we choose. */
import { createHmac, hash as hashOnce, randomBytes, timingSafeEqual } from 'node:crypto';
import { hash, hashRaw, type Options, verify } from '@node-rs/argon2';
import { lane } from './lane';

// OWASP Password Storage Cheat Sheet, argon2id: 19 MiB of memory, two passes, one lane.
const ARGON2ID_ALGORITHM = 2;
const ARGON2ID: Options = { algorithm: ARGON2ID_ALGORITHM, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Visitors hash one after the other, so that the rest of the machine is there for everybody else. */
const visitors = lane(1, 60);
/** A site file brings many passwords at once, and nobody waits for them. */
const files = lane(2, Number.POSITIVE_INFINITY);

/** The argon2id hash of a password, in PHC format. Throws {@link Busy} when too many are waiting. */
export const hashPassword = (password: string): Promise<string> => visitors(() => hashed(password));

/** The same for the passwords of a site file: they wait however many there are. */
export const hashFilePassword = (password: string): Promise<string> => files(() => hashed(password));

const hashed = (password: string): Promise<string> => hash(password.normalize('NFC'), ARGON2ID);

/**
 * What is kept of a passphrase: argon2id with the site's own salt, in hex. All of a site's passphrases share the salt, so
 * that finding out which one was typed takes one hash, however many there are. Case and outer spaces don't count.
 */
export const hashPassphrase = async (passphrase: string, salt: string): Promise<string> =>
  (
    await visitors(() =>
      hashRaw(passphrase.normalize('NFC').trim().toLowerCase(), {
        ...ARGON2ID,
        salt: Buffer.from(salt, 'hex'),
      }),
    )
  ).toString('hex');

// Made when the program starts, so that not even the first wrong sign-in takes longer than others.
const decoy = hashed(randomBytes(18).toString('base64'));

/**
 * Whether a password is right. Without a hash to compare with, it compares with a decoy and answers no: the same work,
 * so that the time taken does not tell whether there is such an account.
 */
export async function passwordIsRight(
  password: string,
  passwordHash: string | null | undefined,
): Promise<boolean> {
  const known = passwordHash ?? (await decoy);
  const right = await visitors(() => verify(known, password.normalize('NFC')));
  return right && typeof passwordHash === 'string';
}

/** A new token of 256 random bits, for a cookie or an address. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** What is stored of a token. */
export const hashToken = (token: string): string => hashOnce('sha256', token, 'hex');

/**
 * What a browser keeps to show that somebody signed in with it before: a number of its own, and that number together with the
 * account under the site's key. It opens nothing; failures from it are counted apart from those of strangers.
 */
export function deviceMark(person: string, siteKey: string): string {
  const number = randomBytes(12).toString('base64url');
  return `${number}.${deviceProof(number, person, siteKey)}`;
}

/** The number of a browser that signed in to this account before, or null. */
export function deviceOf(mark: string, person: string, siteKey: string): string | null {
  const [number = '', proof = '', ...more] = mark.split('.');
  const right = Buffer.from(deviceProof(number, person, siteKey));
  const given = Buffer.from(proof);
  return more.length === 0 && given.length === right.length && timingSafeEqual(given, right) ? number : null;
}

const deviceProof = (number: string, person: string, siteKey: string): string =>
  createHmac('sha256', Buffer.from(siteKey, 'hex')).update(`device ${number} ${person}`).digest('base64url');

const KEY_PREFIX = 'whsec_';

/** A key to sign messages with as it is written: `whsec_` and 24 to 64 bytes in base64. Null for what is none. */
export function keyBytes(written: string): Uint8Array | null {
  const text = written.slice(KEY_PREFIX.length);
  if (!written.startsWith(KEY_PREFIX) || !/^[A-Za-z0-9+/]+={0,2}$/.test(text)) return null;
  const bytes = Buffer.from(text, 'base64');
  return bytes.length >= 24 && bytes.length <= 64 ? bytes : null;
}
