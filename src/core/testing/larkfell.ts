/** A small Larkfell for tests of the core: its names, a few of its people, its pages and its gates. */
import {
  all,
  any,
  everyone,
  guests,
  hasNoLevel,
  hasRole,
  inAudience,
  inGroup,
  level,
  not,
  signedIn,
} from '../condition';
import { type Gate, leaveOut, missing, redirectToSignIn } from '../gate';
import {
  type AudienceId,
  asId,
  type FieldId,
  type GateId,
  type GroupId,
  type ItemId,
  type LevelId,
  type PassphraseId,
  type PersonId,
  type ProductId,
  type RoleId,
} from '../ids';
import type { Policy } from '../policy';
import {
  type ActivityType,
  type Address,
  type Field,
  guest,
  type Item,
  type ItemFacts,
  type Member,
  member,
  noNames,
  type Outline,
  outlineOf,
  type RequestFacts,
  requestAt,
  type VisitorFacts,
  type Vocabulary,
} from '../site';

export const [friend, observer, keeper] = ['friend', 'observer', 'keeper'].map((id) => asId<LevelId>(id)) as [
  LevelId,
  LevelId,
  LevelId,
];
export const trustee = asId<RoleId>('trustee');
export const crew = asId<GroupId>('dome-crew');
export const school = asId<GroupId>('hollin-school');
export const suspended = asId<GroupId>('suspended');

export const pass = asId<ProductId>('keeper-pass');
export const team = asId<FieldId>('team');
export const hours = asId<FieldId>('hours');
export const certificate = asId<FieldId>('certificate');
export const expires = asId<FieldId>('certificate-expires');
export const valley = asId<FieldId>('valley');
export const night = asId<PassphraseId>('open-night');
export const nightCrew = asId<AudienceId>('night-crew');

const field = (id: FieldId, name: string, type: Field['type'], more: Partial<Field> = {}): Field => ({
  id,
  name,
  type,
  choices: [],
  private: false,
  editable: false,
  ...more,
});

export const vocabulary: Vocabulary = {
  ...noNames,
  roles: [
    { id: trustee, name: 'Trustee' },
    { id: asId('volunteer'), name: 'Volunteer' },
  ],
  groups: [
    { id: crew, name: 'Dome crew', private: false },
    { id: school, name: 'Hollin School', private: false },
    { id: suspended, name: 'Suspended', private: true },
  ],
  levels: [
    { id: friend, name: 'Friend' },
    { id: observer, name: 'Observer' },
    { id: keeper, name: 'Keeper' },
  ],
  products: [
    { id: pass, name: 'Keeper’s pass', kind: 'subscription' },
    { id: asId('atlas'), name: 'Winter atlas', kind: 'one-off' },
  ],
  fields: [
    field(team, 'team', 'choice', { choices: ['Optics', 'Grounds', 'Visits'] }),
    field(certificate, 'dome certificate', 'yes/no'),
    field(expires, 'certificate expires', 'date'),
    field(hours, 'hours logged', 'number'),
    field(valley, 'valley', 'text', { editable: true }),
    field(asId('birth-year'), 'birth year', 'number', { private: true }),
  ],
  courses: [{ id: asId('induction'), name: 'Dome operator induction' }],
  units: [{ id: asId('safety'), name: 'Before you climb' }],
  activities: [
    { id: asId('ladder'), name: 'Ladder safety' },
    { id: asId('shutter'), name: 'The shutter' },
    { id: asId('rail'), name: 'The rail' },
    { id: asId('dark'), name: 'In the dark' },
  ],
  passphrases: [{ id: night, name: 'Open night' }],
  audiences: [
    { id: nightCrew, name: 'Night crew', who: all(inGroup(crew), not(inGroup(suspended))) },
    {
      id: asId('keepers-or-night'),
      name: 'Keepers or night',
      who: any(level('at least', keeper), inAudience(nightCrew)),
    },
  ],
};

/** The moment of the tests: a Friday evening. */
export const request: RequestFacts = requestAt({ today: '2026-11-20', minute: 20 * 60, weekday: 'Friday' });

export const people = {
  guest,
  marek: member(),
  odile: member({ level: friend }),
  tobin: member({ level: observer }),
  ines: member({ level: keeper, groups: [crew] }),
  wren: member({ level: observer, groups: [crew], roles: [asId('volunteer')] }),
  priya: member({ level: keeper, roles: [trustee] }),
  sunniva: member({ groups: [school] }),
  basil: member({ level: observer, groups: [suspended] }),
} as const satisfies Record<string, VisitorFacts>;

/** The people who have an account, as effects count them. */
export const members: readonly Member[] = Object.entries(people)
  .filter(([, facts]) => facts.signedIn)
  .map(([name, facts]) => ({ id: asId<PersonId>(name), name, facts }));

export const id = asId<ItemId>;

const base = (name: string, parent: string | null, title: string, rank = 0) => ({
  id: id(name),
  parent: parent === null ? null : id(parent),
  title,
  rank,
  published: true,
});
const page = (name: string, parent: string, title: string, address: string): Item => ({
  ...base(name, parent, title),
  kind: 'page',
  address: address as Address,
});
const section = (name: string, parent: string, title: string): Item => ({
  ...base(name, parent, title),
  kind: 'section',
  type: 'text',
});
const post = (name: string, title: string, facts?: ItemFacts): Item => ({
  ...base(name, 'site', title),
  kind: 'post',
  address: `/posts/${name}` as Address,
  ...(facts && { facts }),
});
const file = (name: string, parent: string, title: string, facts?: ItemFacts): Item => ({
  ...base(name, parent, title),
  kind: 'file',
  name: `${name}.webp`,
  mediaType: 'image/webp',
  size: 1000,
  ...(facts && { facts }),
});
const activity = (name: string, parent: string, title: string, type: ActivityType = 'reading'): Item => ({
  ...base(name, parent, title),
  kind: 'activity',
  address: `/induction/${name}` as Address,
  activity: type,
});
const link = (name: string, parent: string, title: string, target: string): Item => ({
  ...base(name, parent, title),
  kind: 'link',
  target: { kind: 'item', item: id(target) },
});

const written: readonly Item[] = [
  { ...base('site', null, 'Larkfell'), kind: 'site' },
  page('home', 'site', 'Home', '/'),
  page('join', 'site', 'Join us', '/join'),
  page('account', 'site', 'My account', '/account'),
  page('observers', 'site', 'Observers’ room', '/observers'),
  page('charts', 'observers', 'Charts', '/observers/charts'),
  page('sample', 'charts', 'A sample chart', '/sample-chart'),
  page('crew', 'site', 'Dome crew', '/crew'),
  page('rota', 'crew', 'Rota', '/crew/rota'),
  page('school', 'site', 'Hollin School', '/partners/hollin-school'),
  { ...page('attic', 'site', 'Attic', '/attic'), published: false },
  {
    ...base('induction', 'site', 'Dome operator induction'),
    kind: 'course',
    address: '/induction' as Address,
  },
  { ...base('safety', 'induction', 'Before you climb'), kind: 'unit' },
  activity('ladder', 'safety', 'Ladder safety'),
  activity('shutter', 'safety', 'The shutter', 'video'),
  { ...activity('rail', 'safety', 'The rail'), published: false },
  activity('dark', 'safety', 'In the dark'),
  section('dark-text', 'dark', 'What to bring'),
  section('welcome', 'home', 'Welcome, guest'),
  section('forecast', 'charts', 'Seeing forecast'),
  post('first-light', 'First light', {
    category: 'Night logs',
    tags: ['winter'],
    author: 'Ines Calloway',
    date: '2026-11-03',
  }),
  post('mist', 'The mist stayed below', {
    category: 'Field notes',
    author: 'Wren Halloran',
    date: '2026-10-12',
  }),
  post('untold', 'Untold'),
  file('dome-key', 'first-light', 'The key'),
  file('frame', 'site', 'Raw frame', { owner: asId<PersonId>('ines') }),
  { ...base('top', 'site', 'Top menu'), kind: 'menu', place: 'top' },
  link('to-home', 'top', 'Home', 'home'),
  link('to-observers', 'top', 'Observers', 'observers'),
  link('to-charts', 'to-observers', 'Charts', 'charts'),
  link('to-sample', 'to-observers', 'Sample', 'sample'),
  link('to-log', 'top', 'First light', 'first-light'),
  { ...base('to-sign-in', 'top', 'Sign in'), kind: 'link', target: { kind: 'sign in' } },
];

/** Makes an outline of items that are known to be sound. */
export function soundOutline(list: readonly Item[]): Outline {
  const outline = outlineOf(list);
  if ('problems' in outline) throw new Error(outline.problems.map((problem) => problem.message).join(' '));
  return outline;
}

export const outline = soundOutline(written);
/** As the outline has them: activities know what they come after. */
export const items: readonly Item[] = [...outline.items.values()];

const gate = (name: string, rest: Omit<Gate, 'id' | 'stance'> & Partial<Pick<Gate, 'stance'>>): Gate => ({
  id: asId<GateId>(name),
  what: rest.what,
  who: rest.who,
  otherwise: rest.otherwise,
  stance: rest.stance ?? 'also',
});
const branch = (item: string) => ({ targets: [{ kind: 'branch' as const, item: id(item) }], except: [] });
const only = (item: string) => ({ targets: [{ kind: 'item' as const, item: id(item) }], except: [] });

export const gates = {
  observers: gate('observers', {
    what: branch('observers'),
    who: all(level('at least', observer), not(inGroup(suspended))),
    otherwise: {
      cases: [{ when: guests, give: redirectToSignIn }],
      last: {
        kind: 'teaser',
        show: { kind: 'summary' },
        preview: false,
        reason: { kind: 'written' },
        next: { kind: 'item', item: id('join') },
      },
    },
  }),
  crew: gate('crew', { what: branch('crew'), who: inGroup(crew), otherwise: { cases: [], last: missing } }),
  school: gate('school', {
    what: branch('school'),
    who: any(inGroup(school), hasRole(trustee)),
    otherwise: { cases: [], last: { kind: 'message', reason: { kind: 'written' }, next: { kind: 'none' } } },
  }),
  join: gate('join', {
    what: only('join'),
    who: any(guests, hasNoLevel),
    otherwise: { cases: [], last: { kind: 'redirect', to: { kind: 'item', item: id('account') } } },
  }),
  account: gate('account', {
    what: only('account'),
    who: signedIn,
    otherwise: { cases: [], last: redirectToSignIn },
  }),
  sample: gate('sample', {
    what: only('sample'),
    who: everyone,
    otherwise: { cases: [], last: missing },
    stance: 'instead',
  }),
  signInLink: gate('sign-in-link', {
    what: only('to-sign-in'),
    who: guests,
    otherwise: { cases: [], last: leaveOut },
  }),
};

export const policy: Policy = {
  gates: Object.values(gates),
  audiences: vocabulary.audiences,
  turnAways: [],
  landings: [],
  defaults: [],
  expectations: [],
};
