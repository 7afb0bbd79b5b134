/** Rows of the slip that are written in: what it is at the left, the field at the right. */
import type { ReactNode } from 'react';
import { CheckedField, NumberField } from '../fields/Fields';
import classes from './rows.module.css';

interface Row {
  readonly field: string;
  readonly label: string;
  /** Said under the field. */
  readonly hint?: ReactNode;
}

export function SlipRow({ label, hint, children }: Omit<Row, 'field'> & { readonly children: ReactNode }) {
  return (
    <div className={classes.field}>
      <span>{label}</span>
      <span className={classes.sides}>{children}</span>
      {hint !== undefined && <small>{hint}</small>}
    </div>
  );
}

export function SlipText({
  hint,
  ...field
}: Row & {
  readonly value: string;
  readonly placeholder?: string;
  readonly size?: number;
  readonly take: (text: string) => string | null;
}) {
  return (
    <SlipRow label={field.label} hint={hint}>
      <CheckedField size={18} {...field} />
    </SlipRow>
  );
}

export function SlipNumber({
  field,
  label,
  hint,
  value,
  optional = true,
  whole = true,
  unit,
  take,
}: Row & {
  readonly value: number | undefined;
  readonly optional?: boolean;
  readonly whole?: boolean;
  readonly unit?: string;
  readonly take: (value: number | undefined) => string | null;
}) {
  return (
    <SlipRow label={label} hint={hint}>
      <NumberField field={field} label={label} value={value} optional={optional} whole={whole} take={take} />
      {unit !== undefined && <span>{unit}</span>}
    </SlipRow>
  );
}

export function SlipSelect<Value extends string>({
  field,
  label,
  hint,
  value,
  choices,
  choose,
}: Row & {
  readonly value: Value;
  readonly choices: readonly (readonly [value: Value, words: string])[];
  readonly choose: (value: Value) => void;
}) {
  return (
    <SlipRow label={label} hint={hint}>
      <select
        aria-label={label}
        data-field={field}
        value={value}
        onChange={(event) => choose(event.target.value as Value)}
      >
        {choices.map(([each, words]) => (
          <option key={each} value={each}>
            {words}
          </option>
        ))}
      </select>
    </SlipRow>
  );
}

export function SlipCheck({
  field,
  label,
  hint,
  words,
  checked,
  set,
}: Row & {
  readonly words: string;
  readonly checked: boolean;
  readonly set: (checked: boolean) => void;
}) {
  return (
    <SlipRow label={label} hint={hint}>
      <label>
        <input
          type="checkbox"
          aria-label={`${label} ${words}`}
          data-field={field}
          checked={checked}
          onChange={(event) => set(event.target.checked)}
        />{' '}
        {words}
      </label>
    </SlipRow>
  );
}
