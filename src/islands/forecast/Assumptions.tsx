/** What is assumed: the questions whose answers decide, the weightiest first, each with its shares on a ruler. */
import { useState } from 'react';
import type { Answer, Assume } from '../../core/document/types';
import { assumedShares, type AssumedShare } from '../../core/forecast/one-more-point';
import { asAssumed, cannotBePicked, type AnswerShare } from '../../core/forecast/re-share';
import { assumedAtQuestions, assumedInSet } from '../../core/forecast/sets';
import { assumedAmong, assumingAmong } from '../../core/routing/assumed';
import type { SteeringShown } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import { AnswerRuler } from './AnswerRuler';
import { ApartForm } from './ApartForm';
import { Problem } from '../ui/Problem';
import fields from './fields.module.css';
import classes from './assumptions.module.css';
import { SetTabs } from './SetTabs';
import { ShareList } from './ShareList';
import { SourceField } from './SourceField';
import type { Forecasting } from './use-forecast';

export function Assumptions({ forecasting }: { readonly forecasting: Forecasting }) {
  const { figures, order, problem } = forecasting;
  const readOnly = useStudy((state) => state.readOnly !== null);
  const steering = figures && order.flatMap((name) => figures.steering.find((of) => of.name === name) ?? []);
  const bases = figures?.items.filter(({ group }) => 'item' in group && group.pass === null).length ?? 0;
  return (
    <aside className={classes.side} aria-label="Assumed answers">
      <SetTabs forecasting={forecasting} readOnly={readOnly} />
      <h2>Assumed answers, most telling first</h2>
      {steering === null && problem === null && (
        <p className={classes.note}>Working out which answers decide …</p>
      )}
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
  const { set } = forecasting;
  const document = useStudy((state) => state.document);
  const [problem, setProblem] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const entry = assumedAtQuestions(document).get(name);
  if (entry === undefined) return null;
  const { answer, required } = entry;
  const inSet = set === null ? undefined : assumedInSet(document, set).get(name);
  const atQuestion = entry.assume ?? {};
  // What a set assumes otherwise is not known from where the question's own shares are.
  const { source: _, base: __, ...unsourced } = atQuestion;
  const before: Assume = inSet ?? (set === null ? atQuestion : unsourced);
  // By the document rather than by the figures: those come a moment later, and the next key builds on this one.
  const ranges = of.shares.flatMap(({ where, answer: each }) =>
    where === null && typeof each === 'object' && 'from' in each ? [each] : [],
  );
  const shares = assumedShares({ answer, assume: before, required }, ranges);
  const keep = (assumed: Assume | null) => {
    const refused = forecasting.keep(name, assumed);
    setProblem(refused);
    return refused;
  };
  const isGuess = before.shares === undefined && before.ranges === undefined;
  const apart = before.where ?? [];
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
      {apart.map((among, where) => (
        <div key={among.if} className={classes.apart}>
          <p>
            of those where <code>{among.if}</code>
            {!readOnly && set === null && (
              <button
                type="button"
                aria-label={`No shares of their own where ${among.if}`}
                title="Let the shares of the rest hold for them too"
                onClick={() => keep(withoutApart(before, where))}
              >
                ×
              </button>
            )}
          </p>
          <Shares {...{ name, answer, before, shares, where, open, readOnly, forecasting, keep }} />
        </div>
      ))}
      {apart.length > 0 && <p className={classes.rest}>of the rest</p>}
      <Shares {...{ name, answer, before, shares, where: null, open, readOnly, forecasting, keep }} />
      {open && !readOnly && set === null && !isGiven(document.given, name) && (
        <ApartForm name={name} before={before} keep={keep} />
      )}
      {set !== null && inSet === undefined && <p className={classes.guess}>as expected</p>}
      {set === null && isGuess && <p className={classes.guess}>nobody has looked at this yet: even shares</p>}
      {(set === null ? !isGuess : inSet !== undefined) && (
        <SourceField
          name={name}
          source={before.source ?? ''}
          base={before.base ?? null}
          readOnly={readOnly}
          keep={(source) => {
            const { source: was, ...rest } = before;
            if (source === was) return null;
            return keep(source === '' ? rest : { ...rest, source });
          }}
        />
      )}
      {inSet !== undefined && !readOnly && (
        <button type="button" className={fields.act} onClick={() => keep(null)}>
          as expected again
        </button>
      )}
      <Problem of={problem} className={classes.problem} />
    </section>
  );
}

interface SharesProps {
  readonly name: string;
  readonly answer: Answer;
  readonly before: Assume;
  readonly shares: readonly AssumedShare[];
  readonly where: number | null;
  readonly open: boolean;
  readonly readOnly: boolean;
  readonly forecasting: Forecasting;
  readonly keep: (assumed: Assume) => string | null;
}

/** The shares of all, or of those alone who are assumed apart. */
function Shares({
  name,
  answer,
  before,
  shares: all,
  where,
  open,
  readOnly,
  forecasting,
  keep,
}: SharesProps) {
  const shares = all.filter((of) => of.where === where);
  const among = assumedAmong(before, where);
  const apart = where === null ? undefined : before.where?.[where]?.if;
  const called = apart === undefined ? name : `${name} where ${apart}`;
  const assumed = (next: readonly AnswerShare[], held?: ReadonlySet<number>) => {
    // Shares that somebody has moved are no longer those of so many people.
    const { base: _, ...rest } = assumingAmong(before, where, asAssumed(answer, among, next, held));
    return rest;
  };
  return (
    <>
      <AnswerRuler
        name={called}
        answer={answer}
        shares={shares}
        isPencilled={among.shares === undefined && among.ranges === undefined}
        readOnly={readOnly}
        lean={(next) => forecasting.lean(name, assumed(next))}
        keep={(next) => keep(assumed(next))}
        letGo={() => forecasting.lean(name, null)}
      />
      {open && (
        <ShareList
          name={called}
          answer={answer}
          shares={shares}
          readOnly={readOnly}
          keep={(next, held) => cannotBePicked(answer, among, next) ?? keep(assumed(next, held))}
        />
      )}
    </>
  );
}

function withoutApart(before: Assume, where: number): Assume {
  const { where: all = [], ...rest } = before;
  const others = all.filter((_, n) => n !== where);
  return others.length === 0 ? rest : { ...rest, where: others };
}

function isGiven(given: readonly { readonly name: string }[] | undefined, name: string): boolean {
  return given?.some((of) => of.name === name) === true;
}
