/** The cells of the rows in sight on a canvas: filled where the item is asked, hatched where it is not applicable. */
import { useEffect, useMemo, useRef, type MouseEvent } from 'react';
import { readPassKey } from '../../core/document/addresses';
import { isEarly } from '../../core/document/vocabularies';
import type { RouteRow } from '../../worker/types';
import { useStudy } from '../state/store';
import { token } from '../ui/token';
import type { Columns } from './columns';
import { ROW } from './LedgerRow';
import classes from './ledger.module.css';

interface Props {
  readonly rows: readonly RouteRow[];
  /** Whether routes that differ in what was drawn are one row. */
  readonly folded: boolean;
  readonly columns: Columns;
  /** How far it is scrolled to the right. */
  readonly offset: number;
  /** Index of the current row; others than those in sight stand for none. */
  readonly current: number;
  readonly column: number | null;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  /** Told the row and column under the pointer; the row only when pressed. */
  readonly point: (row: number | null, column: number | null) => void;
}

export function Matrix(props: Props) {
  const { rows, folded, columns, offset, current, column, left, top, width, height, point } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const document = useStudy((state) => state.document);
  const drawn = useMemo(() => drawnSections(document.sections), [document]);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const early = new Set(document.endings.filter(({ kind }) => isEarly(kind)).map(({ id }) => id));
    const scale = devicePixelRatio;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    context.clearRect(0, 0, width, height);
    context.translate(-offset, 0);
    const hatch = hatching(context);
    const mayBeDrawn = token('--cell-drawn');
    const [onTheWay, endedEarly] = [token('--cell-asked'), token('--cell-asked-early')];
    const visible = columns.items.filter(({ x }) => x + columns.cell > offset && x < offset + width);
    rows.forEach((row, index) => {
      const y = index * ROW + 4;
      const asked = new Map<string, number[]>();
      for (const key of row.items) {
        const { name, pass } = readPassKey(key);
        asked.set(name, [...(asked.get(name) ?? []), pass ?? 1]);
      }
      const filled = early.has(row.ending) ? endedEarly : onTheWay;
      const strip = new Strip(context, y, ROW - 7);
      for (const { name, x, passes } of visible) {
        const others = folded ? drawn.get(name) : undefined;
        const perhaps = others?.some((other) => asked.has(other));
        const colour = perhaps ? mayBeDrawn : filled;
        const inPasses = asked.get(name);
        const whole = perhaps || (inPasses !== undefined && passes === null);
        strip.add(x, columns.cell, whole ? colour : hatch);
        if (whole || inPasses === undefined || passes === null) continue;
        strip.close();
        context.fillStyle = colour;
        for (const [top, high] of bands(inPasses, passes, ROW - 7))
          context.fillRect(x, y + top, columns.cell, high);
      }
      strip.close();
    });
    const here = column === null ? undefined : columns.items[column];
    if (here !== undefined) {
      context.fillStyle = 'rgb(22 36 31 / 14%)';
      context.fillRect(here.x - 1, 0, columns.cell + 2, height);
      if (current >= 0 && current < rows.length) {
        context.strokeStyle = token('--ink');
        context.lineWidth = 2;
        context.strokeRect(here.x - 1, current * ROW + 3, Math.max(3, columns.cell) + 2, ROW - 5);
      }
    }
  }, [rows, folded, drawn, columns, offset, current, column, width, height, document]);

  const columnAt = (x: number): number | null => {
    const found = columns.items.findIndex((item) => x >= item.x && x < item.x + columns.step);
    return found < 0 ? null : found;
  };
  const under = (event: MouseEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return {
      row: Math.floor((event.clientY - box.top) / ROW),
      column: columnAt(event.clientX - box.left + offset),
    };
  };
  return (
    <canvas
      ref={canvas}
      className={classes.matrix}
      width={Math.round(width * devicePixelRatio)}
      height={Math.round(height * devicePixelRatio)}
      style={{ left, top, width, height }}
      aria-hidden="true"
      onMouseMove={(event) => point(null, under(event).column)}
      onClick={(event) => {
        const { row, column: at } = under(event);
        point(row, at);
      }}
    />
  );
}

/** The cells of a row. Those that touch and look alike are filled together: a thousand items are a thousand cells in each row. */
class Strip {
  private run: { readonly from: number; until: number; readonly style: string | CanvasPattern } | null = null;

  constructor(
    private readonly context: CanvasRenderingContext2D,
    private readonly y: number,
    private readonly height: number,
  ) {}

  add(x: number, width: number, style: string | CanvasPattern): void {
    // Positions are sums of fractions.
    if (this.run?.style === style && x - this.run.until < 0.001) this.run.until = x + width;
    else {
      this.close();
      this.run = { from: x, until: x + width, style };
    }
  }

  /** Fills what has been added. */
  close(): void {
    if (this.run === null) return;
    const { from, until, style } = this.run;
    this.context.fillStyle = style;
    this.context.fillRect(from, this.y, until - from, this.height);
    this.run = null;
  }
}

/** A band for each pass, the first on top; where they are too thin to be told apart, as much as all of them fill. */
function bands(inPasses: readonly number[], passes: number, height: number): [top: number, high: number][] {
  const each = height / passes;
  if (each < 2) return [[0, Math.max(2, each * inPasses.length)]];
  return inPasses.map((pass) => [(pass - 1) * each, Math.max(1, each - (pass < passes ? 0.6 : 0))]);
}

/** The questions that are drawn, each with all of its section. */
function drawnSections(
  sections: readonly { readonly draw?: number; readonly items: readonly { kind: string; name?: string }[] }[],
): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, readonly string[]>();
  for (const { draw, items } of sections) {
    if (draw === undefined) continue;
    const names = items.flatMap(({ kind, name }) =>
      kind === 'question' && name !== undefined ? [name] : [],
    );
    for (const name of names) found.set(name, names);
  }
  return found;
}

function hatching(context: CanvasRenderingContext2D): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = 6;
  tile.height = 6;
  const pen = tile.getContext('2d');
  if (pen === null) return token('--cell-empty');
  pen.strokeStyle = token('--cell-hatch');
  pen.beginPath();
  pen.moveTo(0, 6);
  pen.lineTo(6, 0);
  pen.stroke();
  return context.createPattern(tile, 'repeat') ?? token('--cell-empty');
}
