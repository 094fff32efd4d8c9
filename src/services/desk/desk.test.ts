import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, everyone, member } from '@/core';
import {
  type Administrator,
  administratorOf,
  effectOfDraft,
  findMembers,
  keepBoard,
  putLive,
  readDesk,
  saveDraft,
  signOut,
  startWalk,
  type Trivet,
  viewPage,
  visitorOf,
  walkOf,
  whoPasses,
} from '..';
import { gretaAt, later, liveContext, now, openLarkfell, signedInAt, withOpened } from '../testing';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

/** Puts the draft back to what is live. */
beforeEach(async () => {
  const { draft, live } = trivet.state;
  await saveDraft(trivet, greta, { version: draft.version, policy: live.policy });
});

describe('the desk', () => {
  it('is for those with the right to it', async () => {
    expect(administratorOf((await signedInAt(trivet, 'priya')).visitor)).toBeNull();
    expect(administratorOf(await visitorOf(trivet, undefined, now))).toBeNull();
  });

  it('begins with a guest, Marek and Tobin, and keeps what is chosen', async () => {
    const names = async () =>
      (await readDesk(trivet, greta, now)).standIns.map((one) =>
        one.kind === 'member' ? one.member.id : one.kind,
      );
    expect(await names()).toEqual(['guest', 'marek', 'tobin']);
    expect(await keepBoard(trivet, greta, [{ person: 'ines' }, 'guest', { person: 'gone' }])).toBeNull();
    expect(await names()).toEqual(['ines', 'guest']);
    expect(await keepBoard(trivet, greta, [{ nobody: 1 }])).toMatch(/can’t be kept/);
  });

  it('finds members by any part of name or address', async () => {
    expect((await findMembers(trivet, greta, 'HALLO')).map((member) => member.name)).toEqual([
      'Wren Halloran',
    ]);
    expect((await findMembers(trivet, greta, 'tobin@')).map((member) => member.name)).toEqual(['Tobin Aske']);
    expect(await findMembers(trivet, greta, '')).toHaveLength(12);
  });

  it('counts who passes, and who passes only in the draft', async () => {
    const report = await whoPasses(
      trivet,
      greta,
      { of: { kind: 'gate', id: 'crew' }, policy: withOpened(trivet, 'crew') },
      now,
    );
    if ('problems' in report) throw new Error('refused');
    expect(report.of).toBe(72);
    expect(report.pass.count).toBe(72);
    expect(report.guestsPass).toBe(true);
    const crew = [...trivet.state.people.values()].filter(({ facts }) =>
      facts.groups?.some((group) => group === 'dome-crew'),
    );
    expect(report.onlyInDraft?.count).toBe(72 - crew.length);
  });

  it('puts items together at which the same people notice the same', async () => {
    const answer = await effectOfDraft(trivet, greta, withOpened(trivet, 'hollin-school'), now);
    if (answer.kind !== 'effect') throw new Error('refused');
    expect(answer.report.places.map(({ items }) => items)).toEqual([
      ['hollin-notes', 'hollin-school'],
      // The links of the side menu follow their pages.
      ['link-hollin', 'link-hollin-notes'],
    ]);
  });

  it('reports an effect before anything is saved', async () => {
    const answer = await effectOfDraft(trivet, greta, withOpened(trivet, 'trustees'), now);
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
    const first = await saveDraft(trivet, greta, { version, policy: withOpened(trivet, 'crew') });
    expect(first).toEqual({ kind: 'saved', version: version + 1 });
    const second = await saveDraft(trivet, greta, { version, policy: withOpened(trivet, 'trustees') });
    expect(second).toMatchObject({ kind: 'stale', theirs: { version: version + 1, by: 'Greta Holm' } });
    expect(trivet.state.draft.policy).toEqual(withOpened(trivet, 'crew'));
  });

  it('puts live only the draft that was looked at, once, and visitors get it', async () => {
    const { live } = trivet.state;
    const before = trivet.state.draft.version;
    await saveDraft(trivet, greta, { version: before, policy: withOpened(trivet, 'trustees') });
    const version = before + 1;
    expect(await putLive(trivet, greta, { version: before, revision: live.revision }, now)).toMatchObject({
      kind: 'stale',
    });
    const both = await Promise.all(
      [1, 2].map(() => putLive(trivet, greta, { version, revision: live.revision }, now)),
    );
    expect(both.map((answer) => answer.kind).sort()).toEqual(['live', 'stale']);
    expect(trivet.state.live.revision).toBe(live.revision + 1);
    const { state } = trivet;
    const facts = (await visitorOf(trivet, undefined, now)).facts;
    expect(viewPage(liveContext(state, facts), '/trustees').kind).toBe('page');
    const nothing = { version, revision: state.live.revision };
    expect(await putLive(trivet, greta, nothing, now)).toEqual({ kind: 'nothing to do' });
    await saveDraft(trivet, greta, { version, policy: live.policy });
    await putLive(
      trivet,
      greta,
      { version: version + 1, revision: state.live.revision, note: 'Back again' },
      now,
    );
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
      ...trivet.state.live.policy,
      gates: trivet.state.live.policy.gates.map((gate) =>
        gate.id === 'crew' ? { ...gate, who: nowhere } : gate,
      ),
    };
    expect(await saveDraft(trivet, greta, { version: trivet.state.draft.version, policy })).toEqual({
      kind: 'wrong',
      problems: [{ gate: 'crew', message: 'There is no group “nowhere” any more. Choose another.' }],
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
  const walkFrom = async (administrator: typeof greta, input: unknown): Promise<string> => {
    const answer = await startWalk(trivet, administrator, input, now);
    if (answer.kind !== 'walk') throw new Error(answer.message);
    return answer.token;
  };

  it('shows the site as the stand-in, in the draft or live', async () => {
    await saveDraft(trivet, greta, {
      version: trivet.state.draft.version,
      policy: withOpened(trivet, 'crew'),
    });
    const kinds = [];
    for (const side of ['draft', 'live']) {
      const token = await walkFrom(greta, { standIn: { person: 'marek' }, side });
      const walk = await walkOf(trivet, greta, token, now);
      kinds.push(walk && viewPage(walk.context, '/crew').kind);
    }
    expect(kinds).toEqual(['page', 'missing']);
  });

  it('is useless to another session, after its time, and with a made-up token', async () => {
    const token = await walkFrom(greta, { standIn: 'guest', side: 'live' });
    const again = administratorOf((await signedInAt(trivet, 'greta')).visitor);
    expect(await walkOf(trivet, greta, token, now)).not.toBeNull();
    expect(await walkOf(trivet, again, token, now)).toBeNull();
    expect(await walkOf(trivet, null, token, now)).toBeNull();
    expect(await walkOf(trivet, greta, token, later(61))).toBeNull();
    expect(await walkOf(trivet, greta, 'made-up', now)).toBeNull();
    expect(await startWalk(trivet, greta, { standIn: { person: 'gone' }, side: 'live' }, now)).toMatchObject({
      kind: 'wrong',
    });
  });

  it('takes a visitor who is made up, at a time and with a browser of one’s choosing', async () => {
    const facts = { ...member({ groups: [asId('dome-crew')] }) };
    const token = await walkFrom(greta, {
      standIn: { madeUp: { id: 'x', name: 'Somebody', facts } },
      side: 'live',
      scene: { at: '2026-12-24T18:30', device: 'phone', referrer: 'news.example', language: 'de-AT' },
    });
    const walk = await walkOf(trivet, greta, token, now, new URL('http://site.example/crew?from=mail'));
    expect(walk && viewPage(walk.context, '/crew').kind).toBe('page');
    expect(walk?.context.request).toMatchObject({
      today: '2026-12-24',
      minute: 18 * 60 + 30,
      weekday: 'Thursday',
      device: 'phone',
      referrer: 'news.example',
      languages: ['de-AT'],
      parameters: { from: 'mail' },
    });
  });

  it('says what is wrong with a scene', async () => {
    const answer = (scene: unknown) =>
      startWalk(trivet, greta, { standIn: 'guest', side: 'live', scene }, now);
    expect(await answer({ at: '2026-02-30T10:00' })).toMatchObject({
      message: expect.stringContaining('2026-12-24T18:30'),
    });
    expect(await answer({ referrer: 'https://news.example/' })).toMatchObject({
      message: expect.stringContaining('host alone'),
    });
    expect(await answer({ device: 'fridge' })).toMatchObject({ kind: 'wrong' });
  });

  it('ends with the session that started it', async () => {
    const { visitor } = await signedInAt(trivet, 'greta');
    const again = administratorOf(visitor);
    if (!again) throw new Error('Greta may not use the desk.');
    const token = await walkFrom(again, { standIn: 'guest', side: 'live' });
    expect(await walkOf(trivet, again, token, now)).not.toBeNull();
    await signOut(trivet, visitor);
    expect(await walkOf(trivet, again, token, now)).toBeNull();
  });
});
