/** For whom an answer or a row is shown, while that is written. */
import type { ComponentProps } from 'react';
import { ConditionField } from '../../fields/ConditionField';
import askIfClasses from './ask-if.module.css';

interface Props extends Omit<ComponentProps<typeof ConditionField>, 'change'> {
  /** Undefined: shown to all. */
  readonly change: (text: string | undefined) => void;
}

export function ShownIf(props: Props) {
  return (
    <div className={askIfClasses.askIfEditor}>
      <span>shown if</span>
      <div>
        <ConditionField {...props} />
      </div>
      <button type="button" onClick={() => props.change(undefined)}>
        To all
      </button>
    </div>
  );
}
