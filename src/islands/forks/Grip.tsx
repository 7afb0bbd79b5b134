/** A dot that is dragged onto another place of the map. */
import { useState, type PointerEvent } from 'react';
import { parseAddress, readAddress } from '../../core/document/addresses';
import type { Target } from '../../core/document/types';
import type { Point } from '../../core/views/river';
import classes from './forks.module.css';

interface Props {
  readonly at: Point;
  readonly title: string;
  /** How much larger than life the map is. */
  readonly scale: number;
  readonly begin: () => void;
  readonly drop: (to: Target) => void;
  readonly stop: () => void;
}

export function Grip({ at, title, scale, begin, drop, stop }: Props) {
  const [shift, setShift] = useState<Point | null>(null);
  const [start, setStart] = useState<Point>({ x: 0, y: 0 });
  const down = (event: PointerEvent<SVGCircleElement>) => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    setStart({ x: event.clientX, y: event.clientY });
    setShift({ x: 0, y: 0 });
    begin();
  };
  const move = (event: PointerEvent<SVGCircleElement>) => {
    if (shift !== null)
      setShift({ x: (event.clientX - start.x) / scale, y: (event.clientY - start.y) / scale });
  };
  const up = (event: PointerEvent<SVGCircleElement>) => {
    if (shift === null) return;
    setShift(null);
    const under = document
      .elementsFromPoint(event.clientX, event.clientY)
      .map((element) => element.closest('[data-node]'))
      .find((element) => element !== null);
    const target = targetOf(under?.getAttribute('data-node') ?? '');
    if (target === null) stop();
    else drop(target);
  };
  const radius = 6 / Math.max(0.6, Math.min(1, scale));
  return (
    <g data-grip>
      {shift !== null && (
        <path
          d={`M${at.x} ${at.y} L${at.x + shift.x} ${at.y + shift.y}`}
          stroke="var(--ink)"
          strokeWidth={1.5 / scale}
          strokeDasharray={`${4 / scale} ${3 / scale}`}
          fill="none"
          pointerEvents="none"
        />
      )}
      <circle
        className={classes.grip}
        cx={at.x + (shift?.x ?? 0)}
        cy={at.y + (shift?.y ?? 0)}
        r={radius}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={() => {
          setShift(null);
          stop();
        }}
      >
        <title>{title}</title>
      </circle>
    </g>
  );
}

function targetOf(node: string): Target | null {
  const at = parseAddress(node);
  if (at === null) return null;
  const { kind, name } = readAddress(at);
  if (kind === 'item') return { item: name };
  if (kind === 'section') return { section: name };
  return kind === 'ending' ? { ending: name } : null;
}
