/** The pages of Larkfell and its top menu, in the order in which they stand. */
import type { SiteFile } from '@/services';

type Item = SiteFile['items'][number];
type Page = Extract<Item, { kind: 'page' }>;
type Target = Extract<Item, { kind: 'link' }>['target'];

const page = (
  id: string,
  parent: string,
  title: string,
  address: string,
  summary: string,
  body: string,
): Page => ({
  kind: 'page',
  id,
  parent,
  title,
  address,
  summary,
  body,
});
const link = (id: string, parent: string, title: string, target: Target): Item => ({
  kind: 'link',
  id,
  parent,
  title,
  target,
});
const to = (item: string): Target => ({ kind: 'item', item });

const pages: readonly Page[] = [
  page(
    'home',
    'site',
    'Home',
    '/',
    'Larkfell Observatory is run by volunteers on the edge of the moor.',
    `# A dark hill, a good dome, and room for you

Larkfell stands four hundred metres up, on the edge of the moor, where the nearest street lamp is nine kilometres away. The dome was raised by volunteers, and volunteers still open it, every clear Thursday and whenever something worth climbing for is in the sky.

## What happens here

Most nights are quiet ones. Somebody measures a variable star, somebody else boils a kettle. On **open nights** the hill belongs to visitors: we show the Moon to whoever comes up the lane, and stay until the last question is answered.

## Come up

You need no telescope, no membership and no knowledge. Bring a coat warmer than you think, a red torch if you have one, and shoes that don't mind mud. [Visit us](/visit) tells you how to find the gate in the dark.`,
  ),
  page(
    'visit',
    'site',
    'Visit us',
    '/visit',
    'When we open, how to find us, and what to wear.',
    `**Open nights** are on Thursdays from an hour after sunset, September to April. If the cloud is solid by six, a notice goes up on the gate.

## Finding the gate

Take the moor road from Hollin as far as the cattle grid, then the track on the left. Dip your headlights at the second bend: from there on, you are in our sky.

| | |
|---|---|
| Track | 1.2 km, rough, fit for any car driven gently |
| Parking | thirty places on the turf below the dome |
| Step-free | to the lawn and the lower room, not to the dome |
| Dogs | on a lead, and not in the dome |

## What to wear

One layer more than feels reasonable. It is colder at the eyepiece than anywhere else on the hill.`,
  ),
  page(
    'field-notes',
    'site',
    'Field notes',
    '/field-notes',
    'Short accounts of nights and days on the hill, for anybody to read.',
    `Short accounts from the hill, open to everyone.

## The night the mist stayed below

We drove up through it, headlights useless, and came out at the cattle grid under the clearest sky of the autumn. The valley was a white lake with three islands. Nobody said anything for a while. Then Ines opened the dome, and the hinges said it for us.

## A ring around a winter moon

A thin veil, a halo of twenty-two degrees, and forty visitors who had come for Saturn. We showed them the halo. Two of them came back the next week to ask how it is measured.

## Counting meteors with mittens on

You can hold a pencil or keep your fingers. We settled on pebbles: one from the left pocket to the right for every streak. By four in the morning Jonah's right pocket was heavier by sixty-one.`,
  ),
  page(
    'join',
    'site',
    'Join us',
    '/join',
    'Three ways to belong, and what each one opens.',
    `There are three ways to belong to Larkfell. Each includes everything before it.

| | a year | what it opens |
|---|---:|---|
| **Friend** | 24 | the night logs, and a vote at the spring meeting |
| **Observer** | 60 | the Observers' room: charts, and booking of the small dome |
| **Keeper** | 140 | the Keepers' evening, and a key to the lower room |

Under twenty-one or out of work, all three cost half. Nobody has to say why.

To join, come to an open night or write to the secretary. Buying a pass on these pages comes later this winter.`,
  ),
  page(
    'account',
    'site',
    'My account',
    '/account',
    'Your place at Larkfell.',
    `This page is yours: it opens only when you are signed in.

## Your membership

Your level, your groups and what they open are kept by the secretary. If something looks wrong, say so at the next open night; it is put right while you wait.

## Your password

Everybody in this demonstration shares one password. On a real site, this is where you would change it.`,
  ),
  page(
    'tonight',
    'site',
    'Tonight’s sky',
    '/tonight',
    'What is up after dark, hour by hour.',
    `**Dusk.** The evening planet hangs over the western wall, low and unblinking. It sets before the dew comes down.

**Nine o'clock.** The great square stands on its corner in the south. Follow its left side upwards to the smudge that is a galaxy; from our lawn, you need no glass for it.

**Midnight.** The winter hunters climb out of the moor. If the air is still, the sword's middle star is clearly not a star.

**Towards dawn.** The Moon rises late and thin, with the dark part lit by the Earth.`,
  ),
  page(
    'observers',
    'site',
    'Observers’ room',
    '/observers',
    'Charts, measurements and the booking of the small dome, for those who observe with us.',
    `Welcome to the table by the stove. Everything here is made by Observers for Observers.

## On the table this month

- The **finder charts** for the four long-period variables are redrawn, with the comparison stars checked by two people.
- The small dome's drive runs eleven seconds slow in an hour. Start from the east and you will not notice.
- Whoever borrowed the blue notebook: page 40 is wanted.

## How to send in a measurement

Write the date, the time in UT, the instrument, the estimate and your initials. Doubtful values are welcome if you mark them as doubtful.`,
  ),
  page(
    'charts',
    'observers',
    'Charts',
    '/observers/charts',
    'Finder charts for the season, ready to print.',
    `Charts for this season. North is up unless the chart says otherwise; the circle is the field of the eight-inch with the long eyepiece.

| chart | field | limiting magnitude |
|---|---|---|
| L-14 | the Ram's head | 11.2 |
| L-15 | beneath the Swan's wing | 12.0 |
| L-16 | between the Twins | 11.6 |
| L-17 | the Little Ladder | 12.4 |

Print them on the grey paper in the drawer. White paper ruins the eye for ten minutes.`,
  ),
  page(
    'sample-chart',
    'charts',
    'A sample chart',
    '/sample-chart',
    'One of our charts, for anyone who wonders what they look like.',
    `This is chart **L-09**, the Owl's Lantern, as our Observers use it at the eyepiece.

- Start at the bright pair in the upper left, one finger's width apart.
- Step down along three stars of falling brightness.
- The variable is the fourth. If you can't see it, it is below magnitude 10.8 tonight: that, too, is a measurement.

Observers have forty charts like this one, and people to ask when they don't make sense.`,
  ),
  page(
    'booking',
    'observers',
    'Booking the small dome',
    '/observers/booking',
    'Reserve the small dome for an evening of your own.',
    `The small dome can be had from dusk until two in the morning, one party at a time.

1. Write your name and the night in the book by the stove, or ring the warden before noon.
2. Take the key from the hook with the brass star. Sign for it.
3. Leave the slit closed, the heater off and the floor swept.

If it is cloudy, the night is yours again within the fortnight.`,
  ),
  page(
    'crew',
    'site',
    'Dome crew',
    '/crew',
    'For those who open and close the big dome.',
    `You are reading this because you hold a key.

**This week.** The north shutter sticks in frost. Warm the rail with the hand lamp, not with your hands. The rain sensor is set ten per cent too keen until the new one comes: if it closes on you in a dry sky, override it once and write it down.`,
  ),
  page(
    'rota',
    'crew',
    'Rota',
    '/crew/rota',
    'Who opens, who closes.',
    `| night | opens | closes |
|---|---|---|
| Thursday | Ines | Wren |
| Friday | Wren | Cora |
| Saturday (open night) | Ines and Wren | everybody |

Swaps are fine. Strike the name out so that it can still be read.`,
  ),
  page(
    'handover',
    'crew',
    'Handover',
    '/crew/handover',
    'Notes from one crew to the next.',
    `**From Wednesday's crew.** Drive balanced for the heavy camera: take the ring of lead off before you fit the light one. The red lamp over the ladder is failing. There is soup in the flask and nobody has claimed it.`,
  ),
  page(
    'hollin-school',
    'site',
    'Hollin School',
    '/partners/hollin-school',
    'The school’s own corner of the site.',
    `Everything for the school's evenings on the hill: dates, forms, and what to bring. The class comes up twice a term; the spare coats are in the lower room, sorted by size.`,
  ),
  page(
    'hollin-notes',
    'hollin-school',
    'Notes from the class',
    '/partners/hollin-school/notes',
    'What the class saw and wrote down.',
    `*"The rings look drawn on."* *"I thought it would be bigger, and then I thought it would be smaller."* *"Can we come when it is raining?"*

The class's drawings hang in the lower room until spring.`,
  ),
  page(
    'tarn-survey',
    'site',
    'Tarn Survey',
    '/partners/tarn-survey',
    'Sky brightness over the tarn, measured together.',
    `The survey measures how dark the sky over the tarn is, every moonless week, with the same five meters at the same five posts. Post 3 has been moved two metres out of the shadow of the new fence; its values before and after are not to be compared.`,
  ),
  page(
    'tarn-notes',
    'tarn-survey',
    'Survey notes',
    '/partners/tarn-survey/notes',
    'Working notes of the survey.',
    `Median at post 1 this week: 21.4. Post 5 gave 20.9 twice, with the quarry lit. The quarry has been written to, kindly.`,
  ),
  page(
    'trustees',
    'site',
    'Trustees',
    '/trustees',
    'Papers for the trustees.',
    `**For the next meeting.** The lease of the lower field; the price of re-cladding the dome; the question of a second open night. The draft accounts are at the secretary's, in the green folder.`,
  ),
  page(
    'keepers',
    'site',
    'Keepers’ evening',
    '/keepers',
    'Once a season, the Keepers have the hill to themselves.',
    `Once a season the big dome opens for Keepers alone. This winter: the planet at its highest, the long refractor, and as much time at the eyepiece as the queue of nine allows. Supper at seven, slit open at half past eight.`,
  ),
  page(
    'comet-night',
    'site',
    'Comet night',
    '/comet-night',
    'For those who have a ticket, or a letter from us.',
    `You have a ticket, or you had our letter: either way, there is a place for you on the lawn.

**Come at nine.** The comet clears the western wall at twenty past and is gone behind the ridge by eleven. Leave the car at the cattle grid; the last stretch is walked in the dark, with a red torch.

**If it is cloudy**, we light the stove in the lower room, show last week's plates and try again the night after.`,
  ),
];

const menu: readonly Item[] = [
  { kind: 'menu', id: 'top', parent: 'site', title: 'Top menu', place: 'top' },
  link('link-home', 'top', 'Home', to('home')),
  link('link-visit', 'top', 'Visit', to('visit')),
  link('link-field-notes', 'top', 'Field notes', to('field-notes')),
  link('link-observers', 'top', 'Observers', to('observers')),
  link('link-charts', 'link-observers', 'Charts', to('charts')),
  link('link-booking', 'link-observers', 'Booking', to('booking')),
  link('link-join', 'top', 'Join', to('join')),
  link('link-account', 'top', 'My account', to('account')),
  link('link-sign-out', 'link-account', 'Sign out', { kind: 'sign out' }),
  link('link-sign-in', 'top', 'Sign in', { kind: 'sign in' }),
];

export const items: readonly Item[] = [
  {
    kind: 'site',
    id: 'site',
    parent: null,
    title: 'Larkfell Observatory',
    body: `**This is a demonstration.** Everybody's password is \`larkfell-demo\`.

| mail address | who |
|---|---|
| \`greta@larkfell.example\` | runs the [desk](/desk); a Keeper |
| \`marek@larkfell.example\` | signed in, and nothing else |
| \`tobin@larkfell.example\` | an Observer |
| \`wren@larkfell.example\` | an Observer, in the Dome crew |
| \`priya@larkfell.example\` | a Keeper, and a Trustee |
| \`basil@larkfell.example\` | an Observer, suspended |

The passphrase of [Comet night](/comet-night) is \`bring a red torch\`.`,
  },
  ...pages,
  ...menu,
];
