/**
 * The desk's screens: one entry each with its address, its title, where it stands in the top line and the palette, and who
 * may see it. What each shows stands in `screen-views.tsx`; docs/adding.md tells what else a new one needs.
 */
import { type AudienceId, type ItemId, keysOf, type Permission } from '@/core';

/** What an address below `/desk` brings besides the screen's own name. */
export interface Parameters {
  /** The second part of the path, decoded; null where there is none. */
  readonly id: string | null;
  readonly text: (name: string) => string | undefined;
}

interface Entry<State> {
  readonly title: string;
  /** The first part of its path below `/desk`. */
  readonly path: string;
  /** Whether a second part follows, which `write` gives as `id`. */
  readonly takesId?: boolean;
  /** How the top line names it; those without a name are reached from elsewhere. */
  readonly tab?: string;
  /** Whose tab stands for it, where it has none of its own. */
  readonly under?: string;
  /** How the palette offers it, with a note. */
  readonly find?: readonly [label: string, note?: string];
  /** What one has to be allowed at the desk to have any use of it. */
  readonly need: Permission;
  /** The page of the handbook that is about it; where one begins, if none is. */
  readonly help?: string;
  /** Whether it stands alone, without the desk's top line. */
  readonly alone?: boolean;
  /** Whether the draft is changed there, so that one wants to know whether it is saved. */
  readonly draft?: boolean;
  /** Whether it shows the board's rows, and so their filter. */
  readonly rows?: boolean;
  read(parameters: Parameters): State;
  /** The parts of its address; what is null or empty is left out. */
  write?(state: State): Readonly<Record<string, string | null>>;
}

const entry = <State extends object>(one: Entry<State>): Entry<State> => one;

// Whoever is new has an address that no person's id can be: ids have no such character.
const NEW_PERSON = '+';

/** In the order of the top line. */
export const SCREENS = {
  board: entry({
    title: 'Board',
    path: '',
    help: 'check',
    tab: 'Board',
    find: ['Go to the board'],
    need: 'look',
    draft: true,
    rows: true,
    read: () => ({}),
  }),
  /** The board on paper. */
  print: entry({
    title: 'The board on paper',
    path: 'print',
    help: 'check',
    find: ['The board on paper'],
    need: 'look',
    alone: true,
    rows: true,
    read: () => ({}),
  }),
  /** Writing: an item that is open, or none. */
  site: entry<{ readonly item: ItemId | null }>({
    title: 'Site',
    path: 'site',
    help: 'write',
    tab: 'Site',
    find: ['Write: pages, posts, menus, files'],
    need: 'look',
    read: ({ text }) => ({ item: (text('item') ?? null) as ItemId | null }),
    write: ({ item }) => ({ item }),
  }),
  /** What stands somewhere else, to be taken in. */
  takeIn: entry({
    title: 'Take in',
    path: 'take-in',
    help: 'write',
    under: 'site',
    find: ['Take in what there is', 'a folder of Markdown or HTML, a site on the web'],
    need: 'everything',
    read: () => ({}),
  }),
  /** The people of whom a text and a condition are true. */
  people: entry<{ readonly text: string; readonly condition: string }>({
    title: 'People',
    path: 'people',
    help: 'people',
    tab: 'People',
    find: ['Go to the people'],
    need: 'look',
    draft: true,
    read: ({ text }) => ({ text: text('q') ?? '', condition: text('who') ?? '' }),
    write: ({ text, condition }) => ({ q: text, who: condition }),
  }),
  /** One person; null for somebody new. */
  person: entry<{ readonly person: string | null }>({
    title: 'Person',
    path: 'people',
    help: 'people',
    takesId: true,
    under: 'people',
    find: ['New person'],
    need: 'look',
    draft: true,
    read: ({ id }) => ({ person: id === NEW_PERSON ? null : id }),
    write: ({ person }) => ({ id: person ?? NEW_PERSON }),
  }),
  /** What each client, class or chapter has; one that is open, or none, or new ones that are being made. */
  areas: entry<{ readonly area: string | null }>({
    title: 'Areas',
    path: 'areas',
    help: 'areas',
    tab: 'Areas',
    find: ['Go to the areas', 'what each client, class or chapter has'],
    need: 'people',
    draft: true,
    read: ({ text }) => ({ area: text('area') ?? null }),
    write: ({ area }) => ({ area }),
  }),
  names: entry({
    title: 'Names',
    path: 'names',
    help: 'people',
    tab: 'Names',
    find: ['Go to the names', 'levels, roles, groups, fields'],
    need: 'look',
    draft: true,
    read: () => ({}),
  }),
  audiences: entry<{ readonly audience: AudienceId | null }>({
    title: 'Audiences',
    path: 'audiences',
    help: 'people',
    tab: 'Audiences',
    find: ['Go to the audiences'],
    need: 'look',
    draft: true,
    read: ({ text }) => ({ audience: (text('audience') ?? null) as AudienceId | null }),
    write: ({ audience }) => ({ audience }),
  }),
  /** What is certain: what must stay so, what was found; one of either that is open, or none. */
  findings: entry<{ readonly open: string | null; readonly expectation: string | null }>({
    title: 'Findings',
    path: 'findings',
    help: 'check',
    tab: 'Findings',
    find: ['Go to the findings', 'mistakes, and what must stay so'],
    need: 'look',
    draft: true,
    read: ({ text }) => ({ open: text('open') ?? null, expectation: text('expectation') ?? null }),
    write: ({ open, expectation }) => ({ open, expectation }),
  }),
  /** Kinds of visitor: those whom the site treats alike; the kind of one person, or all. */
  kinds: entry<{ readonly person: string | null }>({
    title: 'Kinds of visitor',
    path: 'kinds',
    help: 'check',
    under: 'findings',
    find: ['Go to the kinds of visitor', 'whom the site treats alike'],
    need: 'look',
    draft: true,
    read: ({ text }) => ({ person: text('person') ?? null }),
    write: ({ person }) => ({ person }),
  }),
  /** What will change by itself; for one person, or everybody. */
  ahead: entry<{ readonly person: string | null }>({
    title: 'Ahead',
    path: 'ahead',
    help: 'check',
    under: 'findings',
    find: ['Look ahead', 'what will open and close by itself'],
    need: 'look',
    read: ({ text }) => ({ person: text('person') ?? null }),
    write: ({ person }) => ({ person }),
  }),
  /** How far the learners of a course are, on a day; one of them, or none. */
  learners: entry<{
    readonly course: string | null;
    readonly person: string | null;
    readonly day: string | null;
  }>({
    title: 'Learners',
    path: 'learners',
    help: 'courses',
    tab: 'Learners',
    find: ['Go to the learners', 'progress in courses'],
    need: 'learners',
    read: ({ text }) => ({
      course: text('course') ?? null,
      person: text('person') ?? null,
      day: text('day') ?? null,
    }),
    write: ({ course, person, day }) => ({ course, person, day }),
  }),
  /** What is sold; a product that is open, or none. */
  shop: entry<{ readonly product: string | null }>({
    title: 'Shop',
    path: 'shop',
    help: 'selling',
    tab: 'Shop',
    find: ['Go to the shop', 'products, prices, vouchers'],
    need: 'people',
    read: ({ text }) => ({ product: text('product') ?? null }),
    write: ({ product }) => ({ product }),
  }),
  /** What was sold; an order that is open, or none. */
  sales: entry<{ readonly order: string | null }>({
    title: 'Sales',
    path: 'sales',
    help: 'selling',
    under: 'shop',
    find: ['Go to the sales', 'orders, refunds, what came in'],
    need: 'people',
    read: ({ text }) => ({ order: text('order') ?? null }),
    write: ({ order }) => ({ order }),
  }),
  /** Revisions and changes of people; one that is looked at, or none. */
  history: entry<{ readonly revision: number | null }>({
    title: 'History',
    path: 'history',
    help: 'live',
    tab: 'History',
    find: ['Go to the history', 'revisions, changes of people'],
    need: 'look',
    draft: true,
    read: ({ text }) => {
      const revision = text('revision') ?? '';
      return { revision: /^\d{1,9}$/.test(revision) ? Number(revision) : null };
    },
    write: ({ revision }) => ({ revision: revision === null ? null : String(revision) }),
  }),
  journal: entry({
    title: 'Journal',
    path: 'journal',
    help: 'why',
    tab: 'Journal',
    find: ['Go to the journal', 'who was turned away where'],
    need: 'look',
    draft: true,
    read: () => ({}),
  }),
  outbox: entry({
    title: 'Outbox',
    path: 'outbox',
    tab: 'Outbox',
    find: ['Go to the outbox', 'mail that was sent'],
    need: 'everything',
    help: 'people',
    read: () => ({}),
  }),
  /** What each kind of letter says; one that is open. */
  letters: entry<{ readonly letter: string }>({
    title: 'Letters',
    path: 'letters',
    takesId: true,
    under: 'outbox',
    find: ['Write the letters', 'what codes, invitations and receipts say'],
    need: 'everything',
    help: 'people',
    read: ({ id }) => ({ letter: id ?? 'signUp' }),
    write: ({ letter }) => ({ id: letter }),
  }),
  /** The handbook, at one of its pages. */
  help: entry<{ readonly page: string }>({
    title: 'Help',
    path: 'help',
    takesId: true,
    find: ['Help', 'the handbook'],
    need: 'look',
    read: ({ id }) => ({ page: id ?? 'begin' }),
    write: ({ page }) => ({ id: page }),
  }),
  settings: entry({
    title: 'Settings',
    path: 'settings',
    tab: 'Settings',
    find: ['Go to the settings', 'time zone, journal, the site as a file'],
    need: 'everything',
    draft: true,
    read: () => ({}),
  }),
};

export type ScreenKind = keyof typeof SCREENS;
export const SCREEN_KINDS = keysOf(SCREENS);

type State<K extends ScreenKind> = (typeof SCREENS)[K] extends Entry<infer S> ? S : never;

/** A screen of the desk with what is open on it. */
export type ScreenOf<K extends ScreenKind> = { readonly kind: K } & State<K>;
export type Screen = { [K in ScreenKind]: ScreenOf<K> }[ScreenKind];

export const screenNamed = (kind: ScreenKind): Entry<object> => SCREENS[kind];

/** The screen that an address names, or null where there is none. */
export function readScreen(
  [name = '', id, ...more]: readonly string[],
  text: Parameters['text'],
): Screen | null {
  const kind = SCREEN_KINDS.find((one) => {
    const { path, takesId = false } = screenNamed(one);
    return path === name && takesId === (id !== undefined);
  });
  if (kind === undefined || more.length > 0) return null;
  return screenAt(kind, { id: id === undefined ? null : decoded(id), text });
}

/** A screen with nothing open on it. */
export const startOf = (kind: ScreenKind): Screen => screenAt(kind, { id: null, text: () => undefined });

const screenAt = (kind: ScreenKind, parameters: Parameters): Screen =>
  ({ kind, ...screenNamed(kind).read(parameters) }) as Screen;

/** The path of a screen, and what stands behind it. */
export function addressOfScreen(screen: Screen): {
  readonly path: string;
  readonly query: Readonly<Record<string, string | null>>;
} {
  const { path, write } = screenNamed(screen.kind);
  const { id = null, ...query } = write?.(screen) ?? {};
  const parts = ['/desk', path, id === null ? '' : encodeURIComponent(id)].filter(Boolean);
  return { path: parts.join('/'), query };
}

function decoded(segment: string): string {
  try {
    return decodeURIComponent(segment);
  } catch {
    return segment;
  }
}
