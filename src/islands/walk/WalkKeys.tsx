/** What the keys do at the question in hand, beneath the respondent's page; the respondent never sees it. */
import { hasRows, picksOne } from '../../core/document/answer-types';
import type { Plan } from '../../core/routing/plan';
import type { WalkStep } from '../../core/routing/walk';
import { showsCodes } from '../answering/ItemForm';
import classes from './walk.module.css';

interface Props {
  readonly plan: Plan;
  readonly step: WalkStep | null;
}

export function WalkKeys({ plan, step }: Props) {
  const own = step === null ? '' : keysAt(step, showsCodes(plan));
  return (
    <p className={classes.keys}>
      {own !== '' && `${own} `}
      <kbd>Tab</kbd> moves on, <kbd>Enter</kbd> goes to the next page.
    </p>
  );
}

function keysAt({ planItem: { item }, shown }: WalkStep, codes: boolean): string {
  if (item.kind === 'statement') return '';
  const { answer } = item;
  switch (answer.type) {
    case 'single':
    case 'multiple':
    case 'grid': {
      const options = answer.options.filter((_, index) => shown.options[index]);
      const by = codes ? 'type its code' : `type its place, 1 to ${options.length}`;
      const row = hasRows(answer) ? ', row by row' : '';
      return picksOne(answer) || (hasRows(answer) && answer.pick !== 'many')
        ? `To choose an answer${row} ${by}.`
        : `To pick an answer or take it out${row} ${by}.`;
    }
    case 'scale':
      return `To choose a mark type its number, ${answer.min} to ${answer.max}.`;
    case 'rank':
      return 'Arrow keys choose the place of each.';
    case 'text':
      return answer.lines === 'many' ? 'Ctrl+Enter goes on from a long text.' : '';
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return '';
    default:
      return answer satisfies never;
  }
}
