/** Panning and zooming of the map: by wheel, by dragging the ground, and by buttons. */
import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomBehavior, type ZoomTransform } from 'd3-zoom';
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import type { Bounds } from '../../core/views/river-drawing';

export interface View {
  readonly x: number;
  readonly y: number;
  /** How much larger than life. */
  readonly k: number;
}

const STEP = 1.3;
const READABLE = 0.5;

export function useZoom(svg: RefObject<SVGSVGElement | null>): {
  readonly view: View;
  fit(bounds: Bounds): void;
  /** Brings a place into the middle, where it is out of sight. */
  show(x: number, y: number): void;
  center(x: number, y: number): void;
  zoomBy(factor: 'in' | 'out'): void;
} {
  const [view, setView] = useState<View>({ x: 0, y: 0, k: 1 });
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  useEffect(() => {
    const node = svg.current;
    if (node === null) return;
    const made = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.05, 4])
      .filter((event: Event) => {
        const grip = event.target instanceof Element && event.target.closest('[data-grip]') !== null;
        return !grip && !(event instanceof MouseEvent && event.button !== 0 && event.type === 'mousedown');
      })
      .on('zoom', ({ transform }: { transform: ZoomTransform }) =>
        setView({ x: transform.x, y: transform.y, k: transform.k }),
      );
    behaviour.current = made;
    // Two presses unfold what is pressed.
    select(node).call(made).on('dblclick.zoom', null);
    return () => {
      select(node).on('.zoom', null);
    };
  }, [svg]);
  const to = useCallback(
    (next: ZoomTransform) => {
      const node = svg.current;
      if (node !== null && behaviour.current !== null) select(node).call(behaviour.current.transform, next);
    },
    [svg],
  );
  const size = useCallback(() => {
    const box = svg.current?.getBoundingClientRect();
    return { width: box?.width ?? 1, height: box?.height ?? 1 };
  }, [svg]);
  const center = (x: number, y: number) => {
    const { width, height } = size();
    to(zoomIdentity.translate(width / 2 - x * view.k, height / 2 - y * view.k).scale(view.k));
  };
  return {
    view,
    fit: useCallback(
      (bounds: Bounds) => {
        const { width, height } = size();
        const whole = Math.min(1.15, width / bounds.width, height / bounds.height);
        // What would be too small to read begins at the top, as wide as there is room.
        const k = whole < READABLE ? Math.min(1, width / bounds.width) : whole;
        const x = Math.max(0, (width - bounds.width * k) / 2) - bounds.x * k;
        to(zoomIdentity.translate(x, Math.max(0, (height - bounds.height * k) / 2) - bounds.y * k).scale(k));
      },
      [size, to],
    ),
    show(x, y) {
      const { width, height } = size();
      const [left, top] = [x * view.k + view.x, y * view.k + view.y];
      if (left < 0 || left > width || top < 20 || top > height - 20) center(x, y);
    },
    center,
    zoomBy(factor) {
      const node = svg.current;
      if (node !== null && behaviour.current !== null)
        select(node).call(behaviour.current.scaleBy, factor === 'in' ? STEP : 1 / STEP);
    },
  };
}
