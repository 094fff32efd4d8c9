'use client';
import { clsx } from 'clsx';
import { DropdownMenu } from 'radix-ui';
import { describeFacts, factsOf, nameOf, type StandIn } from '@/core';
import { useDesk } from '../context';

interface ColumnHeadProps {
  readonly standIn: StandIn;
  readonly column: number;
  readonly lit: boolean;
}

/** A stand-in at the head of its column: who they are, and what can be done with the column. */
export function ColumnHead({ standIn, column, lit }: ColumnHeadProps) {
  const { standIns, setStandIns, vocabulary, walk } = useDesk();
  const move = (by: number) => {
    const next = [...standIns];
    next.splice(column + by, 0, ...next.splice(column, 1));
    setStandIns(next);
  };
  const facts = describeFacts(standIn, factsOf(standIn), vocabulary);
  return (
    <th
      scope="col"
      className={clsx(
        'sticky top-0 z-10 border-iron border-b p-0 align-bottom font-normal',
        lit ? 'bg-sunk' : 'bg-paper',
      )}
    >
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          title={facts}
          className="flex h-full w-full flex-col items-center justify-end gap-0.5 px-1.5 py-2 text-center leading-tight hover:text-copper"
        >
          <span className="font-semibold">{nameOf(standIn)}</span>
          <span className="line-clamp-2 text-quiet text-xs">{facts}</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={2}
            className="z-30 min-w-48 rounded-[4px] border border-iron bg-raised p-1 shadow-[0_6px_24px_rgb(0_0_0/0.18)]"
          >
            <Entry onSelect={() => walk(standIn, null)}>Walk through the site as {nameOf(standIn)}</Entry>
            {column > 0 && <Entry onSelect={() => move(-1)}>Move to the left</Entry>}
            {column < standIns.length - 1 && <Entry onSelect={() => move(1)}>Move to the right</Entry>}
            <Entry onSelect={() => setStandIns(standIns.filter((one) => one !== standIn))}>
              Take off the board
            </Entry>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </th>
  );
}

function Entry({
  children,
  onSelect,
}: {
  readonly children: React.ReactNode;
  readonly onSelect: () => void;
}) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="cursor-pointer rounded-[3px] px-2 py-1.5 outline-none data-[highlighted]:bg-wash"
    >
      {children}
    </DropdownMenu.Item>
  );
}
