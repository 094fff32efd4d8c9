import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { everyone, type Policy, type VisitorFacts } from '@/core';
import { larkfell } from '../../demo/larkfell';
import { DEMO_PASSWORD } from '../../demo/people';
import {
  type Administrator,
  administratorOf,
  effectOfDraft,
  findMembers,
  importSite,
  keepBoard,
  putLive,
  readDesk,
  readEnvironment,
  saveDraft,
  signIn,
  signOut,
  startWalk,
  Trivet,
  viewPage,
  visitorOf,
  walkOf,
  whoPasses,
} from '.';

let trivet: Trivet;
let greta: Administrator;
const now = new Date('2026-11-20T20:00:00Z');
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
let addresses = 0;

const attempt = (
  email: unknown,
  password: unknown,
  over: { next?: unknown; from?: string; at?: Date } = {},
) =>
  signIn(
    trivet,
    { email, password, next: over.next, from: over.from ?? `10.0.0.${addresses++}` },
    over.at ?? now,
  );

async function signedInAs(name: string) {
  const answer = await attempt(`${name}@larkfell.example`, DEMO_PASSWORD);
  if (answer.kind !== 'signed in') throw new Error(`${name} can't sign in.`);
  return { token: answer.token, visitor: await visitorOf(trivet, answer.token, now) };
}

beforeAll(async () => {
  trivet = await Trivet.open(null);
  expect(await importSite(trivet, larkfell, 'The demo')).toEqual([]);
  const administrator = administratorOf((await signedInAs('greta')).visitor);
  if (!administrator) throw new Error('Greta may not use the desk.');
  greta = administrator;
});
afterAll(() => trivet.close());

/** Puts the draft back to what is live. */
beforeEach(async () => {
  const { draft, live } = trivet.state;
  await saveDraft(trivet, greta, { version: draft.version, policy: live.policy });
});

const changed = (id: string): Policy => ({
  gates: trivet.state.live.policy.gates.map((gate) => (gate.id === id ? { ...gate, who: everyone } : gate)),
});

describe('signing in', () => {
  it('takes the mail address in any case and leads back to where one was', async () => {
    const answer = await attempt(' Tobin@Larkfell.EXAMPLE ', DEMO_PASSWORD, { next: '/observers/charts' });
    expect(answer).toMatchObject({ kind: 'signed in', next: '/observers/charts' });
  });

  it('says the same to an unknown account as to a wrong password', async () => {
    const unknown = await attempt('nobody@larkfell.example', 'x', { next: '/a' });
    expect(await attempt('tobin@larkfell.example', 'x', { next: '/a' })).toEqual(unknown);
    expect(unknown).toMatchObject({ kind: 'wrong' });
  });

  it.each([
    [{ email: undefined, password: undefined }],
    [{ email: '', password: '' }],
    [{ email: ['a', 'b'], password: ['c', 'd'] }],
    [{ email: 'a'.repeat(300), password: 'b'.repeat(2000) }],
  ])('answers a form like %j with a sentence at each field', async ({ email, password }) => {
    const answer = await attempt(email, password);
    if (answer.kind !== 'wrong') throw new Error(answer.kind);
    expect(answer.problems.email).toMatch(/mail address\.$/);
    expect(answer.problems.password).toMatch(/password\.$/);
  });

  it('limits failures by account, for unknown accounts alike, and lets the right password wait too', async () => {
    for (const email of ['jonah@larkfell.example', 'nobody-else@larkfell.example']) {
      for (let n = 0; n < 8; n++) expect((await attempt(email, 'wrong')).kind).toBe('wrong');
      expect(await attempt(email, DEMO_PASSWORD)).toMatchObject({ kind: 'too many', seconds: 900 });
    }
    expect((await attempt('jonah@larkfell.example', DEMO_PASSWORD, { at: later(16) })).kind).toBe(
      'signed in',
    );
  });

  it('counts attempts made at the same moment, every one', async () => {
    const all = await Promise.all(Array.from({ length: 20 }, () => attempt('lio@larkfell.example', 'wrong')));
    expect(all.filter((answer) => answer.kind === 'wrong')).toHaveLength(8);
  });

  it('limits failures by network address, over many accounts', async () => {
    const kinds = [];
    for (let n = 0; n < 62; n++)
      kinds.push((await attempt(`guess-${n}@larkfell.example`, 'x', { from: '10.9.9.9' })).kind);
    expect(kinds.filter((kind) => kind === 'wrong')).toHaveLength(60);
    expect(kinds.at(-1)).toBe('too many');
  });

  it('knows a session until it is ended or has expired, and nobody by a made-up token', async () => {
    const { token, visitor } = await signedInAs('odile');
    expect(visitor.person?.name).toBe('Odile Marsh');
    expect((await visitorOf(trivet, token, later(60 * 24 * 15))).person).toBeNull();
    await signOut(trivet, visitor);
    expect((await visitorOf(trivet, token, now)).person).toBeNull();
    expect((await visitorOf(trivet, 'made-up', now)).person).toBeNull();
    expect((await visitorOf(trivet, undefined, now)).facts.signedIn).toBe(false);
  });
});

describe('looking at a page', () => {
  const look = async (name: string | null, path: string) => {
    const facts = (name ? (await signedInAs(name)).visitor : await visitorOf(trivet, undefined, now)).facts;
    const { state } = trivet;
    return viewPage({ state, compiled: state.live.compiled, facts, base: '' }, path);
  };

  it('gives Tobin the Observers’ room, Marek the teaser and a guest the way to sign in and back', async () => {
    expect(await look('tobin', '/observers')).toMatchObject({ kind: 'page', title: 'Observers’ room' });
    expect(await look(null, '/Observers/Charts/')).toEqual({
      kind: 'redirect',
      to: '/sign-in?next=%2Fobservers%2Fcharts',
    });
    expect(await look('marek', '/observers')).toMatchObject({
      kind: 'teaser',
      reason: 'This opens to Observers and above.',
      step: { kind: 'item', address: '/join' },
    });
  });

  it('puts nothing that is withheld into the answer', async () => {
    const all = [
      await look('marek', '/observers'),
      await look('marek', '/trustees'),
      await look('marek', '/crew'),
    ];
    expect(JSON.stringify(all)).not.toMatch(/finder charts|lease|shutter|Suspended|Dome crew/);
  });

  it('tells Basil nothing of the private group, and offers no step that is closed to him', async () => {
    expect(await look('basil', '/observers')).toMatchObject({
      kind: 'teaser',
      reason: 'This opens to Observers and above.',
      step: null,
    });
  });

  it('answers what is missing exactly like what was never there', async () => {
    const never = await look('marek', '/never-there');
    expect(never.kind).toBe('missing');
    for (const path of [
      '/crew',
      '/crew/rota',
      '/CREW/',
      '/%63rew',
      '/observers/../crew',
      '/%00',
      '/%zz',
      `/${'a'.repeat(10_000)}`,
    ]) {
      expect(await look('marek', path)).toEqual(never);
    }
  });

  it('shows each visitor the menu that is theirs', async () => {
    const titles = async (name: string | null) => {
      const answer = await look(name, '/visit');
      return 'frame' in answer ? answer.frame.menu.map((link) => link.title) : [];
    };
    expect(await titles(null)).toEqual(['Home', 'Visit', 'Field notes', 'Join', 'Sign in']);
    expect(await titles('marek')).toEqual(['Home', 'Visit', 'Field notes', 'Join', 'My account']);
    expect(await titles('tobin')).toEqual(['Home', 'Visit', 'Field notes', 'Observers', 'My account']);
  });

  it('asks the database for nothing once it is warm: it works without one', async () => {
    const closed = await Trivet.open(null);
    await importSite(closed, larkfell, 'The demo');
    const answer = await signIn(
      closed,
      { email: 'tobin@larkfell.example', password: DEMO_PASSWORD, next: null, from: '10.1.1.1' },
      now,
    );
    await closed.close();
    const { state } = closed;
    const view = (facts: VisitorFacts) =>
      viewPage({ state, compiled: state.live.compiled, facts, base: '' }, '/observers').kind;
    expect(view((await visitorOf(closed, undefined, now)).facts)).toBe('redirect');
    const token = answer.kind === 'signed in' ? answer.token : '';
    expect(view((await visitorOf(closed, token, now)).facts)).toBe('page');
  });

  it('never answers anything but a page, whatever the path', async () => {
    const { state } = trivet;
    const facts = (await visitorOf(trivet, undefined, now)).facts;
    fc.assert(
      fc.property(fc.oneof(fc.webPath(), fc.string()), (path) => {
        const answer = viewPage({ state, compiled: state.live.compiled, facts, base: '' }, `/${path}`);
        expect(['page', 'missing', 'redirect', 'message']).toContain(answer.kind);
      }),
    );
  });
});

describe('the desk', () => {
  it('is for those with the right to it', async () => {
    expect(administratorOf((await signedInAs('priya')).visitor)).toBeNull();
    expect(administratorOf(await visitorOf(trivet, undefined, now))).toBeNull();
  });

  it('begins with a guest, Marek and Tobin, and keeps what is chosen', async () => {
    const names = async () =>
      (await readDesk(trivet, greta)).standIns.map((one) => (one.kind === 'guest' ? 'guest' : one.member.id));
    expect(await names()).toEqual(['guest', 'marek', 'tobin']);
    expect(await keepBoard(trivet, greta, [{ person: 'ines' }, 'guest', { person: 'gone' }])).toBeNull();
    expect(await names()).toEqual(['ines', 'guest']);
    expect(await keepBoard(trivet, greta, [{ nobody: 1 }])).toMatch(/list of at most 50/);
  });

  it('finds members by any part of name or address', () => {
    expect(findMembers(trivet, greta, 'HALLO').map((member) => member.name)).toEqual(['Wren Halloran']);
    expect(findMembers(trivet, greta, 'tobin@').map((member) => member.name)).toEqual(['Tobin Aske']);
    expect(findMembers(trivet, greta, '')).toHaveLength(12);
  });

  it('counts who passes, and who passes only in the draft', () => {
    const report = whoPasses(trivet, greta, { gate: 'crew', policy: changed('crew') });
    if ('problems' in report) throw new Error('refused');
    expect(report.of).toBe(72);
    expect(report.pass.count).toBe(72);
    expect(report.guestsPass).toBe(true);
    const crew = [...trivet.state.people.values()].filter(({ facts }) =>
      facts.groups?.some((group) => group === 'dome-crew'),
    );
    expect(report.onlyInDraft?.count).toBe(72 - crew.length);
  });

  it('puts items together at which the same people notice the same', () => {
    const answer = effectOfDraft(trivet, greta, changed('hollin-school'));
    if (answer.kind !== 'effect') throw new Error('refused');
    expect(answer.report.places.map(({ items }) => items)).toEqual([['hollin-school', 'hollin-notes']]);
  });

  it('reports an effect before anything is saved', () => {
    const answer = effectOfDraft(trivet, greta, changed('trustees'));
    if (answer.kind !== 'effect') throw new Error('refused');
    expect(answer.report.places).toHaveLength(1);
    expect(answer.report.places[0]?.items).toEqual(['trustees']);
    expect(answer.report.places[0]?.guests).toEqual({ before: 'message', after: 'open' });
    expect(trivet.state.draft.policy).toEqual(trivet.state.live.policy);
  });
});

describe('draft and live', () => {
  it('refuses a save based on an old version, sends the newer one, and loses nothing', async () => {
    const { version } = trivet.state.draft;
    const first = await saveDraft(trivet, greta, { version, policy: changed('crew') });
    expect(first).toEqual({ kind: 'saved', version: version + 1 });
    const second = await saveDraft(trivet, greta, { version, policy: changed('trustees') });
    expect(second).toMatchObject({ kind: 'stale', theirs: { version: version + 1, by: 'Greta Holm' } });
    expect(trivet.state.draft.policy).toEqual(changed('crew'));
  });

  it('puts live only the draft that was looked at, once, and visitors get it', async () => {
    const { live } = trivet.state;
    const before = trivet.state.draft.version;
    await saveDraft(trivet, greta, { version: before, policy: changed('trustees') });
    const version = before + 1;
    expect(await putLive(trivet, greta, { version: before, revision: live.revision })).toMatchObject({
      kind: 'stale',
    });
    const both = await Promise.all(
      [1, 2].map(() => putLive(trivet, greta, { version, revision: live.revision })),
    );
    expect(both.map((answer) => answer.kind).sort()).toEqual(['live', 'stale']);
    expect(trivet.state.live.revision).toBe(live.revision + 1);
    const { state } = trivet;
    const facts = (await visitorOf(trivet, undefined, now)).facts;
    expect(viewPage({ state, compiled: state.live.compiled, facts, base: '' }, '/trustees').kind).toBe(
      'page',
    );
    const nothing = { version, revision: state.live.revision };
    expect(await putLive(trivet, greta, nothing)).toEqual({ kind: 'nothing to do' });
    await saveDraft(trivet, greta, { version, policy: live.policy });
    await putLive(trivet, greta, { version: version + 1, revision: state.live.revision, note: 'Back again' });
    expect(trivet.state.live).toMatchObject({ author: 'Greta Holm', note: 'Back again' });
  });

  it.each([
    ['nothing', undefined],
    ['a text', 'gates'],
    ['an unknown key', { gates: [], audience: [] }],
    [
      'a gate with two legs',
      { gates: [{ id: 'x', what: { targets: [], except: [] }, who: everyone, stance: 'also' }] },
    ],
  ])('refuses %s as a policy, and says where', async (_, policy) => {
    const answer = await saveDraft(trivet, greta, { version: trivet.state.draft.version, policy });
    expect(answer.kind).toBe('wrong');
  });

  it('refuses what names something that is not there, at its gate', async () => {
    const nowhere = { kind: 'test', fact: 'group', op: 'includes', value: 'nowhere' };
    const policy = {
      gates: trivet.state.live.policy.gates.map((gate) =>
        gate.id === 'crew' ? { ...gate, who: nowhere } : gate,
      ),
    };
    expect(await saveDraft(trivet, greta, { version: trivet.state.draft.version, policy })).toEqual({
      kind: 'wrong',
      problems: [{ gate: 'crew', message: 'There is no group "nowhere" any more. Choose another.' }],
    });
  });

  it('refuses ten thousand nested groups without falling over', async () => {
    let who: unknown = everyone;
    for (let n = 0; n < 10_000; n++) who = { kind: 'not', of: who };
    const gate = { ...trivet.state.live.policy.gates[0], who };
    const answer = await saveDraft(trivet, greta, {
      version: trivet.state.draft.version,
      policy: { gates: [gate] },
    });
    expect(answer).toMatchObject({
      kind: 'wrong',
      problems: [{ message: expect.stringContaining('nested') }],
    });
  });
});

describe('a walk', () => {
  it('shows the site as the stand-in, in the draft or live', async () => {
    await saveDraft(trivet, greta, { version: trivet.state.draft.version, policy: changed('crew') });
    const kinds = [];
    for (const side of ['draft', 'live']) {
      const token = await startWalk(trivet, greta, { standIn: { person: 'marek' }, side }, now);
      const walk = await walkOf(trivet, greta, token ?? '', now);
      kinds.push(walk && viewPage(walk.look, '/crew').kind);
    }
    expect(kinds).toEqual(['page', 'missing']);
  });

  it('is useless to another session, after its time, and with a made-up token', async () => {
    const token = (await startWalk(trivet, greta, { standIn: 'guest', side: 'live' }, now)) ?? '';
    const again = administratorOf((await signedInAs('greta')).visitor);
    expect(await walkOf(trivet, greta, token, now)).not.toBeNull();
    expect(await walkOf(trivet, again, token, now)).toBeNull();
    expect(await walkOf(trivet, null, token, now)).toBeNull();
    expect(await walkOf(trivet, greta, token, later(61))).toBeNull();
    expect(await walkOf(trivet, greta, 'made-up', now)).toBeNull();
    expect(await startWalk(trivet, greta, { standIn: { person: 'gone' }, side: 'live' }, now)).toBeNull();
  });
});

describe('loading a site', () => {
  const load = async (over: object) => {
    const fresh = await Trivet.open(null);
    const problems = await importSite(fresh, { ...larkfell, ...over }, 'Somebody');
    const { hasSite } = fresh;
    await fresh.close();
    return { problems, hasSite };
  };

  it('lists every problem and loads nothing', async () => {
    const people = [
      { id: 'a', name: 'A', email: 'a@larkfell.example', level: 'duke' },
      { id: 'b', name: 'B', email: 'A@larkfell.example', groups: ['nowhere'] },
    ];
    expect(await load({ people, board: [] })).toEqual({
      problems: [
        'A: there is no level "duke".',
        'B: there is no group "nowhere".',
        'B: somebody else has the same mail address.',
      ],
      hasSite: false,
    });
  });

  it('refuses addresses that are Trivet’s own or not in their normal spelling', async () => {
    const items = larkfell.items.map((item) => (item.id === 'visit' ? { ...item, address: '/Desk/' } : item));
    expect((await load({ items })).problems[0]).toMatch(/can't have the address \/Desk\//);
    const reserved = larkfell.items.map((item) =>
      item.id === 'visit' ? { ...item, address: '/desk' } : item,
    );
    expect((await load({ items: reserved })).problems[0]).toMatch(/belongs to Trivet/);
  });

  it('does not load over a site that is there', async () => {
    expect(await importSite(trivet, larkfell, 'Somebody')).toHaveLength(1);
  });
});

describe('the environment', () => {
  it('has defaults', () => {
    expect(readEnvironment({})).toMatchObject({ port: 3000, dataFolder: '.data' });
  });
  it.each([
    [{ PORT: 'many' }, /PORT has to be a number/],
    [{ PORT: '99999' }, /between 1 and 65535/],
    [{ TRIVET_DATA: '' }, /TRIVET_DATA has to name a folder/],
    [{ TRIVET_URL: 'larkfell' }, /TRIVET_URL has to be the public address/],
    [{ TRIVET_URL: 'ftp://larkfell.example' }, /TRIVET_URL has to be the public address/],
  ])('answers %j with a sentence', (env, sentence) => {
    const read = readEnvironment(env);
    expect('problems' in read && read.problems.join()).toMatch(sentence);
  });
});
