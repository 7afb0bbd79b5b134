/** A derived variable: the first case that holds, or a sum; with a line to try it on answers. */
import { castDraft, type Draft } from 'immer';
import { useState } from 'react';
import { address, fieldId } from '../../../core/document/addresses';
import type { Derived, DerivedCase, DerivedCases, Value } from '../../../core/document/types';
import { variableOptions, type Variable } from '../../../core/document/variables';
import { editDeclaration } from '../../../core/editing/declarations';
import type { Plan } from '../../../core/routing/plan';
import { tryDerived } from '../../../core/views/try-derived';
import { useStudy } from '../../state/store';
import { ConditionField } from '../../fields/ConditionField';
import { CheckedField, NumberField, TextField } from '../../fields/Fields';
import { focusField } from '../../fields/focus';
import { NamedField } from '../../fields/NamedField';
import answersClasses from '../item/answers.module.css';
import askIfClasses from '../item/ask-if.module.css';
import blockClasses from '../item/block.module.css';
import casesClasses from './declarations.module.css';
import detailsClasses from '../item/details.module.css';
import limitsClasses from '../item/limits.module.css';

export function DerivedPrint({ derived }: { readonly derived: Derived }) {
  return (
    <>
      <div className={blockClasses.name}>
        {derived.name}
        <small>{'cases' in derived ? 'cases' : 'sum'}</small>
      </div>
      <div>
        <div className={blockClasses.question}>{derived.label}</div>
        {'cases' in derived ? (
          <div className={answersClasses.answers}>
            {derived.cases.map(({ if: condition, code, label }, c) => (
              <div key={c}>
                <span className={answersClasses.label}>
                  {label} <small>{condition}</small>
                </span>
                <span className={answersClasses.dots} />
                <span className={answersClasses.code}>{code}</span>
                <span className={answersClasses.lead} />
              </div>
            ))}
            {derived.else !== undefined && (
              <div>
                <span className={answersClasses.label}>
                  {derived.else.label} <small>otherwise</small>
                </span>
                <span className={answersClasses.dots} />
                <span className={answersClasses.code}>{derived.else.code}</span>
                <span className={answersClasses.lead} />
              </div>
            )}
          </div>
        ) : (
          <div className={askIfClasses.askIf}>{derived.value}</div>
        )}
      </div>
    </>
  );
}

export function DerivedEditor({ derived, at }: { readonly derived: Derived; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const plan = useStudy((state) => state.plan);
  const snags = useStudy((state) => state.snags);
  const { name, label } = derived;
  const edit = (field: string, change: (draft: Draft<Derived>) => void) =>
    commit(editDeclaration('derived', at, field, `Change ${name}`, change));
  const wrong = snags.filter((snag) => snag.at.derived === name && snag.field === 'value');
  return (
    <>
      <div className={blockClasses.name}>
        <NamedField
          field={fieldId('@derived', at, 'name')}
          name={name}
          selection={(to) => address('derived', to)}
        />
        <select
          className={blockClasses.type}
          aria-label="How it is worked out"
          value={'cases' in derived ? 'cases' : 'value'}
          onChange={(event) => {
            const fresh: Derived =
              event.target.value === 'cases'
                ? { name, label, cases: [{ if: 'always', code: 1, label: '' }] }
                : { name, label, value: '0' };
            edit('kind', (draft) => {
              for (const key of Object.keys(draft)) Reflect.deleteProperty(draft, key);
              Object.assign(draft, castDraft(fresh));
            });
          }}
        >
          <option value="cases">cases</option>
          <option value="value">sum</option>
        </select>
      </div>
      <div>
        <div className={blockClasses.question}>
          <TextField
            field={fieldId('@derived', at, 'label')}
            label="What it says"
            value={label}
            placeholder="What it says, for the codebook"
            change={(text) => edit('label', (draft) => void (draft.label = text))}
          />
        </div>
        {'cases' in derived ? (
          <Cases derived={derived} at={at} edit={edit} />
        ) : (
          <div className={askIfClasses.askIfEditor}>
            <span>comes to</span>
            <div>
              <CheckedField
                field={fieldId('@derived', at, 'value')}
                label="The sum"
                className={casesClasses.formula}
                value={derived.value}
                size={44}
                placeholder="q1 + q2 - 2 * q3"
                take={(text) =>
                  edit('value', (draft) => {
                    if ('value' in draft) draft.value = text;
                  })
                }
              />
              {wrong.map(({ message }, n) => (
                <p key={n} className={detailsClasses.wrong}>
                  {message}
                </p>
              ))}
            </div>
          </div>
        )}
        <TryIt plan={plan} name={name} at={at} />
      </div>
    </>
  );
}

interface CasesProps {
  readonly derived: DerivedCases;
  readonly at: number;
  readonly edit: (field: string, change: (draft: Draft<Derived>) => void) => string | null;
}

function Cases({ derived, at, edit }: CasesProps) {
  const plan = useStudy((state) => state.plan);
  const end = { section: plan.sections.length, item: 0 };
  const change = (c: number, field: string, set: (entry: Draft<DerivedCase>) => void) =>
    edit(`case ${c} ${field}`, (draft) => {
      const found = 'cases' in draft ? draft.cases[c] : undefined;
      if (found !== undefined) set(found);
    });
  const add = () => {
    const code = Math.max(0, ...derived.cases.map((entry) => entry.code)) + 1;
    edit('cases', (draft) => {
      if ('cases' in draft) draft.cases.push({ if: '', code, label: '' });
    });
    requestAnimationFrame(() => focusField(fieldId('@derived', at, 'if', derived.cases.length)));
  };
  return (
    <div className={answersClasses.answers} role="group" aria-label="Cases">
      {derived.cases.map((entry, c) => (
        <div key={c} className={casesClasses.case}>
          <ConditionField
            field={fieldId('@derived', at, 'if', c)}
            label={`Case ${c + 1} holds if`}
            value={entry.if}
            place={end}
            isProblem={(snag) => snag.at.derived === derived.name && snag.field === `cases[${c}].if`}
            change={(text) => change(c, 'if', (draft) => void (draft.if = text))}
            done={() => focusField(fieldId('@derived', at, 'caseLabel', c))}
          />
          <span>
            <TextField
              field={fieldId('@derived', at, 'caseLabel', c)}
              label={`Words of case ${c + 1}`}
              value={entry.label}
              placeholder="Words"
              change={(text) => change(c, 'label', (draft) => void (draft.label = text))}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                add();
              }}
            />
          </span>
          <NumberField
            field={fieldId('@derived', at, 'code', c)}
            label={`Code of case ${c + 1}`}
            className={answersClasses.codeField}
            value={entry.code}
            whole
            take={(code) => change(c, 'code', (draft) => void (draft.code = code as number))}
          />
          <button
            type="button"
            className={answersClasses.takeOut}
            disabled={derived.cases.length === 1}
            aria-label={`Delete case ${c + 1}`}
            onClick={() =>
              edit('cases', (draft) => {
                if ('cases' in draft) draft.cases.splice(c, 1);
              })
            }
          >
            ×
          </button>
        </div>
      ))}
      {derived.else !== undefined && (
        <div className={casesClasses.case}>
          <span className={casesClasses.otherwise}>otherwise</span>
          <span>
            <TextField
              field={fieldId('@derived', at, 'else')}
              label="Words where no case holds"
              value={derived.else.label}
              placeholder="Words"
              change={(text) =>
                edit('else label', (draft) => {
                  if ('cases' in draft && draft.else !== undefined) draft.else.label = text;
                })
              }
            />
          </span>
          <NumberField
            field={fieldId('@derived', at, 'elseCode')}
            label="Code where no case holds"
            className={answersClasses.codeField}
            value={derived.else.code}
            whole
            take={(code) =>
              edit('else code', (draft) => {
                if ('cases' in draft && draft.else !== undefined) draft.else.code = code as number;
              })
            }
          />
          <button
            type="button"
            className={answersClasses.takeOut}
            aria-label="Delete what holds otherwise"
            onClick={() =>
              edit('else', (draft) => {
                if ('cases' in draft) delete draft.else;
              })
            }
          >
            ×
          </button>
        </div>
      )}
      <div className={detailsClasses.extras}>
        <button type="button" onClick={add}>
          Add a case
        </button>
        {derived.else === undefined && (
          <button
            type="button"
            onClick={() => {
              const code = Math.max(0, ...derived.cases.map((entry) => entry.code)) + 1;
              edit('else', (draft) => {
                if ('cases' in draft) draft.else = { code, label: 'Otherwise' };
              });
            }}
          >
            Add what holds otherwise
          </button>
        )}
      </div>
    </div>
  );
}

/** Answers to try it on, and what it comes to. */
function TryIt({ plan, name, at }: { readonly plan: Plan; readonly name: string; readonly at: number }) {
  const [tried, setTried] = useState<Readonly<Record<string, string>>>({});
  const own = plan.derived[at];
  const inputs = [...new Map((own?.inputs ?? []).map(({ variable }) => [variable.name, variable])).values()];
  if (own === undefined || inputs.length === 0) return null;
  const answers = Object.fromEntries(
    inputs.map((variable) => [variable.name, valueFrom(variable, tried[variable.name] ?? '')]),
  );
  const value = tryDerived(plan, name, answers);
  const words =
    value !== null && 'cases' in own.derived
      ? [...own.derived.cases, ...(own.derived.else ? [own.derived.else] : [])].find(
          ({ code }) => code === value,
        )?.label
      : undefined;
  return (
    <div className={limitsClasses.limits} role="group" aria-label="Try it">
      <span>Try it:</span>
      {inputs.map((variable) => (
        <label key={variable.name}>
          <code>{variable.name}</code>{' '}
          {variable.codes !== null && variable.kind === 'number' ? (
            <select
              className={limitsClasses.limit}
              value={tried[variable.name] ?? ''}
              onChange={(event) => setTried({ ...tried, [variable.name]: event.target.value })}
            >
              <option value="">not asked</option>
              {variableOptions(variable).map(({ code, label }) => (
                <option key={code} value={code}>
                  {code} {label}
                </option>
              ))}
            </select>
          ) : (
            <input
              className={limitsClasses.limit}
              size={variable.kind === 'set' ? 8 : 6}
              placeholder={variable.kind === 'set' ? '1, 3' : 'not asked'}
              value={tried[variable.name] ?? ''}
              onChange={(event) => setTried({ ...tried, [variable.name]: event.target.value })}
            />
          )}
        </label>
      ))}
      <output>
        → <b>{value ?? 'no value'}</b> {words}
      </output>
    </div>
  );
}

/** What somebody typed, as an answer; undefined where it was not asked. */
function valueFrom(variable: Variable, text: string): Value | null | undefined {
  const trimmed = text.trim();
  if (trimmed === '') return undefined;
  if (variable.kind === 'number') return Number.isFinite(Number(trimmed)) ? Number(trimmed) : undefined;
  if (variable.kind === 'set' || variable.kind === 'order')
    return trimmed
      .split(/[\s,;]+/)
      .map(Number)
      .filter(Number.isInteger);
  return trimmed;
}
