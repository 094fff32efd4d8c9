'use client';
/** The board: the site's outline against stand-ins, with every decision. */
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import {
  coverage,
  describeBecause,
  describeDecision,
  explain,
  factsOf,
  type ItemId,
  keyOfStandIn,
  nameOf,
  outcomeOf,
} from '@/core';
import { useDesk } from '../context';
import { OUTCOME_NAMES } from '../marks';
import { BoardRow } from './board-row';
import { ColumnHead } from './column-head';
import { FinderColumn } from './finder-column';
import { Legend } from './legend';
import { type Cell, type CellAt, cellsOf, foldsAbove, rowsOf, standingsOf } from './rows';

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

/** Widths in pixels; the first column takes what is left, and below its least the board scrolls sideways. */
const FIRST_COLUMN = 300;
const COLUMN = 90;
const LAST_COLUMN = 44;

export function Board() {
  const { outline, vocabulary, standIns, compiled, side, bench, setBench, draft, walk, request, addGate } =
    useDesk();
  const opened =
    bench.kind === 'gate' ? draft.policy.gates.find((gate) => gate.id === bench.gate) : undefined;
  const [folds, setFolds] = useState<ReadonlyMap<ItemId, boolean>>(new Map());
  // What one folded out or away stays so; what is on the workbench is in view.
  const unfolded = useMemo(() => {
    const shown = [
      ...(opened?.what.targets ?? []).flatMap((target) => (target.kind === 'selection' ? [] : [target.item])),
      ...(bench.kind === 'why' ? [bench.item] : []),
    ].flatMap((id) => foldsAbove(outline, outline.items.get(id)));
    const open = new Set(shown);
    for (const [id, out] of folds) if (out) open.add(id);
    return open;
  }, [opened, bench, folds, outline]);
  const rows = useMemo(() => rowsOf(outline, unfolded), [outline, unfolded]);
  const fold = useCallback(
    (id: ItemId, out: boolean) => setFolds((before) => new Map(before).set(id, out)),
    [],
  );
  const cells = useMemo(
    () => rows.map(({ item }) => cellsOf(item, standIns, request, compiled)),
    [rows, standIns, request, compiled],
  );
  const shown = side === 'live' ? compiled.live : compiled.draft;
  const [at, setAt] = useState<CellAt>({ row: 0, column: 0 });
  const [pointed, setPointed] = useState<CellAt | null>(null);
  const [legend, setLegend] = useState(false);
  const grid = useRef<HTMLTableElement>(null);
  const covered = useMemo(
    () => (opened ? coverage(opened, outline, vocabulary) : null),
    [opened, outline, vocabulary],
  );
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
    if (!inCell || event.getModifierState('Meta') || event.ctrlKey || event.altKey) return;
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
      f: () => rows[row]?.parts && item && fold(item.id, !rows[row]?.unfolded),
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
      const why = describeBecause(
        explain(policy, row.item.id, factsOf(standIn), request),
        row.item,
        policy.vocabulary,
      );
      return `${describeDecision(cell[which], nameOf(standIn), row.item, outline)}${why ? `: ${why}` : ''}.`;
    };
    if (side !== 'difference') return tell(side);
    if (!cells.some((line) => line.some((one) => one.changes))) {
      return 'None of the visitors on the board notices a difference. The panel names those who do, if anybody does.';
    }
    if (cell.changes && outcomeOf(cell.live) === outcomeOf(cell.draft))
      return tellSame(cell, nameOf(standIn));
    return cell.changes
      ? `Now: ${tell('live')} In the draft: ${tell('draft')}`
      : `Unchanged. ${tell('draft')}`;
  }, [rows, standIns, cells, lit.row, lit.column, side, compiled, request, outline]);

  return (
    <section aria-label="Board" className="flex min-h-0 min-w-0 flex-col">
      <div className="min-h-0 flex-1 overflow-auto">
        <table
          ref={grid}
          className="w-full table-fixed border-separate border-spacing-0"
          style={{ minWidth: FIRST_COLUMN + columnCount * COLUMN + LAST_COLUMN }}
          onKeyDown={onKeyDown}
        >
          <caption className="sr-only">
            Who gets what. Arrow keys move, Enter asks why, G opens the gate, W walks there, F folds sections
            out, L shows the legend.
          </caption>
          <colgroup>
            <col />
            {standIns.map((standIn) => (
              <col key={keyOfStandIn(standIn)} style={{ width: COLUMN }} />
            ))}
            <col style={{ width: LAST_COLUMN }} />
          </colgroup>
          <thead>
            <tr>
              <th
                scope="col"
                className="sticky top-0 left-0 z-20 border-iron border-b bg-paper px-4 py-2 text-left align-bottom font-normal"
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
                onFold={fold}
                columns={columnCount + 2}
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
