/** The cells of the rows in sight on a canvas: filled where the item is asked, hatched where it is not applicable. */
import { useEffect, useRef, type MouseEvent } from 'react';
import type { RouteRow } from '../../worker/types';
import { isEarly } from '../ui/EndingMark';
import { useStudy } from '../study/store';
import type { Columns } from './columns';
import { ROW } from './LedgerGrid';
import classes from './routes.module.css';

interface Props {
  readonly rows: readonly RouteRow[];
  readonly columns: Columns;
  readonly current: string;
  readonly column: number | null;
  readonly left: number;
  readonly width: number;
  readonly height: number;
  /** Told the route and column under the pointer; the route only when pressed. */
  readonly point: (number: string | null, column: number | null) => void;
}

export function Matrix({ rows, columns, current, column, left, width, height, point }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const endings = useStudy((state) => state.document.endings);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const early = new Set(endings.filter(({ kind }) => isEarly(kind)).map(({ id }) => id));
    const scale = devicePixelRatio;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    context.clearRect(0, 0, width, height);
    const hatch = hatching(context);
    rows.forEach((row, index) => {
      const y = index * ROW + 4;
      const asked = new Set(row.items.map((key) => key.split('#')[0]));
      for (const { name, x } of columns.items) {
        context.fillStyle = asked.has(name) ? (early.has(row.ending) ? '#6f8a80' : '#1f6b58') : hatch;
        context.fillRect(x, y, columns.cell, ROW - 7);
      }
    });
    const here = column === null ? undefined : columns.items[column];
    const at = rows.findIndex(({ number }) => number === current);
    if (here !== undefined) {
      context.fillStyle = 'rgb(22 36 31 / 14%)';
      context.fillRect(here.x - 1, 0, columns.cell + 2, height);
      if (at >= 0) {
        context.strokeStyle = '#16241f';
        context.lineWidth = 2;
        context.strokeRect(here.x - 1, at * ROW + 3, Math.max(3, columns.cell) + 2, ROW - 5);
      }
    }
  }, [rows, columns, current, column, width, height, endings]);

  const columnAt = (x: number): number | null => {
    const found = columns.items.findIndex((item) => x >= item.x && x < item.x + columns.step);
    return found < 0 ? null : found;
  };
  const under = (event: MouseEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const row = rows[Math.floor((event.clientY - box.top) / ROW)];
    return { number: row?.number ?? null, column: columnAt(event.clientX - box.left) };
  };
  return (
    <canvas
      ref={canvas}
      className={classes.matrix}
      width={Math.round(width * devicePixelRatio)}
      height={Math.round(height * devicePixelRatio)}
      style={{ left, top: 46, width, height }}
      aria-hidden="true"
      onMouseMove={(event) => point(null, under(event).column)}
      onClick={(event) => {
        const { number, column: at } = under(event);
        point(number, at);
      }}
    />
  );
}

function hatching(context: CanvasRenderingContext2D): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = 6;
  tile.height = 6;
  const pen = tile.getContext('2d');
  if (pen === null) return '#e3eae6';
  pen.strokeStyle = '#c5d0ca';
  pen.beginPath();
  pen.moveTo(0, 6);
  pen.lineTo(6, 0);
  pen.stroke();
  return context.createPattern(tile, 'repeat') ?? '#e3eae6';
}
