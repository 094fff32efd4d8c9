/** Invitations: whom they go to, what their link does, and when it is over. */
import { createHash } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PersonId } from '@/core';
import {
  type Administrator,
  changePeople,
  invitePeople,
  latestMail,
  personReport,
  savePerson,
  type Trivet,
  unanswered,
  visitorOf,
} from '@/services';
import { attemptAt, gretaAt, later, now, openLarkfell } from '@/services/testing';
import { insertSession, readWithoutPassword } from '@/store';
import { askDoor } from './testing';

let trivet: Trivet;
let greta: Administrator;
/** Two of those without a password: only the first twelve of the demo have one here. */
let una: PersonId;
let other: PersonId;
beforeEach(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
  [una, other] = [...(await readWithoutPassword(trivet.db, [...trivet.state.people.keys()]))] as [
    PersonId,
    PersonId,
  ];
});
afterEach(() => trivet.close());

const PASSWORD = 'a lamp at the gate';
const invite = (ids: readonly string[], at = now, preview = false) =>
  invitePeople(trivet, greta, { ids }, preview, at);
const mailOf = (id: PersonId) => trivet.state.people.get(id)?.email ?? '';

/** The path of the link in the newest letter to somebody. */
async function linkTo(id: PersonId): Promise<string> {
  const { letters } = await latestMail(trivet, greta);
  const letter = letters.find(({ to }) => to === mailOf(id));
  return /\/sign-up\/invited\/[\w-]{43}/.exec(letter?.text ?? '')?.[0] ?? '';
}

const ask = (
  path: string,
  fields?: Readonly<Record<string, string>>,
  at = now,
  headers: Readonly<Record<string, string>> = {},
) => askDoor(trivet, path, { form: fields && new URLSearchParams(fields), at, headers });

describe('an invitation', () => {
  it('goes to those who have no password, after it was said who that is', async () => {
    const looked = await invite(['marek', una, other], now, true);
    expect(looked).toMatchObject({ kind: 'preview', people: { count: 2 }, withPassword: 1 });
    expect((await latestMail(trivet, greta)).letters).toEqual([]);
    expect(await invite(['marek', una, other])).toMatchObject({ kind: 'invited', people: { count: 2 } });
    const { letters } = await latestMail(trivet, greta);
    expect(letters.map(({ to }) => to).sort()).toEqual([mailOf(una), mailOf(other)].sort());
    expect(letters[0]).toMatchObject({
      replyTo: greta.email,
      goodUntil: later(7 * 24 * 60),
      subject: 'Greta Holm invites you to Larkfell Observatory',
    });
    expect(letters[0]?.text).toContain('good until 27 November 2026');
    expect((await unanswered(trivet, greta, now)).map(({ id, open }) => [id, open])).toEqual(
      [una, other].sort().map((id) => [id, true]),
    );
  });

  it('lets whoever has it choose a password and come in, once', async () => {
    await invite([una]);
    const link = await linkTo(una);
    expect((await ask(link)).text).toContain('There is a place for you');
    // Somebody who was signed in to it before, by having paid for it, had not shown that the mailbox is hers.
    const tokenHash = createHash('sha256').update('before').digest('hex');
    const session = { tokenHash, person: una, passphrases: [], expiresAt: later(60) };
    await insertSession(trivet.db, session, now);
    expect((await visitorOf(trivet, 'before', now)).person?.id).toBe(una);
    const short = await ask(link, { password: 'short' });
    expect([short.status, short.text.includes('at least 8 characters.')]).toEqual([422, true]);
    const done = await ask(link, { password: PASSWORD });
    expect(done.status).toBe(303);
    expect((await visitorOf(trivet, done.session, now)).person?.id).toBe(una);
    expect((await visitorOf(trivet, 'before', now)).person).toBeNull();
    expect((await attemptAt(trivet)(mailOf(una), PASSWORD)).kind).toBe('signed in');
    expect((await ask(link)).status).toBe(404);
    expect((await ask(link, { password: PASSWORD })).status).toBe(404);
    expect(await unanswered(trivet, greta, now)).toEqual([]);
    // And they can be invited no more.
    expect(await invite([una])).toMatchObject({ kind: 'wrong' });
  });

  it('of two who send it in the same moment lets one in', async () => {
    await invite([una]);
    const link = await linkTo(una);
    const both = await Promise.all([1, 2].map((at) => ask(link, { password: `${PASSWORD} ${at}` })));
    expect(both.map(({ status }) => status).sort()).toEqual([303, 404]);
  });

  it('is over after a week, and when another was sent', async () => {
    await invite([una]);
    const first = await linkTo(una);
    const week = 7 * 24 * 60;
    expect((await ask(first, undefined, later(week + 1))).status).toBe(404);
    expect(await unanswered(trivet, greta, later(week + 1))).toMatchObject([{ id: una, open: false }]);
    await invite([una], later(week + 1));
    const second = await linkTo(una);
    expect((await ask(first, { password: PASSWORD }, later(week + 2))).status).toBe(404);
    expect((await ask(second, { password: PASSWORD }, later(week + 2))).status).toBe(303);
  });

  it('is for the mailbox that it went to: another mail address ends it, and so does going', async () => {
    await invite([una, other]);
    const [first, second] = [await linkTo(una), await linkTo(other)];
    const record = (await personReport(trivet, greta, una, now))?.person;
    const moved = await savePerson(
      trivet,
      greta,
      una,
      {
        based: record,
        person: {
          ...(({ id: _, ...rest }) => rest)(record ?? { id: una }),
          email: 'elsewhere@larkfell.example',
        },
      },
      now,
    );
    expect(moved).toMatchObject({ kind: 'saved' });
    expect((await ask(first)).status).toBe(404);
    expect((await ask(second)).status).toBe(200);
    await changePeople(trivet, greta, { who: { ids: [other] }, edit: { kind: 'remove' } }, false, now);
    expect((await ask(second)).status).toBe(404);
  });

  it('is nothing to whoever does not have it, on a walk, and from another site’s form', async () => {
    await invite([una]);
    const link = await linkTo(una);
    const nothing = (await ask('/sign-up/invited/x')).text;
    expect((await ask('/sign-up/invited')).status).toBe(404);
    expect(nothing).toContain('This invitation is over');
    expect((await ask(`${link}/more`)).text).not.toContain('nvitation');
    expect((await ask(`/sign-up/invited/${'x'.repeat(5000)}`)).status).toBe(404);
    const foreign = await ask(link, { password: PASSWORD }, now, { 'sec-fetch-site': 'cross-site' });
    expect(foreign.status).toBe(400);
    expect(await readWithoutPassword(trivet.db, [una])).toEqual(new Set([una]));
  });
});
