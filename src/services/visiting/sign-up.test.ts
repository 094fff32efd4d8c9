import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { readOutbox } from '@/store';
import {
  confirmReset,
  confirmSignUp,
  followGroup,
  keepOwnFields,
  keysOf,
  landingFor,
  makeKey,
  personWithKey,
  revokeKey,
  sendAgain,
  startReset,
  startSignUp,
  type Trivet,
  visitorOf,
} from '..';
import * as secrets from '../running/secrets';
import { attemptAt, later, now, openLarkfell, signedInAt } from '../testing';

let trivet: Trivet;
beforeAll(async () => {
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

let networks = 0;
const from = () => `10.9.0.${networks++}`;
const fields = (over: object = {}) => ({
  name: 'Nell Ashby',
  email: 'Nell@Larkfell.example',
  password: 'a long password',
  next: '/night-logs/first-light',
  ...over,
});
const lastMail = async () => (await readOutbox(trivet.db, 1))[0];
const codeIn = (text: string | undefined) => /\b(\d{6})\b/.exec(text ?? '')?.[1] ?? '';
const begin = async (over: object = {}) => {
  const answer = await startSignUp(trivet, fields(over), from(), now);
  if (answer.kind !== 'sent') throw new Error(JSON.stringify(answer));
  return answer.token;
};
const confirm = (token: string, code: string, at = now) =>
  confirmSignUp(
    trivet,
    { token, code, next: '/night-logs/first-light' },
    { from: from(), passphrases: [] },
    at,
  );

describe('signing up', () => {
  it('sends a code, makes the account with it, and goes back to where one was', async () => {
    const token = await begin();
    const mail = await lastMail();
    expect(mail).toMatchObject({ to: 'nell@larkfell.example' });
    expect(trivet.state.people.size).toBe(72);
    const answer = await confirm(token, ` ${codeIn(mail?.text).slice(0, 3)} ${codeIn(mail?.text).slice(3)} `);
    if (answer.kind !== 'done') throw new Error(JSON.stringify(answer));
    expect(answer.started.next).toBe('/night-logs/first-light');
    const visitor = await visitorOf(trivet, answer.started.token, now);
    expect(visitor.person).toMatchObject({
      name: 'Nell Ashby',
      level: null,
      roles: [],
      groups: [],
      desk: null,
      joined: '2026-11-20',
    });
    expect((await attemptAt(trivet)('nell@larkfell.example', 'a long password')).kind).toBe('signed in');
    // Used up.
    expect(await confirm(token, codeIn(mail?.text))).toMatchObject({ kind: 'over' });
  });

  it('says what is wrong next to each field, and sends nothing then', async () => {
    const before = (await lastMail())?.id;
    const answer = await startSignUp(trivet, { name: ' ', email: 'no', password: 'short' }, from(), now);
    expect(answer).toMatchObject({
      kind: 'wrong',
      problems: {
        name: 'Type your name.',
        email: expect.stringContaining('mail address'),
        password: expect.stringContaining('8'),
      },
    });
    expect(await startSignUp(trivet, { name: ['a', 'b'] }, from(), now)).toMatchObject({ kind: 'wrong' });
    expect((await lastMail())?.id).toBe(before);
  });

  it('lets five guesses by, and a right code not after that', async () => {
    const token = await begin({ email: 'guess@larkfell.example' });
    const code = codeIn((await lastMail())?.text);
    const wrong = code === '000000' ? '000001' : '000000';
    for (let left = 4; left >= 1; left--)
      expect(await confirm(token, wrong)).toMatchObject({
        kind: 'wrong',
        problems: { code: expect.stringContaining(left === 1 ? 'once' : `${left} times`) },
      });
    expect(await confirm(token, wrong)).toMatchObject({ kind: 'over' });
    expect(await confirm(token, code)).toMatchObject({ kind: 'over' });
  });

  it('counts guesses that come at the same moment', async () => {
    const token = await begin({ email: 'atonce@larkfell.example' });
    const code = codeIn((await lastMail())?.text);
    const wrong = code === '000000' ? '000001' : '000000';
    await Promise.all(Array.from({ length: 8 }, () => confirm(token, wrong)));
    expect(await confirm(token, code)).toMatchObject({ kind: 'over' });
  });

  it('lets one of two in who type the right code at once', async () => {
    const token = await begin({ email: 'twice@larkfell.example' });
    const code = codeIn((await lastMail())?.text);
    const answers = await Promise.all([confirm(token, code), confirm(token, code)]);
    expect(answers.map(({ kind }) => kind).sort()).toEqual(['done', 'over']);
  });

  it('is over after a quarter of an hour, and can be sent again three times in all', async () => {
    const token = await begin({ email: 'slow@larkfell.example' });
    const first = codeIn((await lastMail())?.text);
    expect(await confirm(token, first, later(16))).toMatchObject({ kind: 'over' });
    const other = await begin({ email: 'lost@larkfell.example' });
    expect(await sendAgain(trivet, other, now)).toBeNull();
    expect(await sendAgain(trivet, other, now)).toBeNull();
    expect(await sendAgain(trivet, other, now)).toMatch(/three times/);
    expect(await sendAgain(trivet, 'made up', now)).toMatch(/over/);
    expect((await confirm(other, codeIn((await lastMail())?.text))).kind).toBe('done');
  });

  it('does not tell whether there is such an account: the mailbox is told', async () => {
    const token = await begin({ email: 'tobin@larkfell.example' });
    const mail = await lastMail();
    expect(mail?.text).toMatch(/have an account already/);
    expect(codeIn(mail?.text)).toBe('');
    expect(await confirm(token, '123456')).toMatchObject({ kind: 'wrong' });
    expect((await attemptAt(trivet)('tobin@larkfell.example', 'a long password')).kind).toBe('wrong');
  });

  it('is limited by mailbox and by network', async () => {
    const network = from();
    const answers = [];
    for (let n = 0; n < 8; n++)
      answers.push(await startSignUp(trivet, fields({ email: 'flood@larkfell.example' }), network, now));
    expect(answers.at(-1)).toMatchObject({ kind: 'too many' });
    expect(answers.filter(({ kind }) => kind === 'sent')).toHaveLength(6);
  });
});

describe('a new password', () => {
  it('comes by a code, ends every session there was, and signs in', async () => {
    const { token: before } = await signedInAt(trivet, 'jonah');
    const asked = await startReset(trivet, { email: 'jonah@larkfell.example' }, from(), now);
    if (asked.kind !== 'sent') throw new Error(asked.kind);
    const code = codeIn((await lastMail())?.text);
    const answer = await confirmReset(
      trivet,
      { token: asked.token, code, password: 'something new' },
      { from: from(), passphrases: [] },
      now,
    );
    if (answer.kind !== 'done') throw new Error(JSON.stringify(answer));
    expect((await visitorOf(trivet, before, now)).person).toBeNull();
    expect((await visitorOf(trivet, answer.started.token, now)).person?.name).toBe('Jonah Birk');
    expect((await attemptAt(trivet)('jonah@larkfell.example', 'something new')).kind).toBe('signed in');
  });

  it('hashes for those alone who have the code, and only so often', async () => {
    const from = '10.77.0.1';
    const hash = vi.spyOn(secrets, 'hashPassword');
    const fields = { token: 'made-up', code: '123456', password: 'x'.repeat(1000) };
    const kinds = await Promise.all(
      Array.from(
        { length: 40 },
        async () => (await confirmReset(trivet, fields, { from, passphrases: [] }, now)).kind,
      ),
    );
    expect(kinds.filter((kind) => kind === 'over')).toHaveLength(30);
    expect(kinds.filter((kind) => kind === 'too many')).toHaveLength(10);
    expect(hash).not.toHaveBeenCalled();
    hash.mockRestore();
  });

  it('tells nobody whether there is an account, and a code for one thing is none for another', async () => {
    const asked = await startReset(trivet, { email: 'nobody@larkfell.example' }, from(), now);
    expect(asked.kind).toBe('sent');
    expect((await lastMail())?.text).toMatch(/no account/);
    const token = await begin({ email: 'other@larkfell.example' });
    const code = codeIn((await lastMail())?.text);
    expect(
      await confirmReset(
        trivet,
        { token, code, password: 'something new' },
        { from: from(), passphrases: [] },
        now,
      ),
    ).toMatchObject({
      kind: 'over',
    });
  });
});

describe('where one arrives', () => {
  const landing = (name: string, next: string, after: 'sign in' | 'sign out' = 'sign in') => {
    const person = [...trivet.state.people.values()].find(({ email }) => email.startsWith(name));
    return landingFor(trivet.state, after, person?.facts ?? ({} as never), next, now);
  };

  it('is where one was going, or what the first rule says that holds', () => {
    expect(landing('sunniva', '/')).toBe('/partners/hollin-school');
    expect(landing('sunniva', '/visit')).toBe('/visit');
    expect(landing('jonah', '/')).toBe('/partners/tarn-survey');
    expect(landing('marek', '/')).toBe('/');
    expect(landing('sunniva', '/', 'sign out')).toBe('/');
  });
});

describe('one’s own account', () => {
  it('keeps the fields that are one’s own to fill in, and no others', async () => {
    const { visitor } = await signedInAt(trivet, 'marek');
    if (!visitor.person) throw new Error('Marek is gone.');
    const answer = await keepOwnFields(
      trivet,
      visitor.person,
      { 'field-valley': ' Sett ', 'field-newsletter': 'true', 'field-hours-logged': '900', level: 'keeper' },
      now,
    );
    expect(answer).toEqual({ kind: 'kept' });
    const marek = trivet.state.people.get(visitor.person.id);
    expect(marek).toMatchObject({ profile: { valley: 'Sett', newsletter: true }, level: null });
    expect(marek?.profile).not.toHaveProperty('hours-logged');
    expect(await keepOwnFields(trivet, visitor.person, { 'field-newsletter': 'perhaps' }, now)).toMatchObject(
      { kind: 'wrong', problems: { newsletter: expect.any(String) } },
    );
    await keepOwnFields(trivet, visitor.person, { 'field-valley': '', 'field-newsletter': '' }, now);
    expect(trivet.state.people.get(visitor.person.id)?.profile).toEqual({});
  });

  it('follows and leaves open groups, and open groups only', async () => {
    const { visitor } = await signedInAt(trivet, 'marek');
    const id = visitor.person?.id as never;
    expect(await followGroup(trivet, id, 'sky-diary', true, now)).toBe(true);
    expect(trivet.state.people.get(id)?.groups).toEqual(['sky-diary']);
    expect(await followGroup(trivet, id, 'dome-crew', true, now)).toBe(false);
    expect(await followGroup(trivet, id, 'nowhere', true, now)).toBe(false);
    expect(trivet.state.people.get(id)?.groups).toEqual(['sky-diary']);
    expect(await followGroup(trivet, id, 'sky-diary', false, now)).toBe(true);
    expect(trivet.state.people.get(id)?.groups).toEqual([]);
  });

  it('has keys that are good for one use each, until they are taken back', async () => {
    const { visitor } = await signedInAt(trivet, 'tobin');
    const id = visitor.person?.id as never;
    const made = await makeKey(trivet, id, { use: 'api', name: 'Phone' }, now);
    if (made.kind !== 'made') throw new Error(made.problem);
    expect((await personWithKey(trivet, made.key, 'api'))?.name).toBe('Tobin Aske');
    expect(await personWithKey(trivet, made.key, 'feed')).toBeNull();
    expect(await makeKey(trivet, id, { use: 'desk', name: 'x' }, now)).toMatchObject({ kind: 'wrong' });
    expect(await makeKey(trivet, id, { use: 'api', name: ' ' }, now)).toMatchObject({ kind: 'wrong' });
    const [key] = await keysOf(trivet, id);
    await revokeKey(trivet, 'marek' as never, key?.id);
    expect(await personWithKey(trivet, made.key, 'api')).not.toBeNull();
    await revokeKey(trivet, id, key?.id);
    expect(await personWithKey(trivet, made.key, 'api')).toBeNull();
  });
});
