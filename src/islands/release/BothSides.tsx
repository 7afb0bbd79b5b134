/** Somebody who takes a route on which two versions differ, walked through both side by side. */
import { useState } from 'react';
import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import type { SideStep } from '../../core/release/both-sides';
import type { Differing } from '../../core/release/differing-routes';
import type { SideShown, SidesShown } from '../../worker/release/types';
import { useReleaseClient } from '../state/gate';
import { useGoTo } from '../state/going';
import { useStudy } from '../state/store';
import { countText, grouped, routeText } from '../ui/format';
import { IconButton } from '../ui/IconButton';
import { useAsked } from '../ui/use-asked';
import { shownName } from './CompareView';
import type { Shown } from './shown';
import classes from './both-sides.module.css';

interface Props {
  readonly which: Differing;
  /** How many of them there are, as a decimal string. */
  readonly total: string;
  readonly of: Shown;
  readonly against: number;
  readonly close: () => void;
}

const WORDS: Readonly<Record<Differing, string>> = {
  lost: 'Lost route',
  gained: 'Gained route',
  changed: 'Changed route',
};

export function BothSides({ which, total, of, against, close }: Props) {
  const [k, setK] = useState(1n);
  const sides = useSides(which, k);
  const last = BigInt(total);
  const title = `${WORDS[which]} ${grouped(k)} of ${countText(total)}`;
  return (
    <section className={classes.panel} aria-label={WORDS[which]}>
      <header className={classes.head}>
        <h3 aria-live="polite">{title}</h3>
        <IconButton
          className={classes.icon}
          words="The one before"
          disabled={k <= 1n}
          does={() => setK(k - 1n)}
        >
          <ChevronLeft size={16} />
        </IconButton>
        <IconButton
          className={classes.icon}
          words="The next one"
          disabled={k >= last}
          does={() => setK(k + 1n)}
        >
          <ChevronRight size={16} />
        </IconButton>
        <label>
          Go to
          <input
            inputMode="numeric"
            size={6}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              const wanted = event.currentTarget.value.replaceAll(/[,\s]/g, '');
              if (/^\d{1,400}$/.test(wanted)) setK(clamp(BigInt(wanted), last));
            }}
          />
        </label>
        <IconButton className={classes.icon} words="Close" does={close}>
          <X size={16} />
        </IconButton>
      </header>
      {sides === 'waiting' && <p role="status">Looking for somebody who takes it …</p>}
      {sides === null && <p>Nobody could be found who takes this one.</p>}
      {typeof sides === 'object' && sides !== null && <Rows sides={sides} of={of} against={against} />}
    </section>
  );
}

const clamp = (k: bigint, last: bigint) => (k < 1n ? 1n : k > last ? last : k);

function useSides(which: Differing, k: bigint): SidesShown | null | 'waiting' {
  const client = useReleaseClient();
  const [found, setFound] = useState<{ key: string; sides: SidesShown | null } | null>(null);
  const key = `${which} ${k}`;
  useAsked(
    () => client.bothSides(which, String(k)).catch(() => null),
    [client, which, k],
    (sides) => setFound({ key, sides }),
  );
  return found?.key === key ? found.sides : 'waiting';
}

interface RowsProps {
  readonly sides: SidesShown;
  readonly of: Shown;
  readonly against: number;
}

function Rows({ sides: { rows, old, now }, of, against }: RowsProps) {
  const [all, setAll] = useState(false);
  const others = rows.filter(({ isOther }) => isOther).length;
  const shown = all
    ? rows
    : rows.filter((row, n) => row.isOther || rows[n + 1]?.isOther || rows[n - 1]?.isOther);
  return (
    <>
      <div className={classes.rows}>
        <SideHead side={old} of={against} />
        <SideHead side={now} of={of} />
        {shown.map(({ old: was, now: is, isOther }, n) => (
          <div key={n} className={classes.row} data-other={isOther || undefined}>
            <Step step={was} />
            <Step step={is} />
          </div>
        ))}
        <p className={classes.end}>
          {old.ending === null ? `Stops at ${old.stopped}` : `Ends: ${old.ending}`}
        </p>
        <p className={classes.end}>
          {now.ending === null ? `Stops at ${now.stopped}` : `Ends: ${now.ending}`}
        </p>
      </div>
      <p className={classes.more}>
        {others} of {rows.length} rows differ.{' '}
        {shown.length < rows.length || all ? (
          <button type="button" onClick={() => setAll(!all)}>
            {all ? 'Only those that differ' : 'Show all rows'}
          </button>
        ) : null}
      </p>
    </>
  );
}

function SideHead({ side: { number }, of }: { readonly side: SideShown; readonly of: Shown }) {
  const home = useStudy((state) => state.home);
  const goTo = useGoTo();
  return (
    <p className={classes.side}>
      {shownName(of)}
      {number !== null && (
        <>
          , route {routeText(number)}{' '}
          {of === null ? (
            <button type="button" className={classes.door} onClick={() => goTo('walk', `?route=${number}`)}>
              Walk it in the draft
            </button>
          ) : (
            <a className={classes.door} href={`${home}/versions/${of}/walk?route=${number}`}>
              Walk it in version {of}
            </a>
          )}
        </>
      )}
    </p>
  );
}

function Step({ step }: { readonly step: SideStep | null }) {
  if (step === null) return <div className={classes.none}>not asked</div>;
  return (
    <div>
      <code>{step.key}</code> <span className={classes.text}>{step.text}</span>
      {step.answer !== '' && (
        <b>
          {step.answer}
          {step.isMadeUp && <small> (made up: the other version does not ask)</small>}
        </b>
      )}
    </div>
  );
}
