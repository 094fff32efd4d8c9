/** Passwords and tokens: argon2id for what people choose, SHA-256 of 256 random bits for what we choose. */
import { createHash, randomBytes } from 'node:crypto';
import { hash, hashRaw, type Options, verify } from '@node-rs/argon2';

// OWASP Password Storage Cheat Sheet, argon2id: 19 MiB of memory, two passes, one lane.
const ARGON2ID_ALGORITHM = 2;
const ARGON2ID: Options = { algorithm: ARGON2ID_ALGORITHM, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** The argon2id hash of a password, in PHC format. */
export const hashPassword = (password: string): Promise<string> => hash(password.normalize('NFC'), ARGON2ID);

/**
 * What is kept of a passphrase: argon2id with the site's own salt, in hex. All of a site's passphrases share the salt, so
 * that finding out which one was typed takes one hash, however many there are. Case and outer spaces don't count.
 */
export const hashPassphrase = async (passphrase: string, salt: string): Promise<string> =>
  (
    await hashRaw(passphrase.normalize('NFC').trim().toLowerCase(), {
      ...ARGON2ID,
      salt: Buffer.from(salt, 'hex'),
    })
  ).toString('hex');

// Made when the program starts, so that not even the first wrong sign-in takes longer than others.
const decoy = hashPassword(randomBytes(18).toString('base64'));

/**
 * Whether a password is right. Without a hash to compare with, it compares with a decoy and answers no: the same work,
 * so that the time taken does not tell whether there is such an account.
 */
export async function passwordIsRight(
  password: string,
  passwordHash: string | null | undefined,
): Promise<boolean> {
  const right = await verify(passwordHash ?? (await decoy), password.normalize('NFC'));
  return right && typeof passwordHash === 'string';
}

/** A new token of 256 random bits, for a cookie or an address. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** What is stored of a token. */
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');
