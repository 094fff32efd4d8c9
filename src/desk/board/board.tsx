'use client';
/** The board: the site's outline against stand-ins, with every decision. */
import { clsx } from 'clsx';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import {
  capital,
  coverage,
  describeBecause,
  describeDecision,
  describeGate,
  explain,
  factsOf,
  keyOfStandIn,
  nameOf,
  outcomeOf,
  pointAt,
} from '@/core';
import { useDesk } from '../context';
import { GateMark, KindMark, OUTCOME_NAMES, OutcomeMark } from '../marks';
import { ColumnHead } from './column-head';
import { FinderColumn } from './finder-column';
import { Legend } from './legend';
import { type Cell, cellsOf, type Row, rowsOf, standingsOf } from './rows';

interface Place {
  readonly row: number;
  readonly column: number;
}

/** Where the keys lead from a cell; the edges are kept elsewhere. */
const MOVES: Readonly<Record<string, (at: Place, last: Place) => Place>> = {
  ArrowUp: ({ row, column }) => ({ row: row - 1, column }),
  ArrowDown: ({ row, column }) => ({ row: row + 1, column }),
  ArrowLeft: ({ row, column }) => ({ row, column: column - 1 }),
  ArrowRight: ({ row, column }) => ({ row, column: column + 1 }),
  Home: ({ row }) => ({ row, column: 0 }),
  End: ({ row }, last) => ({ row, column: last.column }),
  PageUp: ({ row, column }) => ({ row: row - 10, column }),
  PageDown: ({ row, column }) => ({ row: row + 10, column }),
};

export function Board() {
  const { outline, standIns, compiled, side, bench, setBench, draft, walk, vocabulary, addGate } = useDesk();
  const rows = useMemo(() => rowsOf(outline), [outline]);
  const cells = useMemo(
    () => rows.map(({ item }) => cellsOf(item, standIns, compiled)),
    [rows, standIns, compiled],
  );
  const shown = side === 'live' ? compiled.live : compiled.draft;
  const [at, setAt] = useState<Place>({ row: 0, column: 0 });
  const [pointed, setPointed] = useState<Place | null>(null);
  const [legend, setLegend] = useState(false);
  const grid = useRef<HTMLTableElement>(null);
  const opened =
    bench.kind === 'gate' ? draft.policy.gates.find((gate) => gate.id === bench.gate) : undefined;
  const covered = useMemo(() => (opened ? coverage(opened.what, outline) : null), [opened, outline]);
  const lit = pointed ?? at;

  const columnCount = standIns.length;
  useEffect(() => {
    setAt(({ row, column }) => ({ row, column: Math.min(column, Math.max(0, columnCount - 1)) }));
  }, [columnCount]);

  const focusCell = useCallback((row: number, column: number) => {
    setAt({ row, column });
    setPointed(null);
    grid.current?.querySelector<HTMLElement>(`[data-cell="${row}:${column}"]`)?.focus();
  }, []);

  const ask = useCallback(
    (row: number, column: number) => {
      const item = rows[row]?.item;
      const standIn = standIns[column];
      if (item && standIn) setBench({ kind: 'why', item: item.id, standIn: keyOfStandIn(standIn) });
    },
    [rows, standIns, setBench],
  );

  const onKeyDown = (event: KeyboardEvent) => {
    const inCell = (event.target as HTMLElement).dataset.cell !== undefined;
    if (!inCell || event.metaKey || event.ctrlKey || event.altKey) return;
    const { row, column } = at;
    const last = { row: rows.length - 1, column: columnCount - 1 };
    const item = rows[row]?.item;
    const standIn = standIns[column];
    const move = MOVES[event.key];
    if (move) {
      event.preventDefault();
      const next = move(at, last);
      focusCell(Math.max(0, Math.min(last.row, next.row)), Math.max(0, Math.min(last.column, next.column)));
      return;
    }
    const steps: Readonly<Record<string, () => unknown>> = {
      g: () => {
        const [first] = item
          ? standingsOf(compiled.draft, item).filter(({ standing }) => standing !== 'set aside')
          : [];
        if (first) setBench({ kind: 'gate', gate: first.gate.id });
        else if (item) addGate(item);
      },
      w: () => standIn && item && walk(standIn, item),
      l: () => setLegend((open) => !open),
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    step();
  };

  const line = useMemo(() => {
    const row = rows[lit.row];
    const standIn = standIns[lit.column];
    const cell = cells[lit.row]?.[lit.column];
    if (!row || !standIn || !cell) return '';
    const tell = (which: 'draft' | 'live') => {
      const policy = compiled[which];
      const why = describeBecause(explain(policy, row.item.id, factsOf(standIn)), row.item, vocabulary);
      return `${describeDecision(cell[which], nameOf(standIn), row.item, outline)}${why ? `: ${why}` : ''}.`;
    };
    if (side !== 'difference') return tell(side);
    if (!cells.some((line) => line.some((one) => one.changes))) {
      return 'None of the visitors on the board notices a difference. Put others on it: the panel names some who do.';
    }
    if (cell.changes && outcomeOf(cell.live) === outcomeOf(cell.draft))
      return tellSame(cell, nameOf(standIn));
    return cell.changes
      ? `Now: ${tell('live')} In the draft: ${tell('draft')}`
      : `Unchanged. ${tell('draft')}`;
  }, [rows, standIns, cells, lit.row, lit.column, side, compiled, vocabulary, outline]);

  return (
    <section aria-label="Board" className="flex min-h-0 min-w-0 flex-col">
      <div className="min-h-0 flex-1 overflow-auto">
        <table ref={grid} className="w-full border-separate border-spacing-0" onKeyDown={onKeyDown}>
          <caption className="sr-only">
            Who gets what. Arrow keys move, Enter asks why, G opens the gate, W walks there, L shows the
            legend.
          </caption>
          <thead>
            <tr>
              <th
                scope="col"
                className="sticky top-0 left-0 z-20 min-w-80 border-iron border-b bg-paper px-4 py-2 text-left align-bottom font-normal"
              >
                <span className="flex items-end justify-between gap-3">
                  <span className="note">
                    {rows.length} items, {standIns.length} {standIns.length === 1 ? 'visitor' : 'visitors'}
                  </span>
                  <Legend open={legend} onOpenChange={setLegend} />
                </span>
              </th>
              {standIns.map((standIn, column) => (
                <ColumnHead
                  key={keyOfStandIn(standIn)}
                  standIn={standIn}
                  column={column}
                  lit={pointed !== null && lit.column === column}
                />
              ))}
              <FinderColumn />
            </tr>
          </thead>
          <tbody onMouseLeave={() => setPointed(null)}>
            {rows.map((row, index) => (
              <BoardRow
                key={row.item.id}
                row={row}
                index={index}
                cells={cells[index] ?? []}
                at={at.row === index ? at.column : null}
                lit={lit.row === index}
                litColumn={pointed === null ? null : lit.column}
                covered={covered?.has(row.item.id) ?? null}
                shown={shown}
                onPoint={setPointed}
                onFocusCell={setAt}
                onAsk={ask}
              />
            ))}
          </tbody>
        </table>
      </div>
      <p
        aria-live="polite"
        data-testid="decision-line"
        className="flex h-13 items-center border-iron border-t bg-sunk px-4 py-1.5 text-[0.8125rem] leading-snug"
      >
        {line}
      </p>
    </section>
  );
}

/** A change that leaves the kind of answer as it was: what reads differently, as far as there are words for it. */
function tellSame({ live, draft }: Cell, who: string): string {
  const kind = OUTCOME_NAMES[outcomeOf(draft)];
  const [before, after] = [live, draft].map((one) => (one.kind === 'turned away' ? one.reason : null));
  const words =
    before !== after ? ` Now: “${before ?? 'no reason'}” In the draft: “${after ?? 'no reason'}”` : '';
  return `${who} still gets this turn-away (${kind}), but not the same one.${words}`;
}

interface BoardRowProps {
  readonly row: Row;
  readonly index: number;
  readonly cells: readonly Cell[];
  readonly at: number | null;
  readonly lit: boolean;
  readonly litColumn: number | null;
  /** Whether the gate that is open covers this row; null when none is open. */
  readonly covered: boolean | null;
  readonly shown: Parameters<typeof standingsOf>[0];
  readonly onPoint: (place: Place) => void;
  readonly onFocusCell: (place: Place) => void;
  readonly onAsk: (row: number, column: number) => void;
}

function BoardRow({
  row,
  index,
  cells,
  at,
  lit,
  litColumn,
  covered,
  shown,
  onPoint,
  onFocusCell,
  onAsk,
}: BoardRowProps) {
  const { side, standIns, outline } = useDesk();
  const { item, depth } = row;
  const still = side === 'difference' && !cells.some((cell) => cell.changes);
  return (
    <tr
      className={clsx(
        'group',
        lit && 'bg-sunk',
        item.kind === 'menu' && '[&>*]:border-t-iron [&>*]:border-t',
      )}
    >
      <th
        scope="row"
        className={clsx(
          'sticky left-0 z-10 border-thin border-b py-0 pr-2 text-left font-normal',
          lit ? 'bg-sunk' : 'bg-paper',
          covered && 'shadow-[inset_4px_0_0_var(--copper)]',
        )}
      >
        <span
          className={clsx('flex h-[30px] items-center gap-2', still && 'text-quiet')}
          style={{ paddingLeft: 16 + depth * 18 }}
        >
          <KindMark kind={item.kind} />
          <span className={clsx('truncate', depth === 0 && !still && 'font-semibold')}>{item.title}</span>
          {item.kind === 'page' && <span className="truncate text-quiet text-xs">{item.address}</span>}
          {!item.published && <span className="text-quiet text-xs italic">unpublished</span>}
          <span className="ml-auto flex items-center">
            {covered === null ? (
              <RowGates row={row} shown={shown} />
            ) : (
              <Pointer row={row} covered={covered} shown={shown} />
            )}
          </span>
        </span>
      </th>
      {standIns.map((standIn, column) => {
        const cell = cells[column];
        if (!cell) return null;
        return (
          <BoardCell
            key={keyOfStandIn(standIn)}
            cell={cell}
            place={{ row: index, column }}
            label={capital(
              describeDecision(side === 'live' ? cell.live : cell.draft, nameOf(standIn), item, outline),
            )}
            chosen={at === column}
            lit={litColumn === column}
            onPoint={onPoint}
            onFocusCell={onFocusCell}
            onAsk={onAsk}
          />
        );
      })}
      <td className="border-thin border-b" />
    </tr>
  );
}

interface RowGatesProps {
  readonly row: Row;
  readonly shown: BoardRowProps['shown'];
  readonly withoutNew?: boolean;
}

function RowGates({ row: { item }, shown, withoutNew = false }: RowGatesProps) {
  const { bench, setBench, outline, vocabulary, addGate } = useDesk();
  const standings = standingsOf(shown, item);
  return (
    <>
      {standings.map(({ gate, standing }) => {
        const legs = describeGate(gate, outline, vocabulary);
        const label = `Gate, ${standing}: ${legs.what}; ${legs.who}`;
        const open = bench.kind === 'gate' && bench.gate === gate.id;
        return (
          <button
            key={gate.id}
            type="button"
            title={label}
            aria-label={label}
            onClick={() => setBench({ kind: 'gate', gate: gate.id })}
            className={clsx('rounded-[3px] p-1.5 hover:text-copper', open && 'bg-wash text-copper')}
          >
            <GateMark standing={standing} />
          </button>
        );
      })}
      {standings.length === 0 && !withoutNew && (
        <button
          type="button"
          aria-label={`Put a gate on ${item.title}`}
          title="Put a gate here"
          onClick={() => addGate(item)}
          className="rounded-[3px] px-1.5 text-quiet opacity-0 hover:text-copper focus-visible:opacity-100 group-hover:opacity-100"
        >
          + gate
        </button>
      )}
    </>
  );
}

/** While a gate is open, each row can be pointed at: covered, or left out. */
function Pointer({
  row,
  covered,
  shown,
}: {
  readonly row: Row;
  readonly covered: boolean;
  readonly shown: BoardRowProps['shown'];
}) {
  const { bench, draft, outline, changeGate } = useDesk();
  const gate = bench.kind === 'gate' ? draft.policy.gates.find((one) => one.id === bench.gate) : undefined;
  const label = covered ? `Leave out ${row.item.title}` : `Cover ${row.item.title}`;
  return (
    <>
      {gate && (
        <button
          type="button"
          aria-label={label}
          title={label}
          onClick={() => changeGate({ ...gate, what: pointAt(gate.what, row.item.id, outline) })}
          className="rounded-[3px] px-1.5 text-quiet opacity-0 hover:text-copper focus-visible:opacity-100 group-hover:opacity-100"
        >
          {covered ? '− leave out' : '+ cover'}
        </button>
      )}
      <RowGates row={row} shown={shown} withoutNew />
    </>
  );
}

interface BoardCellProps {
  readonly cell: Cell;
  readonly place: Place;
  readonly label: string;
  readonly chosen: boolean;
  readonly lit: boolean;
  readonly onPoint: (place: Place) => void;
  readonly onFocusCell: (place: Place) => void;
  readonly onAsk: (row: number, column: number) => void;
}

function BoardCell({ cell, place, label, chosen, lit, onPoint, onFocusCell, onAsk }: BoardCellProps) {
  const { side } = useDesk();
  const now = outcomeOf(cell.live);
  const then = outcomeOf(cell.draft);
  const marked = side === 'difference' && cell.changes;
  const outcome = side === 'live' ? now : then;
  const said = marked ? `${label}; now ${OUTCOME_NAMES[now]}` : label;
  return (
    <td className={clsx('border-thin border-b p-0 text-center', lit && 'bg-sunk')}>
      <button
        type="button"
        data-cell={`${place.row}:${place.column}`}
        data-outcome={outcome}
        data-changes={cell.changes || undefined}
        tabIndex={chosen ? 0 : -1}
        aria-label={said}
        onClick={() => {
          onFocusCell(place);
          onAsk(place.row, place.column);
        }}
        onFocus={() => onFocusCell(place)}
        onMouseEnter={() => onPoint(place)}
        className={clsx(
          'inline-flex h-[30px] w-full items-center justify-center gap-1.5',
          side === 'difference' && !cell.changes && 'opacity-25',
          marked && 'bg-wash',
          chosen && 'outline-1 outline-iron -outline-offset-2',
        )}
      >
        {marked && (
          <>
            <OutcomeMark outcome={now} size={12} />
            <span aria-hidden="true" className="text-quiet text-xs">
              {now === outcome ? '~' : '›'}
            </span>
          </>
        )}
        <OutcomeMark outcome={outcome} />
      </button>
    </td>
  );
}
