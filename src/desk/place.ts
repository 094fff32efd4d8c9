/**
 * Where one is at the desk, as its address: which screen, which policy is shown, what is on the workbench. So Back, reload
 * and a link to a colleague all lead to the same view.
 */
import type { AudienceId, GateId, ItemId } from '@/core';
import { type BoardFilter, everyRow, readFilter, writeFilter } from './board-filter';

/** Which policy is shown. */
export type Side = 'live' | 'draft' | 'difference';

/** What the workbench beside the board holds. */
export type Bench =
  | { readonly kind: 'gates' }
  | { readonly kind: 'why'; readonly item: ItemId; readonly standIn: string }
  | { readonly kind: 'gate'; readonly gate: GateId }
  /** A made-up visitor of the board. */
  | { readonly kind: 'stand-in'; readonly standIn: string }
  /** What is set for the site as a whole: sign-in, turn-aways with names, landing rules, defaults. */
  | { readonly kind: 'rules' }
  | { readonly kind: 'put live' };

/** A screen of the desk. */
export type Screen =
  | { readonly kind: 'board' }
  /** The board on paper. */
  | { readonly kind: 'print' }
  /** Revisions and changes of people; one that is looked at, or none. */
  | { readonly kind: 'history'; readonly revision: number | null }
  | { readonly kind: 'journal' }
  | { readonly kind: 'settings' }
  /** The people of whom a text and a condition are true. */
  | { readonly kind: 'people'; readonly text: string; readonly condition: string }
  /** One person; null for somebody new. */
  | { readonly kind: 'person'; readonly person: string | null }
  | { readonly kind: 'names' }
  /** Writing: an item that is open, or none. */
  | { readonly kind: 'site'; readonly item: ItemId | null }
  | { readonly kind: 'outbox' }
  | { readonly kind: 'audiences'; readonly audience: AudienceId | null };

/** A view of the desk. */
export interface Place {
  readonly screen: Screen;
  readonly side: Side;
  readonly bench: Bench;
  /** Which rows the board shows. */
  readonly filter: BoardFilter;
}

type Query = Readonly<Record<string, string | string[] | undefined>>;

const SIDES: readonly Side[] = ['live', 'draft', 'difference'];
// Whoever is new has an address that no person's id can be: ids have no such character.
const NEW_PERSON = '+';

export const allPeople: Screen = { kind: 'people', text: '', condition: '' };

/** Reads a view from an address below `/desk`; null for a screen there is not. */
export function readPlace(path: readonly string[], query: Query): Place | null {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name] : undefined);
  const screen = readScreen(path, text);
  if (!screen) return null;
  const side = SIDES.find((one) => one === text('show')) ?? 'draft';
  const onBoard = screen.kind === 'board' || screen.kind === 'print';
  return { screen, side, bench: readBench(text), filter: onBoard ? readFilter(text) : everyRow };
}

function readScreen(
  [name, id, ...more]: readonly string[],
  text: (name: string) => string | undefined,
): Screen | null {
  if (more.length > 0) return null;
  if (name === undefined) return { kind: 'board' };
  if (name === 'people' && id !== undefined) {
    const person = decoded(id);
    return { kind: 'person', person: person === NEW_PERSON ? null : person };
  }
  if (id !== undefined) return null;
  switch (name) {
    case 'people':
      return { kind: 'people', text: text('q') ?? '', condition: text('who') ?? '' };
    case 'names':
      return { kind: 'names' };
    case 'print':
      return { kind: 'print' };
    case 'history':
      return {
        kind: 'history',
        revision: /^\d{1,9}$/.test(text('revision') ?? '') ? Number(text('revision')) : null,
      };
    case 'journal':
      return { kind: 'journal' };
    case 'settings':
      return { kind: 'settings' };
    case 'site':
      return { kind: 'site', item: (text('item') ?? null) as ItemId | null };
    case 'outbox':
      return { kind: 'outbox' };
    case 'audiences':
      return { kind: 'audiences', audience: (text('audience') ?? null) as AudienceId | null };
    default:
      return null;
  }
}

function decoded(segment: string): string {
  try {
    return decodeURIComponent(segment);
  } catch {
    return segment;
  }
}

function readBench(text: (name: string) => string | undefined): Bench {
  const [gate, why, as] = [text('gate'), text('why'), text('as')];
  if (gate) return { kind: 'gate', gate: gate as GateId };
  if (text('stand-in')) return { kind: 'stand-in', standIn: text('stand-in') ?? '' };
  if (why && as) return { kind: 'why', item: why as ItemId, standIn: as };
  if (text('rules') !== undefined) return { kind: 'rules' };
  return text('put') === 'live' ? { kind: 'put live' } : { kind: 'gates' };
}

/** A view of a screen with nothing else in view. */
export const placeOf = (screen: Screen): Place => ({
  screen,
  side: 'draft',
  bench: { kind: 'gates' },
  filter: everyRow,
});

/** The address of a view. */
export function addressOfPlace({ screen, side, bench, filter }: Place): string {
  const query = new URLSearchParams();
  if (side !== 'draft') query.set('show', side);
  if (bench.kind === 'gate') query.set('gate', bench.gate);
  if (bench.kind === 'rules') query.set('rules', 'all');
  if (bench.kind === 'put live') query.set('put', 'live');
  if (bench.kind === 'why') {
    query.set('why', bench.item);
    query.set('as', bench.standIn);
  }
  if (bench.kind === 'stand-in') query.set('stand-in', bench.standIn);
  if (screen.kind === 'board' || screen.kind === 'print') writeFilter(filter, query);
  const path = addressOfScreen(screen, query);
  return query.size === 0 ? path : `${path}?${query}`;
}

function addressOfScreen(screen: Screen, query: URLSearchParams): string {
  switch (screen.kind) {
    case 'board':
      return '/desk';
    case 'people':
      if (screen.text) query.set('q', screen.text);
      if (screen.condition) query.set('who', screen.condition);
      return '/desk/people';
    case 'person':
      return `/desk/people/${encodeURIComponent(screen.person ?? NEW_PERSON)}`;
    case 'names':
      return '/desk/names';
    case 'print':
      return '/desk/print';
    case 'history':
      if (screen.revision !== null) query.set('revision', String(screen.revision));
      return '/desk/history';
    case 'journal':
      return '/desk/journal';
    case 'settings':
      return '/desk/settings';
    case 'site':
      if (screen.item) query.set('item', screen.item);
      return '/desk/site';
    case 'outbox':
      return '/desk/outbox';
    case 'audiences':
      if (screen.audience) query.set('audience', screen.audience);
      return '/desk/audiences';
    default:
      return screen satisfies never;
  }
}

/** The title of a view, for the browser's own list of pages. */
const TITLES: Readonly<Record<Screen['kind'], string>> = {
  board: 'Board',
  print: 'The board on paper',
  history: 'History',
  journal: 'Journal',
  settings: 'Settings',
  site: 'Site',
  people: 'People',
  person: 'Person',
  names: 'Names',
  audiences: 'Audiences',
  outbox: 'Outbox',
};

export const titleOfPlace = ({ screen }: Pick<Place, 'screen'>): string => TITLES[screen.kind];
