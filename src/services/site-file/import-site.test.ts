import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { larkfell } from '../../../demo/larkfell';
import { importSite, readSiteFile, type Trivet } from '..';
import { openEmpty, openLarkfell } from '../testing';

let trivet: Trivet;

beforeAll(async () => {
  trivet = await openLarkfell();
});
afterAll(() => trivet.close());

describe('loading a site', () => {
  // What is wrong with a file is found without a database.
  const problemsOf = async (over: object): Promise<readonly string[]> => {
    const read = await readSiteFile({ ...larkfell, ...over });
    return 'problems' in read ? read.problems : [];
  };

  it('lists every problem and loads nothing', async () => {
    const people = [
      { id: 'a', name: 'A', email: 'a@larkfell.example', level: 'duke' },
      { id: 'b', name: 'B', email: 'A@larkfell.example', groups: ['nowhere'] },
    ];
    const fresh = await openEmpty();
    expect(await importSite(fresh, { ...larkfell, people, board: [] }, 'Somebody')).toEqual([
      'A: there is no level "duke".',
      'B: there is no group "nowhere".',
      'B: somebody else has the same mail address.',
    ]);
    expect(fresh.hasSite).toBe(false);
    await fresh.close();
  });

  it('refuses addresses that are Trivet’s own or not in their normal spelling', async () => {
    const withAddress = (address: string) =>
      larkfell.items.map((item) => (item.id === 'visit' ? { ...item, address } : item));
    expect((await problemsOf({ items: withAddress('/Desk/') }))[0]).toMatch(
      /can't have the address \/Desk\//,
    );
    expect((await problemsOf({ items: withAddress('/desk') }))[0]).toMatch(/belongs to Trivet/);
  });

  it('reads conditions in the text form, and says where one is wrong', async () => {
    const [gate] = (larkfell.policy as { gates: object[] }).gates;
    const wrong = { gates: [{ ...gate, id: 'g', who: 'signed in\n and in group "Dome crwe"' }] };
    expect(await problemsOf({ policy: wrong })).toEqual([
      'gate g, line 2, column 15: There is no group called “Dome crwe”. Did you mean “Dome crew”?',
    ]);
    const cyclic = {
      gates: [],
      audiences: [
        { id: 'a', name: 'A', who: 'audience "B"' },
        { id: 'b', name: 'B', who: 'not audience "A"' },
      ],
    };
    expect(await problemsOf({ policy: cyclic })).toEqual([
      'gate a: An audience can’t be made of itself: A → B → A. Take one of these uses out.',
    ]);
  });

  it('refuses values that a field can’t hold, and a time zone that is not there', async () => {
    const people = [
      {
        id: 'a',
        name: 'A',
        email: 'a@larkfell.example',
        profile: { team: 'Kitchen', 'hours-logged': 'ten' },
      },
    ];
    expect(await problemsOf({ people, board: [] })).toEqual([
      'A: team is one of Optics, Grounds, Visits.',
      'A: hours logged is a number.',
    ]);
    expect((await problemsOf({ timeZone: 'Nowhere/Land' }))[0]).toContain('That is no time zone.');
  });

  it('does not load over a site that is there', async () => {
    expect(await importSite(trivet, larkfell, 'Somebody')).toHaveLength(1);
  });
});
