/** The monitor of a link on one screen: time along the top, who has come to what, where people leave, and what their answers are like. */
import { useMemo, useState } from 'react';
import type { Figures } from '../../../core/monitor/figures';
import type { Outcome } from '../../../core/monitor/outcomes';
import type { Picked } from '../../../core/monitor/picked';
import { useMonitor, type Watched } from '../../state/monitor';
import { whenText, grouped } from '../../ui/format';
import { momentWords } from '../panel/moments';
import { BehindSlip } from './BehindSlip';
import { DayBands } from './DayBands';
import { PickingContext, type Picking } from './figure';
import { Care, Endings, Forks, Items, Minutes, Quotas } from './Lines';
import { MonitorHead } from './MonitorHead';
import classes from './monitor.module.css';
import { PageFringe } from './PageFringe';
import { RatesTable } from './RatesTable';

interface Props {
  readonly watched: Watched;
  /** Turns to another questionnaire of the link, by its number. */
  readonly watch: (asked: number) => void;
  readonly back: () => void;
}

interface PickedAs {
  readonly picked: Picked;
  readonly words: string;
}

const ALL: PickedAs = { picked: { of: 'begun' }, words: 'Begun' };

export function MonitorView({ watched, watch, back }: Props) {
  const inHand = useMonitor(watched);
  const { told, isLost } = inHand;
  const [{ picked, words }, setPicked] = useState(ALL);
  const picking = useMemo(
    (): Picking => ({ picked, pick: (next, called) => setPicked({ picked: next, words: called }) }),
    [picked],
  );
  if (told === null)
    return (
      <div className={classes.waiting}>
        {isLost ? (
          <p role="alert">
            This link cannot be watched: it is gone, or the server does not answer.{' '}
            <button type="button" onClick={back}>
              All links
            </button>
          </p>
        ) : (
          <p aria-busy="true">Looking …</p>
        )}
      </div>
    );
  const { figures, reading, link, now } = told;
  const zone = link.isPanel ? 'UTC' : undefined;
  return (
    <PickingContext value={picking}>
      <div className={classes.monitor}>
        <div className={classes.sheet}>
          <MonitorHead {...{ told, inHand, watched, watch, back }} />
          {figures === null ? (
            <p aria-busy="true">
              {reading === null
                ? 'Reading …'
                : `Reading ${grouped(reading.done)} of ${grouped(reading.of)} responses …`}
            </p>
          ) : (
            <>
              <DayBands figures={figures} possible={possible(figures, link.settings.partialFrom)} />
              <div className={classes.upper}>
                <PageFringe pages={figures.pages} />
                <div>
                  <RatesTable rates={figures.rates} unheard={figures.unheard} />
                  <Minutes minutes={figures.minutes} />
                </div>
              </div>
              <div className={classes.lower}>
                <Items items={figures.items} unreached={figures.unreached} />
                <Forks forks={figures.forks} />
                <div>
                  <Quotas
                    quotas={figures.quotas}
                    closesAt={link.settings.closesAt ?? null}
                    {...{ now, zone }}
                  />
                  <Endings endings={figures.endings} />
                  <Care fast={figures.fast} grids={figures.grids} count={figures.minutes.count} />
                </div>
              </div>
            </>
          )}
        </div>
        <BehindSlip {...{ watched, picked, words }} when={link.isPanel ? momentWords : whenText} />
      </div>
    </PickingContext>
  );
}

/** Outcomes with a band of their own, whether anybody has come to them or not. */
function possible({ endings }: Figures, partialFrom: string | undefined): ReadonlySet<Outcome> {
  return new Set<Outcome>([
    ...endings.map(({ kind }) => kind),
    'broken_off',
    'under_way',
    ...(partialFrom === undefined ? [] : (['partial'] as const)),
  ]);
}
