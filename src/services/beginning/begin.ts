/**
 * Beginning a site where there is none. Whoever has the address that stands in the terminal says what it is called, who owns
 * it and what it begins with; then all of it is there, or nothing.
 */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { LANGUAGES, momentIn } from '@/core';
import { mailAddress, newPassword, personName, timeZone, words } from '../forms';
import { personWithMail } from '../people';
import { hashToken, newToken, type Trivet } from '../running';
import { importSite, type SiteFile } from '../site-file';
import { type Started, startSession } from '../visiting';
import { READY_MADE, type ReadyMadeId } from './ready-made';

/** How long an address to begin at is good for, in milliseconds. */
const OPEN_MS = 24 * 60 * 60_000;

interface Beginning {
  readonly tokenHash: string;
  readonly until: Date;
  /** Whether a site is being made just now. */
  busy: boolean;
}

const beginnings = new WeakMap<Trivet, Beginning>();

/** Lets somebody begin; answers what the address to begin at ends with. There is one at a time, and it is gone with the process. */
export function letBegin(trivet: Trivet, now: Date): string {
  const token = newToken();
  beginnings.set(trivet, {
    tokenHash: hashToken(token),
    until: new Date(now.getTime() + OPEN_MS),
    busy: false,
  });
  return token;
}

/** What there is at an address to begin at: the form, the site that was begun with it, nothing any more, or nothing ever. */
export function beginningAt(trivet: Trivet, token: string, now: Date): 'open' | 'begun' | 'over' | null {
  const found = beginnings.get(trivet);
  if (found?.tokenHash !== hashToken(token)) return null;
  if (trivet.hasSite) return 'begun';
  return now > found.until ? 'over' : 'open';
}

// What there is already is taken in at the desk, where it is looked at first.
const WITHS = [...(Object.keys(READY_MADE) as ReadyMadeId[]), 'found', 'file'] as const;

const form = z.object({
  title: words(200, 'Give the site a name.'),
  timeZone,
  language: z
    .enum(
      LANGUAGES.map(({ tag }) => tag),
      'Choose a language.',
    )
    .default('en'),
  name: personName,
  email: mailAddress,
  password: newPassword,
  with: z.enum(WITHS, 'Choose what the site begins with.'),
});

/** What is wrong, by field. Of a site file, everything that was found. */
export type BeginProblems = Readonly<
  Partial<Record<keyof z.infer<typeof form> | 'file' | 'form', readonly string[]>>
>;

export type BeginAnswer =
  | { readonly kind: 'begun'; readonly started: Started }
  | { readonly kind: 'wrong'; readonly problems: BeginProblems }
  /** There is no beginning here any more. */
  | { readonly kind: 'over' };

/** Makes the site, and signs its owner in. */
export async function beginSite(
  trivet: Trivet,
  token: string,
  fields: Readonly<Record<string, unknown>>,
  /** A site file as it was sent. */
  file: Uint8Array | null,
  now: Date,
): Promise<BeginAnswer> {
  const beginning = beginnings.get(trivet);
  if (!beginning || beginningAt(trivet, token, now) !== 'open') return { kind: 'over' };
  // A site file has a name, a language and a time zone of its own.
  const ofFile = fields.with === 'file';
  const shape = ofFile ? form.omit({ title: true, timeZone: true, language: true }) : form;
  const parsed = shape.safeParse(fields);
  const read = ofFile ? siteIn(file) : null;
  const problems: Record<string, string[]> = {};
  for (const { path, message } of parsed.error?.issues ?? []) {
    const field = String(path[0] ?? 'form');
    problems[field] = [...(problems[field] ?? []), message];
  }
  if (read && 'problem' in read) problems.file = [read.problem];
  if (!parsed.success || (read && 'problem' in read)) return { kind: 'wrong', problems };
  if (beginning.busy)
    return { kind: 'wrong', problems: { form: ['The site is being made already. Look again in a moment.'] } };
  beginning.busy = true;
  try {
    const { name, email, password } = parsed.data;
    const owner = { name, email, password };
    const site = read ? ownedBy(read.site, owner) : readyMade(form.parse(fields), owner, now);
    const wrong = await importSite(trivet, site, name);
    if (wrong.length > 0) return { kind: 'wrong', problems: { file: wrong } };
    const person = personWithMail(trivet.state, email);
    if (!person) throw new Error('The owner is not there.');
    return {
      kind: 'begun',
      started: {
        ...(await startSession(trivet, person.id, [], '/', now)),
        next: parsed.data.with === 'found' ? '/desk/take-in' : '/desk',
      },
    };
  } finally {
    beginning.busy = false;
  }
}

interface Owner {
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

const OWNS = { desk: { right: 'owner', branch: null } } as const;

function readyMade(
  { title, timeZone: zone, language, with: how }: z.infer<typeof form>,
  owner: Owner,
  now: Date,
): SiteFile {
  if (how === 'file') throw new Error('A file is not ready-made.');
  const { site, owner: has } = READY_MADE[how === 'found' ? 'empty' : how];
  const made = site({ title, timeZone: zone, today: momentIn(zone, now).today });
  const id = randomUUID();
  return { ...made, language, people: [{ id, ...owner, ...has, ...OWNS }], board: [id] };
}

function siteIn(file: Uint8Array | null): { readonly site: unknown } | { readonly problem: string } {
  if (file === null) return { problem: 'Choose the site file.' };
  try {
    // A byte order mark, with which some editors begin a file, is no part of what is decoded.
    return { site: JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(file)) };
  } catch (error) {
    return { problem: `That is not JSON: ${(error as Error).message}` };
  }
}

/** A site file, whatever it turns out to be, with somebody as an owner: whoever has their mail address in it, or one more. */
function ownedBy(site: unknown, owner: Owner): unknown {
  if (typeof site !== 'object' || site === null) return site;
  const { people = [] } = site as { readonly people?: unknown };
  if (!Array.isArray(people)) return site;
  const isThem = (one: unknown) =>
    String((one as { email?: unknown } | null)?.email).toLowerCase() === owner.email;
  const there = people.find(isThem);
  if (!there) return { ...site, people: [...people, { id: randomUUID(), ...owner, ...OWNS }] };
  const { passwordHash: _, ...rest } = there as { passwordHash?: unknown };
  const them = { ...rest, password: owner.password, ...OWNS };
  return { ...site, people: people.map((one) => (one === there ? them : one)) };
}
