'use client';
/** A list whose entries are put in order by dragging, with keys too. */
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { clsx } from 'clsx';
import { GripVertical } from 'lucide-react';
import { type ReactNode, useId, useState } from 'react';

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
  const [dragging, setDragging] = useState<string | null>(null);
  const id = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    setDragging(null);
    const from = items.findIndex((one) => one.id === active.id);
    const to = over?.data.current?.index as number | undefined;
    if (from < 0 || to === undefined) return;
    const next = [...items];
    const [moved] = next.splice(from, 1);
    if (moved) next.splice(to > from ? to - 1 : to, 0, moved);
    onChange(next);
  };
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragStart={({ active }) => setDragging(String(active.id))}
      onDragCancel={() => setDragging(null)}
      onDragEnd={drop}
    >
      <ol aria-label={label} className="grid max-w-3xl">
        {items.map((item, index) => (
          <li key={item.id}>
            <Slot list={id} index={index} shown={dragging !== null} />
            <Entry id={item.id} name={nameOf(item, index)}>
              {(handle) => children(item, index, handle)}
            </Entry>
          </li>
        ))}
        <li>
          <Slot list={id} index={items.length} shown={dragging !== null} />
        </li>
      </ol>
    </DndContext>
  );
}

interface SlotProps {
  readonly list: string;
  readonly index: number;
  readonly shown: boolean;
}

function Slot({ list, index, shown }: SlotProps) {
  const { setNodeRef, isOver } = useDroppable({ id: `${list} slot ${index}`, data: { index } });
  return (
    <div
      ref={setNodeRef}
      className={clsx('h-2 rounded-full', shown && 'my-1 bg-sunk', isOver && 'bg-copper')}
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
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id });
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
