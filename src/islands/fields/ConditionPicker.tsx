/**
 * A condition by picking: every test with its question, relation and answers, in groups of which all or any hold. It
 * shows what the text says and writes the text anew with every change, so that both always say the same.
 */
import { Plus, X } from 'lucide-react';
import { createContext, useContext } from 'react';
import { parseCondition } from '../../core/condition/parse';
import { printCondition } from '../../core/condition/print';
import type { Position } from '../../core/condition/scope';
import type { Condition } from '../../core/condition/syntax';
import { fieldId } from '../../core/document/addresses';
import { variableOptions, type Variable } from '../../core/document/variables';
import {
  joinedAt,
  negatedAt,
  regroupedAt,
  replacedAt,
  type TreePath,
} from '../../core/editing/condition-tree';
import {
  firstTest,
  pickedCondition,
  pickedOf,
  relationsFor,
  takes,
  type Picked,
  type PickedRelation,
} from '../../core/editing/picking';
import { variablesBefore, wordsOf } from '../../core/views/completions';
import { useStudy } from '../state/store';
import { CheckedField } from './Fields';
import classes from './picker.module.css';

interface Props {
  readonly place: Position;
  readonly value: string;
  readonly change: (text: string) => void;
}

interface Picking {
  readonly tree: Condition;
  /** What may be read here, nearest first. */
  readonly variables: readonly Variable[];
  /** Writes the whole anew; null: nothing is left. */
  readonly write: (tree: Condition | null) => void;
}

const PickingContext = createContext<Picking | null>(null);

function usePicking(): Picking {
  const picking = useContext(PickingContext);
  if (picking === null) throw new Error('no condition is picked here');
  return picking;
}

function treeOf(text: string): Condition | null {
  const parsed = parseCondition(text);
  return parsed.ok ? parsed.tree : null;
}

export function ConditionPicker({ place, value, change }: Props) {
  const plan = useStudy((state) => state.plan);
  const variables = variablesBefore(plan, place);
  const [nearest] = variables;
  if (nearest === undefined)
    return (
      <p className={classes.picker}>Nothing is asked before this place, so there is nothing to pick from.</p>
    );
  if (value.trim() === '')
    return (
      <div className={classes.picker}>
        <button type="button" className={classes.add} onClick={() => change(firstTest(nearest))}>
          <Plus size={12} aria-hidden="true" /> Add a test
        </button>
      </div>
    );
  const tree = treeOf(value);
  if (tree === null)
    return (
      <p className={classes.picker}>
        The text above cannot be read yet, so it cannot be picked from: mend it, or empty it to pick anew.
      </p>
    );
  const write = (next: Condition | null) => change(next === null ? '' : printCondition(next));
  return (
    <PickingContext.Provider value={{ tree, variables, write }}>
      <div className={classes.picker} role="group" aria-label="Pick the condition">
        <Part node={tree} path={[]} within={null} />
      </div>
    </PickingContext.Provider>
  );
}

interface PartProps {
  readonly node: Condition;
  readonly path: TreePath;
  /** The word of the group it is in; null for the whole. */
  readonly within: 'and' | 'or' | null;
}

function Part({ node, path, within }: PartProps) {
  const not = node.kind === 'not';
  const inner = not ? node.part : node;
  const innerPath = not ? [...path, 0] : path;
  if (inner.kind === 'and' || inner.kind === 'or')
    return <Group node={inner} not={not} path={path} innerPath={innerPath} within={within} />;
  return (
    <div className={classes.test} role="group" aria-label={`Test ${printCondition(node)}`}>
      {not && <span className={classes.not}>not</span>}
      <Test node={inner} path={innerPath} />
      <Acts path={path} not={not} within={within} />
    </div>
  );
}

interface GroupProps {
  readonly node: Condition & { kind: 'and' | 'or' };
  readonly not: boolean;
  readonly path: TreePath;
  readonly innerPath: TreePath;
  readonly within: 'and' | 'or' | null;
}

function Group({ node, not, path, innerPath, within }: GroupProps) {
  const { tree, variables, write } = usePicking();
  const nearest = variables[0];
  return (
    <fieldset className={classes.group}>
      <legend>
        {not && 'not '}
        <select
          aria-label="Which of these hold"
          value={node.kind}
          onChange={(event) => write(regroupedAt(tree, innerPath, event.target.value as 'and' | 'or'))}
        >
          <option value="and">all of</option>
          <option value="or">any of</option>
        </select>
      </legend>
      {node.parts.map((part, n) => (
        <Part key={n} node={part} path={[...innerPath, n]} within={node.kind} />
      ))}
      <div className={classes.acts}>
        <button
          type="button"
          onClick={() => {
            const added = nearest && treeOf(firstTest(nearest));
            if (added) write(joinedAt(tree, innerPath, node.kind, added));
          }}
        >
          <Plus size={12} aria-hidden="true" /> {node.kind}
        </button>
        <Acts path={path} not={not} within={within} group />
      </div>
    </fieldset>
  );
}

/** Beside another test, the opposite, away. */
function Acts({
  path,
  not,
  within,
  group = false,
}: Pick<GroupProps, 'path' | 'not' | 'within'> & { readonly group?: boolean }) {
  const { tree, variables, write } = usePicking();
  const join = (word: 'and' | 'or') => {
    const added = variables[0] && treeOf(firstTest(variables[0]));
    if (added) write(joinedAt(tree, path, word, added));
  };
  const words = group ? [] : (['and', 'or'] as const).filter((word) => word !== within);
  return (
    <span className={classes.acts}>
      {words.map((word) => (
        <button key={word} type="button" onClick={() => join(word)}>
          <Plus size={12} aria-hidden="true" /> {word}
        </button>
      ))}
      <button type="button" aria-pressed={not} onClick={() => write(negatedAt(tree, path))}>
        not
      </button>
      <button
        type="button"
        aria-label={group ? 'Take the group away' : 'Take the test away'}
        onClick={() => write(replacedAt(tree, path, null))}
      >
        <X size={12} aria-hidden="true" />
      </button>
    </span>
  );
}

function Test({ node, path }: { readonly node: Condition; readonly path: TreePath }) {
  const { tree, variables, write } = usePicking();
  const plan = useStudy((state) => state.plan);
  const picked = pickedOf(node, plan.variables);
  if (picked === null)
    return (
      <p className={classes.written} title="This can only be written: change it in the text">
        <code>{printCondition(node)}</code>
      </p>
    );
  const put = (text: string | null): string | null => {
    const by = text === null ? null : treeOf(text);
    if (by === null) return 'This cannot be compared with.';
    write(replacedAt(tree, path, by));
    return null;
  };
  const { variable, relation, values } = picked;
  // What is read here though it may not be is shown all the same.
  const offered = variables.some(({ name }) => name === variable.name) ? variables : [variable, ...variables];
  return (
    <div className={classes.fields}>
      <select
        aria-label="Question"
        value={variable.name}
        onChange={(event) => {
          const next = offered.find(({ name }) => name === event.target.value);
          if (next !== undefined) put(firstTest(next));
        }}
      >
        {offered.map((entry) => (
          <option key={entry.name} value={entry.name}>
            {entry.name}: {wordsOf(entry)}
          </option>
        ))}
      </select>
      <select
        aria-label="Relation"
        value={relation}
        onChange={(event) => put(withRelation(picked, event.target.value as PickedRelation))}
      >
        {relationsFor(variable).map((entry) => (
          <option key={entry}>{entry}</option>
        ))}
      </select>
      <Values
        key={relation}
        picked={picked}
        path={path}
        put={(next) => put(pickedCondition(variable, relation, next))}
      />
      {takes(variable, relation) === 'none' && values.length > 0 && <code>{values.join(', ')}</code>}
    </div>
  );
}

/** The same values under another relation, as far as it takes them. */
function withRelation({ variable, values }: Picked, relation: PickedRelation): string {
  const wanted = takes(variable, relation);
  const codes = (variable.codes ?? []).map(String);
  const [first = codes[0] ?? lowest(variable)] = values;
  const next =
    wanted === 'none'
      ? []
      : wanted === 'codes'
        ? values.length > 0
          ? values
          : [first]
        : wanted === 'two'
          ? [first, values[1] ?? first]
          : [first];
  return pickedCondition(variable, relation, next) ?? firstTest(variable);
}

/** A value to begin with. */
function lowest(variable: Variable): string {
  const answer = variable.of === 'question' ? variable.question.answer : null;
  if (answer !== null && 'min' in answer && answer.min !== undefined) return String(answer.min);
  return { date: '2026-01-01', time: '12:00', datetime: '2026-01-01T12:00' }[variable.kind as string] ?? '1';
}

interface ValuesProps {
  readonly picked: Picked;
  readonly path: TreePath;
  /** Gives what is wrong, or null. */
  readonly put: (values: readonly string[]) => string | null;
}

function Values({ picked: { variable, relation, values }, path, put }: ValuesProps) {
  const wanted = takes(variable, relation);
  if (wanted === 'none') return null;
  if (wanted !== 'codes')
    return (
      <span className={classes.two}>
        {(wanted === 'two' ? ['From', 'To'] : ['Value']).map((label, n) => (
          <CheckedField
            key={label}
            field={fieldId('@pick', ...path, n)}
            label={label}
            value={values[n] ?? ''}
            size={10}
            take={(text) => put(values.map((value, m) => (m === n ? text.trim() : value)))}
          />
        ))}
      </span>
    );
  const choices = choicesOf(variable);
  const unknown = values.filter((value) => !choices.some(({ code }) => String(code) === value));
  const all = [...choices, ...unknown.map((value) => ({ code: Number(value), label: 'no such answer' }))];
  return (
    <fieldset className={classes.values} aria-label="Answers">
      {all.map(({ code, label }) => {
        const text = String(code);
        const ticked = values.includes(text);
        return (
          <label key={code}>
            <input
              type="checkbox"
              checked={ticked}
              // One at least: without any it would be no test.
              disabled={ticked && values.length === 1}
              onChange={(event) => {
                const wanted = new Set(values);
                if (event.target.checked) wanted.add(text);
                else wanted.delete(text);
                // In the order of the list, whatever was ticked first.
                put(all.map((each) => String(each.code)).filter((each) => wanted.has(each)));
              }}
            />
            {label}
            <code>{code}</code>
          </label>
        );
      })}
    </fieldset>
  );
}

function choicesOf(variable: Variable): readonly { readonly code: number; readonly label: string }[] {
  if (variable.of !== 'derived') return variableOptions(variable);
  const { derived } = variable;
  return 'cases' in derived ? [...derived.cases, ...(derived.else ? [derived.else] : [])] : [];
}
