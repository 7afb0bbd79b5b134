/** One route of the ledger: its number, ending and length at the left, its share and verdict at the right. */
import { REOPENED, VERDICT_WORDS } from '../../core/document/vocabularies';
import { routePasses } from '../../core/views/route-passes';
import { endingLabel } from '../../core/wording/targets';
import type { RouteRow } from '../../worker/types';
import type { Ledger } from '../state/ledger';
import { useStudy } from '../state/store';
import { EndingMark } from '../ui/EndingMark';
import { countText, grouped, percentText, plural, routeText } from '../ui/format';
import classes from './ledger.module.css';

export const ROW = 24;
/** Shares from here on fill the bar. */
const WHOLE_BAR = 0.2;

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
  const ending = document.endings.find(({ id }) => id === row.ending);
  const verdict = byNumber.has(row.number) ? byFingerprint.get(row.fingerprint)?.verdict : undefined;
  const stands = verdict !== undefined ? VERDICT_WORDS[verdict] : reopened.has(row.number) ? REOPENED : null;
  const minutes = row.seconds < 60 ? '<1' : String(Math.round(row.seconds / 60));
  const passes = routePasses(document, row.items);
  const passWords = passes?.map((count) => plural(count, 'pass', 'passes')).join(' and ');
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
        endingLabel(document, row.ending),
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
      <code title={grouped(row.number)}>{routeText(row.number)}</code>
      <span title={[endingLabel(document, row.ending), passWords].filter(Boolean).join(', ')}>
        {ending !== undefined && <EndingMark kind={ending.kind} />} {endingLabel(document, row.ending)}
        {passes?.some((count) => count > 0) && <i>×{passes.join('+')}</i>}
      </span>
      <em style={{ left: 186 }}>{row.items.length}</em>
      <em style={{ left: 226 }}>{minutes}</em>
      {row.times !== '1' && <u>× {countText(row.times, 4)}</u>}
      {share !== undefined && row.times === '1' && (
        <small>
          <s style={{ width: `${Math.min(1, share / WHOLE_BAR) * 100}%` }} />
          {shareText(share)}
        </small>
      )}
      {stands !== null && (
        <strong style={{ color: `var(--${stands.colour})` }}>
          {stands.mark} {stands.word}
        </strong>
      )}
    </div>
  );
}

function shareText(share: number): string {
  return share > 0 && share < 0.0001 ? '<0.01%' : percentText(share);
}
