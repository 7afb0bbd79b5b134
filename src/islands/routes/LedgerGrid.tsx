/**
 * The rows of the ledger. Any number of routes scrolls: only the rows in sight are asked for, and where the
 * sheet would be higher than a browser allows, its scroll bar stands for a share of the whole.
 */
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Verdict } from '../../store/verdicts';
import type { RouteRow } from '../../worker/types';
import { endingLabel } from '../../core/views/targets';
import { useAnalysisClient } from '../study/analysis';
import { useLedger } from '../study/ledger';
import { useStudy } from '../study/store';
import { EndingMark } from '../ui/EndingMark';
import { grouped } from '../ui/format';
import { columnsIn, type Columns } from './columns';
import { Matrix } from './Matrix';
import classes from './routes.module.css';

export const ROW = 24;
/** Browsers stop at some tens of millions of pixels. */
const HIGHEST = 6_000_000;
const SIDES = { left: 200, right: 100 };

interface Props {
  /** Rows in all. */
  readonly total: string;
  /** The numbers to list, in order; null: all. */
  readonly numbers: readonly string[] | null;
  readonly current: string;
  readonly setCurrent: (number: string) => void;
  readonly column: number | null;
  readonly setColumn: (column: number | null) => void;
  readonly open: (number: string) => void;
}

export function LedgerGrid(props: Props) {
  const { total, numbers, current, setCurrent, column, setColumn, open } = props;
  const plan = useStudy((state) => state.plan);
  const { byFingerprint } = useLedger();
  const scroller = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 1000, height: 480 });
  const [top, setTop] = useState(0n);
  const count = BigInt(total);
  const fits = Math.max(1, Math.floor((size.height - 46) / ROW));
  const last = count > BigInt(fits) ? count - BigInt(fits) : 0n;
  const first = top > last ? last : top;
  const rows = useRows(first, Math.min(fits + 1, 200), numbers, total);
  const columns = useMemo(() => columnsIn(plan, size.width - SIDES.left - SIDES.right), [plan, size.width]);
  const exact = count * BigInt(ROW) < BigInt(HIGHEST);
  const height = exact ? Number(count) * ROW : HIGHEST;
  const at = numbers === null ? BigInt(current) - 1n : BigInt(Math.max(0, numbers.indexOf(current)));

  useLayoutEffect(() => {
    const node = scroller.current;
    if (node === null) return;
    const observer = new ResizeObserver(() =>
      setSize({ width: node.clientWidth, height: node.clientHeight }),
    );
    observer.observe(node);
    return () => observer.disconnect();
  }, []);

  // The current row comes into sight when it was chosen elsewhere.
  const shown = useRef({ first, fits });
  useEffect(() => {
    shown.current = { first, fits };
  });
  useEffect(() => {
    const { first: from, fits: rowsInSight } = shown.current;
    const next = at < from ? at : at >= from + BigInt(rowsInSight) ? at - BigInt(rowsInSight) + 1n : from;
    if (next === from) return;
    scrollTo(next);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);

  const own = useRef(-1);
  function scrollTo(row: bigint): void {
    const node = scroller.current;
    if (node === null) return;
    const bounded = row < 0n ? 0n : row > last ? last : row;
    setTop(bounded);
    const room = node.scrollHeight - node.clientHeight;
    const y = exact
      ? Number(bounded) * ROW
      : last === 0n
        ? 0
        : (Number((bounded * 1_000_000n) / last) / 1_000_000) * room;
    own.current = Math.round(y);
    node.scrollTop = y;
  }
  const onScroll = () => {
    const node = scroller.current;
    if (node === null || Math.abs(node.scrollTop - own.current) <= 1) return;
    own.current = -1;
    if (exact) setTop(BigInt(Math.round(node.scrollTop / ROW)));
    else {
      const part = node.scrollTop / (node.scrollHeight - node.clientHeight);
      setTop((last * BigInt(Math.round(part * 1_000_000))) / 1_000_000n);
    }
  };
  // Where the bar stands for a share, a turn of the wheel still moves by rows.
  useEffect(() => {
    const node = scroller.current;
    if (node === null || exact) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      scrollTo(
        first + BigInt(Math.sign(event.deltaY) * Math.max(1, Math.round(Math.abs(event.deltaY) / ROW))),
      );
    };
    node.addEventListener('wheel', onWheel, { passive: false });
    return () => node.removeEventListener('wheel', onWheel);
  });

  const choose = (row: bigint) => {
    const bounded = row < 0n ? 0n : row >= count ? count - 1n : row;
    setCurrent(numbers === null ? String(bounded + 1n) : (numbers[Number(bounded)] ?? '1'));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const page = BigInt(fits);
    const across = (by: number) =>
      setColumn(Math.min(columns.items.length - 1, Math.max(0, (column ?? -1) + by)));
    switch (event.key) {
      case 'ArrowDown':
        choose(at + 1n);
        break;
      case 'ArrowUp':
        choose(at - 1n);
        break;
      case 'PageDown':
        choose(at + page);
        break;
      case 'PageUp':
        choose(at - page);
        break;
      case 'Home':
        choose(0n);
        break;
      case 'End':
        choose(count - 1n);
        break;
      case 'ArrowRight':
        across(1);
        break;
      case 'ArrowLeft':
        across(-1);
        break;
      case 'Enter':
        open(current);
        break;
      default:
        return;
    }
    event.preventDefault();
  };

  return (
    <div
      className={classes.scroller}
      ref={scroller}
      onScroll={onScroll}
      tabIndex={0}
      role="listbox"
      aria-label={`Routes, ${grouped(total)} in all`}
      aria-activedescendant={rows.some(({ number }) => number === current) ? `route-${current}` : undefined}
      onKeyDown={onKeyDown}
    >
      <div style={{ height: height + 46 }} className={classes.tall}>
        <div className={classes.window} style={{ height: size.height, width: size.width }}>
          <Heads columns={columns} column={column} />
          {rows.map((row, index) => (
            <Row
              key={row.number}
              row={row}
              y={46 + index * ROW}
              current={row.number === current}
              verdict={byFingerprint.get(row.fingerprint)?.verdict}
              choose={setCurrent}
              open={open}
            />
          ))}
          <Matrix
            rows={rows}
            columns={columns}
            current={current}
            column={column}
            left={SIDES.left}
            width={size.width - SIDES.left - SIDES.right}
            height={size.height - 46}
            point={(number, at) => {
              setColumn(at);
              if (number !== null) setCurrent(number);
            }}
          />
        </div>
      </div>
    </div>
  );
}

function Heads({ columns, column }: { columns: Columns; column: number | null }) {
  const here = column === null ? undefined : columns.items[column];
  // Where sections are narrow, only some letters have room.
  const pitch = Math.min(...columns.sections.slice(1).map(({ x }, n) => x - (columns.sections[n]?.x ?? 0)));
  const longest = Math.max(...columns.sections.map(({ letter }) => letter.length));
  const every = Math.max(1, Math.ceil((longest * 9 + 4) / pitch));
  return (
    <div className={classes.heads} aria-hidden="true">
      <span style={{ left: 22 }}>Route</span>
      <span style={{ left: 78 }}>Ends</span>
      <span style={{ left: 158 }}>Items</span>
      {columns.sections.map(({ letter, title, x, width }, index) => (
        <b key={letter} style={{ left: SIDES.left + x, width }} title={title}>
          {index % every === 0 && letter}
        </b>
      ))}
      {here !== undefined && <i style={{ left: SIDES.left + here.x }}>{here.name}</i>}
      <span style={{ right: 22 }}>Walked</span>
    </div>
  );
}

interface RowProps {
  readonly row: RouteRow;
  readonly y: number;
  readonly current: boolean;
  readonly verdict: Verdict['verdict'] | undefined;
  readonly choose: (number: string) => void;
  readonly open: (number: string) => void;
}

function Row({ row, y, current, verdict, choose, open }: RowProps) {
  const document = useStudy((state) => state.document);
  const ending = document.endings.find(({ id }) => id === row.ending);
  return (
    <div
      id={`route-${row.number}`}
      role="option"
      aria-selected={current}
      aria-label={`Route ${row.number}, ${endingLabel(document, row.ending)}, ${row.items.length} items${verdict === undefined ? '' : verdict === 'passed' ? ', passed' : ', sent back'}`}
      className={classes.row}
      style={{ top: y, height: ROW }}
      onClick={() => choose(row.number)}
      onDoubleClick={() => open(row.number)}
    >
      <code>{grouped(row.number)}</code>
      <span>
        {ending !== undefined && <EndingMark kind={ending.kind} />} {endingLabel(document, row.ending)}
      </span>
      <em>{row.items.length}</em>
      <strong data-verdict={verdict}>
        {verdict === 'passed' ? '✓ passed' : verdict === 'sent_back' ? '↩ sent back' : ''}
      </strong>
    </div>
  );
}

/** The rows from `first`; while others are fetched, those that were shown last. */
function useRows(
  first: bigint,
  count: number,
  numbers: readonly string[] | null,
  total: string,
): readonly RouteRow[] {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const [rows, setRows] = useState<readonly RouteRow[]>([]);
  const wanted = numbers === null ? null : numbers.slice(Number(first), Number(first) + count).join(',');
  useEffect(() => {
    if (analysis === null) return;
    let current = true;
    const load = async () => {
      if (wanted === null) return client.api.rows(String(first + 1n), count);
      const found = await Promise.all(
        wanted.split(',').map((number) => (number === '' ? Promise.resolve([]) : client.api.rows(number, 1))),
      );
      return found.flat();
    };
    void load().then((next) => {
      if (current) setRows(next);
    });
    return () => {
      current = false;
    };
  }, [client, analysis, first, count, wanted, total]);
  return rows;
}
