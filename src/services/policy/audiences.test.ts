import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import {
  type AudienceId,
  all,
  asId,
  hasLevel,
  inAudience,
  inGroup,
  missing,
  type Policy,
  redirectToSignIn,
  signedIn,
  test,
} from '@/core';
import {
  type Administrator,
  audienceReport,
  changePeople,
  plainRequest,
  putLive,
  saveDraft,
  type Trivet,
  viewPage,
  whoPasses,
} from '..';
import { membershipOf } from '../people/columns';
import { gretaAt, later, liveContext, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const live = () => trivet.state.live.policy;
const withAudience = (id: string, name: string, who: Policy['audiences'][number]['who']): Policy => ({
  ...live(),
  audiences: [...live().audiences, { id: asId<AudienceId>(id), name, who }],
});
const report = async (policy: Policy) => {
  const answer = await audienceReport(trivet, greta, policy, now);
  if ('problems' in answer) throw new Error(answer.problems[0]?.message);
  return answer;
};

describe('audiences', () => {
  it('are counted with their uses, and each two with what they share', async () => {
    const { of, audiences, overlaps } = await report(live());
    const at = (name: string) => live().audiences.findIndex((one) => one.name === name);
    const [ready, optics] = [at('Crew ready for the dome'), at('Optics ready')];
    expect(of).toBe(72);
    expect(audiences[ready]).toMatchObject({ count: 3, uses: ['the audience Optics ready'] });
    // Whoever is ready for the optics is ready for the dome.
    expect(overlaps[Math.max(ready, optics)]?.[Math.min(ready, optics)]).toBe(audiences[optics]?.count);
    const most = (a: number, b: number) => Math.min(audiences[a]?.count ?? 0, audiences[b]?.count ?? 0);
    for (const [a, row] of overlaps.entries())
      for (const [b, shared] of row.entries()) expect(shared).toBeLessThanOrEqual(most(a, b));
  });

  it.each([
    ['name', withName('Partners'), 'Two audiences are called “partners”'],
    ['empty name', withName(' '), 'Give the audience a name.'],
    [
      'gone',
      () => withAudience('new', 'New', inAudience(asId('gone'))),
      'There is no audience “gone” any more',
    ],
    ['itself', () => withAudience('new', 'New', inAudience(asId('new'))), 'New → New'],
  ])('are refused for their %s', async (_, make, message) => {
    const answer = await audienceReport(trivet, greta, make(), now);
    expect('problems' in answer && answer.problems[0]?.message).toContain(message);
  });

  function withName(name: string) {
    return () => withAudience('new', name, signedIn);
  }

  it('change what their gates do, once they are live, under any name', async () => {
    const id = asId<AudienceId>('new');
    const policy: Policy = {
      ...withAudience('new', 'Readers', inGroup(asId('sky-diary'))),
      gates: live().gates.map((gate) => (gate.id === 'crew' ? { ...gate, who: inAudience(id) } : gate)),
    };
    const before = live();
    const kindOf = () => {
      const odile = [...trivet.state.people.values()].find(({ id: one }) => one === 'odile');
      if (!odile) throw new Error('no Odile');
      return viewPage(liveContext(trivet.state, odile.facts), '/crew').kind;
    };
    const toLive = async (next: Policy) => {
      const { draft, live: current } = trivet.state;
      const saved = await saveDraft(trivet, greta, { version: draft.version, policy: next });
      if (saved.kind !== 'saved') throw new Error(saved.kind);
      const answer = await putLive(
        trivet,
        greta,
        { version: saved.version, revision: current.revision },
        now,
      );
      expect(answer.kind).toBe('live');
    };
    expect(kindOf()).toBe('missing');
    await toLive(policy);
    expect(kindOf()).toBe('page');
    await toLive({
      ...policy,
      audiences: policy.audiences.map((one) =>
        one.id === id ? { ...one, name: 'Others', who: inGroup(asId('tarn-survey')) } : one,
      ),
    });
    expect(kindOf()).toBe('missing');
    await toLive(before);
  });
});

describe('who passes', () => {
  const passing = async (of: { kind: 'gate' | 'audience'; id: string }, policy: Policy) => {
    const answer = await whoPasses(trivet, greta, { of, policy }, now);
    if ('problems' in answer) throw new Error(answer.problems[0]?.message);
    return answer;
  };

  it('is told for an audience as for a gate, with what no member meets', async () => {
    const policy = withAudience(
      'new',
      'New',
      all(inAudience(asId('ready-crew')), test('mail domain', 'is', 'nowhere.example')),
    );
    expect(await passing({ kind: 'audience', id: 'new' }, policy)).toMatchObject({
      pass: { count: 0 },
      onlyInDraft: null,
      guestsPass: false,
      metByNobody: ['mail domain is "nowhere.example"'],
    });
    const crewGate = live().gates.find(({ id }) => id === 'crew');
    if (!crewGate) throw new Error('no crew');
    const sending: Policy = {
      ...live(),
      gates: live().gates.map((one) =>
        one === crewGate
          ? { ...one, otherwise: { cases: [{ when: hasLevel, give: missing }], last: redirectToSignIn } }
          : one,
      ),
    };
    const sent = await passing({ kind: 'gate', id: 'crew' }, sending);
    expect(sent.sentToSignIn).toBeGreaterThan(0);
    expect(sent.sentToSignIn).toBeLessThan(sent.of - sent.pass.count);
    expect(await passing({ kind: 'gate', id: 'crew' }, live())).toMatchObject({
      metByNobody: [],
      onlyInDraft: { count: 0 },
    });
  });

  it('follows people as they change, and the day as it goes by', async () => {
    const members = (date = now) => membershipOf(trivet.state, trivet.state.live.compiled.vocabulary, date);
    const crew = inGroup(asId('dome-crew'));
    const before = (await members()).select(crew).count;
    const answer = await changePeople(
      trivet,
      greta,
      { who: { ids: ['marek'] }, edit: { kind: 'join', group: 'dome-crew' } },
      false,
      now,
    );
    expect(answer.kind).toBe('changed');
    expect((await members()).select(crew).count).toBe(before + 1);
    const newcomers = test('joined', 'within the last', 12);
    const isIn = async (date: Date) => {
      const { named, select } = await members(date);
      return named(select(newcomers).bits, 72).some(({ id }) => id === 'marek');
    };
    expect(await isIn(now)).toBe(true);
    expect(await isIn(later(24 * 60))).toBe(false);
  });

  it('keeps what was made for as long as somebody asks, and ten minutes longer', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const made = async () =>
      (await membershipOf(trivet.state, trivet.state.live.compiled.vocabulary, now)).columns;
    const first = await made();
    vi.advanceTimersByTime(9 * 60_000);
    expect(await made()).toBe(first);
    vi.advanceTimersByTime(9 * 60_000);
    expect(await made()).toBe(first);
    vi.advanceTimersByTime(10 * 60_000);
    expect(await made()).not.toBe(first);
    vi.useRealTimers();
  });

  it('asks the clock anew for what depends on the time of day', async () => {
    const evening = test('time', 'between', ['20:00', '21:00']);
    const { vocabulary } = trivet.state.live.compiled;
    const count = async (minutes: number) =>
      (await membershipOf(trivet.state, vocabulary, later(minutes))).select(evening).count;
    expect([await count(0), await count(59), await count(60)]).toEqual([72, 72, 0]);
    expect(plainRequest(trivet.state, later(60)).minute).toBe(21 * 60);
  });
});
