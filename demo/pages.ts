/** The pages of Larkfell, its menus and its files, in the order in which they stand. */
import { addDays, type Day } from '@/core';
import { type ItemInFile, parts } from '@/services';
import { picture, postsOn, video } from './posts';

const { link, page, to } = parts;

const pages: readonly ItemInFile[] = [
  page('home', 'site', 'Home', '/', 'Larkfell Observatory is run by volunteers on the edge of the moor.', [
    {
      type: 'text',
      id: 'home-text',
      title: 'Opening words',
      text: `# A dark hill, a good dome, and room for you

Larkfell stands four hundred metres up, on the edge of the moor, where the nearest street lamp is nine kilometres away. The dome was raised by volunteers, and volunteers still open it, every clear Thursday and whenever something worth climbing for is in the sky.

## What happens here

Most nights are quiet ones. Somebody measures a variable star, somebody else boils a kettle. On **open nights** the hill belongs to visitors: we show the Moon to whoever comes up the lane, and stay until the last question is answered.

## Come up

You need no telescope, no membership and no knowledge. Bring a coat warmer than you think, a red torch if you have one, and shoes that don't mind mud. [Visit us](/visit) tells you how to find the gate in the dark, and [tonight’s sky](/tonight) what is up once you are here.`,
    },
    {
      type: 'picture',
      id: 'home-picture',
      title: 'The hill at night',
      file: 'hill-picture',
      caption: 'The big dome, open, on a night like the ones we keep the kettle on for.',
    },
    {
      type: 'call',
      id: 'home-guests',
      title: 'For guests',
      text: `## New here?

Make an account to keep your place on the hill: it costs nothing, and the Sky diary comes with it.`,
      label: 'Sign up',
      to: { kind: 'sign up' },
    },
    {
      type: 'follow',
      id: 'home-follow',
      title: 'For members who don’t follow the Sky diary',
      text: `## The Sky diary

What to look for this week, in five lines. Follow it, and it stands here.`,
      group: 'sky-diary',
    },
    {
      type: 'text',
      id: 'home-diary',
      title: 'The Sky diary, for its followers',
      text: `## This week’s Sky diary

**Monday.** The Moon is gone until dawn; take the dark. **Tuesday.** Two planets within a thumb of each other, low in the east before six. **Wednesday.** Nothing, gloriously. **Thursday.** Open night. **Friday.** The Lantern’s variable should be back above ten.`,
    },
    { type: 'posts', id: 'home-posts', title: 'The latest posts', count: 6 },
  ]),
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

One layer more than feels reasonable. It is colder at the eyepiece than anywhere else on the hill.

## The lane

:::for level at least "Observer"
The code of the lower gate this month is the number of the chart with the Owl's Lantern, twice. Close it behind you: the sheep know it too.
:::or for signed in
The lower gate opens to Observers and Keepers. On open nights somebody stands there with a lamp.
:::otherwise
On open nights somebody stands at the lower gate with a lamp. Come before eight.
:::`,
  ),
  page(
    'field-notes',
    'site',
    'Field notes',
    '/field-notes',
    'Short accounts of nights and days on the hill, for anybody to read.',
    [
      {
        type: 'text',
        id: 'field-notes-text',
        title: 'Opening words',
        text: 'Short accounts from the hill, open to everyone. Anybody who was there may write one; hand it to whoever locks up.',
      },
      { type: 'posts', id: 'field-notes-posts', title: 'Field notes', category: 'Field notes', count: 10 },
    ],
  ),
  page('join', 'site', 'Join us', '/join', 'Three ways to belong, and what each one opens.', [
    {
      type: 'text',
      id: 'join-text',
      title: 'Ways to belong',
      text: `There are three ways to belong to Larkfell. Each includes everything before it.

- **Friends** read the night logs, and vote at the spring meeting. It costs nothing but an evening: come to an open night and say so.
- **Observers** have the Observers’ room: charts ([here is one](/sample-chart)), and booking of the small dome.
- **Keepers** have the Keepers’ evening, and a key to the lower room.`,
    },
    {
      type: 'prices',
      id: 'join-prices',
      title: 'Passes',
      text: '',
      products: ['observer-pass', 'keeper-pass'],
    },
    {
      type: 'text',
      id: 'join-half',
      title: 'For less',
      text: 'Under twenty-one or out of work, both passes cost half. Write to the secretary, who has vouchers for it; nobody has to say why. There is [more in the shop](/shop).',
    },
  ]),
  page('account', 'site', 'My account', '/account', 'Your place at Larkfell.', [
    {
      type: 'text',
      id: 'account-text',
      title: 'Opening words',
      text: `# Good evening, :own[name]

:::for level is set
You have been with us since :own[joined]{or="before we kept count"}, and your level is **:own[level]**.
:::otherwise
You have been with us since :own[joined]{or="before we kept count"}. A level comes with [joining](/join); this page is yours without one.
:::

Your level and your groups are kept by the secretary; the rest you fill in yourself.

:::for in group "Dome crew"
For the crew: [the state of the hill](/crew), [who opens and who closes](/crew/rota), [what was handed over](/crew/handover).
:::

:::for role "Trustee"
The papers for the next meeting are with [the Trustees](/trustees).
:::`,
    },
    { type: 'account', id: 'account-form', title: 'What we know of you' },
    {
      type: 'text',
      id: 'account-frames-text',
      title: 'Raw frames',
      text: `## Your raw frames

Frames that you took are kept here for you. The Dome crew sees everybody’s, to check the camera.`,
    },
    { type: 'files', id: 'account-frames', title: 'Raw frames', category: 'Raw frames' },
    {
      type: 'text',
      id: 'account-bought-text',
      title: 'What you bought',
      text: `## What you bought

Passes, receipts, and how to stop or change a plan: [what you have](/me/purchases).`,
    },
    { type: 'files', id: 'account-atlas', title: 'Atlas', category: 'Atlas' },
  ]),
  page('tonight', 'site', 'Tonight’s sky', '/tonight', 'What is up after dark, hour by hour.', [
    {
      type: 'text',
      id: 'tonight-text',
      title: 'Hour by hour',
      text: `**Dusk.** The evening planet hangs over the western wall, low and unblinking. It sets before the dew comes down.

**Nine o'clock.** The great square stands on its corner in the south. Follow its left side upwards to the smudge that is a galaxy; from our lawn, you need no glass for it.

**Midnight.** The winter hunters climb out of the moor. If the air is still, the sword's middle star is clearly not a star.

**Towards dawn.** The Moon rises late and thin, with the dark part lit by the Earth.`,
    },
    {
      type: 'video',
      id: 'tonight-video',
      title: 'The sky turning',
      file: 'turning-video',
      caption: 'An hour of turning in four seconds, around the star that stays.',
    },
    {
      type: 'text',
      id: 'seeing-forecast',
      title: 'Seeing forecast',
      summary: 'How still the air will be, hour by hour, from our own instruments.',
      text: `## Seeing forecast

| from | arc seconds | wind |
|---|---:|---|
| dusk | 2.4 | west, gusts |
| ten | 1.6 | west, light |
| one | **0.9** | none |
| four | 1.3 | north, light |

The best of it is between one and three. The inversion sits at six hundred metres, below the dome: if you see mist in the valley, stay.`,
    },
  ]),
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
    `Charts for this season. They are read as [the sample chart](/sample-chart) is. North is up unless the chart says otherwise; the circle is the field of the eight-inch with the long eyepiece.

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
    [
      {
        type: 'text',
        id: 'sample-text',
        title: 'How to read it',
        text: `This is chart **L-09**, the Owl's Lantern, as our Observers use it at the eyepiece.

- Start at the bright pair in the upper left, one finger's width apart.
- Step down along three stars of falling brightness.
- The variable is the fourth. If you can't see it, it is below magnitude 10.8 tonight: that, too, is a measurement.

Observers have forty charts like this one, and people to ask when they don't make sense.`,
      },
      {
        type: 'picture',
        id: 'sample-picture',
        title: 'Chart L-09',
        file: 'sample-chart-picture',
        caption: 'L-09, the Owl’s Lantern. The variable is in the red ring.',
      },
    ],
  ),
  page(
    'booking',
    'observers',
    'Booking the small dome',
    '/observers/booking',
    'Reserve the small dome for an evening of your own.',
    [
      {
        type: 'text',
        id: 'booking-text',
        title: 'Text',
        text: `The small dome can be had from dusk until two in the morning, one party at a time.

1. Write your name and the night in the book by the stove, or ring the warden before noon.
2. Take the key from the hook with the brass star. Sign for it.
3. Leave the slit closed, the heater off and the floor swept.

If it is cloudy, the night is yours again within the fortnight.`,
      },
      { type: 'outline', id: 'booking-course', title: 'What to know before', course: 'astrophotography' },
    ],
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
  page('sky-diary', 'site', 'Sky diary', '/sky-diary', 'Five lines a week on what to look for.', [
    {
      type: 'text',
      id: 'sky-diary-text',
      title: 'What it is',
      text: 'Five lines a week, written on Sunday evenings by whoever looked up most. Anybody with an account may follow it, and stop again.',
    },
    { type: 'follow', id: 'sky-diary-follow', title: 'Follow', text: '', group: 'sky-diary' },
    {
      type: 'text',
      id: 'sky-diary-past',
      title: 'Past weeks, for followers',
      text: `## Past weeks

*Last week.* The two bright planets closed to three degrees; by Sunday they will touch, nearly. *The week before.* Frost, and the first really dark evenings. Somebody saw the zodiacal light from the cattle grid and was not believed until Wren saw it too.`,
    },
  ]),
  page('contact', 'site', 'Contact', '/contact', 'Write to the secretary, or come on a Thursday.', [
    {
      type: 'form',
      id: 'contact-form',
      title: 'A letter to the secretary',
      text: 'We answer within the week, and faster when it is cloudy.',
      fields: [
        { label: 'Your name', required: true },
        { label: 'Mail address', type: 'mail', required: true },
        {
          label: 'It is about',
          type: 'choice',
          choices: ['A visit', 'Membership', 'The school’s evenings', 'Something else'],
        },
        { label: 'Your letter', type: 'long', required: true },
      ],
      button: 'Send the letter',
      mailTo: 'secretary@larkfell.example',
      thanks: 'Thank you. Your letter is with the secretary.',
    },
  ]),
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

const menus: readonly ItemInFile[] = [
  { kind: 'menu', id: 'top', parent: 'site', title: 'Top menu', place: 'top' },
  link('link-home', 'top', 'Home', to('home')),
  link('link-visit', 'top', 'Visit', to('visit')),
  link('link-field-notes', 'top', 'Field notes', to('field-notes')),
  link('link-observers', 'top', 'Observers', to('observers')),
  link('link-charts', 'link-observers', 'Charts', to('charts')),
  link('link-booking', 'link-observers', 'Booking', to('booking')),
  link('link-join', 'top', 'Join', to('join')),
  link('link-account', 'top', 'My account', to('account')),
  link('link-induction', 'link-account', 'Dome induction', to('dome-induction')),
  link('link-sign-out', 'link-account', 'Sign out', { kind: 'sign out' }),
  link('link-sign-in', 'top', 'Sign in', { kind: 'sign in' }),
  { kind: 'menu', id: 'partners', parent: 'site', title: 'Partners', place: 'side' },
  link('link-hollin', 'partners', 'Hollin School', to('hollin-school')),
  link('link-hollin-notes', 'link-hollin', 'Notes from the class', to('hollin-notes')),
  link('link-tarn', 'partners', 'Tarn Survey', to('tarn-survey')),
  link('link-tarn-notes', 'link-tarn', 'Survey notes', to('tarn-notes')),
  { kind: 'menu', id: 'foot', parent: 'site', title: 'Foot', place: 'foot' },
  link('link-contact', 'foot', 'Contact', to('contact')),
  link('link-sky-diary', 'foot', 'Sky diary', to('sky-diary')),
  link('link-astrophotography', 'foot', 'Astrophotography', to('astrophotography')),
];

/** Raw frames: each belongs to whoever took it. */
const frame = (id: string, name: string, title: string, owner: string, today: Day, ago: number): ItemInFile =>
  picture(id, 'site', name, title, title, { category: 'Raw frames', owner, date: addDays(today, -ago) });

const ATLAS = `# Winter atlas

Eighty fields, in the order in which they climb over the eastern wall.

1. **The Lantern’s cluster.** Look beside it and it doubles.
2. **The Rose.** Ten inches of glass, a dark night, and patience.
3. **Beneath the Swan’s wing.** The variable is the one that is not on last year’s page.
`;

const filesOn = (today: Day): readonly ItemInFile[] => [
  picture(
    'hill-picture',
    'home-picture',
    'hill-at-night',
    'The hill at night',
    'A dome with its slit open and lit, under the band of the galaxy',
  ),
  video('turning-video', 'tonight-video', 'turning', 'The sky turning'),
  picture(
    'sample-chart-picture',
    'sample-picture',
    'chart',
    'Chart L-09',
    'A round finder chart with black stars of many sizes, one of them ringed in red',
  ),
  frame('frame-ines-1', 'frame-1', 'The Rose, forty minutes', 'ines', today, 5),
  frame('frame-ines-2', 'frame-2', 'Spindle, first try', 'ines', today, 8),
  frame('frame-tobin', 'frame-3', 'Cluster in the Lantern', 'tobin', today, 17),
  {
    kind: 'file',
    id: 'atlas-file',
    parent: 'site',
    title: 'Winter atlas',
    name: 'winter-atlas.md',
    facts: { category: 'Atlas' },
    data: Buffer.from(ATLAS).toString('base64'),
  },
  frame('frame-wren', 'trails', 'An hour of trails', 'wren', today, 22),
];

/** Everything on the site; days are counted from the day on which the demo is loaded. */
export const itemsOn = (today: Day): readonly ItemInFile[] => [
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
  ...postsOn(today),
  ...menus,
  ...filesOn(today),
];
