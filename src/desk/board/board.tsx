'use client';
/** The board: the site's outline against stand-ins, with every decision. */
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  type KeyboardEvent,
  startTransition,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { coverage, type ItemId, itemAt, keyOfStandIn } from '@/core';
import { Button, Choice } from '@/ui';
import { everyRow, filters } from '../board-filter';
import { useDesk } from '../context';
import type { Side } from '../view';
import { BoardOut } from './board-out';
import { BoardRow } from './board-row';
import { BoardSets } from './board-sets';
import { ColumnHead } from './column-head';
import { columnWidths, FIRST_COLUMN, LAST_COLUMN } from './column-width';
import { EffectLine } from './effect-line';
import { FilterBar } from './filter-bar';
import { filteredRows } from './filter-rows';
import { FinderColumn } from './finder-column';
import { Legend } from './legend';
import { LINE_HEIGHT, linesOf } from './lines';
import { MarkedBar } from './marked-bar';
import { markOne, markRange, unmarked } from './marking';
import { type CellAt, foldsAbove, gatesOnRow, rowsOf } from './rows';
import { useDecisionLine } from './use-decision-line';
import { useMatrix } from './use-matrix';
import { useWidth } from './use-width';

/** Where the keys lead from a cell; the edges are kept elsewhere. */
const MOVES: Readonly<Record<string, (at: CellAt, last: CellAt) => CellAt>> = {
  ArrowUp: ({ row, column }) => ({ row: row - 1, column }),
  ArrowDown: ({ row, column }) => ({ row: row + 1, column }),
  ArrowLeft: ({ row, column }) => ({ row, column: column - 1 }),
  ArrowRight: ({ row, column }) => ({ row, column: column + 1 }),
  Home: ({ row }) => ({ row, column: 0 }),
  End: ({ row }, last) => ({ row, column: last.column }),
  PageUp: ({ row, column }) => ({ row: row - 10, column }),
  PageDown: ({ row, column }) => ({ row: row + 10, column }),
};

// A board of the size of a small site is drawn whole, so that the browser's own search finds everything on it; what is in
// view comes first.
const WHOLE = { lines: 250, columns: 12 };

/** What stands above and below the rows, in pixels: less than that is never there. */
const AROUND = 230;

const SIDES: readonly { readonly value: Side; readonly label: string; readonly title: string }[] = [
  { value: 'live', label: 'Live', title: 'What visitors get now' },
  { value: 'draft', label: 'Draft', title: 'What they would get' },
  { value: 'difference', label: 'Difference', title: 'Only what would change' },
];

export function Board() {
  const desk = useDesk();
  const { outline, vocabulary, standIns, compiled, side, bench, setBench, draft, walk, addGate } = desk;
  const { filter, setFilter, setSide, panelWidth } = desk;
  const opened =
    bench.kind === 'gate' ? draft.policy.gates.find((gate) => gate.id === bench.gate) : undefined;
  const [folds, setFolds] = useState<ReadonlyMap<ItemId, boolean>>(new Map());
  // What one folded out or away stays so; what is on the workbench is in view.
  const unfolded = useMemo(() => {
    const shown = [
      ...(opened?.what.targets ?? []).flatMap((target) => (target.kind === 'selection' ? [] : [target.item])),
      ...(bench.kind === 'why' ? [bench.item] : []),
    ].flatMap((id) => foldsAbove(outline, itemAt(outline, id)));
    const open = new Set(shown);
    for (const [id, out] of folds) if (out) open.add(id);
    return open;
  }, [opened, bench, folds, outline]);
  const shown = side === 'live' ? compiled.live : compiled.draft;
  const decided = useMatrix();
  const filtering = filters(filter);
  // Whoever looks for something looks in what is folded away as well.
  const all = useMemo(
    () => rowsOf(outline, filtering ? 'all' : unfolded, shown.places),
    [outline, filtering, unfolded, shown],
  );
  const rows = useMemo(
    () => filteredRows(all, filter, shown, side === 'live' ? 'live' : 'draft', decided),
    [all, filter, shown, side, decided],
  );
  const lines = useMemo(() => linesOf(rows), [rows]);
  const fold = useCallback(
    (id: ItemId, out: boolean) => setFolds((before) => new Map(before).set(id, out)),
    [],
  );
  const [at, setAt] = useState<CellAt>({ row: 0, column: 0 });
  const [pointed, setPointed] = useState<CellAt | null>(null);
  const [marking, setMarking] = useState(unmarked);
  const [legend, setLegend] = useState(false);
  const grid = useRef<HTMLTableElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const covered = useMemo(
    () => (opened ? coverage(opened, outline, vocabulary) : null),
    [opened, outline, vocabulary],
  );
  const lit = pointed ?? at;
  const columnCount = standIns.length;
  // What is in view is right the first time it is drawn.
  const width = useWidth(scroller, window.innerWidth - panelWidth);
  const room = { width, height: window.innerHeight - AROUND };
  const { column: columnWidth, first, slanted } = columnWidths(width, columnCount);

  const [whole, setWhole] = useState(false);
  useEffect(() => startTransition(() => setWhole(true)), []);
  const down = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => LINE_HEIGHT,
    overscan: !whole ? 0 : lines.length <= WHOLE.lines ? WHOLE.lines : 10,
    scrollPaddingStart: 64,
    initialRect: room,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columnCount,
    getScrollElement: () => scroller.current,
    estimateSize: () => columnWidth,
    overscan: columnCount <= WHOLE.columns ? WHOLE.columns : 2,
    paddingStart: first,
    scrollPaddingStart: first,
    initialRect: room,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another width is the reason to measure anew
  useEffect(() => across.measure(), [across, columnWidth]);
  const shownLines = down.getVirtualItems();
  const from = across.getVirtualItems()[0]?.index ?? 0;
  const to = across.getVirtualItems().at(-1)?.index ?? -1;
  const columns = useMemo(() => Array.from({ length: to - from + 1 }, (_, at) => from + at), [from, to]);
  const above = shownLines[0]?.start ?? 0;
  const below = down.getTotalSize() - (shownLines.at(-1)?.end ?? 0);
  const before = (columns[0] ?? 0) * columnWidth;
  const after = (columnCount - 1 - (columns.at(-1) ?? columnCount - 1)) * columnWidth;

  useEffect(() => {
    setAt(({ row, column }) => ({
      row: Math.min(row, Math.max(0, rows.length - 1)),
      column: Math.min(column, Math.max(0, columnCount - 1)),
    }));
  }, [columnCount, rows.length]);

  // A cell far away is there only after the board has scrolled to it.
  const wanted = useRef<CellAt | null>(null);
  useEffect(() => {
    if (!wanted.current) return;
    const { row, column } = wanted.current;
    const cell = grid.current?.querySelector<HTMLElement>(`[data-cell="${row}:${column}"]`);
    if (!cell) return;
    wanted.current = null;
    cell.focus();
  });
  const focusCell = (row: number, column: number) => {
    setAt({ row, column });
    setPointed(null);
    wanted.current = { row, column };
    down.scrollToIndex(lines.findIndex((line) => line.kind === 'row' && line.index === row));
    across.scrollToIndex(column);
  };

  const ask = useCallback(
    (row: number, column: number) => {
      const item = rows[row]?.item;
      const standIn = standIns[column];
      if (item && standIn) setBench({ kind: 'why', item: item.id, standIn: keyOfStandIn(standIn) });
    },
    [rows, standIns, setBench],
  );

  const onMark = useCallback(
    (item: ItemId, range: boolean) =>
      setMarking((before) =>
        range
          ? markRange(
              before,
              rows.map((one) => one.item.id),
              item,
            )
          : markOne(before, item),
      ),
    [rows],
  );

  const onKeyDown = (event: KeyboardEvent) => {
    const inCell = (event.target as HTMLElement).dataset.cell !== undefined;
    if (!inCell || event.getModifierState('Meta') || event.ctrlKey || event.altKey) return;
    const { row, column } = at;
    const last = { row: rows.length - 1, column: columnCount - 1 };
    const item = rows[row]?.item;
    const standIn = standIns[column];
    const move = MOVES[event.key];
    if (move) {
      event.preventDefault();
      const next = move(at, last);
      const to = Math.max(0, Math.min(last.row, next.row));
      const there = rows[to]?.item;
      if (event.shiftKey && to !== row && item && there) {
        if (!marking.marked.has(item.id)) onMark(item.id, false);
        onMark(there.id, true);
      }
      focusCell(to, Math.max(0, Math.min(last.column, next.column)));
      return;
    }
    const steps: Readonly<Record<string, () => unknown>> = {
      g: () => {
        const [gate] = item
          ? gatesOnRow(compiled.draft, item).filter(({ standing }) => standing !== 'set aside')
          : [];
        if (gate) setBench({ kind: 'gate', gate: gate.gate.id });
        else if (item) addGate(item);
      },
      w: () => standIn && item && walk(standIn, item),
      l: () => setLegend((open) => !open),
      m: () => item && !rows[row]?.on && onMark(item.id, false),
      f: () => rows[row]?.parts && item && fold(item.id, !rows[row]?.unfolded),
    };
    const step = event.key === 'Escape' ? () => setMarking(unmarked) : steps[event.key];
    if (!step) return;
    event.preventDefault();
    step();
  };

  const line = useDecisionLine(rows[lit.row]?.item, standIns[lit.column], decided);

  return (
    <section aria-label="Board" className="flex min-h-0 min-w-0 flex-col">
      <FilterBar />
      <div ref={scroller} className="isolate min-h-0 flex-1 overflow-auto" data-testid="board-scroller">
        <table
          ref={grid}
          aria-rowcount={lines.length + 1}
          aria-colcount={columnCount + 2}
          className="w-full table-fixed border-separate border-spacing-0"
          style={{ minWidth: FIRST_COLUMN + columnCount * columnWidth + LAST_COLUMN }}
          onKeyDown={onKeyDown}
        >
          <caption className="sr-only">
            Who gets what. Arrow keys move, Enter asks why, G opens the gate, W walks there, F folds sections
            out, M marks the row and Shift with the arrows more of them, L shows the legend.
          </caption>
          <colgroup>
            <col />
            {before > 0 && <col style={{ width: before }} />}
            {columns.map((column) => (
              <col key={column} style={{ width: columnWidth }} />
            ))}
            {after > 0 && <col style={{ width: after }} />}
            <col style={{ width: LAST_COLUMN }} />
          </colgroup>
          <thead>
            <tr aria-rowindex={1}>
              <th
                scope="col"
                className="sticky top-0 left-0 z-[101] border-iron border-b bg-paper px-4 py-2 text-left align-bottom font-normal"
              >
                <Choice label="Policy shown" value={side} options={SIDES} onChoose={setSide} />
                <span className="note mt-1.5 block" role="status" data-testid="board-count">
                  {filtering
                    ? `${rows.length} of ${all.length} items`
                    : `${rows.filter(({ on }) => !on).length} items`}
                  , {columnCount} {columnCount === 1 ? 'visitor' : 'visitors'}
                </span>
                <span className="-ml-2 flex flex-wrap items-center gap-x-1">
                  <Legend open={legend} onOpenChange={setLegend} />
                  <BoardSets />
                  <BoardOut rows={rows.filter(({ on }) => on === undefined)} decided={decided} />
                </span>
              </th>
              {before > 0 && <td className="sticky top-0 z-10 border-iron border-b bg-paper" />}
              {columns.map((column) => {
                const standIn = standIns[column];
                return (
                  standIn && (
                    <ColumnHead
                      key={keyOfStandIn(standIn)}
                      standIn={standIn}
                      column={column}
                      lit={pointed !== null && lit.column === column}
                      slanted={slanted}
                    />
                  )
                );
              })}
              {after > 0 && <td className="sticky top-0 z-10 border-iron border-b bg-paper" />}
              <FinderColumn />
            </tr>
          </thead>
          <tbody onMouseLeave={() => setPointed(null)}>
            {above > 0 && <Spacer height={above} />}
            {shownLines.map(({ index: place }) => {
              const entry = lines[place];
              if (!entry) return null;
              if (entry.kind === 'heading')
                return (
                  <tr key={`heading ${entry.text}`} aria-rowindex={place + 2} style={{ height: LINE_HEIGHT }}>
                    <th
                      scope="rowgroup"
                      colSpan={columns.length + 2 + (before > 0 ? 1 : 0) + (after > 0 ? 1 : 0)}
                      className="border-iron border-t border-b bg-sunk px-4 py-0 text-left font-head text-sm"
                    >
                      <span className="sticky left-4">{entry.text}</span>
                    </th>
                  </tr>
                );
              const { row, index } = entry;
              return (
                <BoardRow
                  key={row.item.id}
                  row={row}
                  index={index}
                  place={place + 2}
                  columns={columns}
                  before={before}
                  after={after}
                  at={at.row === index ? at.column : null}
                  lit={lit.row === index}
                  litColumn={pointed === null ? null : lit.column}
                  covered={covered?.has(row.item.id) ?? null}
                  shown={shown}
                  onPoint={setPointed}
                  onFocusCell={setAt}
                  onAsk={ask}
                  onFold={fold}
                  marked={marking.marked.has(row.item.id)}
                  onMark={onMark}
                />
              );
            })}
            {below > 0 && <Spacer height={below} />}
          </tbody>
        </table>
        {rows.length === 0 && (
          <p className="flex items-center gap-3 px-4 py-6">
            No row is like that. <Button onClick={() => setFilter(everyRow)}>Show every row</Button>
          </p>
        )}
      </div>
      {marking.marked.size > 0 && <MarkedBar marking={marking} rows={rows} onChange={setMarking} />}
      <EffectLine />
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

/** What is not drawn takes its place all the same. */
const Spacer = ({ height }: { readonly height: number }) => (
  <tr style={{ height }}>
    <td />
  </tr>
);
