/** The selected item, written in place: the same lines as in print, each a field. */
import { useState } from 'react';
import { address, fieldId } from '../../../core/document/addresses';
import { hasRows, isNumeric } from '../../../core/document/answer-types';
import type { RoutedItem } from '../../../core/document/types';
import { editItem, type ItemPlace } from '../../../core/editing/structure';
import { isSuggested } from '../../../core/editing/suggested';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { useStudy } from '../../state/store';
import { AnswerEditor } from './AnswerEditor';
import { ConditionField } from '../../fields/ConditionField';
import { ConditionPicker } from '../../fields/ConditionPicker';
import { focusField, thenFocus } from '../../fields/focus';
import { ItemExtras } from './ItemExtras';
import { useItemMoves } from '../../fields/part-moves';
import { RichField } from '../../fields/RichField';
import { TypePicker } from './TypePicker';
import { NamedField } from '../../fields/NamedField';
import askIfClasses from './ask-if.module.css';
import blockClasses from './block.module.css';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
  readonly place: ItemPlace;
}

export function ItemEditor({ plan, planItem, place }: Props) {
  const { item } = planItem;
  const commit = useStudy((state) => state.commit);
  const moves = useItemMoves();
  return (
    <>
      <div className={blockClasses.name}>
        <NamedField
          field={fieldId(item.name, 'name')}
          name={item.name}
          selection={(to) => address('item', to)}
        />
        {item.kind === 'statement' ? <small>statement</small> : <TypePicker question={item} place={place} />}
      </div>
      <div>
        <AskIf item={item} place={place} />
        <div className={item.kind === 'statement' ? blockClasses.statement : blockClasses.question}>
          <RichField
            field={fieldId(item.name, 'text')}
            label={item.kind === 'statement' ? 'Text of the statement' : 'Words of the question'}
            value={item.text}
            place={place}
            placeholder={item.kind === 'statement' ? 'What respondents are told' : 'What is asked?'}
            change={(text) =>
              commit(
                editItem(place, 'text', `Write ${item.name}`, (draft) => {
                  if (draft.kind !== 'page_break') draft.text = text;
                }),
              )
            }
            enter={(far) => {
              const first =
                item.kind === 'question' && 'options' in item.answer ? item.answer.options[0] : undefined;
              // Limits that nobody has written are asked for.
              const asks = item.kind === 'question' && isNumeric(item.answer) && isSuggested(item.answer);
              const row = item.kind === 'question' && hasRows(item.answer) ? item.answer.rows[0] : undefined;
              if (row !== undefined && !far) focusField(fieldId(item.name, 'row', row.name), 'all');
              else if (asks && !far) focusField(fieldId(item.name, 'min'), 'all');
              else if (first === undefined || far) moves.addAfter(place);
              else focusField(fieldId(item.name, 'label', first.code), 'all');
            }}
          />
        </div>
        <ItemExtras plan={plan} item={item} place={place} />
        {item.kind === 'question' && (
          <>
            <AnswerEditor plan={plan} planItem={planItem} question={item} place={place} />
          </>
        )}
      </div>
    </>
  );
}

function AskIf({ item, place }: { readonly item: RoutedItem; readonly place: ItemPlace }) {
  const commit = useStudy((state) => state.commit);
  const document = useStudy((state) => state.document);
  const [picking, setPicking] = useState(false);
  const field = fieldId(item.name, 'askIf');
  const change = (text: string | undefined) =>
    commit(
      editItem(place, 'askIf', `Ask ${item.name} if …`, (draft) => {
        if (draft.kind === 'page_break') return;
        if (text === undefined) delete draft.askIf;
        else draft.askIf = text;
      }),
    );
  if (document.sections[place.section]?.draw !== undefined) return null;
  if (item.askIf === undefined) {
    return (
      <button
        type="button"
        className={askIfClasses.addCondition}
        onClick={() => thenFocus(() => change(''), field)}
      >
        Ask all, or only if …
      </button>
    );
  }
  return (
    <div className={askIfClasses.askIfEditor}>
      <span>ask if</span>
      <div>
        <ConditionField
          field={field}
          label={`${item.name} is asked if`}
          value={item.askIf}
          place={place}
          isProblem={({ at, field: of }) =>
            at.item === item.name && of === 'askIf' && at.option === undefined && at.row === undefined
          }
          change={change}
          done={() => focusField(fieldId(item.name, 'text'))}
        />
        {picking && <ConditionPicker place={place} value={item.askIf} change={change} />}
      </div>
      <button type="button" aria-expanded={picking} onClick={() => setPicking(!picking)}>
        Pick
      </button>
      <button type="button" onClick={() => thenFocus(() => change(undefined), fieldId(item.name, 'text'))}>
        Ask all
      </button>
    </div>
  );
}
