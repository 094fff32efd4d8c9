import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { compile, openPolicy, type VisitorFacts } from '@/core';
import { type Trivet, visitorOf } from '..';
import { liveContext, now, openLarkfell, signedInAt } from '../testing';
import { viewPage } from '.';

let trivet: Trivet;

beforeAll(async () => {
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

describe('looking at a page', () => {
  const context = async (name: string | null, path: string) => {
    const facts = (name ? (await signedInAt(trivet, name)).visitor : await visitorOf(trivet, undefined, now))
      .facts;
    const { state } = trivet;
    return viewPage(liveContext(state, facts), path);
  };

  it('gives Tobin the Observers’ room, Marek the teaser and a guest the way to sign in and back', async () => {
    expect(await context('tobin', '/observers')).toMatchObject({
      kind: 'page',
      facts: { title: 'Observers’ room' },
    });
    expect(await context(null, '/Observers/Charts/')).toEqual({
      kind: 'redirect',
      to: '/sign-in?next=%2Fobservers%2Fcharts',
    });
    expect(await context('marek', '/observers')).toMatchObject({
      kind: 'teaser',
      reason: 'This opens to Observers and above, on a further condition.',
      step: { kind: 'link', label: 'Join us', address: '/join' },
    });
  });

  it('puts nothing that is withheld into the answer', async () => {
    const all = [
      await context('marek', '/observers'),
      await context('marek', '/trustees'),
      await context('marek', '/crew'),
    ];
    expect(JSON.stringify(all)).not.toMatch(/finder charts|lease|shutter|Suspended|Dome crew/);
  });

  it('tells Basil nothing of the private group, and offers no step that is closed to him', async () => {
    expect(await context('basil', '/observers')).toMatchObject({
      kind: 'teaser',
      reason: 'This opens to Observers and above, on a further condition.',
      step: null,
    });
  });

  it('answers what is missing exactly like what was never there', async () => {
    const never = await context('marek', '/never-there');
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
      expect(await context('marek', path)).toEqual(never);
    }
  });

  it('shows each visitor the menu that is theirs', async () => {
    const titles = async (name: string | null) => {
      const answer = await context(name, '/visit');
      return 'frame' in answer
        ? answer.frame.menus.top.flatMap(({ links }) => links.map((link) => link.title))
        : [];
    };
    expect(await titles(null)).toEqual(['Home', 'Visit', 'Field notes', 'Join', 'Sign in']);
    expect(await titles('marek')).toEqual(['Home', 'Visit', 'Field notes', 'Join', 'My account']);
    expect(await titles('tobin')).toEqual(['Home', 'Visit', 'Field notes', 'Observers', 'My account']);
  });

  it('asks the database for nothing once it is warm: it works without one', async () => {
    const closed = await openLarkfell();
    const { token } = await signedInAt(closed, 'tobin');
    await closed.close();
    const { state } = closed;
    const view = (facts: VisitorFacts) => viewPage(liveContext(state, facts), '/observers').kind;
    expect(view((await visitorOf(closed, undefined, now)).facts)).toBe('redirect');
    expect(view((await visitorOf(closed, token, now)).facts)).toBe('page');
  });

  it('never answers anything but a page, whatever the path', async () => {
    const { state } = trivet;
    const facts = (await visitorOf(trivet, undefined, now)).facts;
    fc.assert(
      fc.property(fc.oneof(fc.webPath(), fc.string()), (path) => {
        const answer = viewPage(liveContext(state, facts), `/${path}`);
        expect(['page', 'missing', 'redirect', 'message']).toContain(answer.kind);
      }),
    );
  });

  it('tells what is the same for everyone: only pages that nothing about the visitor can change', async () => {
    const { state } = trivet;
    const { facts } = await visitorOf(trivet, undefined, now);
    const under = (policy: typeof openPolicy) =>
      viewPage(
        { ...liveContext(state, facts), compiled: compile(policy, state.outline, state.names) },
        '/sample-chart',
      );
    expect(under(openPolicy)).toMatchObject({ kind: 'page', sameForEveryone: true });
    // One gate anywhere in the menu makes every page's menu depend on who asks.
    expect(under(state.live.policy)).toMatchObject({ kind: 'page', sameForEveryone: false });
  });

  it('teases with the first words of a page that a branch’s gate covers, and never with a part under a gate of its own', async () => {
    const { state } = trivet;
    const { facts } = await visitorOf(trivet, undefined, now);
    const teaser = {
      kind: 'teaser',
      show: { kind: 'words', count: 6 },
      preview: false,
      reason: { kind: 'kept back' },
      next: { kind: 'none' },
    } as const;
    const gates = state.live.policy.gates.map((gate) =>
      gate.id === 'observers-room' ? { ...gate, otherwise: { cases: [], last: teaser } } : gate,
    );
    const under = (own: typeof gates) =>
      viewPage(
        {
          ...liveContext(state, facts),
          compiled: compile({ ...state.live.policy, gates: own }, state.outline, state.names),
        },
        '/observers',
      );
    expect(under(gates)).toMatchObject({ kind: 'teaser', text: 'Welcome to the table by the …' });
    const [first] = gates;
    if (!first) throw new Error('Larkfell has no gates.');
    const own = {
      ...first,
      id: 'own' as never,
      what: { targets: [{ kind: 'item', item: 'observers-text' as never }], except: [] },
    } as typeof first;
    expect(under([...gates, own])).toMatchObject({ kind: 'teaser', text: '' });
  });

  it('puts the walk’s own address before everything that leads on', async () => {
    const { state } = trivet;
    const context = (facts: VisitorFacts, path: string) =>
      viewPage(liveContext(state, facts, '/walk/t'), path);
    const { facts } = await visitorOf(trivet, undefined, now);
    const home = context(facts, '/');
    if (home.kind !== 'page') throw new Error(home.kind);
    expect(JSON.stringify(home.sections)).toContain('href=\\"/walk/t/visit\\"');
    expect(JSON.stringify(home.frame)).not.toMatch(/"address":"\/(?!walk)/);
    expect(context(facts, '/observers')).toEqual({
      kind: 'redirect',
      to: '/walk/t/sign-in?next=%2Fobservers',
    });
    const { visitor } = await signedInAt(trivet, 'tobin');
    expect(context(visitor.facts, '/join')).toEqual({ kind: 'redirect', to: '/walk/t/account' });
  });
});
