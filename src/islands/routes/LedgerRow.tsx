/** One route of the ledger: its number, ending and length at the left, its share and verdict at the right. */
import { Fragment } from 'react';
import { REOPENED, VERDICT_WORDS } from '../../core/document/vocabularies';
import { routePasses } from '../../core/views/route-passes';
import { endingLabel } from '../../core/wording/targets';
import type { RouteRow } from '../../worker/types';
import type { Ledger } from '../state/ledger';
import { useStudy } from '../state/store';
import { grouped, plural } from '../ui/format';
import { LEDGER_COLUMNS, type ShownRoute } from './ledger-columns';
import classes from './ledger.module.css';

export const ROW = 24;

interface Props {
  readonly row: RouteRow;
  readonly ledger: Ledger;
  readonly share: number | undefined;
  /** It stands in front of the others because of the order. */
  readonly front: boolean;
  readonly y: number;
  readonly current: boolean;
  readonly choose: () => void;
  readonly open: (number: string) => void;
}

export function LedgerRow({ row, ledger, share, front, y, current, choose, open }: Props) {
  const document = useStudy((state) => state.document);
  const { byFingerprint, byNumber, reopened } = ledger;
  const verdict = byNumber.has(row.number) ? byFingerprint.get(row.fingerprint)?.verdict : undefined;
  const stands = verdict !== undefined ? VERDICT_WORDS[verdict] : reopened.has(row.number) ? REOPENED : null;
  const passes = routePasses(document, row.items);
  const passWords = passes?.map((count) => plural(count, 'pass', 'passes')).join(' and ');
  const label = endingLabel(document, row.ending);
  const kind = document.endings.find(({ id }) => id === row.ending)?.kind ?? null;
  const route: ShownRoute = { row, ending: { kind, label }, passes, passWords, share, stands };
  return (
    <div
      id={`row-${row.number}`}
      role="option"
      aria-selected={current}
      aria-label={[
        `Route ${row.number}`,
        ...(row.times === '1'
          ? []
          : [`and ${grouped(BigInt(row.times) - 1n)} that differ in what was drawn`]),
        label,
        `${row.items.length} items`,
        ...(passWords === undefined ? [] : [passWords]),
        ...(stands === null ? [] : [stands.word]),
      ].join(', ')}
      className={classes.row}
      data-front={front || undefined}
      style={{ top: y, height: ROW }}
      onClick={choose}
      onDoubleClick={() => open(row.number)}
    >
      {LEDGER_COLUMNS.map(({ head, cell }) => (
        <Fragment key={head}>{cell(route)}</Fragment>
      ))}
    </div>
  );
}
