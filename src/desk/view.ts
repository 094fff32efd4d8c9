/**
 * Where one is at the desk, as its address: which screen, which policy is shown, what is on the workbench. So Back, reload
 * and a link to a colleague all lead to the same view.
 */
import { addressOfBench, type Bench, readBench } from './benches';
import { type BoardFilter, everyRow, readFilter, writeFilter } from './board-filter';
import { addressOfScreen, readScreen, type Screen, screenNamed } from './screens';

/** Which policy is shown. */
export type Side = 'live' | 'draft' | 'difference';

/** A view of the desk. */
export interface View {
  readonly screen: Screen;
  readonly side: Side;
  readonly bench: Bench;
  /** Which rows the board shows. */
  readonly filter: BoardFilter;
}

type Query = Readonly<Record<string, string | string[] | undefined>>;

const SIDES: readonly Side[] = ['live', 'draft', 'difference'];

/** Reads a view from an address below `/desk`; null for a screen there is not. */
export function readView(path: readonly string[], query: Query): View | null {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name] : undefined);
  const screen = readScreen(path, text);
  if (!screen) return null;
  const side = SIDES.find((one) => one === text('show')) ?? 'draft';
  const filter = screenNamed(screen.kind).rows ? readFilter(text) : everyRow;
  return { screen, side, bench: readBench(text), filter };
}

/** A view of a screen with nothing else in view. */
export const viewOf = (screen: Screen): View => ({
  screen,
  side: 'draft',
  bench: { kind: 'gates' },
  filter: everyRow,
});

/** The address of a view. */
export function addressOfView({ screen, side, bench, filter }: View): string {
  const { path, query: own } = addressOfScreen(screen);
  const query = new URLSearchParams(side === 'draft' ? {} : { show: side });
  for (const [name, value] of Object.entries({ ...addressOfBench(bench), ...own }))
    if (value) query.set(name, value);
  if (screenNamed(screen.kind).rows) writeFilter(filter, query);
  return query.size === 0 ? path : `${path}?${query}`;
}

/** The title of a view, for the browser's own list of pages. */
export const titleOfView = ({ screen }: Pick<View, 'screen'>): string => screenNamed(screen.kind).title;
