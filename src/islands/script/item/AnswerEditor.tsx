/** The answer of the selected question: its options, rows and limits, each written where it is printed. */
import type { Draft } from 'immer';
import { fieldId } from '../../../core/document/addresses';
import { hasRows, isWritten } from '../../../core/document/answer-types';
import { freshName, nameProblem } from '../../../core/document/names';
import type { Answer, GridAnswer, Question } from '../../../core/document/types';
import { pasteRows, writeRow } from '../../../core/editing/grid-rows';
import { onEnter, optionsFromPaste } from '../../../core/editing/options';
import { renameVariable } from '../../../core/editing/rename';
import { editQuestion, takenNames, type ItemPlace } from '../../../core/editing/structure';
import { isSuggested } from '../../../core/editing/suggested';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { useStudy, useStudyStore } from '../../state/store';
import { ConditionField } from '../../fields/ConditionField';
import { CheckedField, NumberField, TextField } from '../../fields/Fields';
import { focusField, thenFocus } from '../../fields/focus';
import { AnswerPrint } from './ItemPrint';
import { RangeSkip } from './RangeSkip';
import { useItemMoves } from '../../fields/part-moves';
import { OptionRows } from './OptionRows';
import answersClasses from './answers.module.css';
import askIfClasses from './ask-if.module.css';
import detailsClasses from './limits.module.css';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
  readonly question: Question;
  readonly place: ItemPlace;
}

/** Types whose answers come in an order. */
const RANGED: ReadonlySet<string> = new Set(['number', 'scale', 'date', 'time', 'datetime']);

export function AnswerEditor({ plan, planItem, question, place }: Props) {
  const { answer } = question;
  return (
    <>
      {hasRows(answer) && <GridRows question={question} answer={answer} place={place} />}
      <Limits question={question} place={place} />
      {!isWritten(answer) && <OptionRows plan={plan} planItem={planItem} question={question} place={place} />}
      <AnswerPrint plan={plan} planItem={planItem} only={['rule']} />
      {RANGED.has(answer.type) && <RangeSkip question={question} place={place} />}
    </>
  );
}

/** Changes the answer, whose type is known to the caller. */
function useAnswerEdit<Type extends Answer>(question: Question, place: ItemPlace) {
  const commit = useStudy((state) => state.commit);
  return (field: string, edit: (answer: Draft<Type>) => void) =>
    commit(
      editQuestion(place, field, `Change the answer of ${question.name}`, (draft) =>
        edit(draft.answer as Draft<Type>),
      ),
    );
}

function Limits({ question, place }: { readonly question: Question; readonly place: ItemPlace }) {
  const { answer, name } = question;
  const edit = useAnswerEdit<Answer>(question, place);
  /** Sets one property of the answer; undefined takes it away. */
  const set = (key: string) => (value: unknown) =>
    edit(key, (draft) => {
      const record = draft as Record<string, unknown>;
      if (value === undefined || value === '') delete record[key];
      else record[key] = value;
    });
  const moves = useItemMoves();
  const number = (
    key: string,
    label: string,
    value: number | undefined,
    whole = false,
    optional = true,
    next?: () => void,
  ) => (
    <label>
      {label}{' '}
      <NumberField
        field={fieldId(name, key)}
        label={label}
        className={detailsClasses.limit}
        value={value}
        whole={whole}
        optional={optional}
        next={next}
        take={set(key)}
      />
    </label>
  );
  const words = (key: string, label: string, value: string | undefined, size = 8) => (
    <label>
      {label}{' '}
      <CheckedField
        field={fieldId(name, key)}
        label={label}
        className={detailsClasses.limit}
        size={size}
        value={value ?? ''}
        take={set(key)}
      />
    </label>
  );
  const choice = (key: string, label: string, value: string, values: readonly string[], none?: string) => (
    <label>
      {label}{' '}
      <select
        className={detailsClasses.limit}
        data-field={fieldId(name, key)}
        aria-label={label}
        value={value}
        onChange={(event) => set(key)(event.target.value === none ? undefined : event.target.value)}
      >
        {values.map((entry) => (
          <option key={entry}>{entry}</option>
        ))}
      </select>
    </label>
  );
  const shuffled = (value: boolean | undefined) => (
    <label>
      <input
        type="checkbox"
        data-field={fieldId(name, 'shuffleOptions')}
        checked={value === true}
        onChange={(event) => set('shuffleOptions')(event.target.checked ? true : undefined)}
      />{' '}
      random order
    </label>
  );
  switch (answer.type) {
    case 'single':
      return (
        <div className={detailsClasses.limits}>
          {number('columns', 'columns', answer.columns, true)}
          {shuffled(answer.shuffleOptions)}
        </div>
      );
    case 'multiple':
      return (
        <div className={detailsClasses.limits}>
          {number('minPicks', 'picks at least', answer.minPicks, true)}
          {number('maxPicks', 'at most', answer.maxPicks, true)}
          {(answer.minPicks !== undefined || answer.maxPicks !== undefined) &&
            words('picksMessage', 'else say', answer.picksMessage, 28)}
          {number('columns', 'columns', answer.columns, true)}
          {shuffled(answer.shuffleOptions)}
        </div>
      );
    case 'grid':
      return (
        <div className={detailsClasses.limits}>
          {choice('pick', 'picks a row', answer.pick ?? 'one', ['one', 'many'], 'one')}
          {shuffled(answer.shuffleOptions)}
        </div>
      );
    case 'rank':
      return (
        <div className={detailsClasses.limits}>
          {number('top', 'places ranked', answer.top, true)}
          {shuffled(answer.shuffleOptions)}
        </div>
      );
    case 'scale':
      return (
        <div className={detailsClasses.limits}>
          {number('min', 'from', answer.min, false, false)}
          {number('max', 'to', answer.max, false, false)}
          {number('step', 'step', answer.step)}
          {words('lowLabel', 'low end', answer.lowLabel, 12)}
          {words('midLabel', 'middle', answer.midLabel, 12)}
          {words('highLabel', 'high end', answer.highLabel, 12)}
        </div>
      );
    case 'number':
      return (
        <div className={detailsClasses.limits}>
          {number('min', 'from', answer.min, false, false, () => focusField(fieldId(name, 'max'), 'all'))}
          {number('max', 'to', answer.max, false, false, () => moves.addAfter(place))}
          {isSuggested(answer) && <span>a suggestion: write the least and the most that can be true</span>}
          {number('decimals', 'decimals', answer.decimals, true)}
          {words('unit', 'unit', answer.unit)}
        </div>
      );
    case 'text':
      return (
        <div className={detailsClasses.limits}>
          {choice('lines', 'lines', answer.lines ?? 'one', ['one', 'many'], 'one')}
          {choice('pattern', 'pattern', answer.pattern ?? 'none', ['none', 'email', 'phone', 'url'], 'none')}
          {number('minLength', 'at least', answer.minLength, true)}
          {number('maxLength', 'at most', answer.maxLength, true)}
          <span>characters</span>
          {words('placeholder', 'shows first', answer.placeholder, 16)}
        </div>
      );
    case 'date':
    case 'time':
    case 'datetime':
      return (
        <div className={detailsClasses.limits}>
          {words('min', 'from', answer.min, 14)}
          {words('max', 'to', answer.max, 14)}
          <span>
            {{ date: 'like 2026-01-31', time: 'like 08:30', datetime: 'like 2026-01-31T08:30' }[answer.type]}
          </span>
        </div>
      );
    default:
      return answer satisfies never;
  }
}

function GridRows({ question, answer, place }: { question: Question; answer: GridAnswer; place: ItemPlace }) {
  const edit = useAnswerEdit<GridAnswer>(question, place);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  const add = (at: number) => {
    const name = freshName(`${question.name}_${at + 1}`, takenNames(store.getState().document));
    thenFocus(
      () => edit('rows', (draft) => void draft.rows.splice(at, 0, { name, label: '' })),
      fieldId(question.name, 'row', name),
    );
  };
  const setRowIf = (r: number, text: string | undefined) =>
    edit(`row ${r} askIf`, (draft) => {
      const found = draft.rows[r];
      if (found === undefined) return;
      if (text === undefined) delete found.askIf;
      else found.askIf = text;
    });
  const rename = (from: string, typed: string): string | null => {
    const name = typed.trim();
    const problem = nameProblem(name);
    if (problem !== null) return problem;
    const taken = takenNames(store.getState().document);
    if (name.toLowerCase() !== from.toLowerCase() && taken.has(name.toLowerCase()))
      return `“${name}” is the name of something else already: choose another.`;
    return commit(renameVariable(from, name));
  };
  return (
    <div className={answersClasses.answers} role="group" aria-label="Rows">
      {answer.rows.map((row, r) => (
        <div key={r} data-kind="row">
          <span className={answersClasses.label} data-grows>
            <TextField
              field={fieldId(question.name, 'row', row.name)}
              label={`Row ${r + 1}`}
              value={row.label}
              placeholder="Row"
              change={(text) => commit(writeRow(place, r, text))}
              onPaste={(text) => {
                const pasted = optionsFromPaste(text).map(({ label }) => label);
                if (pasted.length < 2) return false;
                commit(pasteRows(store.getState().document, place, r, pasted));
                return true;
              }}
              onKeyDown={(event) => {
                if (event.key === 'Enter') {
                  event.preventDefault();
                  const next = onEnter(answer.rows, r);
                  if (event.shiftKey) add(r + 1);
                  else if (next.does === 'add') add(next.at);
                  else if (next.does === 'go')
                    focusField(fieldId(question.name, 'row', answer.rows[next.at]?.name ?? ''), 'all');
                  else
                    thenFocus(
                      () => edit('rows', (draft) => void draft.rows.splice(r, 1)),
                      fieldId(question.name, 'label', answer.options[0]?.code ?? 0),
                      'all',
                    );
                } else if (event.key === 'Backspace' && row.label === '' && answer.rows.length > 1) {
                  event.preventDefault();
                  const before = answer.rows[r === 0 ? 1 : r - 1]?.name ?? '';
                  thenFocus(
                    () => edit('rows', (draft) => void draft.rows.splice(r, 1)),
                    fieldId(question.name, 'row', before),
                  );
                }
              }}
            />
          </span>
          <span className={answersClasses.dots} />
          <CheckedField
            field={fieldId(question.name, 'rowName', row.name)}
            label={`Variable of row ${r + 1}`}
            className={answersClasses.rowName}
            value={row.name}
            size={14}
            take={(typed) => rename(row.name, typed)}
          />
          <span className={answersClasses.lead}>
            {row.askIf === undefined && (
              <button
                type="button"
                onClick={() => thenFocus(() => setRowIf(r, ''), fieldId(question.name, 'rowIf', row.name))}
              >
                only if …
              </button>
            )}
          </span>
          {row.askIf !== undefined && (
            <div className={answersClasses.optionMore}>
              <div className={askIfClasses.askIfEditor}>
                <span>shown if</span>
                <div>
                  <ConditionField
                    field={fieldId(question.name, 'rowIf', row.name)}
                    label={`Row ${r + 1} is shown if`}
                    value={row.askIf}
                    place={place}
                    isProblem={({ at }) => at.item === question.name && at.row === row.name}
                    change={(text) => setRowIf(r, text)}
                  />
                </div>
                <button type="button" onClick={() => setRowIf(r, undefined)}>
                  To all
                </button>
              </div>
            </div>
          )}
        </div>
      ))}
      <button type="button" className={answersClasses.addAnswer} onClick={() => add(answer.rows.length)}>
        Add a row
      </button>
    </div>
  );
}
