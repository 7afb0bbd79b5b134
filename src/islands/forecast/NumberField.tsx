/** A number that is typed in place: kept on Enter or on leaving, given back as it was on Escape. */
import { useId, useState } from 'react';
import { grouped } from '../ui/format';
import { Problem } from '../ui/Problem';
import classes from './fields.module.css';

interface Props {
  readonly label: string;
  /** Null where there is none yet. */
  readonly value: number | null;
  readonly least: number;
  readonly most?: number;
  readonly decimals?: boolean;
  readonly className?: string | undefined;
  /** Why it was refused, as a sentence, or null. */
  readonly keep: (value: number) => string | null;
}

export function NumberField({ label, value, least, most, decimals = false, className, keep }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const id = useId();
  const shown = value === null ? '' : decimals ? String(value) : grouped(value);
  const take = (text: string) => {
    const number = Number(text.replaceAll(/[\s,]/g, ''));
    if (text.trim() === '' || number === value) {
      setTyped(null);
      setProblem(null);
      return;
    }
    const fits =
      Number.isFinite(number) &&
      number >= least &&
      number <= (most ?? Infinity) &&
      (decimals || Number.isInteger(number));
    const refused = fits ? keep(number) : outside(least, most, decimals);
    setProblem(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <span className={classes.field}>
      <input
        className={className}
        inputMode={decimals ? 'decimal' : 'numeric'}
        aria-label={label}
        aria-invalid={problem !== null || undefined}
        aria-describedby={problem === null ? undefined : id}
        size={Math.max(2, (typed ?? shown).length)}
        value={typed ?? shown}
        placeholder="…"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => typed !== null && take(typed)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && typed !== null) take(typed);
          if (event.key !== 'Escape' || typed === null) return;
          // Where nothing was typed, it is for what the field stands in.
          event.preventDefault();
          setTyped(null);
          setProblem(null);
        }}
      />
      <Problem of={problem} as="span" id={id} className={classes.problem} />
    </span>
  );
}

function outside(least: number, most: number | undefined, decimals: boolean): string {
  const kind = decimals ? 'A number' : 'A whole number';
  return most === undefined
    ? `${kind} from ${least} on is needed.`
    : `${kind} from ${least} to ${most} is needed.`;
}
