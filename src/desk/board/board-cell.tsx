'use client';
import { clsx } from 'clsx';
import { outcomeName, outcomeOf } from '@/core';
import { useDesk } from '../context';
import { OutcomeMark } from '../marks';
import type { Cell, CellAt } from './rows';

interface BoardCellProps {
  readonly cell: Cell;
  readonly place: CellAt;
  readonly label: string;
  readonly chosen: boolean;
  readonly lit: boolean;
  readonly onPoint: (place: CellAt) => void;
  readonly onFocusCell: (place: CellAt) => void;
  readonly onAsk: (row: number, column: number) => void;
}

/** One decision: its mark, and in the difference the old one beside it. */
export function BoardCell({ cell, place, label, chosen, lit, onPoint, onFocusCell, onAsk }: BoardCellProps) {
  const { side } = useDesk();
  const now = outcomeOf(cell.live);
  const then = outcomeOf(cell.draft);
  const marked = side === 'difference' && cell.changes;
  const outcome = side === 'live' ? now : then;
  const hosts = cell.hosts?.[side === 'live' ? 'live' : 'draft'] ?? null;
  // Where it is the same on all of them, the mark says so.
  const some = hosts !== null && outcome === 'open' && hosts.open < hosts.of ? hosts : null;
  const where = some ? `, on ${some.open} of ${some.of} pages` : '';
  const said = (marked ? `${label}; now ${outcomeName(now)}` : label) + where;
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
        {some && (
          <span aria-hidden="true" className="text-quiet text-xs tabular-nums">
            {some.open}/{some.of}
          </span>
        )}
      </button>
    </td>
  );
}
