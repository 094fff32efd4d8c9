/** Files from when courses and activities were names: what they meant is there, and nobody sees it yet. */
import { expect, it } from 'vitest';
import type { SiteFile } from '.';
import { readSiteFile } from './read-site-file';

const file = (over: Partial<SiteFile> = {}): SiteFile => ({
  format: 'trivet site',
  version: 1,
  levels: [],
  roles: [],
  groups: [],
  courses: [
    { id: 'induction', name: 'Induction' },
    { id: 'odd', name: 'Odd' },
  ],
  activities: [{ id: 'ladder', name: 'Ladder safety' }],
  people: [
    {
      id: 'wren',
      name: 'Wren',
      email: 'wren@larkfell.example',
      enrolments: [{ course: 'induction', on: '2026-10-01' }],
      completions: [{ activity: 'ladder', on: '2026-10-02', score: 92 }],
    },
  ],
  items: [
    { kind: 'site', id: 'site', parent: null, title: 'Site' },
    { kind: 'page', id: 'home', parent: 'site', title: 'Home', address: '/', body: 'Text' },
  ],
  policy: {
    gates: [
      {
        id: 'g',
        what: { targets: [{ kind: 'item', item: 'home' }], except: [] },
        who: 'enrolled in "Induction" and completed "Ladder safety"',
        otherwise: { cases: [], last: { kind: 'missing' } },
        stance: 'also',
      },
    ],
  },
  ...over,
});
const read = async (over?: Partial<SiteFile>) => {
  const found = await readSiteFile(file(over));
  if ('problems' in found) throw new Error(found.problems.join('\n'));
  return found;
};

it('makes unpublished items of them, with their ids', async () => {
  const { outline, names, policy, people } = await read();
  const kinds = [...outline.items.values()].map(({ kind, title, published }) => [kind, title, published]);
  expect(kinds).toEqual(
    expect.arrayContaining([
      ['course', 'Induction', false],
      ['course', 'Odd', false],
      ['activity', 'Ladder safety', false],
    ]),
  );
  expect(names.courses.map(({ name }) => name)).toEqual(['Induction', 'Odd', 'Activities']);
  expect(names.activities).toEqual([{ id: 'ladder', name: 'Ladder safety' }]);
  expect(policy.gates[0]?.who).toMatchObject({
    of: [
      { fact: 'enrolled', subject: 'induction' },
      { fact: 'completed', subject: 'ladder' },
    ],
  });
  expect(people?.[0]).toMatchObject({
    enrolments: [{ course: 'induction', on: '2026-10-01', until: null }],
    completions: [{ item: 'ladder', on: '2026-10-02', score: 92 }],
  });
});

it('leaves alone what is an item of the file already', async () => {
  const { outline } = await read({
    items: [
      ...file().items,
      { kind: 'course', id: 'induction', parent: 'site', title: 'Induction', address: '/induction' },
    ],
  });
  const courses = [...outline.items.values()].filter(({ kind }) => kind === 'course');
  expect(courses.map(({ title, published }) => [title, published])).toEqual([
    ['Induction', true],
    ['Odd', false],
    ['Activities', false],
  ]);
});

it('says of records what they name and is not there', async () => {
  const people = file().people?.map((one) => ({
    ...one,
    enrolments: [{ course: 'ladder', on: '2026-10-01' }],
    completions: [{ item: 'gone', on: '2026-10-02' }],
  }));
  const found = await readSiteFile(file({ people }));
  expect('problems' in found && found.problems).toEqual([
    'Wren: there is no course "ladder".',
    'Wren: there is nothing to complete called "gone".',
  ]);
});
