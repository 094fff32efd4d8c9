'use client';
/** Moving items in a tree: by dragging between two of them or onto one, and by Shift with the arrow keys. */
import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { clsx } from 'clsx';
import { GripVertical } from 'lucide-react';
import {
  createContext,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
  useContext,
  useEffect,
  useId,
  useRef,
  useState,
} from 'react';
import { type Item, type ItemId, isShared, mayHold } from '@/core';
import { useDesk } from '../context';
import type { ChangeItem } from '../use-change-item';
import { isStep, type Place, placeOneStep } from './place';

interface MovingState {
  /** What is being dragged. */
  readonly dragged: Item | null;
  readonly change: ChangeItem;
  /** What was moved with the keys: its handle keeps the focus wherever it comes to stand. */
  readonly held: RefObject<ItemId | null>;
}

const MovingContext = createContext<MovingState | null>(null);

function useMoving(): MovingState {
  const state = useContext(MovingContext);
  if (!state) throw new Error('Only what is in a tree can be moved there.');
  return state;
}

/** A tree whose items can be moved. */
export function Moving({ change, children }: { readonly change: ChangeItem; readonly children: ReactNode }) {
  const { outline } = useDesk();
  const [dragged, setDragged] = useState<Item | null>(null);
  const held = useRef<ItemId | null>(null);
  const id = useId();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    const place = over?.data.current as Place | undefined;
    if (!place || place.parent === active.id || place.before === active.id) return;
    void change({ kind: 'move', moves: [{ item: String(active.id), ...place }] });
  };
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setDragged(outline.items.get(active.id as ItemId) ?? null)}
      onDragCancel={() => setDragged(null)}
      onDragEnd={drop}
    >
      <MovingContext value={{ dragged, change, held }}>{children}</MovingContext>
    </DndContext>
  );
}

/** Where something can be let fall between two items; it takes no room. */
export function Gap({ parent, before }: Place) {
  const { outline } = useDesk();
  const { dragged } = useMoving();
  const holds = outline.items.get(parent)?.kind;
  const { setNodeRef, isOver } = useDroppable({
    id: `gap ${parent} ${before ?? 'last'}`,
    data: { parent, before },
    disabled: dragged === null || holds === undefined || !mayHold(holds, dragged.kind),
  });
  return (
    <div className="relative h-0" aria-hidden="true">
      <div
        ref={setNodeRef}
        className={clsx(
          '-top-1.5 absolute right-0 left-2 z-10 h-3',
          dragged === null && 'pointer-events-none',
        )}
      >
        <div className={clsx('mt-[5px] h-0.5 rounded-full', isOver && 'bg-copper')} />
      </div>
    </div>
  );
}

/** An item of the tree: its handle, and whether something is held over it to be put below it. */
export function useMovable(item: Item) {
  const { outline } = useDesk();
  const { dragged, change, held } = useMoving();
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (held.current === item.id) button.current?.focus();
  }, [held, item.id]);
  const { listeners, setNodeRef: handleRef, isDragging } = useDraggable({ id: item.id });
  const { setNodeRef: rowRef, isOver } = useDroppable({
    id: `on ${item.id}`,
    data: { parent: item.id, before: null } satisfies Place,
    // What many pages share stands below the site, in no page.
    disabled:
      dragged === null || dragged.id === item.id || isShared(dragged) || !mayHold(item.kind, dragged.kind),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (!event.shiftKey || !isStep(event.key)) return;
    event.preventDefault();
    const place = placeOneStep(outline, item, event.key);
    if (!place) return;
    held.current = item.id;
    void change({ kind: 'move', moves: [{ item: item.id, ...place }] });
  };
  const handle = (className?: string) => (
    <button
      ref={(node) => {
        button.current = node;
        handleRef(node);
      }}
      onBlur={() => {
        if (button.current?.isConnected) held.current = null;
      }}
      type="button"
      {...listeners}
      onKeyDown={onKeyDown}
      aria-label={`Move ${item.title}`}
      title="Drag, or Shift with the arrow keys: up, down, out, in"
      className={clsx('cursor-grab touch-none text-faint hover:text-copper', className)}
    >
      <GripVertical size={16} aria-hidden="true" />
    </button>
  );
  return { rowRef, handle, isOver, isDragging };
}
