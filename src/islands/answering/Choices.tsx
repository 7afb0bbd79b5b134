/** One of a list, or several: lines with dot leaders to a mark at the right. */
import { picksMany } from '../../core/document/answer-types';
import type { MultipleAnswer, Option, SingleAnswer } from '../../core/document/types';
import type { FieldProps } from './field-props';
import classes from './choices.module.css';

/** The text field of an option that asks to be specified. */
export interface SpecifyText {
  /** Finds the field. */
  readonly part: string;
  readonly value: string;
  /** What is wrong with it; null where nothing is. */
  readonly message: string | null;
  readonly set: (text: string) => void;
}

interface Props extends FieldProps {
  readonly answer: SingleAnswer | MultipleAnswer;
  readonly shown: readonly boolean[];
  /** The text beside an option that asks to specify. */
  readonly textOf: (code: number) => SpecifyText;
}

export function Choices({ part, value, set, words, codes, answer, shown, textOf }: Props) {
  const several = picksMany(answer);
  const picked = several
    ? Array.isArray(value)
      ? (value as readonly number[])
      : []
    : value === null
      ? []
      : [value as number];
  const toggle = (option: Option, on: boolean) => {
    if (!several) set(on ? option.code : null);
    else set(picksAfter(answer.options, picked, option, on));
  };
  const options = answer.options.filter((_, index) => shown[index]);
  return (
    <div className={classes.choices} data-part={part} style={{ columns: answer.columns }}>
      {options.map((option, place) => (
        <div key={option.code} className={classes.line}>
          <Mark
            keys={String(codes ? option.code : place + 1)}
            {...(codes ? { code: option.code } : {})}
            kind={several ? 'checkbox' : 'radio'}
            name={part}
            label={words(option.label)}
            image={option.image}
            checked={picked.includes(option.code)}
            toggle={(on) => toggle(option, on)}
          />
          {option.specify && picked.includes(option.code) && (
            <input
              type="text"
              className={classes.specify}
              data-part={textOf(option.code).part}
              aria-invalid={textOf(option.code).message !== null || undefined}
              aria-label={`${words(option.label)}: ${option.specifyLabel ?? 'please specify'}`}
              placeholder={option.specifyLabel ?? 'please specify'}
              value={textOf(option.code).value}
              onChange={(event) => textOf(option.code).set(event.target.value)}
            />
          )}
        </div>
      ))}
    </div>
  );
}

interface MarkProps {
  readonly kind: 'radio' | 'checkbox';
  readonly name: string;
  readonly label: string;
  readonly image?: Option['image'];
  readonly checked: boolean;
  readonly toggle: (on: boolean) => void;
  /** What is typed to pick it; left out where it is reached by Tab alone. */
  readonly keys?: string;
  /** Printed before the mark. */
  readonly code?: number;
}

/** A chosen radio pressed again, by mouse or Delete, is blank again. */
export function Mark({ kind, name, label, image, checked, toggle, keys, code }: MarkProps) {
  return (
    <label className={classes.mark}>
      {image !== undefined && <img src={image.src} alt={image.alt} />}
      <span>{label}</span>
      <u aria-hidden="true" />
      {code !== undefined && <code aria-hidden="true">{code}</code>}
      <input
        type={kind}
        data-keys={keys}
        name={name}
        checked={checked}
        onChange={(event) => toggle(event.target.checked)}
        onClick={() => {
          if (kind === 'radio' && checked) toggle(false);
        }}
        onKeyDown={(event) => {
          if (kind !== 'radio' || (event.key !== 'Delete' && event.key !== 'Backspace')) return;
          event.preventDefault();
          toggle(false);
        }}
      />
    </label>
  );
}

/** The picks once an option was turned on or off: what excludes others takes them away, and the other way round. */
export function picksAfter(
  options: readonly Option[],
  picked: readonly number[],
  option: Option,
  on: boolean,
): readonly number[] | null {
  const alone = (of: Option) => of.exclusive === true || of.missing !== undefined;
  const kept = picked.filter((code) => {
    const other = options.find((entry) => entry.code === code);
    return code !== option.code && !(on && (alone(option) || (other !== undefined && alone(other))));
  });
  const codes = on ? [...kept, option.code] : kept;
  const ordered = options.map(({ code }) => code).filter((code) => codes.includes(code));
  return ordered.length === 0 ? null : ordered;
}
