/** The head of the sheet: how many start, how many are eligible, how long it takes, and what the forecast is made for. */
import { ENDINGS } from '../../core/document/vocabularies';
import { placeWords } from '../../core/wording/places';
import { useStudy } from '../state/store';
import { countOf, minutesText, percentOf } from './figures';
import classes from './forecast.module.css';
import { NumberField } from './NumberField';
import type { Forecasting } from './use-forecast';

export function ForecastHead({ forecasting }: { readonly forecasting: Forecasting }) {
  const { figures, held, hold } = forecasting;
  const endings = useStudy((state) => state.document.endings);
  const plan = useStudy((state) => state.plan);
  const finishing = new Set(endings.filter(({ kind }) => !ENDINGS[kind].early).map(({ id }) => id));
  const finished =
    figures?.endings.reduce(
      (sum, { group, share }) => ('ending' in group && finishing.has(group.ending) ? sum + share : sum),
      0,
    ) ?? 0;
  const limits = figures?.limits ?? [];
  return (
    <>
      <div className={classes.head}>
        <NumberField
          className={classes.large}
          label="People who start"
          value={held.starts}
          least={1}
          keep={(starts) => hold({ starts })}
        />
        <span>started</span>
        <b>{figures === null ? '…' : countOf(finished * held.starts)}</b>
        <span>finish</span>
        {figures !== null && figures.minutes === null ? (
          <span>nobody comes to the end under these assumptions</span>
        ) : (
          <>
            <b>{figures?.minutes ? minutesText(figures.minutes.median) : '…'}</b>
            <span>
              {figures?.minutes
                ? `half of them at most, ${minutesText(figures.minutes.p90)} 9 in 10`
                : 'half of them'}
            </span>
          </>
        )}
      </div>
      <div className={classes.held}>
        <label>
          least base wanted{' '}
          <NumberField
            label="Least base wanted"
            value={held.least}
            least={1}
            keep={(least) => hold({ least })}
          />
        </label>
        <label>
          breaking off{' '}
          <NumberField
            label="Breaking off a minute, in per cent"
            value={percentOf(held.breakOff)}
            least={0}
            most={99}
            decimals
            keep={(percent) => hold({ breakOff: percent / 100 })}
          />
          % a minute
        </label>
        <label>
          design effect{' '}
          <NumberField
            label="Design effect"
            value={held.designEffect}
            least={1}
            most={100}
            decimals
            keep={(designEffect) => hold({ designEffect })}
          />
        </label>
        <label>
          response{' '}
          <NumberField
            label="Response rate, in per cent of those invited"
            value={held.response === null ? null : percentOf(held.response)}
            least={0.1}
            most={100}
            decimals
            keep={(percent) => hold({ response: percent / 100 })}
          />
          %
        </label>
      </div>
      {limits.map(({ at, message }) => (
        <p key={`${JSON.stringify(at)} ${message}`} className={classes.limit} role="note">
          Simulated with 20,000 made-up respondents, since it cannot be told exactly
          {Object.keys(at).length === 0 ? '' : ` at ${placeWords(plan.document, at)}`}: {message}.
        </p>
      ))}
    </>
  );
}
