/**
 * The way back in when nobody can sign in. Whoever can write into the data folder makes a link there; whoever opens it chooses
 * a password and owns the site. A link is a file named by the hash of what the address ends with, so that it needs neither a
 * running server nor one that is not running, and reading the folder gives nobody the address.
 */
import { randomUUID } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { asId, type PersonId } from '@/core';
import type { PersonRecord } from '@/store';
import { accountForm, mailAddress } from '../forms';
import { applyChange, newcomer, personWithMail } from '../people';
import { hashPassword, hashToken, messagesOf, momentAt, newToken, recordOf, type Trivet } from '../running';
import { type Started, startAnew } from '../visiting';

/** How long a link is good for, in milliseconds. */
const GOOD_MS = 24 * 60 * 60_000;

const linkForm = z.strictObject({ email: z.string(), until: z.iso.datetime() });

const folderIn = (dataFolder: string): string => join(dataFolder, 'owner-links');
const fileOf = (dataFolder: string, token: string): string => join(folderIn(dataFolder), hashToken(token));

/** Makes a link for a mail address; answers what its address ends with, or what is wrong with the mail address. */
export function makeOwnerLink(
  dataFolder: string,
  email: string,
  now: Date,
): { readonly token: string } | { readonly problem: string } {
  const parsed = mailAddress.safeParse(email);
  if (!parsed.success) return { problem: parsed.error.issues[0]?.message ?? 'That is no mail address.' };
  const token = newToken();
  mkdirSync(folderIn(dataFolder), { recursive: true, mode: 0o700 });
  forgetOver(dataFolder, now);
  const until = new Date(now.getTime() + GOOD_MS).toISOString();
  const file = fileOf(dataFolder, token);
  writeFileSync(`${file}.part`, JSON.stringify({ email: parsed.data, until }), { mode: 0o600 });
  renameSync(`${file}.part`, file);
  return { token };
}

/** Takes away what is good no more. */
function forgetOver(dataFolder: string, now: Date): void {
  for (const name of readdirSync(folderIn(dataFolder))) {
    const file = join(folderIn(dataFolder), name);
    // A server may be taking one away just now.
    const made = statSync(file, { throwIfNoEntry: false })?.mtimeMs;
    if (made !== undefined && made + GOOD_MS < now.getTime()) rmSync(file, { force: true });
  }
}

/** Whom a link is for. */
export interface OwnerLink {
  readonly email: string;
  /** Null for somebody who is not on the site yet. */
  readonly name: string | null;
}

/** The link at an address; null when there is none, or none any more. */
export function ownerLinkAt(
  { state, dataFolder }: Pick<Trivet, 'state' | 'dataFolder'>,
  token: string,
  now: Date,
): OwnerLink | null {
  if (dataFolder === null) return null;
  let written: unknown;
  try {
    written = JSON.parse(readFileSync(fileOf(dataFolder, token), 'utf8'));
  } catch {
    return null;
  }
  const read = linkForm.safeParse(written);
  if (!read.success || new Date(read.data.until) < now) return null;
  const { email } = read.data;
  return { email, name: personWithMail(state, email)?.name ?? null };
}

export type OwnerAnswer =
  | { readonly kind: 'done'; readonly started: Started }
  | { readonly kind: 'wrong'; readonly problems: Readonly<Partial<Record<'name' | 'password', string>>> }
  | { readonly kind: 'over' };

/** Makes whoever has the link an owner, with the password that they chose. Their other sessions end, and the link as well. */
export async function takeOwnerLink(
  trivet: Trivet,
  token: string,
  fields: Readonly<Record<string, unknown>>,
  now: Date,
): Promise<OwnerAnswer> {
  const link = ownerLinkAt(trivet, token, now);
  if (link === null || trivet.dataFolder === null) return { kind: 'over' };
  const { newPassword, personName } = accountForm(messagesOf(trivet.state));
  const parsed = z
    .object({ password: newPassword, ...(link.name === null && { name: personName }) })
    .safeParse(fields);
  if (!parsed.success)
    return {
      kind: 'wrong',
      problems: Object.fromEntries(
        parsed.error.issues.toReversed().map(({ path, message }) => [String(path[0]), message]),
      ),
    };
  const hash = await hashPassword(parsed.data.password);
  // Of two who send it in the same moment one finds it gone.
  try {
    rmSync(fileOf(trivet.dataFolder, token));
  } catch {
    return { kind: 'over' };
  }
  const name = link.name ?? String((parsed.data as { readonly name?: string }).name);
  let person = asId<PersonId>(randomUUID());
  await applyChange(
    trivet,
    { name: 'The command line' },
    (state) => {
      const found = personWithMail(state, link.email);
      const before = found ? recordOf(found) : null;
      const after: PersonRecord = {
        ...(before ?? newcomer(person, { email: link.email, name }, momentAt(state, now).today)),
        desk: { right: 'owner', branch: null },
      };
      person = after.id;
      return {
        summary: `${after.name} became an owner by a link made on the machine`,
        people: [{ before, after }],
        names: null,
        password: { person, hash },
      };
    },
    now,
  );
  return {
    kind: 'done',
    started: { ...(await startAnew(trivet, person, [], '/', now)), next: '/desk' },
  };
}
