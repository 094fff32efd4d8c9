'use client';
import { clsx } from 'clsx';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo } from 'react';
import {
  type CompiledPolicy,
  capital,
  describeDecision,
  type Item,
  type ItemId,
  isAddressed,
  isShared,
  keyOfStandIn,
  nameInContext,
  nameOf,
  pathOf,
  type StandIn,
} from '@/core';
import { useDesk } from '../context';
import { KindMark } from '../marks';
import { BoardCell } from './board-cell';
import { LINE_HEIGHT } from './lines';
import { Pointer, RowGates } from './row-gates';
import { type Cell, type CellAt, cellOf, partsBelow, pointsAt, type Row } from './rows';

interface BoardRowProps {
  readonly row: Row;
  readonly index: number;
  /** Where it stands among all lines of the table, from 1. */
  readonly place: number;
  /** The columns that are drawn, and the room that those before and after them take, in pixels. */
  readonly columns: readonly number[];
  readonly before: number;
  readonly after: number;
  readonly at: number | null;
  readonly lit: boolean;
  readonly litColumn: number | null;
  /** Whether the gate that is open covers this row; null when none is open. */
  readonly covered: boolean | null;
  /** The policy that the board shows. */
  readonly shown: CompiledPolicy;
  readonly onPoint: (place: CellAt) => void;
  readonly onFocusCell: (place: CellAt) => void;
  readonly onAsk: (row: number, column: number) => void;
  /** Folds the sections of an item out or away. */
  readonly onFold: (item: ItemId, out: boolean) => void;
  readonly marked: boolean;
  /** Marks the row, or with a range every row from the last one marked. */
  readonly onMark: (item: ItemId, range: boolean) => void;
}

/** An item, its gates and what each stand-in gets. */
export const BoardRow = memo(function BoardRow({
  row,
  index,
  place,
  columns,
  before,
  after,
  at,
  lit,
  litColumn,
  covered,
  shown,
  onPoint,
  onFocusCell,
  onAsk,
  onFold,
  marked,
  onMark,
}: BoardRowProps) {
  const { side, standIns, outline, request, compiled } = useDesk();
  const { item, depth, parts, unfolded } = row;
  const cells = columns
    .map((column): { readonly column: number; readonly standIn: StandIn; readonly cell: Cell } | null => {
      const standIn = standIns[column];
      return standIn ? { column, standIn, cell: cellOf(item, standIn, request, compiled) } : null;
    })
    .filter((one) => one !== null);
  const still = side === 'difference' && !cells.some(({ cell }) => cell.changes);
  const gatedWithin = partsBelow(outline, item.id).some(({ id }) =>
    (shown.covering.get(id) ?? []).some(({ gate }) => pointsAt(gate, id)),
  );
  return (
    <tr
      aria-rowindex={place}
      style={{ height: LINE_HEIGHT }}
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
          !marked && (lit ? 'bg-sunk' : 'bg-paper'),
          marked && 'bg-wash',
          covered && 'shadow-[inset_4px_0_0_var(--copper)]',
        )}
      >
        <span
          className={clsx('flex h-[30px] items-center gap-2', still && 'text-quiet')}
          style={{ paddingLeft: 16 + depth * 18 }}
        >
          {/* One line high: where there is no room for it, the address goes before anything of the title does. */}
          <span className="flex h-[30px] min-w-0 flex-wrap gap-x-2 overflow-hidden leading-[30px]">
            <span className={clsx('max-w-full truncate', depth === 0 && !still && 'font-semibold')}>
              {row.on ? `on ${row.on.title}` : item.title}
            </span>
            {row.within && <span className="max-w-full truncate text-quiet text-xs">in {row.within}</span>}
            {isAddressed(row.on ?? item) && (
              <span className="max-w-full truncate text-quiet text-xs leading-[31px]">
                {pathOf(row.on ?? item)}
              </span>
            )}
          </span>
          {!item.published && <span className="text-quiet text-xs italic">unpublished</span>}
          {/* These stand first to the eye, and are read after the title. */}
          {parts > 0 && (
            <button
              type="button"
              aria-expanded={unfolded}
              aria-label={`${unfolded ? 'Fold away' : 'Fold out'} what is in ${item.title}`}
              title={foldTitle(item, parts, gatedWithin)}
              onClick={() => onFold(item.id, !unfolded)}
              className={clsx(
                '-order-1 -ml-4 grid h-6 w-4 shrink-0 place-items-center hover:text-copper',
                gatedWithin ? 'text-copper' : 'text-faint',
              )}
            >
              {unfolded ? (
                <ChevronDown size={12} aria-hidden="true" />
              ) : (
                <ChevronRight size={12} aria-hidden="true" />
              )}
            </button>
          )}
          <span className="-order-1 relative grid size-4 shrink-0 place-items-center">
            <span className={clsx(!row.on && 'group-hover:opacity-0', marked && 'opacity-0')}>
              <KindMark kind={(row.on ?? item).kind} />
            </span>
            <input
              hidden={row.on !== undefined}
              type="checkbox"
              tabIndex={-1}
              aria-label={`Mark ${nameInContext(item, outline)}`}
              title="Mark the row (M); with Shift, every row from the last one marked"
              checked={marked}
              onChange={() => {}}
              onClick={(event) => onMark(item.id, event.shiftKey)}
              className={clsx(
                'absolute inset-0 m-px size-3.5 accent-copper group-hover:opacity-100',
                !marked && 'opacity-0',
              )}
            />
          </span>
          <span className="ml-auto flex items-center">
            {row.on ? null : covered === null ? (
              <RowGates item={item} shown={shown} />
            ) : (
              <Pointer item={item} covered={covered} shown={shown} />
            )}
          </span>
        </span>
      </th>
      {before > 0 && <td className="border-thin border-b" />}
      {cells.map(({ standIn, column, cell }) => (
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
      ))}
      {after > 0 && <td className="border-thin border-b" />}
      <td className="border-thin border-b" />
    </tr>
  );
});

/** What folds out: what is in it, or what it stands on. */
const foldTitle = (item: Item, parts: number, gatedWithin: boolean): string =>
  isShared(item)
    ? `On ${parts} ${parts === 1 ? 'page' : 'pages'} (F)`
    : `${parts} ${parts === 1 ? 'part' : 'parts'}${gatedWithin ? ', with gates of their own' : ''} (F)`;
