/** A choice among a few, written in place. */
import type { FieldId } from '../../core/document/addresses';

interface Props<Value extends string> {
  readonly label: string;
  readonly className: string | undefined;
  readonly value: Value | '';
  /** Each with its words. */
  readonly choices: readonly (readonly [value: Value, words: string])[];
  readonly choose: (value: Value) => void;
  readonly field?: FieldId;
  /** What stands there while nothing is chosen, which cannot be chosen again. */
  readonly none?: string;
}

export function ChoiceField<Value extends string>(props: Props<Value>) {
  const { label, className, value, choices, choose, field, none } = props;
  return (
    <select
      className={className}
      data-field={field}
      aria-label={label}
      value={value}
      onChange={(event) => choose(event.target.value as Value)}
    >
      {none !== undefined && (
        <option value="" disabled>
          {none}
        </option>
      )}
      {choices.map(([each, words]) => (
        <option key={each} value={each}>
          {words}
        </option>
      ))}
    </select>
  );
}
