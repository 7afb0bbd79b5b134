/** The cases of a derived variable: tried in order, and what holds otherwise. */
import type { Draft } from 'immer';
import type { KeyboardEvent, ReactNode } from 'react';
import { fieldId, type FieldId } from '../../../core/document/addresses';
import type { Derived, DerivedCase, DerivedCases as CasesOf } from '../../../core/document/types';
import { ConditionField } from '../../fields/ConditionField';
import { NumberField, TextField } from '../../fields/Fields';
import { focusField } from '../../fields/focus';
import { useStudy } from '../../state/store';
import answersClasses from '../item/answers.module.css';
import detailsClasses from '../item/details.module.css';
import casesClasses from './declarations.module.css';

interface Props {
  readonly derived: CasesOf;
  /** Index among what is derived. */
  readonly at: number;
  /** Why it is refused, as a sentence; null where it is taken. */
  readonly edit: (field: string, change: (draft: Draft<Derived>) => void) => string | null;
}

export function DerivedCases({ derived, at, edit: editDerived }: Props) {
  const plan = useStudy((state) => state.plan);
  const end = { section: plan.sections.length, item: 0 };
  const edit = (field: string, change: (draft: Draft<CasesOf>) => void) =>
    editDerived(field, (draft) => {
      if ('cases' in draft) change(draft);
    });
  const change = (c: number, field: string, set: (entry: Draft<DerivedCase>) => void) =>
    edit(`case ${c} ${field}`, ({ cases }) => {
      const found = cases[c];
      if (found !== undefined) set(found);
    });
  const freeCode = Math.max(0, ...derived.cases.map(({ code }) => code)) + 1;
  const add = () => {
    edit('cases', ({ cases }) => void cases.push({ if: '', code: freeCode, label: '' }));
    requestAnimationFrame(() => focusField(fieldId('@derived', at, 'if', derived.cases.length)));
  };
  return (
    <div className={answersClasses.answers} role="group" aria-label="Cases">
      {derived.cases.map((entry, c) => (
        <CaseRow
          key={c}
          condition={
            <ConditionField
              field={fieldId('@derived', at, 'if', c)}
              label={`Case ${c + 1} holds if`}
              value={entry.if}
              place={end}
              isProblem={(snag) => snag.at.derived === derived.name && snag.field === `cases[${c}].if`}
              change={(text) => change(c, 'if', (draft) => void (draft.if = text))}
              done={() => focusField(fieldId('@derived', at, 'caseLabel', c))}
            />
          }
          words={{ field: fieldId('@derived', at, 'caseLabel', c), label: `Words of case ${c + 1}` }}
          code={{ field: fieldId('@derived', at, 'code', c), label: `Code of case ${c + 1}` }}
          value={entry}
          setLabel={(text) => change(c, 'label', (draft) => void (draft.label = text))}
          setCode={(code) => change(c, 'code', (draft) => void (draft.code = code))}
          enter={add}
          remove={
            derived.cases.length === 1 ? null : () => edit('cases', ({ cases }) => void cases.splice(c, 1))
          }
          removing={`Delete case ${c + 1}`}
        />
      ))}
      {derived.else !== undefined && (
        <CaseRow
          condition={<span className={casesClasses.otherwise}>otherwise</span>}
          words={{ field: fieldId('@derived', at, 'else'), label: 'Words where no case holds' }}
          code={{ field: fieldId('@derived', at, 'elseCode'), label: 'Code where no case holds' }}
          value={derived.else}
          setLabel={(text) =>
            edit('else label', (draft) => {
              if (draft.else !== undefined) draft.else.label = text;
            })
          }
          setCode={(code) =>
            edit('else code', (draft) => {
              if (draft.else !== undefined) draft.else.code = code;
            })
          }
          remove={() => edit('else', (draft) => void delete draft.else)}
          removing="Delete what holds otherwise"
        />
      )}
      <div className={detailsClasses.extras}>
        <button type="button" onClick={add}>
          Add a case
        </button>
        {derived.else === undefined && (
          <button
            type="button"
            onClick={() =>
              edit('else', (draft) => void (draft.else = { code: freeCode, label: 'Otherwise' }))
            }
          >
            Add what holds otherwise
          </button>
        )}
      </div>
    </div>
  );
}

interface Labelled {
  readonly field: FieldId;
  readonly label: string;
}

interface CaseRowProps {
  readonly condition: ReactNode;
  readonly words: Labelled;
  readonly code: Labelled;
  readonly value: { readonly label: string; readonly code: number };
  readonly setLabel: (text: string) => void;
  readonly setCode: (code: number) => string | null;
  /** Enter in the words. */
  readonly enter?: () => void;
  /** Null where it cannot be taken away. */
  readonly remove: (() => void) | null;
  /** What taking it away is called. */
  readonly removing: string;
}

function CaseRow(props: CaseRowProps) {
  const { condition, words, code, value, setLabel, setCode, enter, remove, removing } = props;
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || enter === undefined) return;
    event.preventDefault();
    enter();
  };
  return (
    <div className={casesClasses.case}>
      {condition}
      <span>
        <TextField
          {...words}
          value={value.label}
          placeholder="Words"
          change={setLabel}
          onKeyDown={onKeyDown}
        />
      </span>
      <NumberField
        {...code}
        className={answersClasses.codeField}
        value={value.code}
        whole
        take={(typed) => setCode(typed as number)}
      />
      <button
        type="button"
        className={answersClasses.takeOut}
        disabled={remove === null}
        aria-label={removing}
        onClick={() => remove?.()}
      >
        ×
      </button>
    </div>
  );
}
