/** A check of an answer: when it holds, whether it stops or asks, and its words. */
import type { Draft } from 'immer';
import { fieldId } from '../../../core/document/addresses';
import type { Check } from '../../../core/document/types';
import type { ItemPlace } from '../../../core/editing/structure';
import { ConditionField } from '../../fields/ConditionField';
import { TextField } from '../../fields/Fields';
import answersClasses from './answers.module.css';
import detailsClasses from './details.module.css';
import limitsClasses from './limits.module.css';

interface CheckProps {
  readonly check: Check;
  readonly n: number;
  readonly name: string;
  readonly place: ItemPlace;
  readonly change: (key: string, change: (draft: Draft<Check>) => void) => void;
  readonly remove: () => void;
}

export function CheckRow({ check, n, name, place, change, remove }: CheckProps) {
  return (
    <div className={limitsClasses.extra}>
      <span>check</span>
      <div>
        <ConditionField
          field={fieldId(name, 'check', n)}
          label={`Check ${n + 1} of ${name} holds if`}
          value={check.if}
          place={{ section: place.section, item: place.item + 1 }}
          isProblem={(snag) => snag.at.item === name && snag.field === `checks[${n}].if`}
          change={(text) => change('if', (draft) => void (draft.if = text))}
        />
        <div className={detailsClasses.checkWords}>
          <select
            className={limitsClasses.limit}
            aria-label={`What check ${n + 1} does`}
            value={check.kind}
            onChange={(event) =>
              change('kind', (draft) => void (draft.kind = event.target.value as Check['kind']))
            }
          >
            <option value="hard">stops, until it is changed:</option>
            <option value="soft">asks once whether it is so:</option>
          </select>
          <TextField
            field={fieldId(name, 'checkMessage', n)}
            label={`Words of check ${n + 1}`}
            value={check.message}
            placeholder="What respondents are told"
            change={(text) => change('message', (draft) => void (draft.message = text))}
          />
        </div>
      </div>
      <button
        type="button"
        className={answersClasses.takeOut}
        aria-label={`Delete check ${n + 1}`}
        onClick={remove}
      >
        ×
      </button>
    </div>
  );
}
