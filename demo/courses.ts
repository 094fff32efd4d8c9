/** What is taught at Larkfell: how to open the dome and close it again, and how to bring the sky home in a picture. */
import { addDays, type Day } from '@/core';
import { type ItemInFile, parts } from '@/services';
import { firstOpeningQuiz } from './quiz';

const { course, reading, unit } = parts;

const INDUCTION = '/courses/dome-operator-induction';
const ASTRO = '/courses/astrophotography';

/** Captions (WebVTT): there are no words in it, so they say what is to be seen. */
const TURNING_CAPTIONS = `WEBVTT

00:00.000 --> 00:01.400
[Silence. The hill stands dark, with the dome on it.]

00:01.400 --> 00:02.700
[The stars turn to the left about one that stays.]

00:02.700 --> 00:04.000
[Near it a second one draws a circle no larger than a coin.]
`;

export const coursesOn = (today: Day): readonly ItemInFile[] => [
  course(
    'dome-induction',
    'Dome operator induction',
    INDUCTION,
    'From the first step on the ladder to opening the dome alone: what the crew expects of you, and what you may expect of it.',
    `Nobody at Larkfell opens the dome on their first night. Nobody waits longer than they have to, either. This course takes about a month of Thursdays: a few pages to read at home, and each of them to be done once more on the hill with somebody who has done it a hundred times.

Go in your own time. What comes next opens when you are done with what comes before; what belongs to your team opens with your team. If something is locked and you think it shouldn’t be, ask Edda, who has the key to most things.`,
  ),
  unit('before-you-climb', 'dome-induction', 'Before you climb'),
  reading(
    'ladder-safety',
    'before-you-climb',
    'Ladder safety',
    `${INDUCTION}/ladder-safety`,
    `The ladder to the platform has eleven rungs and no opinion of you. It has been kind to people who respected it.

## Three points, always

Two feet and a hand, or two hands and a foot. What you carry goes up in the bucket, on the line, after you. That is what the bucket is for: not sandwiches, though it has carried those.

## Never in the dark alone

Somebody stands at the foot and says so: *I am at the foot.* You answer before you put a boot on the first rung. If nobody answers you, you are not climbing yet.

## Wet, ice, wind

Above force six the platform is closed. With ice on the seventh rung (it is always the seventh) it is closed as well. Nobody will think less of you. Everybody remembers the winter somebody thought less of the ladder.`,
  ),
  reading(
    'red-light',
    'before-you-climb',
    'Red light, and none',
    `${INDUCTION}/red-light`,
    `Your eyes take half an hour to learn the dark and a second to forget it. So do everybody else’s.

Red torches only, pointed at your feet. Telephones stay in the kitchen; the drawer with the lining is theirs. If you must have white light, for blood or for small screws, call *white* and count to five, and let people turn away.

A car coming up the lane late will flood the lawn. Whoever is nearest the gate walks down with the red lamp and meets it. Be glad of it when it is you in the car.`,
  ),
  reading(
    'opening-words',
    'before-you-climb',
    'The words of opening',
    `${INDUCTION}/opening-words`,
    `The shutter weighs as much as a small van and runs on a chain older than most of us. It is opened by two people who talk.

1. *Shutter clear?* You look along the rail, all of it, and at the platform. Only then: *Clear.*
2. *Opening.* The other one answers *opening*, or says nothing, and then you don’t.
3. A hand’s breadth, and stop. Listen. The chain sounds like a chain, or it sounds like something else.
4. *Going on.* To the mark, and the brake.

Closing is the same with one word changed. It is late then, and cold, and that is why there are words.`,
  ),
  reading(
    'night-drill',
    'before-you-climb',
    'Night drill',
    `${INDUCTION}/night-drill`,
    `Now all of it together, in the dark, with somebody who will tell you when to stop.

Bring gloves. You will open and close twice. The second time your instructor will call *stop* at a moment of their choosing, and what counts is not how quickly you do it but that you do it without asking why.

Afterwards there is tea, and you may ask why.`,
  ),
  reading(
    'first-opening-quiz',
    'before-you-climb',
    'Before your first opening',
    `${INDUCTION}/before-your-first-opening`,
    `Six questions, drawn from a few more. You may look at the pages again while you answer. On the ladder you won’t have them with you, so it is worth seeing what comes by itself.

Three out of four is enough. If it isn’t yours tonight, have tea, read again, and try once more in half an hour.`,
    { activity: 'quiz', quiz: firstOpeningQuiz },
  ),
  unit('optics-bench', 'dome-induction', 'Optics bench'),
  reading(
    'clean-hands',
    'optics-bench',
    'Clean hands, cold glass',
    `${INDUCTION}/clean-hands`,
    `Dust on a mirror costs less light than a fingerprint, and a fingerprint less than the cloth that was meant to take it away. So: we don’t wipe. We blow, we wait, and once a year we wash, together, with the good soap, and it takes an afternoon.

What you do every night is simpler. Caps on until the tube has the temperature of the air. Caps on before the shutter moves. Hands on metal, never on glass, and the gloves by the bench are there because somebody’s hands were clean as well.`,
  ),
  reading(
    'collimation',
    'optics-bench',
    'Bringing it in line',
    `${INDUCTION}/collimation`,
    `A star out of focus is a ring with a hole in it. When the hole sits in the middle, leave the screws alone. When it doesn’t, the ring is thin on one side; turn the screw on the thick side, a quarter of what you think, and look again.

Two people make this twice as quick: one turns, one looks, and they agree beforehand what *left* means.`,
  ),
  reading(
    'unattended-opening',
    'optics-bench',
    'Unattended opening',
    `${INDUCTION}/unattended-opening`,
    `You hold the certificate, so you know the words, and tonight you say both parts of them.

Before you open alone: your name in the book, the hour you expect to close, and one person at home who will ring the kitchen if you don’t ring first. The weather is looked at twice, by you, from outside.

You may always close. You never have to say why. The sky will be there on Thursday.`,
  ),
  {
    kind: 'activity',
    activity: 'video',
    id: 'why-it-turns',
    parent: 'optics-bench',
    title: 'Why the slit has to follow',
    address: `${INDUCTION}/why-the-slit-has-to-follow`,
    sections: [
      {
        type: 'video',
        id: 'why-it-turns-video',
        title: 'The sky turning',
        file: 'turning-video',
        captions: 'turning-captions',
        caption: 'The dome stands still in this one. Everything else is why it may not.',
        text: 'Nobody speaks. The dome stands on the hill with its slit towards the pole, and for an hour the stars go round to the left. Whatever you pointed at is behind the shutter within a quarter of that.',
      },
    ],
  },
  unit('grounds-round', 'dome-induction', 'Grounds round'),
  reading(
    'the-round',
    'grounds-round',
    'The round',
    `${INDUCTION}/the-round`,
    `Once before dusk, with light in the sky: gate, lane, lawn, steps, shed, dome, in this order, because it ends at the kettle.

Look for what wasn’t there last week. Molehills on the lawn where visitors will stand in the dark. The third step, which lifts. Branches over the lane at the height of a car’s roof box. Write it on the slate; do what needs two hands and ten minutes; leave the rest for Saturday.`,
  ),
  reading(
    'shed-and-mower',
    'grounds-round',
    'The shed, and the mower',
    `${INDUCTION}/shed-and-mower`,
    `The shed door sticks so that the wind can’t open it. Lift, then pull.

The mower is called Comet: it comes rarely, and with a tail. Fuel in the red can, never inside the shed; blade off before you look at it; long grass by the north wall stays long, because of the orchids.`,
  ),
  {
    kind: 'activity',
    activity: 'hand-in',
    id: 'first-round-written',
    parent: 'grounds-round',
    title: 'Your first round, written down',
    address: `${INDUCTION}/your-first-round`,
    task: { text: true, files: 1, kinds: ['pictures'], megabytes: 5 },
    body: `After your first round alone, write down what you saw, in the order in which you saw it, and one thing that you left for Saturday. Ten lines are plenty. A picture of the slate will do if it is legible, which after rain it isn’t.

It is not a test. It is read by whoever goes round next week.`,
  },
  {
    ...course(
      'astrophotography',
      'Astrophotography',
      ASTRO,
      'A camera, a steady mount, and patience: from your first star trail to a picture you would hang on a wall.',
      `Six evenings’ worth of reading, in two parts. The first is for everybody: it needs a camera that can be told how long to look, and something to stand it on. The second is for those who are enrolled; it takes you to the small dome, where the mount turns with the sky.`,
    ),
    // The school comes up with a class each winter.
    enrolling: { groups: [{ group: 'hollin-school', since: addDays(today, -20) }] },
  } as ItemInFile,
  unit('first-light-unit', 'astrophotography', 'Your first night'),
  reading(
    'star-trails',
    'first-light-unit',
    'Star trails from the lawn',
    `${ASTRO}/star-trails`,
    `Point at the pole, or don’t: both make circles, one of them makes you dizzy. Thirty seconds at a time, a hundred times, is better than fifty minutes at once. If a car comes, you lose one; if the battery goes, you keep ninety.

Focus on the brightest star there is, at the largest magnification your camera shows, and then put tape on the ring. Everybody touches the ring.`,
    { doneWhen: 'opened' },
  ),
  {
    kind: 'activity',
    activity: 'video',
    id: 'watch-it-turn',
    parent: 'first-light-unit',
    title: 'Watch it turn',
    address: `${ASTRO}/watch-it-turn`,
    sections: [
      {
        type: 'video',
        id: 'watch-it-turn-video',
        title: 'The sky turning',
        file: 'turning-video',
        captions: 'turning-captions',
        caption: 'An hour in four seconds. Find the star that stays, and the one that nearly does.',
        text: 'There are no words in it. The hill stands dark at the foot of the picture with the dome on it; above, the stars go round to the left about one that does not move, half way up. Near it a second one draws a circle no larger than a coin.',
      },
    ],
  },
  {
    kind: 'file',
    id: 'turning-captions',
    parent: 'watch-it-turn-video',
    title: 'The sky turning, in words',
    name: 'turning.vtt',
    data: Buffer.from(TURNING_CAPTIONS).toString('base64'),
  },
  unit('small-dome-unit', 'astrophotography', 'In the small dome'),
  reading(
    'darks-and-flats',
    'small-dome-unit',
    'Darks, flats, and why',
    `${ASTRO}/darks-and-flats`,
    `Your camera sees things that aren’t there: warm pixels, its own amplifier, the dust on its window. Photograph only those, and take them away.

Darks are made with the cap on, for as long as your pictures, at the same temperature. Flats are made of an even light: the inside of the dome at dusk will do, or a white shirt. Make them every time. The night you don’t is the night with the hair on the glass.`,
  ),
  reading(
    'adding-up',
    'small-dome-unit',
    'Adding it up',
    `${ASTRO}/adding-up`,
    `What is there is there in every picture, and what isn’t comes and goes. Forty pictures of two minutes, laid on each other and divided by forty, are quieter than one of eighty minutes ever was.

Throw away the one with the aeroplane. Throw away the one you like best, if it is blurred. Then look at the histogram and, for once, not at the picture.`,
  ),
  {
    kind: 'activity',
    activity: 'hand-in',
    id: 'your-picture',
    parent: 'small-dome-unit',
    title: 'Your picture, and how it came about',
    address: `${ASTRO}/your-picture`,
    task: { text: true, files: 2, kinds: ['pictures', 'pdf'], megabytes: 8 },
    body: `One picture of your own, taken in the small dome or on your own lawn, and half a page on how it came about: what you pointed at, for how long and how often, what went wrong, and what you left out.

It need not be good. It needs to be yours, and you need to know why it looks the way it does. Edda looks at everything that comes in, usually on the next cloudy evening; if she gives it back, she says what one more night would bring.`,
  },
];
