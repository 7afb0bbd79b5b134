/** Where each answer to the current question would lead, before one is chosen. */
import { useMemo } from 'react';
import { passKey } from '../../core/document/addresses';
import { picksMany, picksOne } from '../../core/document/answer-types';
import { optionsOf } from '../../core/document/shape';
import type { Plan } from '../../core/routing/plan';
import { walk, type WalkStep } from '../../core/routing/walk';
import { endingLabel } from '../../core/wording/targets';
import type { Session } from '../../core/responding/session';
import classes from './cards.module.css';

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  readonly step: WalkStep;
}

/** More answers than these are not tried. */
const MOST = 24;

export function LeadsCard({ plan, session, step }: Props) {
  const { answers, inputs } = session;
  const { item } = step.planItem;
  const leads = useMemo(() => {
    if (item.kind !== 'question') return [];
    const { answer } = item;
    if (!picksOne(answer) && !picksMany(answer)) return [];
    const key = passKey(item.name, step.pass);
    const shown = optionsOf(answer).filter((_, n) => step.shown.options[n] !== false);
    const tried = shown.slice(0, MOST).map(({ code, label }) => ({
      label,
      to: leadsTo(plan, { ...answers, [key]: picksMany(answer) ? [code] : code }, inputs, step.key),
    }));
    const blank = item.required
      ? []
      : [{ label: 'left blank', to: leadsTo(plan, { ...answers, [key]: null }, inputs, step.key) }];
    return [...tried, ...blank];
  }, [plan, answers, inputs, item, step]);
  const places = new Set(leads.map(({ to }) => to));
  if (places.size < 2) return null;
  const several = item.kind === 'question' && picksMany(item.answer);
  return (
    <>
      <h2>{several ? 'Each pick by itself leads to' : 'Each answer leads to'}</h2>
      <div className={classes.card}>
        {[...places].map((to) => (
          <p key={to} className={classes.line}>
            <b>→</b>
            <span>
              <code>{to}</code>{' '}
              {leads
                .filter((lead) => lead.to === to)
                .map(({ label }) => label)
                .join(', ')}
            </span>
          </p>
        ))}
      </div>
    </>
  );
}

/** The name of what is presented next, or the ending. */
function leadsTo(plan: Plan, answers: Session['answers'], inputs: Session['inputs'], from: string): string {
  const result = walk(plan, { answers, ...inputs, lenient: true });
  if (!result.ok) return '';
  const { steps, ending } = result.walk;
  const next = steps[steps.findIndex(({ key }) => key === from) + 1];
  if (next !== undefined) return next.key;
  return ending === null ? 'the end' : endingLabel(plan.document, plan.endings[ending]?.ending.id ?? '');
}
