/** The people of Larkfell: those with a story, and about sixty more from a seeded generator. */
import { addDays, type Day } from '@/core';
import type { SiteFile } from '@/services';

type Person = NonNullable<SiteFile['people']>[number];

/** Everybody's password in the demo, which says so. A site that is not the demo has no such account. */
export const DEMO_PASSWORD = 'larkfell-demo';

const person = (id: string, name: string, rest: Partial<Person> = {}): Person => ({
  id,
  name,
  email: `${id}@larkfell.example`,
  password: DEMO_PASSWORD,
  ...rest,
});

/** The people with a story. Days are counted from the day on which the demo is loaded. */
const known = (today: Day): readonly Person[] => {
  const day = (ahead: number) => addDays(today, ahead);
  const pass = (product: string, boughtAgo: number, goodFor: number) => ({
    product,
    on: day(-boughtAgo),
    until: day(goodFor),
  });
  return [
    person('greta', 'Greta Holm', {
      level: 'keeper',
      desk: { right: 'owner', branch: null },
      joined: '2019-09-14',
      profile: { team: 'Grounds', 'hours-logged': 310, newsletter: true, valley: 'Larkdale' },
      purchases: [pass('keeper-pass', 120, 245)],
    }),
    person('marek', 'Marek Dunmore', { joined: day(-12) }),
    person('odile', 'Odile Marsh', {
      level: 'friend',
      groups: ['sky-diary'],
      joined: '2023-02-03',
      purchases: [{ product: 'winter-atlas', on: day(-40) }],
      profile: { newsletter: true, valley: 'Sett' },
    }),
    person('tobin', 'Tobin Aske', {
      level: 'observer',
      joined: '2024-05-20',
      purchases: [pass('observer-pass', 60, 305)],
      profile: { team: 'Visits', 'hours-logged': 34 },
    }),
    person('ines', 'Ines Calloway', {
      level: 'keeper',
      groups: ['dome-crew'],
      joined: '2020-11-02',
      purchases: [pass('keeper-pass', 200, 165)],
      enrolments: [{ course: 'dome-induction', on: '2021-01-10' }],
      completions: [
        { item: 'ladder-safety', on: '2021-01-17', score: 92 },
        { item: 'red-light', on: '2021-01-17' },
        { item: 'opening-words', on: '2021-01-24' },
        { item: 'night-drill', on: '2021-02-04' },
        { item: 'before-you-climb', on: '2021-02-04' },
        { item: 'clean-hands', on: '2021-02-11' },
      ],
      profile: {
        team: 'Optics',
        'dome-certificate': true,
        'certificate-expires': day(200),
        'hours-logged': 140,
        'birth-year': 1987,
        valley: 'Larkdale',
      },
    }),
    person('wren', 'Wren Halloran', {
      level: 'observer',
      roles: ['volunteer'],
      groups: ['dome-crew'],
      joined: '2025-03-30',
      purchases: [pass('observer-pass', 90, 275)],
      enrolments: [{ course: 'dome-induction', on: day(-30) }],
      completions: [
        { item: 'ladder-safety', on: day(-23) },
        { item: 'red-light', on: day(-16) },
      ],
      profile: { team: 'Grounds', 'hours-logged': 61 },
    }),
    person('priya', 'Priya Lundqvist', {
      level: 'keeper',
      roles: ['trustee'],
      joined: '2018-04-08',
      purchases: [pass('keeper-pass', 30, 335)],
      profile: { 'hours-logged': 88, valley: 'Sett' },
    }),
    person('sunniva', 'Sunniva Oake', { groups: ['hollin-school'], joined: day(-70) }),
    person('jonah', 'Jonah Birk', { level: 'friend', groups: ['tarn-survey'], joined: '2024-09-01' }),
    person('lio', 'Lio Farrow', {
      joined: '2023-10-05',
      purchases: [
        { product: 'observer-pass', on: day(-385), until: day(-20) },
        { product: 'observer-pass', on: day(-20), until: null, state: 'failed' },
        { product: 'astro-course', on: day(-150) },
      ],
      enrolments: [{ course: 'astrophotography', on: day(-150) }],
      completions: [{ item: 'star-trails', on: day(-140) }],
    }),
    person('edda', 'Edda Quill', {
      level: 'observer',
      roles: ['tutor'],
      joined: '2021-06-21',
      purchases: [pass('observer-pass', 10, 355)],
      desk: { right: 'tutor', branch: null },
      profile: { team: 'Optics', 'hours-logged': 205 },
    }),
    person('basil', 'Basil Thorne', {
      level: 'observer',
      groups: ['suspended'],
      joined: '2022-08-19',
      purchases: [
        pass('observer-pass', 180, 185),
        { product: 'comet-night', on: day(-9), state: 'refunded' },
      ],
    }),
  ];
};

const FIRST =
  'Alba Anselm Bettina Casper Cora Dorrit Emrys Fenna Gideon Hanne Ivo Jessamy Kasimir Linnea Magnus Nerys Orla Piers Quilla Rurik Saskia Tamsin Ulric Verity Wilf Yrsa Zelda Ambrose'.split(
    ' ',
  );
const LAST =
  'Ashdown Brackley Cawthorn Dray Elstow Fenwick Garrow Hexham Inchley Keld Larkin Mossop Netherby Orrell Penhale Quayle Roswell Skelding Thirlby Underhay Varley Wexcombe'.split(
    ' ',
  );

/** Numbers between 0 and 1, the same ones every time (Park and Miller's minimal standard generator). */
function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}

function others(count: number, today: Day): Person[] {
  const random = seeded(1889);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const chance = (share: number) => random() < share;
  const made = new Map<string, Person>();
  const story = storyteller(today);
  const learnt = learning(today);
  while (made.size < count) {
    const name = `${pick(FIRST)} ${pick(LAST)}`;
    const id = name.toLowerCase().replace(' ', '-');
    const groups = [
      ...(chance(0.12) ? ['dome-crew'] : []),
      ...(chance(0.1) ? ['hollin-school'] : chance(0.1) ? ['tarn-survey'] : []),
      ...(chance(0.4) ? ['sky-diary'] : []),
      ...(chance(0.04) ? ['suspended'] : []),
    ];
    const roles = [...(chance(0.15) ? ['volunteer'] : []), ...(chance(0.04) ? ['trustee'] : [])];
    const level = chance(0.3) ? null : chance(0.5) ? 'friend' : chance(0.65) ? 'observer' : 'keeper';
    if (made.has(id)) continue;
    const told = story({ level, groups });
    made.set(id, person(id, name, { level, groups, roles, ...told, ...learnt(groups, told) }));
  }
  return [...made.values()];
}

/** What else there is to say about somebody: from a generator of its own, so that the first one stays as it is. */
function storyteller(today: Day) {
  const random = seeded(2207);
  const chance = (share: number) => random() < share;
  const whole = (most: number) => Math.floor(random() * most);
  const pick = <T>(list: readonly T[]): T => list[whole(list.length)] as T;
  return ({ level, groups }: { level: string | null; groups: readonly string[] }): Partial<Person> => {
    const crew = groups.includes('dome-crew');
    const certified = crew && chance(0.7);
    const paid = level === 'observer' || level === 'keeper';
    return {
      joined: addDays(today, -(chance(0.15) ? whole(90) : 90 + whole(2500))),
      profile: {
        ...(crew || chance(0.3) ? { team: pick(['Optics', 'Grounds', 'Visits']) } : {}),
        ...(crew && chance(0.9) ? { 'dome-certificate': certified } : {}),
        ...(certified ? { 'certificate-expires': addDays(today, whole(700) - 120) } : {}),
        ...(chance(0.5) ? { valley: pick(['Larkdale', 'Sett', 'Upper Tarn', 'Hollin']) } : {}),
        ...(chance(0.4) ? { 'birth-year': 1945 + whole(60) } : {}),
        ...(crew || chance(0.35) ? { 'hours-logged': whole(260) } : {}),
        ...(chance(0.6) ? { newsletter: chance(0.7) } : {}),
      },
      purchases: [
        ...(paid && chance(0.85)
          ? [
              {
                product: `${level}-pass`,
                on: addDays(today, -whole(360)),
                until: addDays(today, 5 + whole(360)),
              },
            ]
          : []),
        ...(chance(0.2) ? [{ product: 'winter-atlas', on: addDays(today, -whole(500)) }] : []),
        ...(chance(0.15) ? [{ product: 'comet-night', on: addDays(today, -whole(30)) }] : []),
      ],
    };
  };
}

/** What each course asks for, in its order, and of whom. */
const CLIMB = ['ladder-safety', 'red-light', 'opening-words', 'night-drill', 'first-opening-quiz'];
const OF_TEAM: Readonly<Record<string, readonly string[]>> = {
  Optics: ['clean-hands', 'collimation'],
  Grounds: ['the-round', 'shed-and-mower'],
};
const PHOTO = ['star-trails', 'watch-it-turn', 'darks-and-flats', 'adding-up'];

/** How far somebody is in a course: from a generator of its own as well. */
function learning(today: Day) {
  const random = seeded(3119);
  const whole = (most: number) => Math.floor(random() * most);
  return (groups: readonly string[], { profile }: Partial<Person>): Partial<Person> => {
    const crew = groups.includes('dome-crew');
    if (!crew && random() > 0.22) return {};
    const began = crew ? 4 + whole(70) : 1 + whole(40);
    const list = crew ? [...CLIMB, ...(OF_TEAM[String(profile?.team)] ?? [])] : PHOTO;
    // Some go on to the end; most stop where it takes an evening.
    const count = Math.min(list.length, whole(list.length + 2), Math.ceil(began / 4));
    const completions = list.slice(0, count).map((item, at) => ({
      item,
      on: addDays(today, -Math.max(0, began - 3 - at * 3)),
      ...(item === 'first-opening-quiz' && { score: 75 + 5 * whole(6) }),
    }));
    return {
      enrolments: [{ course: crew ? 'dome-induction' : 'astrophotography', on: addDays(today, -began) }],
      completions,
    };
  };
}

export const peopleOn = (today: Day): readonly Person[] => [...known(today), ...others(60, today)];
