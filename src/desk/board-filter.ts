/** Which rows the board shows, as its address says it. */
import { ITEM_KINDS, type ItemKind, OUTCOMES, type Outcome } from '@/core';

/** What a stand-in has to get at a row for it to be shown. */
export type Gets = '' | 'not open' | 'a change' | 'unlike' | 'more' | Outcome;

/** What two stand-ins are compared by. */
export const compares = (gets: Gets): boolean => gets === 'unlike' || gets === 'more';

export interface BoardFilter {
  /** In titles and addresses. */
  readonly text: string;
  readonly kind: ItemKind | '';
  /** The id of a gate over the row; `none` for rows without any. */
  readonly gate: string;
  /** A stand-in's key; empty for any of those on the board. */
  readonly who: string;
  readonly gets: Gets;
  /** The key of the other stand-in, for rows where two differ. */
  readonly other: string;
}

export const everyRow: BoardFilter = { text: '', kind: '', gate: '', who: '', gets: '', other: '' };

export const NO_GATE = 'none';

export const filters = (filter: BoardFilter): boolean =>
  filter.text !== '' || filter.kind !== '' || filter.gate !== '' || filter.gets !== '';

const GETS: readonly Gets[] = ['not open', 'a change', 'unlike', 'more', ...OUTCOMES];

/** Reads a filter from an address; what it does not know is left out. */
export function readFilter(text: (name: string) => string | undefined): BoardFilter {
  const gets = GETS.find((one) => one === text('gets')) ?? '';
  return {
    text: (text('find') ?? '').slice(0, 200),
    kind: ITEM_KINDS.find((one) => one === text('kind')) ?? '',
    gate: text('under') ?? '',
    who: gets === '' ? '' : (text('who') ?? ''),
    gets,
    other: compares(gets) ? (text('other') ?? '') : '',
  };
}

/** Writes a filter into an address. */
export function writeFilter(filter: BoardFilter, query: URLSearchParams): void {
  const names = {
    text: 'find',
    kind: 'kind',
    gate: 'under',
    who: 'who',
    gets: 'gets',
    other: 'other',
  } as const;
  for (const [part, name] of Object.entries(names)) {
    const value = filter[part as keyof BoardFilter];
    if (value !== '') query.set(name, value);
  }
}
