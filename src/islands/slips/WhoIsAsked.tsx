/** Who is asked an item: as a sentence, on how many routes, by what share of the sample. */
import { parseCondition } from '../../core/condition/parse';
import { printCondition } from '../../core/condition/print';
import { secondsOf } from '../../core/routing/burden';
import { paceOf } from '../../core/routing/pace';
import type { Plan, PlanItem } from '../../core/routing/plan';
import { baseOf } from '../../core/wording/base';
import { percentText } from '../../core/wording/percent';
import { askedOf } from '../state/asked';
import { shownSearch } from '../state/routes-shown';
import { useStudy } from '../state/store';
import { countText, grouped, secondsText } from '../ui/format';
import primitives from '../ui/primitives.module.css';
import { RoutesDoor } from './RoutesDoor';
import rows from './rows.module.css';
import classes from './slip.module.css';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
}

export function WhoIsAsked({ plan, planItem }: Props) {
  const analysis = useStudy((state) => state.analysis);
  const { name } = planItem.item;
  const { section } = plan.sections[planItem.section] ?? {};
  const routes = analysis?.items[name];
  const total = analysis?.routes;
  const sample = analysis?.sample;
  const expected = sample?.items[name];
  const broken = useStudy((state) => state.snags).some(
    ({ at, field }) =>
      at.item === name && field === 'askIf' && at.option === undefined && at.row === undefined,
  );
  const base = baseOf(plan.variables, askedOf(analysis, name));
  const parts = base.conditions.flatMap((text) => partsOf(text));
  const notApplicable = plan.document.missing.find(({ reason }) => reason === 'not_applicable');
  const some = routes !== undefined && total !== undefined && total !== '0';
  const drawn = section?.draw !== undefined && planItem.item.kind === 'question';
  return (
    <div className={primitives.card}>
      <p className={classes.who}>
        {broken ? 'Nobody, until the condition is mended' : base.sentence}
        {drawn && `, where it is drawn (${section?.draw} of ${questionsIn(section)})`}
      </p>
      {parts.length > 0 && !broken && (
        <div className={classes.chips}>
          {parts.map((part) => (
            <code key={part}>{part}</code>
          ))}
        </div>
      )}
      <div className={classes.bar} aria-hidden="true">
        <i style={{ width: some ? `${share(routes, total)}%` : 0 }} />
      </div>
      <div className={rows.pair}>
        <span>{analysis?.exact === false ? 'On routes counted so far' : 'On routes'}</span>
        <b>
          {some ? (
            <RoutesDoor
              search={shownSearch({ through: [name] })}
              title={`${grouped(routes)} of ${grouped(total)}`}
            >
              {`${countText(routes)} of ${countText(total)}`}
            </RoutesDoor>
          ) : (
            '…'
          )}
        </b>
      </div>
      <div className={rows.pair}>
        <span>Of the sample</span>
        <b title="By the answers that are assumed, with quotas open">
          {sample === null ? 'not known exactly' : expected === undefined ? '…' : percentText(expected.share)}
        </b>
      </div>
      <div className={rows.pair}>
        <span>Takes {section?.repeat === undefined ? '' : 'each time '}about</span>
        <b>{secondsText(secondsOf(planItem.item, paceOf(plan.document)))}</b>
      </div>
      {planItem.item.kind === 'question' && (
        <div className={rows.pair}>
          <span>Others get</span>
          <code>{notApplicable?.code} not applicable</code>
        </div>
      )}
    </div>
  );
}

/** The parts of a condition that all have to hold, each by itself. */
function partsOf(text: string): string[] {
  const parsed = parseCondition(text);
  if (!parsed.ok || parsed.tree.kind !== 'and') return [text];
  return parsed.tree.parts.map(printCondition);
}

function questionsIn(section: Plan['sections'][number]['section'] | undefined): number {
  return section?.items.filter(({ kind }) => kind === 'question').length ?? 0;
}

/** Per cent, from decimal strings of any length. */
function share(part: string, whole: string): number {
  return Number((BigInt(part) * 10_000n) / BigInt(whole)) / 100;
}
