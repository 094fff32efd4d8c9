import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_PASSWORD } from '../../../demo/people';
import { changePeople, knownVisitorOf, signOut, type Trivet, visitorOf } from '..';
import { attemptAt, gretaAt, later, now, openLarkfell, signedInAt } from '../testing';

let trivet: Trivet;

beforeAll(async () => {
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

describe('signing in', () => {
  it('takes the mail address in any case and leads back to where one was', async () => {
    const answer = await attemptAt(trivet)(' Tobin@Larkfell.EXAMPLE ', DEMO_PASSWORD, {
      next: '/observers/charts',
    });
    expect(answer).toMatchObject({ kind: 'signed in', next: '/observers/charts' });
  });

  it('says the same to an unknown account as to a wrong password', async () => {
    const unknown = await attemptAt(trivet)('nobody@larkfell.example', 'x', { next: '/a' });
    expect(await attemptAt(trivet)('tobin@larkfell.example', 'x', { next: '/a' })).toEqual(unknown);
    expect(unknown).toMatchObject({ kind: 'wrong' });
  });

  it.each([
    [{ email: undefined, password: undefined }],
    [{ email: '', password: '' }],
    [{ email: ['a', 'b'], password: ['c', 'd'] }],
    [{ email: 'a'.repeat(300), password: 'b'.repeat(2000) }],
  ])('answers a form like %j with a sentence at each field', async ({ email, password }) => {
    const answer = await attemptAt(trivet)(email, password);
    if (answer.kind !== 'wrong') throw new Error(answer.kind);
    expect(answer.problems.email).toMatch(/mail address\.$/);
    expect(answer.problems.password).toMatch(/password\.$/);
  });

  it('limits failures by account, for unknown accounts alike, and lets the right password wait too', async () => {
    for (const email of ['jonah@larkfell.example', 'nobody-else@larkfell.example']) {
      for (let n = 0; n < 8; n++) expect((await attemptAt(trivet)(email, 'wrong')).kind).toBe('wrong');
      expect(await attemptAt(trivet)(email, DEMO_PASSWORD)).toMatchObject({ kind: 'too many', seconds: 900 });
    }
    expect((await attemptAt(trivet)('jonah@larkfell.example', DEMO_PASSWORD, { at: later(16) })).kind).toBe(
      'signed in',
    );
  });

  it('lets strangers’ guesses keep nobody out of a browser that they signed in with before', async () => {
    const mail = 'sunniva@larkfell.example';
    const first = await attemptAt(trivet)(mail, DEMO_PASSWORD);
    if (first.kind !== 'signed in') throw new Error(first.kind);
    for (let n = 0; n < 20; n++) await attemptAt(trivet)(mail, 'wrong');
    expect((await attemptAt(trivet)(mail, DEMO_PASSWORD)).kind).toBe('too many');
    const devices = [first.device];
    expect((await attemptAt(trivet)(mail, DEMO_PASSWORD, { devices })).kind).toBe('signed in');
    // It is good for this account alone, can't be made up, and has a limit of its own.
    const stranger = [first.device.replace(/^./, 'x'), 'a.b', '.', 'x'.repeat(5000)];
    expect((await attemptAt(trivet)(mail, DEMO_PASSWORD, { devices: stranger })).kind).toBe('too many');
    for (let n = 0; n < 9; n++) await attemptAt(trivet)('priya@larkfell.example', 'wrong');
    expect((await attemptAt(trivet)('priya@larkfell.example', DEMO_PASSWORD, { devices })).kind).toBe(
      'too many',
    );
    for (let n = 0; n < 8; n++) await attemptAt(trivet)(mail, 'wrong', { devices });
    expect((await attemptAt(trivet)(mail, DEMO_PASSWORD, { devices })).kind).toBe('too many');
  });

  it('counts attempts made at the same moment, every one', async () => {
    const all = await Promise.all(
      Array.from({ length: 20 }, () => attemptAt(trivet)('lio@larkfell.example', 'wrong')),
    );
    expect(all.filter((answer) => answer.kind === 'wrong')).toHaveLength(8);
  });

  it('limits failures by network address, over many accounts', async () => {
    const kinds = [];
    for (let n = 0; n < 62; n++)
      kinds.push((await attemptAt(trivet)(`guess-${n}@larkfell.example`, 'x', { from: '10.9.9.9' })).kind);
    expect(kinds.filter((kind) => kind === 'wrong')).toHaveLength(60);
    expect(kinds.at(-1)).toBe('too many');
  });

  it('knows a session until it is ended or has expired, and nobody by a made-up token', async () => {
    const { token, visitor } = await signedInAt(trivet, 'odile');
    expect(visitor.person?.name).toBe('Odile Marsh');
    expect((await visitorOf(trivet, token, later(60 * 24 * 15))).person).toBeNull();
    await signOut(trivet, visitor);
    expect((await visitorOf(trivet, token, now)).person).toBeNull();
    expect((await visitorOf(trivet, 'made-up', now)).person).toBeNull();
    expect((await visitorOf(trivet, undefined, now)).facts.signedIn).toBe(false);
  });

  it('remembers no session that ended while it was being read', async () => {
    const { token, visitor } = await signedInAt(trivet, 'odile');
    // Somebody asks with it, which makes it be read, and signs out before they are answered; and the other way round.
    trivet.sessions.clear();
    await Promise.all([visitorOf(trivet, token, now), signOut(trivet, visitor)]);
    expect((await visitorOf(trivet, token, now)).person).toBeNull();
    const again = await signedInAt(trivet, 'odile');
    trivet.sessions.clear();
    await Promise.all([signOut(trivet, again.visitor), visitorOf(trivet, again.token, now)]);
    expect((await visitorOf(trivet, again.token, now)).person).toBeNull();
  });

  it('is over for an account that is gone, and is known without the database', async () => {
    const { token } = await signedInAt(trivet, 'odile');
    expect(knownVisitorOf(trivet, token, now)?.person?.id).toBe('odile');
    expect(knownVisitorOf(trivet, undefined, now)?.person).toBeNull();
    trivet.sessions.clear();
    expect(knownVisitorOf(trivet, token, now)).toBeNull();
    await visitorOf(trivet, token, now);
    const greta = await gretaAt(trivet);
    await changePeople(trivet, greta, { who: { ids: ['odile'] }, edit: { kind: 'remove' } }, false, now);
    expect(knownVisitorOf(trivet, token, now)).toBeNull();
    expect((await visitorOf(trivet, token, now)).person).toBeNull();
  });
});
