/** Answers that are written or placed: numbers, scales, texts, dates, ranks; specials stand below as marks. */
import { traitsOf } from '../../core/document/answer-types';
import type {
  DateAnswer,
  NumberAnswer,
  Option,
  RankAnswer,
  ScaleAnswer,
  TextAnswer,
} from '../../core/document/types';
import type { FieldProps } from './field-props';
import { Mark } from './Choices';
import classes from './open.module.css';

/** Don't know and the like beside a number, scale or date. */
function Specials({
  part,
  value,
  set,
  words,
  codes,
  specials,
  shown,
}: FieldProps & { specials: readonly Option[] | undefined; shown: readonly boolean[] }) {
  if (specials === undefined || specials.length === 0) return null;
  return (
    <div className={classes.specials}>
      {specials
        .filter((_, index) => shown[index])
        .map((option) => (
          <Mark
            key={option.code}
            kind="checkbox"
            name={`${part} special`}
            label={words(option.label)}
            checked={value === option.code}
            toggle={(on) => set(on ? option.code : null)}
            {...(codes ? { code: option.code, keys: String(option.code) } : {})}
          />
        ))}
    </div>
  );
}

function isSpecial(specials: readonly Option[] | undefined, value: unknown): boolean {
  return specials?.some(({ code }) => code === value) ?? false;
}

export function NumberInput({
  answer,
  shown,
  ...field
}: FieldProps & { answer: NumberAnswer; shown: readonly boolean[] }) {
  const { part, label, value, set } = field;
  const written = isSpecial(answer.specials, value) || value === null ? '' : String(value);
  return (
    <>
      <label className={classes.open}>
        <input
          type="text"
          inputMode={answer.decimals ? 'decimal' : 'numeric'}
          size={8}
          data-part={part}
          aria-label={label}
          value={written}
          onChange={(event) => set(numberFrom(event.target.value))}
        />
        {answer.unit !== undefined && <span>{answer.unit}</span>}
        <small>
          {answer.min} to {answer.max}
        </small>
      </label>
      <Specials {...field} specials={answer.specials} shown={shown} />
    </>
  );
}

/** The number written; what is no number stays as it was written, to be told so. */
function numberFrom(text: string): number | string | null {
  const trimmed = text.trim();
  if (trimmed === '') return null;
  return /^[-+]?\d+(\.\d+)?$/.test(trimmed) ? Number(trimmed) : text;
}

export function ScaleForm({
  answer,
  shown,
  ...field
}: FieldProps & { answer: ScaleAnswer; shown: readonly boolean[] }) {
  const { part, label, value, set } = field;
  const step = answer.step ?? 1;
  const count = Math.floor((answer.max - answer.min) / step + 1e-9) + 1;
  const marks = Array.from({ length: Math.min(count, 101) }, (_, n) =>
    Number((answer.min + n * step).toFixed(6)),
  );
  return (
    <>
      <div className={classes.scale} role="radiogroup" aria-label={label} data-part={part}>
        <div className={classes.marks}>
          {marks.map((mark) => (
            <label key={mark}>
              <input
                type="radio"
                name={part}
                data-keys={mark}
                checked={value === mark}
                onChange={() => set(mark)}
                onClick={() => {
                  if (value === mark) set(null);
                }}
              />
              <span>{mark}</span>
            </label>
          ))}
        </div>
        <div className={classes.ends}>
          <span>{answer.lowLabel}</span>
          <span>{answer.midLabel}</span>
          <span>{answer.highLabel}</span>
        </div>
      </div>
      <Specials {...field} specials={answer.specials} shown={shown} />
    </>
  );
}

export function TextInput({ answer, part, label, value, set }: FieldProps & { answer: TextAnswer }) {
  const common = {
    'data-part': part,
    'aria-label': label,
    value: String(value ?? ''),
    placeholder: answer.placeholder,
    onChange: (event: { target: { value: string } }) =>
      set(event.target.value === '' ? null : event.target.value),
  };
  if (answer.lines === 'many') return <textarea className={classes.many} rows={4} {...common} />;
  const kind = { email: 'email', phone: 'tel', url: 'url', none: 'text' } as const;
  return <input className={classes.one} type="text" inputMode={kind[answer.pattern ?? 'none']} {...common} />;
}

export function DateField({
  answer,
  shown,
  ...field
}: FieldProps & { answer: DateAnswer; shown: readonly boolean[] }) {
  const { part, label, value, set } = field;
  return (
    <>
      <label className={classes.open}>
        <input
          type={traitsOf(answer).value === 'datetime' ? 'datetime-local' : answer.type}
          data-part={part}
          aria-label={label}
          min={answer.min}
          max={answer.max}
          value={typeof value === 'string' ? value : ''}
          onChange={(event) => set(event.target.value === '' ? null : event.target.value)}
        />
        {(answer.min !== undefined || answer.max !== undefined) && (
          <small>
            {answer.min !== undefined && `from ${answer.min.replace('T', ' ')} `}
            {answer.max !== undefined && `to ${answer.max.replace('T', ' ')}`}
          </small>
        )}
      </label>
      <Specials {...field} specials={answer.specials} shown={shown} />
    </>
  );
}

export function RankForm({
  answer,
  shown,
  part,
  value,
  set,
  words,
}: FieldProps & { answer: RankAnswer; shown: readonly boolean[] }) {
  const places = Array.isArray(value) ? (value as readonly number[]) : [];
  const top = Math.min(answer.top ?? answer.options.length, answer.options.length);
  const options = answer.options.filter((_, index) => shown[index]);
  const put = (option: Option, place: number) => {
    const others = places.filter((code) => code !== option.code);
    // A missing option stands alone; putting one in a place moves the others along.
    const alone = option.missing !== undefined || option.exclusive;
    const kept = others.filter((code) => {
      const other = options.find((entry) => entry.code === code);
      return !alone && other?.missing === undefined && !other?.exclusive;
    });
    const next =
      place === 0
        ? others
        : [...kept.slice(0, place - 1), option.code, ...kept.slice(place - 1)].slice(0, top);
    set(next.length === 0 ? null : next);
  };
  return (
    <div className={classes.rank} data-part={part}>
      {options.map((option) => {
        const place = places.indexOf(option.code) + 1;
        return (
          <label key={option.code} data-placed={place > 0 || undefined}>
            <span>{words(option.label)}</span>
            <u aria-hidden="true" />
            <select
              aria-label={`Place of ${words(option.label)}`}
              value={place}
              onChange={(event) => put(option, Number(event.target.value))}
            >
              <option value={0}>–</option>
              {Array.from(
                {
                  length:
                    option.missing === undefined ? Math.min(top, places.length + (place > 0 ? 0 : 1)) : 1,
                },
                (_, n) => (
                  <option key={n} value={n + 1}>
                    {n + 1}
                  </option>
                ),
              )}
            </select>
          </label>
        );
      })}
    </div>
  );
}
