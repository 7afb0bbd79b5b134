/** The whole map in a corner, with what is in sight; shown where that is not all. */
import { memo, useRef, type PointerEvent, type RefObject } from 'react';
import type { River } from '../../core/views/river';
import { nodeWidth, type Bounds } from '../../core/views/river-drawing';
import classes from './forks.module.css';
import type { View } from './zoom';

const MOST = { width: 120, height: 170 };

interface Props {
  readonly river: River;
  readonly bounds: Bounds;
  readonly view: View;
  readonly frame: RefObject<HTMLDivElement | null>;
  readonly center: (x: number, y: number) => void;
}

export function Overview({ river, bounds, view, frame, center }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const box = frame.current?.getBoundingClientRect();
  const [width, height] = [box?.width ?? 1, box?.height ?? 1];
  const seen = { x: -view.x / view.k, y: -view.y / view.k, width: width / view.k, height: height / view.k };
  const whole =
    seen.x <= bounds.x + 40 &&
    seen.y <= bounds.y + 40 &&
    seen.x + seen.width >= bounds.x + bounds.width - 60 &&
    seen.y + seen.height >= bounds.y + bounds.height - 40;
  if (whole) return null;
  const scale = Math.min(MOST.width / bounds.width, MOST.height / bounds.height);
  const go = (event: PointerEvent) => {
    if (event.buttons === 0) return;
    const own = svg.current?.getBoundingClientRect();
    if (own === undefined) return;
    center(bounds.x + (event.clientX - own.left) / scale, bounds.y + (event.clientY - own.top) / scale);
  };
  return (
    <svg
      ref={svg}
      className={classes.overview}
      width={bounds.width * scale}
      height={bounds.height * scale}
      viewBox={`${bounds.x} ${bounds.y} ${bounds.width} ${bounds.height}`}
      aria-hidden="true"
      onPointerDown={go}
      onPointerMove={go}
    >
      <Bars river={river} scale={scale} />
      <rect
        {...seen}
        fill="var(--marigold)"
        fillOpacity={0.2}
        stroke="var(--marigold-dark)"
        strokeWidth={1.5 / scale}
      />
    </svg>
  );
}

/** The same however the map is moved. */
const Bars = memo(function Bars({ river, scale }: { readonly river: River; readonly scale: number }) {
  return river.model.nodes.map(({ id }) => {
    const point = river.layout.nodes[id];
    return point === undefined ? null : (
      <rect
        key={id}
        x={point.x}
        y={point.y}
        width={nodeWidth(river, id)}
        height={Math.max(river.sizes.height, 1.5 / scale)}
        fill="var(--pine-mid)"
      />
    );
  });
});
