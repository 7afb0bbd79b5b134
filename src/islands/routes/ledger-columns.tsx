/** What the ledger says of a route beside the matrix, a column each: another column is another entry here. */
import type { CSSProperties, ReactNode } from 'react';
import type { VerdictTraits } from '../../core/document/vocabularies';
import type { EndingKind } from '../../core/document/types';
import { percentText } from '../../core/wording/percent';
import type { RouteRow } from '../../worker/types';
import { EndingMark } from '../ui/EndingMark';
import { countText, grouped, routeText } from '../ui/format';
import classes from './ledger.module.css';

/** Shares from here on fill the bar. */
const WHOLE_BAR = 0.2;

/** A route as its row shows it. */
export interface ShownRoute {
  readonly row: RouteRow;
  readonly ending: { readonly kind: EndingKind | null; readonly label: string };
  /** Of each repeated section; null where none is repeated. */
  readonly passes: readonly number[] | null;
  readonly passWords: string | undefined;
  /** Of the sample; undefined until it is known. */
  readonly share: number | undefined;
  /** What was judged of it; null: nothing that stands. */
  readonly stands: VerdictTraits | null;
}

interface LedgerColumn {
  readonly head: string;
  /** Where its heading stands, in pixels. */
  readonly at: CSSProperties;
  readonly isFigure?: boolean;
  readonly cell: (route: ShownRoute) => ReactNode;
}

const ITEMS = { left: 186 };
const MINUTES = { left: 226 };

export const LEDGER_COLUMNS: readonly LedgerColumn[] = [
  {
    head: 'Route',
    at: { left: 40 },
    cell: ({ row }) => <code title={grouped(row.number)}>{routeText(row.number)}</code>,
  },
  {
    head: 'Ends',
    at: { left: 94 },
    cell: ({ ending: { kind, label }, passes, passWords }) => (
      <span title={[label, passWords].filter(Boolean).join(', ')}>
        {kind !== null && <EndingMark kind={kind} />} {label}
        {passes?.some((count) => count > 0) && <i>×{passes.join('+')}</i>}
      </span>
    ),
  },
  { head: 'Items', at: ITEMS, isFigure: true, cell: ({ row }) => <em style={ITEMS}>{row.items.length}</em> },
  {
    head: 'Min',
    at: MINUTES,
    isFigure: true,
    cell: ({ row }) => (
      <em style={MINUTES}>{row.seconds < 60 ? '<1' : String(Math.round(row.seconds / 60))}</em>
    ),
  },
  {
    head: 'Sample',
    at: { right: 112 },
    // A row that stands for several routes says how many instead.
    cell: ({ row, share }) =>
      row.times === '1' ? share !== undefined && <Share share={share} /> : <u>× {countText(row.times, 4)}</u>,
  },
  {
    head: 'Walked',
    at: { right: 44 },
    cell: ({ stands }) =>
      stands !== null && (
        <strong style={{ color: `var(--${stands.colour})` }}>
          {stands.mark} {stands.word}
        </strong>
      ),
  },
];

/** The headings, each over its column. */
export function LedgerColumnHeads() {
  return LEDGER_COLUMNS.map(({ head, at, isFigure }) => (
    <span key={head} className={isFigure ? classes.figure : undefined} style={at}>
      {head}
    </span>
  ));
}

function Share({ share }: { readonly share: number }) {
  return (
    <small>
      <s style={{ width: `${Math.min(1, share / WHOLE_BAR) * 100}%` }} />
      {share > 0 && share < 0.0001 ? '<0.01%' : percentText(share)}
    </small>
  );
}
