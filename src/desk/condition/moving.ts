/** Parts of a condition moved by keyboard: one arrow is one place, and each place is said. */
import type { Announcements, KeyboardCoordinateGetter } from '@dnd-kit/core';
import type { Path } from './joined';

/** Where a part can be put down: before the `index`th part of a group. */
export interface Place {
  readonly group: Path;
  readonly index: number;
}

/** To the next place above or below: its middle under the middle of what is moved. */
export const toNextPlace: KeyboardCoordinateGetter = (event, { context }) => {
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

const said = (place: Place | undefined) =>
  place ? `place ${place.index + 1}${place.group.length > 0 ? ' of the group' : ''}` : 'no place';

type Over = { readonly data: { readonly current?: unknown } } | null;
const placeOf = (over: Over) => over?.data.current as Place | undefined;

/** What a screen reader says while a part is moved. */
export const announcements: Announcements = {
  onDragStart: () => 'Lifted.',
  onDragOver: ({ over }) => `Over ${said(placeOf(over))}.`,
  onDragEnd: ({ over }) => `Put down at ${said(placeOf(over))}.`,
  onDragCancel: () => 'Left where it was.',
};
