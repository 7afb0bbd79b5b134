/** The stops, each with a live figure of its own work beneath. */
import { useMemo } from 'react';
import { columnsOf } from '../../core/coding/columns';
import type { Questionnaire } from '../../core/document/types';
import { madeFor } from '../../core/forecast/made-for';
import type { SampleSummary } from '../../worker/types';
import { useGate } from '../state/gate';
import { countText, grouped, plural } from '../ui/format';
import { useStudy } from '../state/store';
import { STOP_NAMES, type Stop } from '../state/stops';
import classes from './study.module.css';

interface Props {
  readonly stops: readonly Stop[];
  readonly stop: Stop;
  readonly goTo: (stop: Stop) => void;
}

export function StopLinks({ stops, stop, goTo }: Props) {
  const home = useStudy((state) => state.home);
  const figures = useFigures();
  return (
    <nav className={classes.stops} aria-label="Stops">
      {stops.map((name) => (
        <a
          key={name}
          href={`${home}/${name}`}
          className={name === stop ? classes.current : undefined}
          aria-current={name === stop ? 'page' : undefined}
          onClick={(event) => {
            if (event.ctrlKey || event.metaKey || event.shiftKey) return;
            event.preventDefault();
            goTo(name);
          }}
        >
          {STOP_NAMES[name]}
          <small>{figures[name]}</small>
        </a>
      ))}
    </nav>
  );
}

/** Bases below the least that is wanted, as far as shares are known. */
function lowBases(document: Questionnaire, sample: SampleSummary | null): string {
  if (sample === null) return '…';
  const { starts, least } = madeFor(document);
  const low = Object.values(sample.items).filter(({ share }) => share * starts < least).length;
  return low === 0 ? 'no base low' : `${plural(low, 'base')} low`;
}

function useFigures(): Record<Stop, string> {
  const document = useStudy((state) => state.document);
  const analysis = useStudy((state) => state.analysis);
  const verdicts = useStudy((state) => state.verdicts);
  const plan = useStudy((state) => state.plan);
  const columns = useMemo(() => columnsOf(plan).length, [plan]);
  const gate = useGate();
  const items = document.sections.reduce(
    (sum, section) => sum + section.items.filter(({ kind }) => kind !== 'page_break').length,
    0,
  );
  const skips = document.sections.reduce(
    (sum, { items }) =>
      sum + items.reduce((own, item) => own + ('skips' in item ? (item.skips?.length ?? 0) : 0), 0),
    0,
  );
  const passed = verdicts.filter(({ verdict }) => verdict === 'passed').length;
  const routes =
    analysis === null
      ? 'counting …'
      : `${analysis.exact ? '' : 'at least '}${countText(analysis.routes)} in all`;
  return {
    script: plural(items, 'item'),
    forks: plural(skips, 'skip'),
    routes,
    walk: `${grouped(passed)} passed`,
    codes: plural(columns, 'column'),
    forecast: lowBases(document, analysis?.sample ?? null),
    release: gate === null ? 'looking …' : `${countText(gate.count, 5)} in the way`,
  };
}
