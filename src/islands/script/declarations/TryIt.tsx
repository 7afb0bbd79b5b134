/** A line to try a derived variable on answers: what it comes to, as they are typed. */
import { useState } from 'react';
import type { Value } from '../../../core/document/types';
import { variableOptions, type Variable } from '../../../core/document/variables';
import type { Plan } from '../../../core/routing/plan';
import { tryDerived } from '../../../core/views/try-derived';
import limitsClasses from '../item/limits.module.css';

/** Answers to try it on, and what it comes to. */
export function TryIt({
  plan,
  name,
  at,
}: {
  readonly plan: Plan;
  readonly name: string;
  readonly at: number;
}) {
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
