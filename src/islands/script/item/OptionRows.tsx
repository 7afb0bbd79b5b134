/** The options of the selected question, each with its code and where it leads, and what can be done to all of them. */
import { useState } from 'react';
import type { Question } from '../../../core/document/types';
import type { ItemPlace } from '../../../core/editing/structure';
import { isSuggested } from '../../../core/editing/suggested';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { Problem } from '../../ui/Problem';
import answersClasses from './answers.module.css';
import detailsClasses from './details.module.css';
import { ListTools } from './ListTools';
import { OptionRow } from './OptionRow';
import { useOptionList } from './use-option-list';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
  readonly question: Question;
  readonly place: ItemPlace;
}

export function OptionRows({ plan, planItem, question, place }: Props) {
  const list = useOptionList(question, place);
  const [aiming, setAiming] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const suggested = isSuggested(list.options);
  return (
    <div
      className={answersClasses.answers}
      role="group"
      aria-label={suggested ? 'Answers, as a suggestion: write the first to replace them' : 'Answers'}
      data-suggested={suggested || undefined}
    >
      {list.options.map((option, o) => (
        <OptionRow
          key={option.code}
          plan={plan}
          planItem={planItem}
          question={question}
          place={place}
          option={option}
          o={o}
          list={list}
          aiming={aiming === option.code}
          setAiming={(open) => setAiming(open ? option.code : null)}
          say={setProblem}
        />
      ))}
      <span className={answersClasses.listActs}>
        <button
          type="button"
          className={answersClasses.addAnswer}
          title="Enter in the last answer; Shift+Enter adds one right here"
          onClick={() => list.add(list.options.length)}
        >
          {list.listed ? 'Add an answer' : 'Add don’t know'}
        </button>
        {suggested && <small>a suggestion: write or paste the first answer to replace it</small>}
        {list.listed && <ListTools question={question} place={place} />}
      </span>
      <Problem of={problem} className={detailsClasses.wrong} />
    </div>
  );
}
