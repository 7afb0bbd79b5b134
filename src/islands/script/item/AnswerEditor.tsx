/** The answer of the selected question: its rows, limits and options, each written where it is printed. */
import { hasRows, isDated, isNumeric, isWritten } from '../../../core/document/answer-types';
import type { Question } from '../../../core/document/types';
import type { ItemPlace } from '../../../core/editing/structure';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { GridRows } from './GridRows';
import { AnswerPrint } from './ItemPrint';
import { Limits } from './Limits';
import { OptionRows } from './OptionRows';
import { RangeSkip } from './RangeSkip';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
  readonly question: Question;
  readonly place: ItemPlace;
}

export function AnswerEditor({ plan, planItem, question, place }: Props) {
  const { answer } = question;
  return (
    <>
      {hasRows(answer) && <GridRows question={question} answer={answer} place={place} />}
      <Limits question={question} place={place} />
      {!isWritten(answer) && <OptionRows plan={plan} planItem={planItem} question={question} place={place} />}
      <AnswerPrint plan={plan} planItem={planItem} only={['rule']} />
      {(isNumeric(answer) || isDated(answer)) && <RangeSkip question={question} place={place} />}
    </>
  );
}
