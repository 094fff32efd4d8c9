/** The posts of Larkfell, by category. */
import { readFileSync } from 'node:fs';
import { addDays, type Day } from '@/core';
import type { ItemInFile } from '@/services';

/** A file of the demo, in base64. */
const data = (name: string): string => readFileSync(new URL(`./pictures/${name}`, import.meta.url), 'base64');

/** A picture in something: in the site itself, it stands for itself. */
export const picture = (
  id: string,
  parent: string,
  name: string,
  title: string,
  alt: string,
  facts: ItemInFile['facts'] = {},
): ItemInFile => ({
  kind: 'file',
  id,
  parent,
  title,
  name: `${name}.webp`,
  alt,
  data: data(`${name}.webp`),
  facts,
});

export const video = (id: string, parent: string, name: string, title: string): ItemInFile => ({
  kind: 'file',
  id,
  parent,
  title,
  name: `${name}.webm`,
  data: data(`${name}.webm`),
});

interface Told {
  readonly id: string;
  readonly title: string;
  readonly author: string;
  /** How many days ago it was written. */
  readonly ago: number;
  readonly tags: readonly string[];
  readonly summary?: string;
  readonly body: string;
  /** What it shows, with the name of the picture. */
  readonly shows?: readonly [name: string, alt: string];
}

const FIELD_NOTES: readonly Told[] = [
  {
    id: 'mist-stayed-below',
    title: 'The night the mist stayed below',
    author: 'Wren Halloran',
    ago: 11,
    tags: ['autumn', 'weather'],
    summary: 'We drove up through the mist and came out under the clearest sky of the autumn.',
    shows: ['mist', 'A valley filled with mist at dusk, hills standing out of it'],
    body: `We drove up through it, headlights useless, and came out at the cattle grid under the clearest sky of the autumn. The valley was a white lake with three islands. Nobody said anything for a while.

Then Ines opened the dome, and the hinges said it for us.

## What we saw

The band of the galaxy stood on its end in the west, with the dark rift in it as plain as a crack in a plate. A visitor who had come for Saturn asked whether somebody had left a cloud there. Nobody had.

By two the mist had risen to the second bend. We locked up and waited in the lower room until it sank again, which it did at four, and drove home through sheep.`,
  },
  {
    id: 'halo',
    title: 'A ring around a winter moon',
    author: 'Priya Lundqvist',
    ago: 26,
    tags: ['moon', 'open night'],
    summary: 'Forty visitors had come for Saturn. The sky had other plans, and they were better.',
    shows: ['halo', 'The Moon with a wide pale ring around it, above a dark hill with a dome'],
    body: `A thin veil, a halo of twenty-two degrees, and forty visitors who had come for Saturn. We showed them the halo.

You can measure one with your own hand. Stretch the arm out, spread the fingers: from the tip of the thumb to the tip of the little finger is about twenty degrees. Put the thumb on the Moon. If the little finger touches the ring, it is ice that you are looking through, six-sided and falling slowly, ten kilometres up.

Two of them came back the next week to ask how it is done properly. We put them on the rota.`,
  },
  {
    id: 'pebbles',
    title: 'Counting meteors with mittens on',
    author: 'Jonah Birk',
    ago: 43,
    tags: ['meteors', 'method'],
    body: `You can hold a pencil or keep your fingers. We settled on pebbles: one from the left pocket to the right for every streak. By four in the morning my right pocket was heavier by sixty-one.

The method has one flaw, which is that I had seven pebbles in the left pocket that I had forgotten from the summer. Priya says the honest number is therefore *sixty-one, give or take the summer*.

Next year: beans.`,
  },
  {
    id: 'new-steps',
    title: 'New steps to the lawn',
    author: 'Greta Holm',
    ago: 64,
    tags: ['the hill'],
    body: `There are eleven new steps between the parking and the lawn, cut by the Grounds team over three Sundays and edged in oak from the fallen tree by the gate.

They are painted on the edge with a white that can be seen by starlight and does not shine back into anybody's eye. Go up them slowly the first time: your feet still know the old ones.`,
  },
];

const NIGHT_LOGS: readonly Told[] = [
  {
    id: 'first-light',
    title: 'First light of the long refractor',
    author: 'Ines Calloway',
    ago: 6,
    tags: ['instruments', 'deep sky'],
    summary: 'After two years on trestles, the long refractor saw a star on Tuesday. It was round.',
    shows: ['cloud-band', 'The band of the galaxy from corner to corner'],
    body: `At 21:14 UT the cap came off, and at 21:15 there was a star in the field, and it was round. We all looked, one after the other, and nobody wanted to be the first to touch the focus.

| object | power | note |
|---|---:|---|
| double in the Lantern | 180 | split, with dark between |
| the Ram's eye | 90 | a hard white point |
| small smudge below the Swan | 60 | two, not one |

The drive runs true to two seconds an hour with the new worm. There is still a faint ghost of the bright stars to the lower left: the second baffle, we think. Wren has the drawing.`,
  },
  {
    id: 'comet-from-the-lawn',
    title: 'The comet from the lawn',
    author: 'Tobin Aske',
    ago: 18,
    tags: ['comet'],
    summary: 'A tail of nine degrees to the bare eye, and a second, bluish one for those who waited.',
    shows: ['comet', 'A comet with a long tail above a dark ridge, the last light in the west'],
    body: `Clear from dusk. The comet stood two hands above the western wall as soon as it was dark enough to see the wall.

To the bare eye: nine degrees of tail, straight, brightest along its northern edge. In the seven-by-fifties a second tail, thinner and bluer, five degrees off the first. It faded when the Moon's glow came up behind the ridge at 20:50, and by nine it was gone.

Estimates of the head: 3.4, 3.6, 3.3. Observers without glasses were asked to squint, and gave 3.5.`,
  },
  {
    id: 'variable-l14',
    title: 'L-14 is fading early',
    author: 'Edda Quill',
    ago: 33,
    tags: ['variables', 'method'],
    summary: 'The variable on chart L-14 is a month ahead of everything we wrote down before.',
    body: `Seven estimates in nine nights: 8.9, 9.0, 9.0, 9.2, 9.4, 9.5, 9.7. It should not have begun before the solstice.

Either the period has changed, or we have been using the wrong comparison star since the chart was redrawn. Both would be interesting, and only one would be embarrassing. Please estimate it twice each clear night, once against *c* and once against *f*, and write down both.`,
  },
  {
    id: 'ringed-planet',
    title: 'Six belts and a division',
    author: 'Ines Calloway',
    ago: 52,
    tags: ['planets'],
    summary: 'For eleven minutes the air stood still, and the planet was a drawing of itself.',
    shows: ['planet', 'A ringed planet, belts across its face'],
    body: `Bad seeing until one. Then, for eleven minutes, the air stood still, and the planet was a drawing of itself: six belts, the division all the way round, and the shadow of the globe on the ring with a bite out of it where the gap lets the dark through.

Power 240 would have carried more. We had 240 in, and nobody dared to change it.`,
  },
];

const KIT_REVIEWS: readonly Told[] = [
  {
    id: 'three-eyepieces',
    title: 'Three eyepieces for the eight-inch',
    author: 'Edda Quill',
    ago: 9,
    tags: ['eyepieces'],
    summary: 'What three middling eyepieces do at the edge of the field, measured rather than felt.',
    shows: ['eyepieces', 'Three eyepieces on a wooden table'],
    body: `We put the society's three long eyepieces into the eight-inch on the same night, on the same double, at the centre and at seven tenths of the field.

- **The old brass one** is as sharp in the middle as either of the others and hopeless outside it. Lovely for the Moon.
- **The wide one** shows you half as much sky again, and bends all of it.
- **The plain one** is the one to take. Edge stars stay points to nine tenths.

All three hang in the drawer under the bench. The wide one's cap is a jam-jar lid; please put it back.`,
  },
  {
    id: 'red-torches',
    title: 'Seven red torches, in the dark',
    author: 'Wren Halloran',
    ago: 29,
    tags: ['on the lawn'],
    summary: 'Which red is red enough, how long they last in frost, and which can be worked with mittens.',
    body: `We let the eye adapt for forty minutes, then looked at the same chart by each torch for one minute, and timed how long it took to see the faintest star on it again.

The two cheapest were the best: a deep red, and so dim that you bring the chart to your nose. The one with three brightnesses costs the eye eleven minutes at its lowest. The one on a headband is good for knots and bad for neighbours.

In frost, only the two with the big cells lasted the night.`,
  },
  {
    id: 'dew-heaters',
    title: 'A sock, a resistor and a dry lens',
    author: 'Cora Venn',
    ago: 47,
    tags: ['dew', 'made here'],
    summary: 'A heater for a finder, made of a sock. It works, and we say how.',
    body: `Nine resistors in a row in a woollen sock, a quarter of a watt each, and a battery from a bicycle lamp. The finder stayed dry from dusk to four at minus three.

Sew the sock, do not glue it. Glue smells, and the smell is in the tube for a month.`,
  },
  {
    id: 'folding-chairs',
    title: 'Chairs to observe from',
    author: 'Jonah Birk',
    ago: 71,
    tags: ['on the lawn'],
    summary: 'Four chairs, three nights, one clear winner.',
    body: `The eye sees about half a magnitude more when its owner sits well. That is cheaper than any lens.

Of four chairs, the winner is the one with a seat that slides on two rails: it goes as low as a child's stool and as high as the finder of the big dome. It weighs nine kilos, which is the price.`,
  },
];

const CREW_BULLETINS: readonly Told[] = [
  {
    id: 'shutter-in-frost',
    title: 'The north shutter in frost',
    author: 'Ines Calloway',
    ago: 3,
    tags: ['dome'],
    body: `Warm the rail with the hand lamp before the first opening, a full minute at each end. If the chain jumps, stop, call, and go down. Do not pull.

The new rain sensor is on the bench. It goes in on the first dry Sunday.`,
  },
  {
    id: 'ladder-lamp',
    title: 'The lamp over the ladder',
    author: 'Wren Halloran',
    ago: 16,
    tags: ['dome', 'safety'],
    body: `The red lamp over the ladder flickers and will go. Two spare bulbs are in the tin behind the logbook. Whoever changes it: somebody holds the ladder, also if you are tall.`,
  },
  {
    id: 'heavy-camera',
    title: 'Balance for the heavy camera',
    author: 'Ines Calloway',
    ago: 30,
    tags: ['instruments'],
    body: `The drive is balanced for the heavy camera. Take the ring of lead off before you fit the light one, and write in the book that you did. Last week it was on for three nights with nothing behind it, and the worm has a bright spot now.`,
  },
  {
    id: 'who-has-keys',
    title: 'Who has keys',
    author: 'Greta Holm',
    ago: 58,
    tags: ['keys'],
    body: `Five keys to the big dome: Ines, Wren, Cora, the hook, and one that is missing since the open night in spring. The lock is changed on the first of the month. Bring the old one.`,
  },
];

const CATEGORIES: readonly (readonly [name: string, path: string, posts: readonly Told[]])[] = [
  ['Field notes', 'field-notes', FIELD_NOTES],
  ['Night logs', 'night-logs', NIGHT_LOGS],
  ['Kit reviews', 'kit-reviews', KIT_REVIEWS],
  ['Crew bulletins', 'bulletins', CREW_BULLETINS],
];

/** The posts with their pictures; days are counted from the day on which the demo is loaded. */
export const postsOn = (today: Day): readonly ItemInFile[] =>
  CATEGORIES.flatMap(([category, path, posts]) =>
    posts.flatMap((told): readonly ItemInFile[] => [
      {
        kind: 'post',
        id: told.id,
        parent: 'site',
        title: told.title,
        address: `/${path}/${told.id}`,
        ...(told.summary !== undefined && { summary: told.summary }),
        body: told.body,
        facts: {
          category,
          author: told.author,
          tags: [...told.tags],
          date: addDays(today, -told.ago),
          ...(told.shows && { picture: `${told.id}-picture` }),
        },
      },
      ...(told.shows
        ? [picture(`${told.id}-picture`, told.id, told.shows[0], `Picture: ${told.title}`, told.shows[1])]
        : []),
    ]),
  );
