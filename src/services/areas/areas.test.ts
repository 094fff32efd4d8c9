/** Areas on a site of clients: made many at once, each seen by its own people alone, and taken back to where it was. */
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import {
  areasIn,
  asId,
  type Condition,
  decide,
  everyone,
  type Gate,
  type GateId,
  type GroupId,
  guest,
  type ItemId,
  nobody,
  type PersonId,
  type Policy,
  signedIn,
} from '@/core';
import { readFileBytes, updateItem, writeBothPolicies, writePeople } from '@/store';
import {
  type Administrator,
  administratorOf,
  handOverArea,
  importSite,
  listAreas,
  makeAreas,
  plainRequest,
  READY_MADE,
  renameArea,
  saveDraft,
  type Trivet,
  takeAreaStepBack,
  takeAreasAway,
  uploadFile,
} from '..';
import { newcomer } from '../people';
import { siteAsFile } from '../site-file';
import { now, openUnkept } from '../testing';
import { keep, putBack } from '../testing-database';
import { contentOf } from '../view';

const start = { title: 'Hazel & Co', timeZone: 'Europe/Stockholm', today: '2026-11-20' };
const owner = {
  id: 'una',
  name: 'Una Fairweather',
  email: 'una@hazel.example',
  desk: { right: 'owner' as const, branch: null },
  roles: ['colleague'],
};
const bo = { id: 'bo', name: 'Bo Lindqvist', email: 'bo@hazel.example', groups: ['first-client'] };

let trivet: Trivet;
let una: Administrator;

beforeAll(async () => {
  trivet = await openUnkept();
  const site = READY_MADE.clients.site(start);
  const items = site.items.map((item) =>
    item.id === 'first-client'
      ? {
          ...item,
          body: 'First client, see [your papers](/clients/first/papers) and [ours](/team).\n\n:::for in group "First client"\nOnly First client.\n:::',
        }
      : item,
  );
  expect(await importSite(trivet, { ...site, items, people: [owner, bo] }, 'Una')).toEqual([]);
  const person = trivet.state.people.get(asId<PersonId>('una'));
  const administrator = person && administratorOf({ person, facts: person.facts, session: 'here' });
  if (!administrator) throw new Error('Una may not use the desk.');
  una = administrator;
  await keep(trivet.db);
});
afterEach(async () => {
  await putBack(trivet.db);
  await trivet.reload();
});
afterAll(() => trivet.close());

const like = {
  source: 'first-client',
  below: 'site',
  menu: 'top',
  also: { kind: 'nobody' },
  lands: true,
  renames: true,
  invite: true,
};
const three = [
  { name: 'Alder House', people: 'Ada Berg, ada@alder.example\nBo Lindqvist <bo@hazel.example>' },
  { name: 'Birch & Sons', people: 'cleo@birch.example' },
  { name: 'Cedar *Works*', people: '' },
];

/** Looks, and then makes what was looked at. */
async function make(areas: unknown = three, over: object = {}) {
  const looked = await makeAreas(trivet, una, { ...like, ...over, areas, basis: null }, now);
  if (looked.kind !== 'report') throw new Error(JSON.stringify(looked));
  const made = await makeAreas(trivet, una, { ...like, ...over, areas, basis: looked.report.basis }, now);
  if (made.kind !== 'made') throw new Error(JSON.stringify(made));
  return { report: looked.report, ...made };
}

const pageAt = (address: string) => {
  const item = trivet.state.outline.addressed.get(address as never);
  if (!item) throw new Error(`Nothing is at ${address}.`);
  return item;
};

/** Which of some addresses somebody opens. */
function opened(mail: string | null, addresses: readonly string[]): readonly string[] {
  const person = [...trivet.state.people.values()].find(({ email }) => email === mail);
  const facts = mail === null ? guest : person?.facts;
  if (!facts) throw new Error(`There is no ${mail}.`);
  const { state } = trivet;
  return addresses.filter(
    (address) =>
      decide(state.live.compiled, pageAt(address).id, facts, plainRequest(state, now)).kind === 'open',
  );
}

const textOf = (address: string): string => {
  const [section] = trivet.state.outline.children.get(pageAt(address).id) ?? [];
  return trivet.state.contents.get(section?.id as ItemId)?.body ?? '';
};

const wholeSite = async () => JSON.parse(JSON.stringify(await siteAsFile(trivet, 'people')));

describe('areas made in one step', () => {
  const all = [
    '/clients/first',
    '/clients/alder-house',
    '/clients/alder-house/papers',
    '/clients/birch-and-sons',
    '/clients/cedar-works',
  ];

  it('are each open to their own people and to those whom the copied one names, and to nobody else', async () => {
    await make();
    expect(opened(null, all)).toEqual([]);
    expect(opened('ada@alder.example', all)).toEqual(['/clients/alder-house', '/clients/alder-house/papers']);
    expect(opened('bo@hazel.example', all)).toEqual([
      '/clients/first',
      '/clients/alder-house',
      '/clients/alder-house/papers',
    ]);
    expect(opened('cleo@birch.example', all)).toEqual(['/clients/birch-and-sons']);
    expect(opened('una@hazel.example', all)).toEqual(all);
  });

  it('are told before they are made, and nothing is made by looking', async () => {
    const before = await wholeSite();
    const looked = await makeAreas(trivet, una, { ...like, areas: three, basis: null }, now);
    if (looked.kind !== 'report') throw new Error('There is no report.');
    expect(looked.report.makes).toEqual([
      '6 pages',
      '3 private groups',
      '3 gates, live at once',
      '3 expectations that nobody else opens them',
      '3 landing rules',
      '3 menu links',
      '2 accounts',
      '2 invitations by mail',
    ]);
    expect(looked.report.areas.map(({ name, address }) => `${name} ${address}`)).toEqual([
      'Alder House /clients/alder-house',
      'Birch & Sons /clients/birch-and-sons',
      'Cedar *Works* /clients/cedar-works',
    ]);
    expect(looked.report.named).toBe(2);
    expect(looked.report.broken).toEqual([]);
    expect(await wholeSite()).toEqual(before);
  });

  it('say their own name, lead to their own pages and ask for their own group', async () => {
    await make();
    const group = trivet.state.names.groups.find(({ name }) => name === 'Alder House');
    expect(textOf('/clients/alder-house')).toBe(
      `Alder House, see [your papers](/clients/alder-house/papers) and [ours](/team).\n\n:::for in group id "${group?.id}"\nOnly Alder House.\n:::`,
    );
    // A name is a text, whatever it is written with.
    expect(textOf('/clients/cedar-works')).toContain(
      'Cedar \\*Works\\*, see [your papers](/clients/cedar-works/papers)',
    );
    expect(textOf('/clients/first')).toContain('First client, see [your papers](/clients/first/papers)');
  });

  it('are areas, with a landing rule and an expectation each', async () => {
    await make();
    const { areas } = await listAreas(trivet, una, now);
    expect(areas.map(({ name, people, waiting, wrong }) => [name, people, waiting, wrong])).toEqual([
      ['First client', 1, 1, []],
      ['Second client', 0, 0, ['Nobody is in it.']],
      ['Alder House', 2, 2, []],
      ['Birch & Sons', 1, 1, []],
      ['Cedar *Works*', 0, 0, ['Nobody is in it.']],
    ]);
    const made = areasIn(trivet.state.live.policy).slice(2);
    expect(made.every(({ landing, expectation }) => landing !== null && expectation !== null)).toBe(true);
    expect(trivet.state.draft.policy).toEqual(trivet.state.live.policy);
  });

  it('put live nothing that was only in the draft, and keep it there', async () => {
    const { draft, live } = trivet.state;
    const [first, ...others] = draft.policy.gates;
    if (!first) throw new Error('There is no gate.');
    const changed = { ...draft.policy, gates: [{ ...first, who: signedIn }, ...others] };
    expect(await saveDraft(trivet, una, { version: draft.version, policy: changed })).toMatchObject({
      kind: 'saved',
    });
    await make(three.slice(1));
    expect(trivet.state.live.policy.gates[0]).toEqual(live.policy.gates[0]);
    expect(trivet.state.draft.policy.gates[0]?.who).toEqual(signedIn);
    // The area that is copied is none in the draft: a gate of their own closes the new ones there.
    expect(trivet.state.draft.policy.gates.length).toBe(trivet.state.live.policy.gates.length);
    const pages = ['/clients/birch-and-sons', '/clients/cedar-works'].map((address) => pageAt(address).id);
    const bo = trivet.state.people.get(asId<PersonId>('bo'))?.facts;
    if (!bo) throw new Error('There is no Bo.');
    for (const page of pages)
      expect(decide(trivet.state.draft.compiled, page, bo, plainRequest(trivet.state, now)).kind).not.toBe(
        'open',
      );
  });

  it('have copies of the files, which are as closed as they are', async () => {
    const about = { name: 'what we agreed.txt', parent: 'first-client-papers' };
    const sent = await uploadFile(trivet, una, about, new TextEncoder().encode('Agreed.'), now);
    if (sent.kind !== 'done') throw new Error(JSON.stringify(sent));
    const link = `[it](/files/${sent.item}/what-we-agreed.txt)`;
    const [section] = trivet.state.outline.children.get(asId<ItemId>('first-client')) ?? [];
    if (!section) throw new Error('There is no text.');
    await trivet.change(async (state) =>
      updateItem(trivet.db, { item: section, content: { ...contentOf(state, section.id), body: link } }),
    );
    const { report } = await make(three.slice(0, 1));
    expect(report.makes).toContain('1 file');
    const copy = trivet.state.outline.children
      .get(pageAt('/clients/alder-house/papers').id)
      ?.find(({ kind }) => kind === 'file');
    if (!copy) throw new Error('There is no copy.');
    expect(textOf('/clients/alder-house')).toBe(`[it](/files/${copy.id}/what-we-agreed.txt)`);
    expect(Buffer.from((await readFileBytes(trivet.db, copy.id)) ?? []).toString()).toBe('Agreed.');
    const opens = (person: string, item: ItemId) =>
      decide(
        trivet.state.live.compiled,
        item,
        trivet.state.people.get(asId<PersonId>(person))?.facts ?? guest,
        plainRequest(trivet.state, now),
      ).kind === 'open';
    const ada = [...trivet.state.people.values()].find(({ name }) => name === 'Ada Berg')?.id ?? '';
    expect([opens(ada, copy.id), opens(ada, sent.item), opens('nobody', copy.id)]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('are taken back in one step, to the very site that was there', async () => {
    const before = await wholeSite();
    const { step } = await make();
    const back = await takeAreaStepBack(trivet, una, step, now);
    expect(back.kind).toBe('done');
    expect(await wholeSite()).toEqual(before);
    expect((await takeAreaStepBack(trivet, una, step, now)).kind).toBe('wrong');
  });

  it('are not taken back over what came since, which says what that is', async () => {
    const { step } = await make();
    const page = pageAt('/clients/alder-house/papers');
    await renameArea(trivet, una, { page: pageAt('/clients/birch-and-sons').id, name: 'Birch' }, now);
    expect(await takeAreaStepBack(trivet, una, step, now)).toEqual({
      kind: 'wrong',
      message: '“Birch” was changed since. Nothing was taken back.',
    });
    expect(trivet.state.outline.items.has(page.id)).toBe(true);
  });

  it('begin empty where nothing is copied, closed to everybody else', async () => {
    await make([{ name: 'Dogwood', people: 'dan@dogwood.example' }], {
      source: null,
      also: { kind: 'role', id: 'colleague' },
    });
    expect(opened('dan@dogwood.example', ['/dogwood'])).toEqual(['/dogwood']);
    expect(opened('una@hazel.example', ['/dogwood'])).toEqual(['/dogwood']);
    expect(opened('bo@hazel.example', ['/dogwood'])).toEqual([]);
  });
});

describe('what can’t be made', () => {
  const problems = async (areas: unknown, over: object = {}) => {
    const answer = await makeAreas(trivet, una, { ...like, ...over, areas, basis: null }, now);
    return answer.kind === 'problems' ? answer.problems : answer;
  };

  it.each([
    [[{ name: ' ', people: '' }], 'Give the area a name.'],
    [
      [{ name: 'first CLIENT', people: '' }],
      'There is a group called “first CLIENT” already. Choose another name.',
    ],
    [
      [
        { name: 'Alder', people: '' },
        { name: 'ALDER', people: '' },
      ],
      '“Alder” is here twice. Give one of them another name.',
    ],
    [[{ name: '!?', people: '' }], 'No address can be made of “!?”. Give it a name with letters or digits.'],
    [
      [{ name: 'Alder', people: 'Ada Berg, ada@alder.example\nsomebody' }],
      'Write a name and a mail address, as in: Ada Berg, ada@place.example',
    ],
    [
      { csv: 'area,name\nAlder,Ada' },
      'The first line names the columns: area, name, mail address. One line is one person.',
    ],
    [
      { csv: 'area,name,mail\nAlder,Ada,nowhere' },
      '“nowhere” is no mail address. Write one like name@place.example.',
    ],
    [{ csv: 'area,name,mail\nAlder,Ada,' }, 'This person has no mail address. Write one.'],
    [{ csv: 'area,name,mail\n' }, 'There is no line below the first one. Add an area.'],
  ])('%j is told where it is', async (areas, message) => {
    expect(await problems(areas)).toMatchObject([{ message }]);
  });

  it.each([
    [{ source: 'gone' }, 'The page to begin with is no longer there. Choose another.'],
    [{ source: 'home' }, 'The first page of the site can’t be copied with all beneath it. Choose another.'],
    [{ below: 'gone' }, 'The page that they stand below is no longer there. Choose another.'],
    [{ menu: 'home' }, 'That menu is no longer there. Choose another.'],
    [{ also: { kind: 'role', id: 'gone' } }, 'There is no such role any more. Choose who else may enter.'],
  ])('%j is told', async (over, message) => {
    expect(await problems(three, over)).toMatchObject([{ message }]);
  });

  it('is anything that was not looked at as it is', async () => {
    const looked = await makeAreas(trivet, una, { ...like, areas: three, basis: null }, now);
    if (looked.kind !== 'report') throw new Error('There is no report.');
    await make([{ name: 'Elm', people: '' }]);
    const late = await makeAreas(trivet, una, { ...like, areas: three, basis: looked.report.basis }, now);
    expect(late.kind).toBe('stale');
  });

  it('is a long line that is nobody, in no time at all', async () => {
    const line = `${' ,;<'.repeat(20_000)}@`;
    expect(await problems([{ name: 'Alder', people: line }])).toMatchObject([{ area: 0, line: 1 }]);
  });
});

describe('areas that are there', () => {
  it('are called something else, and back', async () => {
    const before = await wholeSite();
    const renamed = await renameArea(trivet, una, { page: 'first-client', name: 'Fir & Co' }, now);
    if (renamed.kind !== 'done') throw new Error(JSON.stringify(renamed));
    expect((await listAreas(trivet, una, now)).areas[0]).toMatchObject({
      name: 'Fir & Co',
      group: 'Fir & Co',
      address: '/clients/first',
    });
    expect(await renameArea(trivet, una, { page: 'first-client', name: 'second client' }, now)).toMatchObject(
      {
        message: 'There is a group called “second client” already. Choose another name.',
      },
    );
    await takeAreaStepBack(trivet, una, renamed.step, now);
    expect(await wholeSite()).toEqual(before);
  });

  it('are handed over: who is not named leaves, who is new comes', async () => {
    const before = await wholeSite();
    const to = { page: 'first-client', people: 'Eve Moss, eve@fir.example', invite: true };
    const looked = await handOverArea(trivet, una, { ...to, look: true }, now);
    expect(looked).toMatchObject({ told: 'In comes Eve Moss. Out goes Bo Lindqvist.' });
    expect(await wholeSite()).toEqual(before);
    const done = await handOverArea(trivet, una, { ...to, look: false }, now);
    if (done.kind !== 'done') throw new Error(JSON.stringify(done));
    expect(opened('eve@fir.example', ['/clients/first'])).toEqual(['/clients/first']);
    expect(opened('bo@hazel.example', ['/clients/first'])).toEqual([]);
    await takeAreaStepBack(trivet, una, done.step, now);
    expect(await wholeSite()).toEqual(before);
  });

  it('are taken away with all that was theirs, and come back as they were', async () => {
    await make();
    const before = await wholeSite();
    const pages = ['/clients/alder-house', '/clients/birch-and-sons'].map((address) => pageAt(address).id);
    expect(await takeAreasAway(trivet, una, { pages, look: true }, now)).toMatchObject({
      names: ['Alder House', 'Birch & Sons'],
      pages: 4,
      people: 3,
      links: 2,
    });
    expect(await wholeSite()).toEqual(before);
    const gone = await takeAreasAway(trivet, una, { pages, look: false }, now);
    if (gone.kind !== 'done') throw new Error(JSON.stringify(gone));
    expect((await listAreas(trivet, una, now)).areas.map(({ name }) => name)).toEqual([
      'First client',
      'Second client',
      'Cedar *Works*',
    ]);
    expect(opened('ada@alder.example', ['/clients/first', '/clients/cedar-works', '/team'])).toEqual([]);
    await takeAreaStepBack(trivet, una, gone.step, now);
    expect(await wholeSite()).toEqual(before);
  });

  it('tell what is wrong with them', async () => {
    const wrongWith = async (name: string) =>
      (await listAreas(trivet, una, now)).areas.find((one) => one.name === name)?.wrong;
    const live = async (change: (policy: Policy) => Policy) => {
      await trivet.db.transaction((tx) =>
        writeBothPolicies(tx, {
          draft: change(trivet.state.draft.policy),
          live: change(trivet.state.live.policy),
          author: 'Una',
          note: '',
        }),
      );
      await trivet.reload();
    };
    expect(await wrongWith('First client')).toEqual([]);
    await live((policy) => ({ ...policy, expectations: [] }));
    expect(await wrongWith('First client')).toEqual(['Nothing expects that nobody else ever opens it.']);
    const over = (who: Condition, stance: Gate['stance']): Gate => ({
      id: asId<GateId>(`papers ${stance}`),
      what: { targets: [{ kind: 'item', item: asId<ItemId>('first-client-papers') }], except: [] },
      who,
      otherwise: { cases: [], last: { kind: 'missing' } },
      stance,
    });
    await live((policy) => ({ ...policy, gates: [...policy.gates, over(everyone, 'instead')] }));
    expect(await wrongWith('First client')).toEqual(['Guests open “Papers”.']);
    await live((policy) => ({
      ...policy,
      gates: [
        ...policy.gates.slice(0, -1),
        {
          ...over(nobody, 'also'),
          what: { targets: [{ kind: 'item', item: asId<ItemId>('first-client') }], except: [] },
        },
      ],
    }));
    expect(await wrongWith('First client')).toContain(
      '1 of its people doesn’t get in: another gate keeps them out.',
    );
  });

  it('are not handed over here when more have one than can be typed', async () => {
    const { areas } = await listAreas(trivet, una, now);
    expect(areas[0]?.list).toBe('Bo Lindqvist, bo@hazel.example');
    const crowd = Array.from({ length: 501 }, (_, at) =>
      newcomer(asId<PersonId>(`p${at}`), { email: `p${at}@crowd.example`, name: `P ${at}` }, start.today),
    );
    const groups = [asId<GroupId>('first-client')];
    await writePeople(
      trivet.db,
      crowd.map((one) => ({ before: null, after: { ...one, groups } })),
    );
    await trivet.reload();
    expect((await listAreas(trivet, una, now)).areas[0]).toMatchObject({ people: 502, list: null });
  });

  it('know the day on which one of their people was there, and of nobody else', async () => {
    const last = async () => (await listAreas(trivet, una, now)).areas.map(({ lastVisit }) => lastVisit);
    const visit = (person: string, item: string) =>
      trivet.journal.note(
        trivet,
        { browser: person, person: asId<PersonId>(person), now },
        asId<ItemId>(item),
        decide(
          trivet.state.live.compiled,
          asId<ItemId>(item),
          trivet.state.people.get(asId<PersonId>(person))?.facts ?? guest,
          plainRequest(trivet.state, now),
        ),
      );
    visit('una', 'first-client-papers');
    await trivet.journal.flush(trivet, now);
    expect(await last()).toEqual([null, null]);
    visit('bo', 'second-client');
    visit('bo', 'first-client-papers');
    await trivet.journal.flush(trivet, now);
    expect(await last()).toEqual(['2026-11-20', null]);
  });
});

it('a file says what its bytes stand for, whatever wrote it', async () => {
  const latin = Buffer.from('area;name;mail\nÅrsta;Björn Öberg;bjorn@arsta.example', 'latin1');
  await make({ file: latin.toString('base64') });
  expect([...trivet.state.people.values()].map(({ name }) => name)).toContain('Björn Öberg');
  expect(trivet.state.names.groups.map(({ name }) => name)).toContain('Årsta');
});

it('two hundred areas come from one file, and go in one step', async () => {
  const lines = Array.from({ length: 200 }, (_, at) =>
    [1, 2, 3, 4, 5].map((one) => `Client ${at + 1};Person ${one};p${one}@c${at + 1}.example`).join('\n'),
  );
  const before = await wholeSite();
  const { step, report } = await make({ csv: `area;name;mail address\n${lines.join('\n')}` });
  expect(report.makes).toContain('1000 accounts');
  expect(areasIn(trivet.state.live.policy).length).toBe(202);
  await takeAreaStepBack(trivet, una, step, now);
  expect(await wholeSite()).toEqual(before);
}, 120_000);
