/** The people of Larkfell: those with a story, and about sixty more from a seeded generator. */
import type { SiteFile } from '@/services';

type Person = SiteFile['people'][number];

/** Everybody's password in the demo, which says so. A site that is not the demo has no such account. */
export const DEMO_PASSWORD = 'larkfell-demo';

const person = (id: string, name: string, rest: Partial<Person> = {}): Person => ({
  id,
  name,
  email: `${id}@larkfell.example`,
  password: DEMO_PASSWORD,
  ...rest,
});

const known: readonly Person[] = [
  person('greta', 'Greta Holm', { level: 'keeper', desk: true }),
  person('marek', 'Marek Dunmore'),
  person('odile', 'Odile Marsh', { level: 'friend', groups: ['sky-diary'] }),
  person('tobin', 'Tobin Aske', { level: 'observer' }),
  person('ines', 'Ines Calloway', { level: 'keeper', groups: ['dome-crew'] }),
  person('wren', 'Wren Halloran', { level: 'observer', roles: ['volunteer'], groups: ['dome-crew'] }),
  person('priya', 'Priya Lundqvist', { level: 'keeper', roles: ['trustee'] }),
  person('sunniva', 'Sunniva Oake', { groups: ['hollin-school'] }),
  person('jonah', 'Jonah Birk', { level: 'friend', groups: ['tarn-survey'] }),
  person('lio', 'Lio Farrow'),
  person('edda', 'Edda Quill', { level: 'observer', roles: ['tutor'] }),
  person('basil', 'Basil Thorne', { level: 'observer', groups: ['suspended'] }),
];

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

function others(count: number): Person[] {
  const random = seeded(1889);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const chance = (share: number) => random() < share;
  const made = new Map<string, Person>();
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
    if (!made.has(id)) made.set(id, person(id, name, { level, groups, roles }));
  }
  return [...made.values()];
}

export const people: readonly Person[] = [...known, ...others(60)];
