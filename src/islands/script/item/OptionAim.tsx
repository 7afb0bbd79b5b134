/** Where an option leads, and the choice of where it shall, for other options as well. */
import { useState } from 'react';
import { fieldId } from '../../../core/document/addresses';
import type { Option } from '../../../core/document/types';
import { aimAnswers } from '../../../core/editing/skips';
import { leadOf } from '../../../core/views/leads';
import { focusField } from '../../fields/focus';
import { TargetPicker } from '../../fields/TargetPicker';
import { useStudy } from '../../state/store';
import answersClasses from './answers.module.css';
import { LeadText } from './LeadText';
import type { OptionRowProps } from './OptionRow';

export function OptionAim(props: OptionRowProps) {
  const { plan, planItem, question, option, o, aiming, setAiming } = props;
  return (
    <span className={answersClasses.aim}>
      <button
        type="button"
        data-field={fieldId(question.name, 'aim', option.code)}
        aria-label={`Where answer ${o + 1} leads`}
        aria-expanded={aiming}
        title="Make a skip (Alt+→)"
        onClick={() => setAiming(!aiming)}
      >
        <LeadText lead={leadOf(plan, planItem, option.code)} />
      </button>
      {aiming && <OptionTarget {...props} />}
    </span>
  );
}

/** While it is open: which other answers go along is forgotten with it. */
function OptionTarget({ question, option, place, list, setAiming }: OptionRowProps) {
  const commit = useStudy((state) => state.commit);
  const [also, setAlso] = useState<readonly number[]>([]);
  const others = list.options.filter(({ code }) => code !== option.code);
  return (
    <TargetPicker
      section={place.section}
      item={place.item}
      none="carry on"
      close={() => setAiming(false)}
      aside={others.length > 0 ? <AlsoFrom options={others} also={also} set={setAlso} /> : undefined}
      choose={(target) => {
        setAiming(false);
        // In the order of the list.
        const codes = list.options.flatMap(({ code }) =>
          code === option.code || also.includes(code) ? [code] : [],
        );
        commit(aimAnswers(place, question, codes, target));
        queueMicrotask(() => focusField(list.label(option.code)));
      }}
    />
  );
}

interface AlsoProps {
  readonly options: readonly Option[];
  readonly also: readonly number[];
  readonly set: (codes: readonly number[]) => void;
}

/** Other answers that lead to the same place. */
function AlsoFrom({ options, also, set }: AlsoProps) {
  return (
    <fieldset className={answersClasses.also}>
      <legend>Also from</legend>
      {options.map(({ code, label }) => (
        <label key={code}>
          <input
            type="checkbox"
            checked={also.includes(code)}
            onChange={(event) => set(event.target.checked ? [...also, code] : also.filter((c) => c !== code))}
          />
          {label || code}
        </label>
      ))}
    </fieldset>
  );
}
