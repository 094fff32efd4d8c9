/** What learners of Larkfell have handed in, and what became of it. */
import { addDays, asId, type Day } from '@/core';
import type { HandIn } from '@/store';

const work = (
  person: string,
  version: number,
  at: Day,
  text: string,
  over: Partial<HandIn> = {},
): HandIn => ({
  id: `your-picture-${person}-${version}`,
  person: asId(person),
  activity: asId('your-picture'),
  version,
  text,
  at: new Date(`${at}T21:40:00Z`),
  state: 'waiting',
  score: null,
  words: '',
  by: '',
  judged: null,
  ...over,
});

export const workOn = (today: Day): readonly HandIn[] => [
  work(
    'lio',
    1,
    addDays(today, -4),
    `Twenty-six pictures of ninety seconds, through the small dome’s old refractor, of the double cluster. I threw away four for clouds and one because I walked past with the torch on.

I did not take flats. You can see where the dust was.`,
  ),
  work(
    'sunniva',
    1,
    addDays(today, -12),
    'My class and I left the shutter open on the lawn for twenty minutes. It is mostly a neighbour’s security light.',
    {
      state: 'given back',
      words:
        'I like that you kept it. Come up on a Thursday, ask for the red filter, and take it again with thirty seconds and a hundred tries; then write what changed.',
      by: 'Edda Quill',
      judged: new Date(`${addDays(today, -9)}T19:05:00Z`),
    },
  ),
  work(
    'sunniva',
    2,
    addDays(today, -1),
    `Ninety-one pictures of thirty seconds this time, of the same piece of sky. The security light is still there, but it stands still while the stars go round, so one can take it away.

What changed: everything that I was afraid of in the first picture is now at the edge of it.`,
  ),
];
