/** How much room the whole map takes: the river with its labels at the left and the early endings at the right. */
import type { RiverLayout } from '../../core/views/river';

export interface Bounds {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const LABELS = 208;
/** From the river to where early endings are written, and their room. */
export const EXIT_AT = 46;
const EXITS = 150;

export function boundsOf({ width, height }: RiverLayout): Bounds {
  return { x: -LABELS, y: -14, width: LABELS + width + EXIT_AT + EXITS, height: height + 30 };
}
