/** One option of the selected question: words, kind, code, where it leads, and what stands under it. */
import { address, fieldId } from '../../../core/document/addresses';
import type { Option, Question } from '../../../core/document/types';
import { optionsFromPaste, pasteOptions, usualCode, writeOption } from '../../../core/editing/options';
import { recode, recodeProblem } from '../../../core/editing/recode';
import type { ItemPlace } from '../../../core/editing/structure';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { NumberField, TextField } from '../../fields/Fields';
import { useStudy } from '../../state/store';
import answersClasses from './answers.module.css';
import { OptionAim } from './OptionAim';
import { OptionKindField } from './OptionKindField';
import { OptionMore } from './OptionMore';
import type { OptionList } from './use-option-list';

/** What a piece of a row is told of it. */
export interface OptionRowProps {
  readonly plan: Plan;
  readonly planItem: PlanItem;
  readonly question: Question;
  readonly place: ItemPlace;
  readonly option: Option;
  /** Index of the option. */
  readonly o: number;
  readonly list: OptionList;
  readonly aiming: boolean;
  readonly setAiming: (aiming: boolean) => void;
  /** Tells of a change that was refused. */
  readonly say: (problem: string | null) => void;
}

export function OptionRow(props: OptionRowProps) {
  const { question, place, option, o, list, setAiming } = props;
  const commit = useStudy((state) => state.commit);
  // Beside a number or a scale 98 may be an answer.
  const usual = list.listed ? usualCode(list.options, option) : null;
  const aim = () => {
    if (list.aimable) setAiming(true);
  };
  return (
    <div
      data-anchor={address('option', question.name, option.code)}
      data-faint={option.missing !== undefined || undefined}
      data-kind="option"
    >
      <span className={answersClasses.label} data-grows>
        <TextField
          field={list.label(option.code)}
          label={`Answer ${o + 1}`}
          value={option.label}
          placeholder="Answer"
          change={(text) => commit(writeOption(place, o, text))}
          onKeyDown={list.onKeyDown(o, option, aim)}
          onPaste={(text) => {
            const pasted = optionsFromPaste(text);
            if (pasted.length < 2) return false;
            commit(pasteOptions(place, o, pasted));
            return true;
          }}
        />
      </span>
      <OptionKindField {...props} />
      <span className={answersClasses.dots} />
      <OptionCode {...props} />
      {list.aimable ? <OptionAim {...props} /> : <span className={answersClasses.lead} />}
      <OptionMore {...props} usual={usual} />
    </div>
  );
}

function OptionCode({
  question,
  place,
  option,
  o,
  list,
}: Pick<OptionRowProps, 'question' | 'place' | 'option' | 'o' | 'list'>) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const take = (code: number | undefined) => {
    if (list.options.some((other, n) => n !== o && other.code === code))
      return `Another answer has the code ${code}: choose a free one.`;
    // What names the code goes along; where it is taken as a number, that has to be changed by hand.
    const recoding = new Map([[option.code, code as number]]);
    return recodeProblem(document, place, recoding) ?? commit(recode(document, place, recoding));
  };
  return (
    <span className={answersClasses.code}>
      <NumberField
        field={fieldId(question.name, 'code', option.code)}
        label={`Code of answer ${o + 1}`}
        className={answersClasses.codeField}
        value={option.code}
        whole
        take={take}
      />
    </span>
  );
}
