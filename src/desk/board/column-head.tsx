'use client';
import { clsx } from 'clsx';
import { describeFacts, keyOfStandIn, nameOf, type StandIn, standInFacts } from '@/core';
import { useDesk } from '../context';
import { Entry, Menu } from '../menu';

interface ColumnHeadProps {
  readonly standIn: StandIn;
  readonly column: number;
  readonly lit: boolean;
  /** Whether there is no room for the name across. */
  readonly slanted: boolean;
}

/** A stand-in at the head of its column: who they are, and what can be done with the column. */
export function ColumnHead({ standIn, column, lit, slanted }: ColumnHeadProps) {
  const { standIns, setStandIns, vocabulary, walk, setBench, makeUp, request } = useDesk();
  const move = (by: number) => {
    const next = [...standIns];
    next.splice(column + by, 0, ...next.splice(column, 1));
    setStandIns(next);
  };
  const facts = describeFacts(standIn, standInFacts(standIn), vocabulary, request.today);
  return (
    <th
      scope="col"
      className={clsx(
        'sticky top-0 border-iron border-b p-0 align-bottom font-normal',
        lit ? 'bg-sunk' : 'bg-paper',
      )}
      // A slanted name lies over the heads to its right.
      style={{ zIndex: 100 - Math.min(column, 80) }}
    >
      <Menu
        trigger={
          <button
            type="button"
            title={slanted ? `${nameOf(standIn)}: ${facts}` : facts}
            className={clsx(
              'flex h-full w-full flex-col justify-end gap-0.5 py-2 leading-tight hover:text-copper',
              slanted ? 'relative min-h-30' : 'items-center px-1.5 text-center',
            )}
          >
            <span
              className={clsx(
                'font-semibold',
                standIn.kind === 'made up' && 'italic',
                slanted &&
                  'pointer-events-none absolute bottom-2 left-1/2 max-w-32 origin-bottom-left -rotate-60 truncate',
              )}
            >
              {nameOf(standIn)}
            </span>
            <span className={slanted ? 'sr-only' : 'line-clamp-2 text-quiet text-xs'}>{facts}</span>
          </button>
        }
      >
        <Entry onSelect={() => walk(standIn, null)}>Walk through the site as {nameOf(standIn)}</Entry>
        {standIn.kind === 'made up' && (
          <Entry onSelect={() => setBench({ kind: 'stand-in', standIn: keyOfStandIn(standIn) })}>
            Change who {nameOf(standIn)} is
          </Entry>
        )}
        <Entry onSelect={() => makeUp(`Like ${nameOf(standIn)}`, standInFacts(standIn))}>
          Make up somebody like {nameOf(standIn)}
        </Entry>
        {column > 0 && <Entry onSelect={() => move(-1)}>Move to the left</Entry>}
        {column < standIns.length - 1 && <Entry onSelect={() => move(1)}>Move to the right</Entry>}
        <Entry onSelect={() => setStandIns(standIns.filter((one) => one !== standIn))}>
          Take off the board
        </Entry>
      </Menu>
    </th>
  );
}
