/** A value that is known before the start, put in by hand. */
import { isNumeric, picksMany, picksOne } from '../../core/document/answer-types';
import { optionsOf } from '../../core/document/shape';
import type { Given, Value } from '../../core/document/types';

export function GivenField({
  given,
  value,
  change,
}: {
  given: Given;
  value: Value | null;
  change: (value: Value | null) => void;
}) {
  const options = optionsOf(given.answer);
  if (picksOne(given.answer) || picksMany(given.answer)) {
    const several = picksMany(given.answer);
    const chosen = Array.isArray(value) ? value[0] : value;
    return (
      <select
        value={chosen === null ? '' : String(chosen)}
        onChange={(event) => {
          const code = event.target.value === '' ? null : Number(event.target.value);
          change(code === null ? null : several ? [code] : code);
        }}
      >
        {(given.random || value === null) && <option value="">{given.random ? 'drawn' : 'choose'}</option>}
        {options.map(({ code, label }) => (
          <option key={code} value={code}>
            {label}
          </option>
        ))}
      </select>
    );
  }
  const numeric = isNumeric(given.answer);
  return (
    <input
      type="text"
      size={10}
      value={value === null ? '' : String(value)}
      placeholder={given.random ? 'drawn' : undefined}
      onChange={(event) => {
        const text = event.target.value.trim();
        change(text === '' ? null : numeric && Number.isFinite(Number(text)) ? Number(text) : text);
      }}
    />
  );
}
