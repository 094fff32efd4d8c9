/** What an owner wishes of their site: its name and words, its colours and picture, what new members start with. */
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { asId, COLOURS, guest, type ItemId, type LevelId, type VisitorFacts } from '@/core';
import { readOutbox, updateItem, updateSettings } from '@/store';
import {
  type Administrator,
  coloursNamed,
  confirmSignUp,
  editSettings,
  frameFor,
  importSite,
  openSettings,
  READY_MADE,
  startSignUp,
  type Trivet,
} from '..';
import { siteAsFile } from '../site-file';
import { gretaAt, liveContext, now, openEmpty, openLarkfell } from '../testing';
import { firstStepsOf } from './first-steps';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());
afterEach(async () => {
  await trivet.change(() =>
    updateSettings(trivet.db, {
      look: null,
      words: { foot: '', missing: '' },
      starts: { level: null, roles: [], groups: [], asks: [] },
    }),
  );
});

/** Keeps the settings as they are but for some; answers what is wrong. */
function keep(over: object): ReturnType<typeof editSettings> {
  const { given: _, home: __, ...settings } = openSettings(trivet, greta);
  return editSettings(trivet, greta, { ...settings, ...over }, now);
}

const frameOf = (facts: VisitorFacts) => frameFor(liveContext(trivet.state, facts), null);
const frame = () => frameOf(guest);
const look = (over: object) => ({ ...COLOURS, picture: null, ...over });

describe('the name and the words of a site', () => {
  it('stand where they are to, and come back as they were written', async () => {
    const site = {
      name: 'Larkfell & Co',
      signIn: 'Come *in*.',
      foot: '[Visit us](/visit), [the crew](/crew)',
      missing: '# Nothing',
    };
    const before = openSettings(trivet, greta).site;
    expect(await keep({ site })).toBeNull();
    expect(openSettings(trivet, greta).site).toEqual(site);
    const shown = frame();
    expect(shown).toMatchObject({
      siteTitle: 'Larkfell & Co',
      missing: expect.stringContaining('Nothing</h1>'),
    });
    // A link to what is closed to its reader is words.
    expect(shown.foot).toContain('<a href="/visit">');
    expect(shown.foot).not.toContain('/crew');
    const crew = [...trivet.state.people.values()].find(({ groups }) =>
      groups.some((one) => one === 'dome-crew'),
    );
    expect(frameOf(crew?.facts ?? guest).foot).toContain('<a href="/crew">');
    expect(await keep({ site: before })).toBeNull();
  });

  it('are the same for everybody, and readable', async () => {
    const { site } = openSettings(trivet, greta);
    for (const foot of [':::for signed in\nHidden\n:::', 'Hello :own[name]', '- ::: x'])
      expect(await keep({ site: { ...site, foot } })).toEqual({
        'site.foot': expect.stringMatching(/same for everybody/),
      });
    expect(await keep({ site: { ...site, missing: '['.repeat(15_000) } })).toHaveProperty('site.missing');
    expect(await keep({ site: { ...site, name: ' ' } })).toEqual({ 'site.name': 'Give the site a name.' });
    expect(openSettings(trivet, greta).site).toEqual(site);
  });
});

describe('how a site looks', () => {
  it('is kept when it can be read, and is a style sheet at an address of its own', async () => {
    expect(frame().colours).toBeNull();
    expect(await keep({ look: look({ head: '#5a2a6b' }) })).toBeNull();
    const { colours } = frame();
    expect(coloursNamed(trivet.state, colours ?? '')).toContain('--night:#5a2a6b');
    expect(await keep({ look: look({ head: '#124' }) })).toEqual({
      'look.head': expect.stringMatching(/six digits/),
    });
    expect(await keep({ look: look({ link: '#ffcc00' }) })).toEqual({
      'look.link': expect.stringMatching(/contrast of 1\.\d to 1.* #[0-9a-f]{6} would do\.$/),
    });
    expect(frame().colours).toBe(colours);
    expect(await keep({ look: look({}) })).toBeNull();
    expect(frame().colours).toBeNull();
    expect(coloursNamed(trivet.state, colours ?? '')).toBeNull();
  });

  it('has a picture for those alone who may open it', async () => {
    const pictures = [...trivet.state.outline.items.values()].filter(
      (item) => item.kind === 'file' && item.mediaType.startsWith('image/'),
    );
    const shown = new Set<boolean>();
    for (const { id } of pictures) {
      expect(await keep({ look: look({ picture: id }) })).toBeNull();
      const guests = frame().picture;
      if (guests !== null) expect(guests).toContain(`/files/${id}/`);
      shown.add(guests !== null);
    }
    // The demo has open ones and closed ones.
    expect(shown).toEqual(new Set([true, false]));
    expect(await keep({ look: look({ picture: 'visit' }) })).toHaveProperty(['look.picture']);
  });
});

it('says of a site that has hardly begun what comes first, and of no other', async () => {
  expect(firstStepsOf(trivet.state)).toBeNull();
  const begun = await openEmpty();
  const start = { title: 'Hazel', timeZone: 'UTC', today: '2026-11-20' };
  const owner = {
    id: 'una',
    name: 'Una',
    email: 'una@hazel.example',
    desk: { right: 'owner' as const, branch: null },
  };
  expect(await importSite(begun, { ...READY_MADE.empty.site(start), people: [owner] }, 'Una')).toEqual([]);
  expect(firstStepsOf(begun.state)).toEqual({ written: false, settled: false, peopled: false });
  const { outline } = begun.state;
  const home = [...outline.addressed.values()].find(({ address }) => address === '/');
  const [text] = outline.children.get(home?.id as ItemId) ?? [];
  await begun.change(() =>
    updateItem(begun.db, { item: text as never, content: { summary: '', body: 'We sing.' } }),
  );
  await begun.change(() => updateSettings(begun.db, { words: { foot: 'Hazel', missing: '' } }));
  expect(firstStepsOf(begun.state)).toEqual({ written: true, settled: true, peopled: false });
  await begun.close();
});

describe('what new members start with', () => {
  const signUp = async (email: string, typed: object = {}) => {
    const sent = await startSignUp(
      trivet,
      { name: 'Nell Ashby', email, password: 'a long password', ...typed },
      email,
      now,
    );
    if (sent.kind !== 'sent') throw new Error(sent.kind);
    const [letter] = await readOutbox(trivet.db, 1);
    const code = /\b(\d{6})\b/.exec(letter?.text ?? '')?.[1];
    const done = await confirmSignUp(
      trivet,
      { token: sent.token, code },
      { from: email, passphrases: [] },
      now,
    );
    expect(done.kind).toBe('done');
    return [...trivet.state.people.values()].find((one) => one.email === email);
  };

  it('they have from the moment of signing up, as far as there still is such a thing', async () => {
    const { levels, groups } = trivet.state.names;
    const level = levels[0]?.id;
    const group = groups[0]?.id ?? '';
    expect(await keep({ starts: { level, roles: [], groups: [group] } })).toBeNull();
    expect(await signUp('one@larkfell.example')).toMatchObject({
      level,
      groups: [group],
      groupsSince: { [group]: '2026-11-20' },
      desk: null,
    });
    await trivet.change(() =>
      updateSettings(trivet.db, {
        starts: { level: asId<LevelId>('gone'), roles: [asId('gone')], groups: [], asks: [asId('gone')] },
      }),
    );
    expect(openSettings(trivet, greta).starts).toEqual({ level: null, roles: [], groups: [], asks: [] });
    expect(await signUp('two@larkfell.example')).toMatchObject({ level: null, roles: [], groups: [] });
    expect(await keep({ starts: { level: 'gone', roles: [], groups: [] } })).toEqual({
      starts: 'There is no level "gone".',
    });
  });

  it('they are asked for what is theirs to fill in, and it is kept once they have shown whose mailbox it is', async () => {
    const { fields } = trivet.state.names;
    const [flag] = fields.filter(({ editable, type }) => editable && type === 'yes/no');
    const [text] = fields.filter(({ editable, type }) => editable && type === 'text');
    const [closed] = fields.filter(({ editable }) => !editable);
    expect(await keep({ starts: { asks: [closed?.id] } })).toHaveProperty('starts');
    expect(await keep({ starts: { asks: [flag?.id, text?.id] } })).toBeNull();
    const typed = {
      [`field-${flag?.id}`]: 'true',
      [`field-${text?.id}`]: ' Sett ',
      [`field-${closed?.id}`]: 'x',
    };
    const one = await signUp('three@larkfell.example', typed);
    expect(one?.profile).toEqual({ [flag?.id ?? '']: true, [text?.id ?? '']: 'Sett' });
    expect(
      await startSignUp(
        trivet,
        {
          name: '',
          email: 'four@larkfell.example',
          password: 'a long password',
          [`field-${flag?.id}`]: 'perhaps',
        },
        'elsewhere',
        now,
      ),
    ).toMatchObject({
      kind: 'wrong',
      problems: { name: 'Type your name.', [`field-${flag?.id}`]: expect.any(String) },
    });
    expect((await signUp('five@larkfell.example'))?.profile).toEqual({});
  });

  it('stands in the site file with the rest', async () => {
    const picture = [...trivet.state.outline.items.values()].find(
      (item) => item.kind === 'file' && item.mediaType.startsWith('image/'),
    )?.id as ItemId;
    await keep({
      look: look({ picture }),
      starts: { level: null, roles: ['keyholder-not-there'], groups: [] },
    });
    await keep({ look: look({ picture }) });
    expect(await siteAsFile(trivet, 'nobody')).toMatchObject({
      look: { ...COLOURS, picture },
      words: { foot: '', missing: '' },
      starts: { level: null, roles: [], groups: [], asks: [] },
    });
  });
});
