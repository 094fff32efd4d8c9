/** Sets of stand-ins, what was withheld on a walk, what a walk's forms would do, and the history of gates and people. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { siteResponse } from '@/app/_doors';
import { asId, member, type PersonId } from '@/core';
import { writeBoard } from '@/store';
import {
  type Administrator,
  administratorOf,
  boardSets,
  changePeople,
  dropBoardSet,
  itemReach,
  keepBoard,
  keepBoardSet,
  pastChanges,
  personReport,
  putLive,
  readDesk,
  revisionAt,
  revisionsOf,
  saveDraft,
  savePerson,
  startWalk,
  type Trivet,
  walkReport,
} from '..';
import { later, now, openLarkfell, signedInAt, withOpened } from '../testing';

let trivet: Trivet;
let greta: Administrator;
let cookie: string;

beforeAll(async () => {
  trivet = await openLarkfell();
  const { token, visitor } = await signedInAt(trivet, 'greta');
  const administrator = administratorOf(visitor);
  if (!administrator) throw new Error('Greta may not use the desk.');
  greta = administrator;
  cookie = `trivet_session=${token}`;
});
afterAll(() => trivet.close());

const madeUp = { id: 'one', name: 'Somebody', facts: member({ groups: [asId('dome-crew')] }) };

describe('stand-ins', () => {
  it('can be made up with any facts, and come back with them', async () => {
    expect(await keepBoard(trivet, greta, ['guest', { madeUp }])).toBeNull();
    expect((await readDesk(trivet, greta, now)).standIns).toEqual([
      { kind: 'guest' },
      { kind: 'made up', madeUp },
    ]);
  });

  it('know nothing as guests, whatever they were given', async () => {
    const sly = { ...madeUp, facts: { ...madeUp.facts, signedIn: false } };
    expect(await keepBoard(trivet, greta, [{ madeUp: sly }])).toBeNull();
    expect((await readDesk(trivet, greta, now)).standIns).toMatchObject([
      { madeUp: { facts: { signedIn: false, groups: null } } },
    ]);
  });

  it('know nothing of a fact that came after they were kept', async () => {
    const { desk: _, ...facts } = madeUp.facts;
    await writeBoard(trivet.db, greta.id, [{ madeUp: { ...madeUp, facts } } as never]);
    expect((await readDesk(trivet, greta, now)).standIns).toEqual([{ kind: 'made up', madeUp }]);
  });

  it('are refused when they are somebody, or too many, with a sentence', async () => {
    expect(
      await keepBoard(trivet, greta, [{ madeUp: { ...madeUp, facts: { ...madeUp.facts, id: 'ines' } } }]),
    ).toMatch(/can’t be kept/);
    expect(await keepBoard(trivet, greta, [{ madeUp: { ...madeUp, name: ' ' } }])).toMatch(/name/);
    expect(await keepBoard(trivet, greta, Array(51).fill('guest'))).toMatch(/at most 50/);
  });

  it('are kept in sets by name, which everybody at the desk finds', async () => {
    expect(
      await keepBoardSet(trivet, greta, { name: 'Crew', standIns: [{ person: 'ines' }, { madeUp }] }),
    ).toBeNull();
    expect(
      await keepBoardSet(trivet, greta, { name: 'Crew', standIns: ['guest', { person: 'wren' }] }),
    ).toBeNull();
    const sets = await boardSets(trivet, greta);
    expect(sets).toMatchObject([
      { name: 'Crew', by: 'Greta Holm', standIns: [{ kind: 'guest' }, { member: { id: 'wren' } }] },
    ]);
    expect(await keepBoardSet(trivet, greta, { name: '', standIns: ['guest'] })).toMatch(/name/);
    expect(await keepBoardSet(trivet, greta, { name: 'None', standIns: [] })).toMatch(/somebody/);
    await dropBoardSet(trivet, greta, sets[0]?.id ?? '');
    expect(await boardSets(trivet, greta)).toEqual([]);
  });
});

describe('a walk', () => {
  const walkAs = async (person: string | null, side: 'live' | 'draft' = 'live') => {
    const answer = await startWalk(trivet, greta, { standIn: person ? { person } : 'guest', side }, now);
    if (answer.kind !== 'walk') throw new Error(answer.message);
    return answer.token;
  };
  const withheld = async (person: string | null, at: string) =>
    (await walkReport(trivet, greta, await walkAs(person), at, now))?.withheld ?? [];
  const ask = async (path: string, init: RequestInit = {}, at = now) => {
    const response = await siteResponse(
      trivet,
      new Request(`http://localhost:3000${path}`, { ...init, headers: { cookie, ...init.headers } }),
      at,
    );
    return { status: response.status, text: await response.text() };
  };

  it('lists what was withheld from the page with the reason, and nothing that was not', async () => {
    const marek = await withheld('marek', '/');
    expect(marek.find(({ title }) => title === 'The Sky diary, for its followers')).toMatchObject({
      where: 'section',
      given: 'leave out',
      because: expect.stringContaining('Sky diary followers'),
    });
    expect(marek.filter(({ where }) => where === 'entry').length).toBeGreaterThan(3);
    expect(marek.some(({ where, title }) => where === 'link' && title === 'Observers')).toBe(true);
    const odile = await withheld('odile', '/');
    expect(odile.some(({ title }) => title === 'The Sky diary, for its followers')).toBe(false);
    expect(odile.some(({ title }) => title === 'Join')).toBe(true);
  });

  it('lists the page itself where it is closed, and what a list leaves out', async () => {
    expect(await withheld(null, '/observers')).toMatchObject([
      { where: 'page', item: 'observers', given: 'redirect' },
      ...Array((await withheld(null, '/observers')).length - 1).fill({ where: 'link' }),
    ]);
    // The announcement is for guests, on search as well.
    const notice = (list: Awaited<ReturnType<typeof withheld>>) =>
      list.filter(({ where }) => where === 'section').map(({ title }) => title);
    expect(notice(await withheld('marek', '/search'))).toEqual(['Thursday is open night']);
    expect(notice(await withheld(null, '/search'))).toEqual([]);
    const course = await withheld('wren', '/courses/dome-operator-induction');
    expect(course.filter(({ where }) => where === 'entry')).toMatchObject([
      { title: 'Night drill', given: 'locked' },
      { title: 'Before your first opening', given: 'locked' },
      { title: 'Optics bench', given: 'locked' },
    ]);
    const list = await withheld(null, '/category/crew-bulletins');
    expect(list.filter(({ where }) => where === 'entry').length).toBeGreaterThanOrEqual(4);
    expect((await withheld(null, '/category/%E0%A4%A')).every(({ where }) => where === 'link')).toBe(true);
  });

  it('asks at the sign-in page about the page that was asked for', async () => {
    const report = await walkReport(trivet, greta, await walkAs(null), '/sign-in?next=/observers', now);
    expect(report?.page).toMatchObject({ item: 'observers', outcome: 'redirect' });
  });

  it('says what its forms would do, and does nothing', async () => {
    const token = await walkAs('marek');
    const members = trivet.state.people.get(asId<PersonId>('marek'))?.groups;
    const home = await ask(`/walk/${token}/`);
    const forms = [...home.text.matchAll(/<form[^>]*action="([^"]*)"/g)].map(([, to]) => to);
    expect(forms.length).toBeGreaterThan(1);
    expect(forms.filter((to) => !to?.startsWith(`/walk/${token}/`))).toEqual([]);
    const follow = forms.find((to) => to?.includes('/groups/')) ?? '';
    const post = {
      method: 'POST',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: 'next=/',
    };
    const would = await ask(follow, post);
    expect(would.text).toContain('this would put Marek Dunmore into Sky diary followers');
    expect(trivet.state.people.get(asId<PersonId>('marek'))?.groups).toEqual(members);
    expect((await ask(`/walk/${token}/sign-out`, post)).text).toContain('sign Marek Dunmore out');
    expect((await ask('/visit')).status).toBe(200);
    const signIn = await ask(`/walk/${token}/sign-in`, {
      ...post,
      body: 'email=greta@larkfell.example&password=larkfell-demo',
    });
    expect(signIn.text).toContain('greta@larkfell.example');
    expect(signIn.text).not.toContain('larkfell-demo');
  });

  it('never reaches a form of the site from one of its pages', async () => {
    const token = await walkAs('marek');
    const sent = await ask('/sign-out', {
      method: 'POST',
      headers: {
        referer: `http://localhost:3000/walk/${token}/`,
        'content-type': 'application/x-www-form-urlencoded',
      },
      body: '',
    });
    expect(sent.status).toBe(404);
    expect((await readDesk(trivet, greta, now)).administrator).toBe('Greta Holm');
  });

  it('is of no use to another session, or later, to its report as to its pages', async () => {
    const token = await walkAs('ines');
    const other = administratorOf((await signedInAt(trivet, 'greta')).visitor);
    if (!other) throw new Error('no second session');
    expect(await walkReport(trivet, other, token, '/crew', now)).toBeNull();
    expect(await walkReport(trivet, greta, token, '/crew', later(31))).toBeNull();
    expect(await walkReport(trivet, greta, token, '/crew', now)).not.toBeNull();
    expect((await ask(`/walk/${token}/crew`, {}, later(31))).status).toBe(404);
    expect((await ask(`/walk/${token}/crew`)).status).toBe(200);
    expect((await ask(`/walk/${token.slice(0, -1)}/crew`)).status).toBe(404);
  });
});

describe('history', () => {
  it('keeps every revision with its author, note and effect, and gives it back', async () => {
    const before = trivet.state.live.policy;
    await saveDraft(trivet, greta, {
      version: trivet.state.draft.version,
      policy: withOpened(trivet, 'trustees'),
    });
    const { draft, live } = trivet.state;
    await putLive(
      trivet,
      greta,
      { version: draft.version, revision: live.revision, note: 'For the open week' },
      now,
    );
    const [latest, first] = await revisionsOf(trivet, greta, null);
    expect(latest).toMatchObject({
      author: 'Greta Holm',
      note: 'For the open week',
      live: true,
      lost: 0,
      effect: { items: ['trustees'], guests: { gains: ['trustees'], loses: [], sees: [] } },
    });
    expect(latest?.gained).toBeGreaterThan(50);
    expect(latest?.effect?.gains.names.length).toBeGreaterThan(3);
    expect(first).toMatchObject({ live: false });
    expect(await revisionsOf(trivet, greta, latest?.number ?? 0)).toEqual([first]);
    const found = await revisionAt(trivet, greta, latest?.number ?? 0);
    expect(found?.previous).toEqual(before);
    expect(await revisionAt(trivet, greta, 999)).toBeNull();
    expect(await revisionAt(trivet, greta, Number.NaN)).toBeNull();
  });

  it('says who changed what of a person, when and why', async () => {
    await changePeople(
      trivet,
      greta,
      {
        who: { ids: ['marek', 'odile'] },
        edit: { kind: 'join', group: 'tarn-survey' },
        why: 'New surveyors',
      },
      false,
      now,
    );
    const marek = (await personReport(trivet, greta, 'marek', now))?.person;
    if (!marek) throw new Error('no Marek');
    const { id: _, ...rest } = marek;
    const purchases = [{ product: 'winter-atlas', on: '2026-11-01', until: null, state: 'paid' }];
    await savePerson(
      trivet,
      greta,
      marek.id,
      { based: marek, person: { ...rest, level: 'friend', purchases }, why: 'Paid at the door' },
      later(1),
    );
    const [last, first] = await pastChanges(trivet, greta, { person: 'marek', before: null });
    expect(last).toMatchObject({
      by: 'Greta Holm',
      why: 'Paid at the door',
      people: [
        {
          id: 'marek',
          facts: [
            { fact: 'Level', before: null, after: 'Friend' },
            { fact: 'Bought Winter atlas', after: 'paid 1 November 2026' },
          ],
        },
      ],
    });
    expect(first).toMatchObject({
      why: 'New surveyors',
      count: 2,
      people: [
        { name: 'Marek Dunmore', facts: [{ fact: 'Group Tarn Survey', before: null, after: 'in it' }] },
      ],
    });
    expect(await pastChanges(trivet, greta, { person: 'odile', before: null })).toHaveLength(1);
    expect(await pastChanges(trivet, greta, { person: 'edda', before: null })).toEqual([]);
  });
});

it('says of an item who of the membership gets it, and what the others get', async () => {
  const reach = await itemReach(trivet, greta, 'crew', 'live', now);
  expect(reach?.of).toBe(trivet.state.people.size);
  expect(reach?.away).toMatchObject([{ outcome: 'missing' }]);
  expect((reach?.open.count ?? 0) + (reach?.away[0]?.people.count ?? 0)).toBe(reach?.of);
  expect(await itemReach(trivet, greta, 'nowhere', 'live', now)).toBeNull();
});

it('lets one of two who put live at the same moment through, and tells the other', async () => {
  await saveDraft(trivet, greta, { version: trivet.state.draft.version, policy: withOpened(trivet, 'crew') });
  const { draft, live } = trivet.state;
  const put = () => putLive(trivet, greta, { version: draft.version, revision: live.revision }, now);
  const answers = await Promise.all([put(), put()]);
  expect(answers.map(({ kind }) => kind).sort()).toEqual(['live', 'stale']);
  expect(trivet.state.live.revision).toBe(live.revision + 1);
  expect(trivet.state.live.policy).toEqual(draft.policy);
});
