'use client';
/**
 * Things that are put somewhere else by dragging them, or by keyboard: there one arrow is one place, and each place is
 * said.
 */
import {
  type Announcements,
  closestCenter,
  DndContext,
  type KeyboardCoordinateGetter,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { createContext, type ReactNode, useContext, useId, useState } from 'react';

/** Whether something is being moved: the places it can go to show only then. */
const Moving = createContext(false);
export const useMoving = () => useContext(Moving);

/** To the next place above or below: its middle under the middle of what is moved. */
const toNextPlace: KeyboardCoordinateGetter = (event, { context }) => {
  const step = event.code === 'ArrowUp' ? -1 : event.code === 'ArrowDown' ? 1 : 0;
  const moved = context.collisionRect;
  if (step === 0 || !moved) return undefined;
  event.preventDefault();
  const from = moved.top + moved.height / 2;
  let nearest: { readonly left: number; readonly top: number; readonly away: number } | undefined;
  for (const { id } of context.droppableContainers.getEnabled()) {
    const rect = context.droppableRects.get(id);
    if (!rect) continue;
    const away = (rect.top + rect.height / 2 - from) * step;
    if (away < 1 || (nearest && nearest.away <= away)) continue;
    nearest = { left: rect.left + rect.width / 2, top: rect.top + rect.height / 2, away };
  }
  return nearest && { x: nearest.left - moved.width / 2, y: nearest.top - moved.height / 2 };
};

/** What is moved, and a place to put it: the data of a draggable and of a droppable. */
interface End<T> {
  readonly data: { readonly current?: T | undefined };
}

interface PlacesProps<Thing, Place> {
  readonly onPut: (thing: Thing, place: Place) => void;
  /** A place in words, as "place 2 of the group". */
  readonly sayPlace: (place: Place) => string;
  readonly children: ReactNode;
}

/** Whatever can be moved within it, and where to. */
export function Places<Thing, Place>({ onPut, sayPlace, children }: PlacesProps<Thing, Place>) {
  const [moving, setMoving] = useState(false);
  const id = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: toNextPlace, scrollBehavior: 'auto' }),
  );
  const said = (over: End<unknown> | null) =>
    over?.data.current ? sayPlace(over.data.current as Place) : 'no place';
  const announcements: Announcements = {
    onDragStart: () => 'Lifted.',
    onDragOver: ({ over }) => `Over ${said(over)}.`,
    onDragEnd: ({ over }) => `Put down at ${said(over)}.`,
    onDragCancel: () => 'Left where it was.',
  };
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragStart={() => setMoving(true)}
      onDragCancel={() => setMoving(false)}
      onDragEnd={({ active, over }) => {
        setMoving(false);
        const thing = active.data.current as Thing | undefined;
        const place = over?.data.current as Place | undefined;
        if (thing && place) onPut(thing, place);
      }}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: 'Press space to lift this, arrows to move it, space to put it down, Escape to leave it.',
        },
      }}
    >
      <Moving.Provider value={moving}>{children}</Moving.Provider>
    </DndContext>
  );
}
