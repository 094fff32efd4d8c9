import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asId, type ItemId, isShared, type PersonId, test } from '@/core';
import { updateItem } from '@/store';
import {
  type Administrator,
  changePeople,
  confirmReset,
  editNames,
  findPeople,
  latestChanges,
  namesReport,
  personReport,
  savePerson,
  startReset,
  type Trivet,
  undoChange,
  unlock,
  viewPage,
  visitorOf,
} from '..';
import { recordOf } from '../running/person';
import { readSiteState } from '../running/site-state';
import { gretaAt, liveContext, now, openLarkfell, signedInAt } from '../testing';
import { startSession } from '../visiting/start-session';
import { peopleAt } from './testing';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const { person, find, undo } = peopleAt(() => ({ trivet, greta }));

describe('finding people', () => {
  it('goes by name and by condition, and counts all of them', async () => {
    expect((await find({ text: 'hallor' })).people.map(({ name }) => name)).toEqual(['Wren Halloran']);
    const crew = await find({
      condition: 'in group "Dome crew" and profile "dome certificate" is not set',
      most: 1,
    });
    expect(crew.count).toBeGreaterThan(1);
    expect(crew.people).toHaveLength(1);
    expect((await find({ condition: 'audience "Optics ready"' })).people.map(({ id }) => id)).toContain(
      'ines',
    );
  });

  it('says where a condition is wrong', async () => {
    expect(await findPeople(trivet, greta, { condition: 'in group "Dome crwe"' }, now)).toMatchObject({
      kind: 'wrong condition',
      error: { column: 10, message: expect.stringContaining('Did you mean “Dome crew”?') },
    });
    expect(await findPeople(trivet, greta, { condition: 'x'.repeat(1_000_000) }, now)).toMatchObject({
      kind: 'wrong condition',
    });
  });
});

describe('changing many', () => {
  it('shows what it would do, does it, and takes it back', async () => {
    const request = {
      who: { text: '', condition: 'in group "Tarn Survey"' },
      edit: { kind: 'join', group: 'dome-crew' },
    };
    const before = person('jonah');
    const preview = await changePeople(trivet, greta, request, true, now);
    if (preview.kind !== 'preview') throw new Error(preview.kind);
    expect(preview.reach?.more.count).toBe(preview.changes.count);
    expect(preview.reach?.less.count).toBe(0);
    expect(person('jonah')).toEqual(before);
    const answer = await changePeople(trivet, greta, request, false, now);
    expect(answer).toMatchObject({ kind: 'changed', people: preview.changes.count });
    expect(viewPage(liveContext(trivet.state, person('jonah').facts), '/crew').kind).toBe('page');
    expect(await changePeople(trivet, greta, request, false, now)).toEqual({ kind: 'nothing to do' });
    await undo(answer);
    expect(recordOf(person('jonah'))).toEqual(recordOf(before));
  });

  it('does not take back what was changed again since', async () => {
    const set = (value: string) =>
      changePeople(
        trivet,
        greta,
        { who: { ids: ['marek'] }, edit: { kind: 'field', field: 'valley', value } },
        false,
        now,
      );
    const first = await set('Sett');
    const second = await set('Hollin');
    const id = 'change' in first ? first.change : '';
    expect(await undoChange(trivet, greta, id)).toEqual({
      kind: 'wrong',
      message: 'Marek Dunmore was changed again since. Nothing was taken back.',
    });
    await undo(second);
    await undo(first);
    expect(await undoChange(trivet, greta, id)).toMatchObject({ message: 'That was taken back already.' });
    expect(await undoChange(trivet, greta, 'never')).toMatchObject({ kind: 'wrong' });
  });

  it.each([
    [{ who: { ids: [] }, edit: { kind: 'level', level: null } }, 'Choose somebody first.'],
    [{ who: { ids: ['gone'] }, edit: { kind: 'level', level: null } }, 'Nobody is chosen any more'],
    [{ who: { ids: ['marek'] }, edit: { kind: 'level', level: 'duke' } }, 'There is no such level'],
    [
      { who: { ids: ['marek'] }, edit: { kind: 'field', field: 'hours-logged', value: 'ten' } },
      'hours logged is a number. “ten” is not.',
    ],
    [{ who: { ids: ['greta', 'marek'] }, edit: { kind: 'remove' } }, 'You are among them'],
    [{ who: { text: '', condition: 'in grup' }, edit: { kind: 'remove' } }, 'can’t stand here'],
  ])('refuses %j', async (request, message) => {
    const people = trivet.state.people;
    expect(await changePeople(trivet, greta, request, false, now)).toEqual({
      kind: 'wrong',
      message: expect.stringContaining(message),
    });
    expect([...trivet.state.people.keys()]).toEqual([...people.keys()]);
  });

  it('takes people away, and brings them back with everything they had', async () => {
    const before = recordOf(person('lio'));
    const answer = await changePeople(
      trivet,
      greta,
      { who: { ids: ['lio'] }, edit: { kind: 'remove' } },
      false,
      now,
    );
    expect(trivet.state.people.has(before.id)).toBe(false);
    await undo(answer);
    expect(recordOf(person('lio'))).toEqual(before);
    // Their password is among it.
    expect((await signedInAt(trivet, 'lio')).visitor.person?.id).toBe('lio');
  });
});

it('keeps the latest changes, newest first, with who made them', async () => {
  const set = (level: string | null) =>
    changePeople(
      trivet,
      greta,
      { who: { ids: ['sunniva'] }, edit: { kind: 'level', level } },
      false,
      new Date(now.getTime() + (level === null ? 2000 : 1000)),
    );
  await set('friend');
  const answer = await set(null);
  const [last, before] = await latestChanges(trivet, greta);
  expect(last).toMatchObject({ by: 'Greta Holm', summary: 'To no level: 1 person', undone: false });
  expect(before).toMatchObject({ summary: 'To Friend: 1 person' });
  await undo(answer as { kind: string; change: string });
  expect((await latestChanges(trivet, greta))[0]).toMatchObject({ undone: true });
});

describe('one person', () => {
  const form = (id: string) => {
    const { id: _, ...rest } = recordOf(person(id));
    return rest;
  };

  const save = (id: string, form: object) =>
    savePerson(trivet, greta, person(id).id, { based: recordOf(person(id)), person: form }, now);

  it('is not overwritten when somebody else changed them meanwhile', async () => {
    const based = recordOf(person('tobin'));
    const theirs = await save('tobin', { ...form('tobin'), level: 'keeper' });
    const mine = { based, person: { ...form('tobin'), name: 'Tobin' } };
    expect(await savePerson(trivet, greta, based.id, mine, now)).toMatchObject({
      kind: 'wrong',
      message: expect.stringContaining('Tobin Aske was changed meanwhile'),
    });
    expect(person('tobin').level).toBe('keeper');
    await undo(theirs as { kind: string; change: string });
  });

  it('is saved whole, or told field by field what is wrong', async () => {
    const changed = { ...form('wren'), profile: { team: 'Optics', 'dome-certificate': true } };
    const answer = await save('wren', changed);
    expect(person('wren').facts.profile).toEqual(changed.profile);
    await undo(answer);
    const wrong = {
      ...form('wren'),
      email: 'ines@larkfell.example',
      level: 'duke',
      profile: { team: 'Kitchen', 'hours-logged': '12', nowhere: 1 },
    };
    expect(await save('wren', wrong)).toEqual({
      kind: 'problems',
      problems: {
        email: 'Ines Calloway has this mail address already.',
        level: 'There is no such level any more.',
        'profile.team': 'team is one of Optics, Grounds, Visits.',
        'profile.hours-logged': 'hours logged is a number.',
        'profile.nowhere': 'There is no such field any more.',
      },
    });
    expect(await save('wren', { name: '' })).toMatchObject({
      kind: 'problems',
      problems: { name: 'Give the person a name.' },
    });
  });

  it('can be somebody new, with an id that nobody has', async () => {
    const fresh = { ...form('marek'), name: 'Marek', email: 'Second.Marek@larkfell.example ' };
    const answer = await savePerson(trivet, greta, null, { based: null, person: fresh }, now);
    if (answer.kind !== 'saved') throw new Error(answer.kind);
    expect(person(answer.person).email).toBe('second.marek@larkfell.example');
    await undo(answer as { kind: string; change: string });
    expect(trivet.state.people.has(asId<PersonId>('marek-2'))).toBe(false);
  });

  it('can’t take the desk from herself', async () => {
    expect(await save('greta', { ...form('greta'), desk: null })).toMatchObject({
      kind: 'problems',
      problems: { desk: expect.stringContaining('yourself') },
    });
  });

  it('ends with everything by which they were known: nobody gets it by having their name', async () => {
    const save = (over: object) =>
      savePerson(trivet, greta, null, { based: null, person: { ...form('marek'), ...over } }, now);
    const made = await save({ name: 'Passing Guest', email: 'passing@larkfell.example' });
    if (made.kind !== 'saved') throw new Error(made.kind);
    const { token } = await startSession(trivet, made.person, [], '/', now);
    expect((await visitorOf(trivet, token, now)).person?.id).toBe(made.person);
    const { token: code } = (await startReset(
      trivet,
      { email: 'passing@larkfell.example' },
      '10.8.0.1',
      now,
    )) as { token: string };
    const gone = { who: { ids: [made.person] }, edit: { kind: 'remove' } };
    await changePeople(trivet, greta, gone, false, now);
    const again = await save({ name: 'Passing Guest', email: 'passing@larkfell.example' });
    if (again.kind !== 'saved') throw new Error(again.kind);
    expect(again.person).not.toBe(made.person);
    expect((await visitorOf(trivet, token, now)).person).toBeNull();
    expect(
      await confirmReset(
        trivet,
        { token: code, code: '000000', password: 'longer than 8' },
        { from: '10.8.0.1', passphrases: [] },
        now,
      ),
    ).toMatchObject({
      kind: 'over',
    });
    await changePeople(trivet, greta, { ...gone, who: { ids: [again.person] } }, false, now);
  });

  it('has a page that says what they can reach, why, and what would open the rest', async () => {
    const report = await personReport(trivet, greta, 'wren', now);
    const at = (address: string) => report?.reach.find((one) => one.address === address);
    expect(at('/crew')).toMatchObject({ outcome: 'open', because: 'Lets by people in Dome crew' });
    expect(at('/')).toMatchObject({ outcome: 'open', because: null });
    expect(at('/keepers')).toMatchObject({
      outcome: 'redirect',
      sentence: 'Wren Halloran is sent to Join us instead of Keepers’ evening',
      waysIn: ['reach Keeper level and have “hours logged” at least 100'],
    });
    // What is sold is told with what it costs, and not once more without.
    const marek = await personReport(trivet, greta, 'marek', now);
    const comet = marek?.reach.filter(({ waysIn }) =>
      waysIn.some((way) => way.startsWith('buy Comet night')),
    );
    expect(comet?.map(({ waysIn }) => waysIn)).toEqual([
      ['buy Comet night (9.00 €)', 'type the passphrase “Comet night by mail”'],
    ]);
    expect((await personReport(trivet, greta, 'ines', now))?.audiences.map(({ name }) => name)).toEqual([
      'Crew ready for the dome',
      'Observers in good standing',
      'Supporters',
      'Busy hands',
      'Optics ready',
      'Subscribers',
    ]);
    expect(await personReport(trivet, greta, 'nobody', now)).toBeNull();
  });
});

describe('memory', () => {
  it('is what the database holds after every change, and compiles nothing that asks for the same', async () => {
    const form = (id: string) => {
      const { id: _, ...rest } = recordOf(person(id));
      return rest;
    };
    const { compiled } = trivet.state.live;
    const save = (id: string, over: object) =>
      savePerson(
        trivet,
        greta,
        asId<PersonId>(id),
        { based: recordOf(person(id)), person: { ...form(id), ...over } },
        now,
      );
    const fresh = () =>
      savePerson(
        trivet,
        greta,
        null,
        { based: null, person: { ...form('marek'), name: 'ångström, A', email: 'aa@larkfell.example' } },
        now,
      );
    const many = (edit: object) =>
      changePeople(trivet, greta, { who: { text: '', condition: 'signed in' }, edit }, false, now);
    const steps: readonly (() => Promise<{ readonly kind: string; readonly change?: string }>)[] = [
      () => save('odile', { groups: ['tarn-survey', 'sky-diary'], roles: ['trustee'] }),
      () => save('odile', { name: 'Zelda Marsh' }),
      () => save('jonah', { name: 'aaron birk', email: 'aaron@larkfell.example' }),
      fresh,
      () => many({ kind: 'join', group: 'tarn-survey' }),
    ];
    const undos: string[] = [];
    const check = async () => {
      const { people } = trivet.state;
      expect(trivet.state.live.compiled).toBe(compiled);
      const read = await readSiteState(trivet.db);
      expect([...(read?.people ?? [])]).toEqual([...people]);
    };
    for (const step of steps) {
      const answer = await step();
      expect(answer.kind).toMatch(/changed|saved/);
      undos.push(answer.change ?? '');
      await check();
    }
    for (const change of undos.reverse()) {
      expect(await undoChange(trivet, greta, change)).toMatchObject({ kind: 'changed' });
      await check();
    }
  });
});

describe('names', () => {
  const preview = (edit: object) => editNames(trivet, greta, edit, true, now);
  const change = (edit: object) => editNames(trivet, greta, edit, false, now);

  it('can be renamed: conditions follow', async () => {
    const answer = await change({ kind: 'rename', of: 'group', id: 'dome-crew', name: 'Dome hands' });
    expect(viewPage(liveContext(trivet.state, person('wren').facts), '/crew').kind).toBe('page');
    expect((await find({ condition: 'in group "Dome hands"' })).count).toBeGreaterThan(0);
    await undo(answer as { kind: string; change: string });
  });

  it('say what breaks before they go; what asks for them then opens to nobody', async () => {
    expect(await preview({ kind: 'remove', of: 'group', id: 'dome-crew' })).toMatchObject({
      kind: 'preview',
      people: expect.any(Number),
      breaks: expect.arrayContaining([
        { side: 'live', where: 'the gate over Dome crew and everything below it' },
        { side: 'draft', where: 'the audience Crew ready for the dome' },
      ]),
    });
    const before = recordOf(person('wren'));
    const answer = await change({ kind: 'remove', of: 'group', id: 'dome-crew' });
    expect(person('wren').groups).toEqual([]);
    expect(viewPage(liveContext(trivet.state, person('wren').facts), '/crew').kind).toBe('missing');
    await undo(answer as { kind: string; change: string });
    expect(recordOf(person('wren'))).toEqual(before);
    expect(viewPage(liveContext(trivet.state, person('wren').facts), '/crew').kind).toBe('page');
  });

  it('stay while their going would open something to those who have them', async () => {
    // Join us is for guests and for members without a level.
    expect(viewPage(liveContext(trivet.state, person('odile').facts), '/join').kind).toBe('redirect');
    const edit = { kind: 'remove', of: 'level', id: 'friend' };
    for (const answer of [await preview(edit), await change(edit)]) {
      expect(answer).toEqual({
        kind: 'wrong',
        message: expect.stringMatching(/^That would open “Join us” to .* and \d+ others: .* first/),
      });
    }
    expect(person('odile').level).toBe('friend');
  });

  it('keep the draft savable while a gate asks for what is gone', async () => {
    const answer = await change({ kind: 'remove', of: 'role', id: 'trustee' });
    const { draft } = trivet.state;
    const { saveDraft } = await import('../index');
    expect(await saveDraft(trivet, greta, { version: draft.version, policy: draft.policy })).toMatchObject({
      kind: 'saved',
    });
    await undo(answer as { kind: string; change: string });
  });

  it('convert what a field holds when its type changes, and say what can’t be', async () => {
    const details = { choices: [], private: false, editable: false };
    const toText = { kind: 'field', id: 'hours-logged', type: 'text', ...details };
    const shown = await preview(toText);
    expect(shown).toMatchObject({
      kind: 'preview',
      lose: 0,
      breaks: expect.arrayContaining([{ side: 'live', where: 'the gate over Keepers’ evening' }]),
    });
    const answer = await change(toText);
    expect(person('ines').facts.profile?.['hours-logged']).toBe('140');
    expect(viewPage(liveContext(trivet.state, person('ines').facts), '/keepers').kind).toBe('redirect');
    await undo(answer as { kind: string; change: string });
    expect(person('ines').facts.profile?.['hours-logged']).toBe(140);
    const toDay = await preview({ kind: 'field', id: 'hours-logged', type: 'date', ...details });
    expect(toDay).toMatchObject({ lose: (toDay as unknown as { people: number }).people });
  });

  it('take levels in their order', async () => {
    const answer = await change({ kind: 'move', of: 'level', id: 'keeper', by: -1 });
    expect(trivet.state.names.levels.map(({ id }) => id)).toEqual(['friend', 'keeper', 'observer']);
    await undo(answer as { kind: string; change: string });
  });

  it.each([
    [{ kind: 'add', of: 'role', name: ' TRUSTEE ' }, 'There is a role called “TRUSTEE” already'],
    [{ kind: 'add', of: 'role', name: ' ' }, 'Give it a name.'],
    [{ kind: 'rename', of: 'role', id: 'gone', name: 'x' }, 'There is no such role any more.'],
    [
      { kind: 'field', id: 'team', type: 'choice', choices: [], private: false, editable: false },
      'something to choose from',
    ],
    [
      { kind: 'field', id: 'team', type: 'choice', choices: ['A', 'a'], private: false, editable: false },
      'Two choices are the same',
    ],
    [{ kind: 'passphrase', id: 'comet-mail', passphrase: 'short' }, 'at least 6 letters'],
  ])('refuse %j', async (edit, message) => {
    expect(await change(edit)).toEqual({ kind: 'wrong', message: expect.stringContaining(message) });
  });

  it('bring a passphrase back with what is typed for it', async () => {
    const opens = async () => {
      const stranger = await visitorOf(trivet, undefined, now);
      const given = { passphrase: 'bring a red torch', next: '/', from: '10.9.9.9' };
      return (await unlock(trivet, stranger, given, now)).kind;
    };
    const answer = await change({ kind: 'remove', of: 'passphrase', id: 'comet-mail' });
    expect(await opens()).toBe('wrong');
    await undo(answer as { kind: string; change: string });
    expect(await opens()).toBe('unlocked');
  });

  it('are never those of something that went: one of the same name is another', async () => {
    const make = async () => {
      await change({ kind: 'add', of: 'group', name: 'Passing' });
      return trivet.state.names.groups.find(({ name }) => name === 'Passing')?.id;
    };
    const first = await make();
    await change({ kind: 'remove', of: 'group', id: first });
    const second = await make();
    expect(second).not.toBe(first);
    await change({ kind: 'remove', of: 'group', id: second });
  });

  it('end what was opened by a passphrase when other words are chosen for it', async () => {
    const stranger = await visitorOf(trivet, undefined, now);
    const type = (passphrase: string) =>
      unlock(trivet, stranger, { passphrase, next: '/', from: '10.9.9.8' }, now);
    const answer = await type('bring a red torch');
    const token = answer.kind === 'unlocked' ? (answer.token ?? '') : '';
    const known = async () => (await visitorOf(trivet, token, now)).facts.passphrases;
    expect(await known()).toEqual(['comet-mail']);
    await change({ kind: 'passphrase', id: 'comet-mail', passphrase: 'bring a blue torch' });
    expect(await known()).toEqual([]);
    trivet.sessions.clear();
    expect(await known()).toEqual([]);
    await change({ kind: 'passphrase', id: 'comet-mail', passphrase: 'bring a red torch' });
  });

  it('know who has them and where they are used', async () => {
    const report = await namesReport(trivet, greta);
    expect(report.people['level keeper']).toBeGreaterThan(3);
    expect(report.uses['field hours-logged']).toEqual([
      'the gate over Keepers’ evening',
      'the audience Busy hands',
    ]);
  });

  it('know the texts that name them: in a region, or as what is shown of the reader', async () => {
    const item = trivet.state.outline.items.get(asId<ItemId>('visit-text'));
    if (!item) throw new Error('There is no text.');
    const body = ':::for in group id "dome-crew"\n:own[profile id "hours-logged"]\n:::';
    await updateItem(trivet.db, { item, content: { summary: '', body } });
    await trivet.reload();
    const { uses } = await namesReport(trivet, greta);
    for (const name of ['group dome-crew', 'field hours-logged'])
      expect(uses[name]).toContain('the text in Visit us');
    const shelf = trivet.state.outline.items.get(asId<ItemId>('lending-shelf'));
    if (!isShared(shelf)) throw new Error('There is no shelf.');
    const where = test('item group', 'includes', 'tarn-survey');
    const shared = { ...shelf.shared, on: { targets: [{ kind: 'selection', where }], except: [] } } as const;
    await updateItem(trivet.db, { item: { ...shelf, shared }, content: { summary: '', body: '' } });
    await trivet.reload();
    expect((await namesReport(trivet, greta)).uses['group tarn-survey']).toContain('The lending shelf');
  });
});
