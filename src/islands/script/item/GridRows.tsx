/** The rows of a grid: words, the variable of each, and for whom it is shown. */
import type { KeyboardEvent } from 'react';
import { fieldId, type FieldId } from '../../../core/document/addresses';
import { freshName, nameProblem } from '../../../core/document/names';
import type { GridAnswer, Question } from '../../../core/document/types';
import { pasteRows, writeRow } from '../../../core/editing/grid-rows';
import { onEnter, optionsFromPaste } from '../../../core/editing/options';
import { renameVariable } from '../../../core/editing/rename';
import { takenNames, type ItemPlace } from '../../../core/editing/structure';
import { CheckedField, TextField } from '../../fields/Fields';
import { focusField, thenFocus } from '../../fields/focus';
import { useStudy, useStudyStore } from '../../state/store';
import answersClasses from './answers.module.css';
import { ShownIf } from './ShownIf';
import { useAnswerEdit } from './use-answer-edit';

interface Props {
  readonly question: Question;
  readonly answer: GridAnswer;
  readonly place: ItemPlace;
}

export function GridRows({ question, answer, place }: Props) {
  const list = useRowList(question, answer, place);
  return (
    <div className={answersClasses.answers} role="group" aria-label="Rows">
      {answer.rows.map((_, r) => (
        <GridRow key={r} question={question} answer={answer} place={place} r={r} list={list} />
      ))}
      <button type="button" className={answersClasses.addAnswer} onClick={() => list.add(answer.rows.length)}>
        Add a row
      </button>
    </div>
  );
}

interface RowProps extends Props {
  /** Index of the row. */
  readonly r: number;
  readonly list: ReturnType<typeof useRowList>;
}

function GridRow({ question, answer, place, r, list }: RowProps) {
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  const row = answer.rows[r];
  if (row === undefined) return null;
  const rowIf = fieldId(question.name, 'rowIf', row.name);
  return (
    <div data-kind="row">
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
          onKeyDown={(event) => list.onKeyDown(event, r)}
        />
      </span>
      <span className={answersClasses.dots} />
      <CheckedField
        field={fieldId(question.name, 'rowName', row.name)}
        label={`Variable of row ${r + 1}`}
        className={answersClasses.rowName}
        value={row.name}
        size={14}
        take={(typed) => list.rename(row.name, typed)}
      />
      <span className={answersClasses.lead}>
        {row.askIf === undefined && (
          <button type="button" onClick={() => thenFocus(() => list.setRowIf(r, ''), rowIf)}>
            only if …
          </button>
        )}
      </span>
      {row.askIf !== undefined && (
        <div className={answersClasses.optionMore}>
          <ShownIf
            field={rowIf}
            label={`Row ${r + 1} is shown if`}
            value={row.askIf}
            place={place}
            isProblem={({ at }) => at.item === question.name && at.row === row.name}
            change={(text) => list.setRowIf(r, text)}
          />
        </div>
      )}
    </div>
  );
}

/** What is done to the rows; `r` is an index into them. */
function useRowList(question: Question, answer: GridAnswer, place: ItemPlace) {
  const edit = useAnswerEdit<GridAnswer>(question, place);
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  const rowField = (name: string) => fieldId(question.name, 'row', name);
  const add = (at: number) => {
    const name = freshName(`${question.name}_${at + 1}`, takenNames(store.getState().document));
    thenFocus(
      () => edit('rows', (draft) => void draft.rows.splice(at, 0, { name, label: '' })),
      rowField(name),
    );
  };
  const remove = (r: number, then: FieldId, select?: 'all') =>
    thenFocus(() => edit('rows', (draft) => void draft.rows.splice(r, 1)), then, select);
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
  const onKeyDown = (event: KeyboardEvent, r: number) => {
    const nameOf = (at: number) => answer.rows[at]?.name ?? '';
    if (event.key === 'Enter') {
      const next = onEnter(answer.rows, r);
      if (event.shiftKey) add(r + 1);
      else if (next.does === 'add') add(next.at);
      else if (next.does === 'go') focusField(rowField(nameOf(next.at)), 'all');
      else remove(r, fieldId(question.name, 'label', answer.options[0]?.code ?? 0), 'all');
    } else if (event.key === 'Backspace' && answer.rows[r]?.label === '' && answer.rows.length > 1)
      remove(r, rowField(nameOf(r === 0 ? 1 : r - 1)));
    else return;
    event.preventDefault();
  };
  return { add, setRowIf, rename, onKeyDown };
}
