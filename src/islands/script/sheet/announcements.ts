/** What a screen reader says while something is dragged: in the words of the sheet. */
import type { Announcements, DragEndEvent } from '@dnd-kit/core';

type Side = DragEndEvent['active'] | DragEndEvent['over'];

/** `nameOf`: what is dragged, or what it is over; null where that has no name. */
export function announcementsFor(nameOf: (side: Side) => string | null): Announcements {
  const over = (side: DragEndEvent['over']) => nameOf(side) ?? 'no place to drop it';
  return {
    onDragStart: ({ active }) => `Picked up ${nameOf(active) ?? 'it'}.`,
    onDragOver: ({ active, over: at }) => `${nameOf(active) ?? 'It'} is over ${over(at)}.`,
    onDragEnd: ({ active, over: at }) =>
      at === null
        ? `${nameOf(active) ?? 'It'} is back where it was.`
        : `${nameOf(active) ?? 'It'} was dropped at ${over(at)}.`,
    onDragCancel: ({ active }) => `${nameOf(active) ?? 'It'} is back where it was.`,
  };
}
