/** A condition by picking: which question, how it relates, which answers. What is picked is added to the text. */
import { useState } from 'react';
import type { Position } from '../../core/condition/resolve';
import type { Variable } from '../../core/document/variables';
import { variableOptions } from '../../core/document/variables';
import {
  joinConditions,
  pickedCondition,
  relationsFor,
  takes,
  type Relation,
} from '../../core/editing/picking';
import { variablesBefore, wordsOf } from '../../core/views/completions';
import { useStudy } from '../study/store';
import classes from './condition.module.css';

interface Props {
  readonly place: Position;
  readonly value: string;
  readonly change: (text: string) => void;
}

export function ConditionPicker({ place, value, change }: Props) {
  const plan = useStudy((state) => state.plan);
  const variables = variablesBefore(plan, place);
  const [name, setName] = useState('');
  const variable = variables.find((entry) => entry.name === name) ?? variables[0];
  if (variable === undefined) {
    return (
      <p className={classes.picker}>Nothing is asked before this place, so there is nothing to pick from.</p>
    );
  }
  return (
    <div className={classes.picker}>
      <select aria-label="Question" value={variable.name} onChange={(event) => setName(event.target.value)}>
        {variables.map((entry) => (
          <option key={entry.name} value={entry.name}>
            {entry.name}: {wordsOf(entry)}
          </option>
        ))}
      </select>
      <Test key={variable.name} variable={variable} value={value} change={change} />
    </div>
  );
}

function Test({ variable, value, change }: Omit<Props, 'place'> & { readonly variable: Variable }) {
  const relations = relationsFor(variable);
  const [relation, setRelation] = useState<Relation>(relations[0] ?? 'was answered');
  const [values, setValues] = useState<readonly string[]>([]);
  const picked = pickedCondition(variable, relation, values);
  const wants = takes(variable, relation);
  const add = (word: 'and' | 'or') => {
    if (picked === null) return;
    change(joinConditions(value, word, picked));
    setValues([]);
  };
  const set = (index: number, text: string) =>
    setValues([...values.slice(0, index), text, ...values.slice(index + 1)]);
  return (
    <>
      <select
        aria-label="Relation"
        value={relation}
        onChange={(event) => {
          setRelation(event.target.value as Relation);
          setValues([]);
        }}
      >
        {relations.map((entry) => (
          <option key={entry}>{entry}</option>
        ))}
      </select>
      {wants === 'codes' && (
        <fieldset className={classes.values} aria-label="Answers">
          {choicesOf(variable).map(({ code, label }) => {
            const text = String(code);
            return (
              <label key={code}>
                <input
                  type="checkbox"
                  checked={values.includes(text)}
                  onChange={(event) =>
                    setValues(
                      event.target.checked ? [...values, text] : values.filter((entry) => entry !== text),
                    )
                  }
                />
                {label}
                <code>{code}</code>
              </label>
            );
          })}
        </fieldset>
      )}
      {wants === 'one' && (
        <input
          type="text"
          aria-label="Value"
          value={values[0] ?? ''}
          onChange={(event) => set(0, event.target.value)}
        />
      )}
      {wants === 'two' && (
        <span className={classes.two}>
          <input
            type="text"
            aria-label="From"
            value={values[0] ?? ''}
            onChange={(event) => set(0, event.target.value)}
          />
          to
          <input
            type="text"
            aria-label="To"
            value={values[1] ?? ''}
            onChange={(event) => set(1, event.target.value)}
          />
        </span>
      )}
      <span className={classes.actions}>
        {value.trim() === '' ? (
          <button type="button" disabled={picked === null} onClick={() => add('and')}>
            Use this
          </button>
        ) : (
          <>
            <button type="button" disabled={picked === null} onClick={() => add('and')}>
              And this
            </button>
            <button type="button" disabled={picked === null} onClick={() => add('or')}>
              Or this
            </button>
          </>
        )}
      </span>
    </>
  );
}

function choicesOf(variable: Variable): readonly { readonly code: number; readonly label: string }[] {
  if (variable.of !== 'derived') return variableOptions(variable);
  const { derived } = variable;
  return 'cases' in derived ? [...derived.cases, ...(derived.else ? [derived.else] : [])] : [];
}
