/** What is assumed: the questions whose answers decide, the weightiest first, each with its shares on a ruler. */
import { useState } from 'react';
import type { Answer, Assume } from '../../core/document/types';
import { assumedShares } from '../../core/forecast/one-more-point';
import { asAssumed, type AnswerShare } from '../../core/forecast/re-share';
import type { SteeringShown } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import { AnswerRuler } from './AnswerRuler';
import classes from './assumptions.module.css';
import { ShareList } from './ShareList';
import { SourceField } from './SourceField';
import type { Forecasting } from './use-forecast';

export function Assumptions({ forecasting }: { readonly forecasting: Forecasting }) {
  const { figures, order } = forecasting;
  const readOnly = useStudy((state) => state.readOnly !== null);
  const steering = figures && order.flatMap((name) => figures.steering.find((of) => of.name === name) ?? []);
  const bases = figures?.items.filter(({ group }) => 'item' in group && group.pass === null).length ?? 0;
  return (
    <aside className={classes.side} aria-label="Assumed answers">
      <h2>Assumed answers, most telling first</h2>
      {steering === null && <p className={classes.note}>Working out which answers decide …</p>}
      {steering?.length === 0 && (
        <p className={classes.note}>
          {figures?.exact === false
            ? 'Which answers decide cannot be told exactly here. Shares are assumed at each question of the script.'
            : 'Everybody is asked everything: no answer decides who is asked what.'}
        </p>
      )}
      {steering?.map((of) => (
        <Assumed key={of.name} of={of} bases={bases} forecasting={forecasting} readOnly={readOnly} />
      ))}
    </aside>
  );
}

interface AssumedProps {
  readonly of: SteeringShown;
  readonly bases: number;
  readonly forecasting: Forecasting;
  readonly readOnly: boolean;
}

function Assumed({ of, bases, forecasting, readOnly }: AssumedProps) {
  const { name, decides } = of;
  const entry = useStudy(
    (state) =>
      state.document.given?.find((each) => each.name === name) ??
      state.document.sections
        .flatMap(({ items }) => items)
        .find((item) => 'name' in item && item.name === name),
  );
  const [problem, setProblem] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  if (entry === undefined || !('answer' in entry)) return null;
  const answer: Answer = entry.answer;
  const before: Assume = entry.assume ?? {};
  // By the document rather than by the figures: those come a moment later, and the next key builds on this one.
  const ranges = of.shares.flatMap(({ answer: each }) =>
    typeof each === 'object' && 'from' in each ? [each] : [],
  );
  const required = 'kind' in entry ? entry.required === true : true;
  const shares = assumedShares({ answer, assume: entry.assume, required }, ranges);
  const isGuess = before.shares === undefined && before.ranges === undefined;
  const lean = (shares: readonly AnswerShare[]) => forecasting.lean(name, asAssumed(answer, before, shares));
  const keep = (shares: readonly AnswerShare[]) => {
    const refused = forecasting.keep(name, asAssumed(answer, before, shares));
    setProblem(refused);
    return refused;
  };
  return (
    <section className={classes.assumed} aria-label={`Assumed answers to ${name}`}>
      <h3>
        <button type="button" aria-expanded={open} onClick={() => setOpen(!open)} title="Type the shares">
          {name}
        </button>
        <small>
          {decides === bases ? 'decides all bases' : `decides ${decides} of ${plural(bases, 'base')}`}
        </small>
      </h3>
      <AnswerRuler
        name={name}
        answer={answer}
        shares={shares}
        isPencilled={isGuess}
        readOnly={readOnly}
        lean={lean}
        keep={keep}
        letGo={() => forecasting.lean(name, null)}
      />
      {open && <ShareList name={name} answer={answer} shares={shares} readOnly={readOnly} keep={keep} />}
      {isGuess ? (
        <p className={classes.guess}>nobody has looked at this yet: even shares</p>
      ) : (
        <SourceField
          name={name}
          source={before.source ?? ''}
          readOnly={readOnly}
          keep={(source) => {
            const { source: _, ...rest } = before;
            return forecasting.keep(name, source === '' ? rest : { ...rest, source });
          }}
        />
      )}
      {problem !== null && (
        <p className={classes.problem} role="alert">
          {problem}
        </p>
      )}
    </section>
  );
}
