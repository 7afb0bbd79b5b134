/** Days along the top, and under them a band for each thing that became of people, ruled by its colour and as full as the day was. */
import type { CSSProperties } from 'react';
import type { Figures } from '../../../core/monitor/figures';
import { OUTCOME_WORDS, OUTCOMES, type Outcome } from '../../../core/monitor/outcomes';
import type { Picked } from '../../../core/monitor/picked';
import { Figure, OutcomeMark } from './figure';
import { dayWords, weekdayOf } from './monitor-text';
import classes from './days.module.css';

interface Props {
  readonly figures: Figures;
  /** Outcomes that the questionnaire can have, though nobody has come to them yet. */
  readonly possible: ReadonlySet<Outcome>;
}

export function DayBands({ figures, possible }: Props) {
  const { days, outcomes } = figures;
  const bands = OUTCOMES.filter((outcome) => outcomes[outcome] > 0 || possible.has(outcome));
  const most = Math.max(1, ...days.flatMap((day) => [day.begun, ...Object.values(day.outcomes)]));
  return (
    // Many days are wider than the screen; each holds doors, so that it is scrolled by keyboard as well.
    <div className={classes.days}>
      <table>
        <caption className={classes.unseen}>Who has come to what, by day</caption>
        <thead>
          <tr>
            <th scope="col">By day</th>
            <th scope="col" className={classes.sum}>
              All
            </th>
            {days.map(({ day, isAhead }) => (
              <th
                key={day}
                scope="col"
                data-first={day.endsWith('-01') || day === days[0]?.day || undefined}
                data-ahead={isAhead || undefined}
              >
                <small>{weekdayOf(day)}</small>
                {dayWords(day, day === days[0]?.day)}
              </th>
            ))}
            <td aria-hidden="true" className={classes.rest} />
          </tr>
        </thead>
        <tbody>
          {figures.invited !== null && (
            <Band
              words="Invited"
              sum={figures.invited}
              of={(day) => ({ of: 'invited', ...day })}
              counts={days.map(({ day, invited }) => ({ day, count: invited }))}
              most={null}
              colour="line-strong"
            />
          )}
          <Band
            words="Begun"
            sum={figures.begun}
            of={(day) => ({ of: 'begun', ...day })}
            counts={days.map(({ day, begun }) => ({ day, count: begun }))}
            most={most}
            colour="dots"
          />
          {bands.map((outcome) => {
            const { word, meaning, colour } = OUTCOME_WORDS[outcome];
            return (
              <Band
                key={outcome}
                words={word}
                meaning={meaning}
                mark={outcome}
                sum={outcomes[outcome]}
                of={(day) => ({ of: 'outcome', is: [outcome], ...day })}
                counts={days.map(({ day, outcomes: of }) => ({ day, count: of[outcome] ?? 0 }))}
                most={most}
                colour={colour}
              />
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

interface BandProps {
  readonly words: string;
  readonly meaning?: string;
  readonly mark?: Outcome;
  readonly sum: number;
  readonly of: (day: { readonly day?: string }) => Picked;
  readonly counts: readonly { readonly day: string; readonly count: number }[];
  /** The count that fills a day; null: days are not filled. */
  readonly most: number | null;
  /** Name of a colour token. */
  readonly colour: string;
}

function Band({ words, meaning, mark, sum, of, counts, most, colour }: BandProps) {
  return (
    <tr style={{ '--band': `var(--${colour})` } as CSSProperties}>
      <th scope="row" title={meaning}>
        <span>
          {mark !== undefined && <OutcomeMark outcome={mark} />}
          {words}
        </span>
      </th>
      <td className={classes.sum}>
        <Figure of={of({})} count={sum} words={words} />
      </td>
      {counts.map(({ day, count }) => (
        <td
          key={day}
          style={
            most === null || count === 0
              ? undefined
              : ({ '--full': `${Math.max(4, (100 * count) / most)}%` } as CSSProperties)
          }
        >
          <Figure of={of({ day })} count={count} words={`${words}, ${dayWords(day, true)}`}>
            {count === 0 ? '' : undefined}
          </Figure>
        </td>
      ))}
      <td aria-hidden="true" className={classes.rest} />
    </tr>
  );
}
