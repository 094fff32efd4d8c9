'use client';
/** A list whose entries are put in order by dragging, with keys too. */
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { clsx } from 'clsx';
import { GripVertical } from 'lucide-react';
import { type ReactNode, useId } from 'react';
import { Places, useMoving } from '../places';

interface DragListProps<T> {
  readonly label: string;
  readonly items: readonly T[];
  readonly onChange: (items: readonly T[]) => void;
  /** What an entry is called where it is moved. */
  readonly nameOf: (item: T, index: number) => string;
  /** An entry, with what it is dragged by. */
  readonly children: (item: T, index: number, handle: ReactNode) => ReactNode;
}

export function DragList<T extends { readonly id: string }>({
  label,
  items,
  onChange,
  nameOf,
  children,
}: DragListProps<T>) {
  const id = useId();
  const put = (moved: { readonly id: string }, { index: to }: Place) => {
    const from = items.findIndex((one) => one.id === moved.id);
    if (from < 0) return;
    const next = [...items];
    next.splice(to > from ? to - 1 : to, 0, ...next.splice(from, 1));
    onChange(next);
  };
  return (
    <Places onPut={put} sayPlace={({ index }: Place) => `place ${index + 1}`}>
      <ol aria-label={label} className="grid max-w-3xl">
        {items.map((item, index) => (
          <li key={item.id}>
            <Slot list={id} index={index} />
            <Entry id={item.id} name={nameOf(item, index)}>
              {(handle) => children(item, index, handle)}
            </Entry>
          </li>
        ))}
        <li>
          <Slot list={id} index={items.length} />
        </li>
      </ol>
    </Places>
  );
}

/** Where an entry can be put down: before the `index`th. */
interface Place {
  readonly index: number;
}

function Slot({ list, index }: Place & { readonly list: string }) {
  const moving = useMoving();
  const { setNodeRef, isOver } = useDroppable({
    id: `${list} slot ${index}`,
    data: { index } satisfies Place,
    disabled: !moving,
  });
  return (
    <div
      ref={setNodeRef}
      className={clsx('h-2 rounded-full', moving && 'my-1 bg-sunk', isOver && 'bg-copper')}
      aria-hidden="true"
    />
  );
}

interface EntryProps {
  readonly id: string;
  readonly name: string;
  readonly children: (handle: ReactNode) => ReactNode;
}

function Entry({ id, name, children }: EntryProps) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id, data: { id } });
  const handle = (
    <button
      type="button"
      {...attributes}
      {...listeners}
      aria-label={`Move ${name}`}
      className="cursor-grab touch-none text-faint hover:text-copper"
    >
      <GripVertical size={16} aria-hidden="true" />
    </button>
  );
  return (
    <div ref={setNodeRef} className={clsx(isDragging && 'opacity-50')}>
      {children(handle)}
    </div>
  );
}
