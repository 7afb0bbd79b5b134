/** Assumed answers of a question: a share for each answer or range, and how often it is left blank. */
import { fieldId } from '../../../core/document/addresses';
import { isNumeric, isWritten, picksMany, ranksOptions, traitsOf } from '../../../core/document/answer-types';
import { optionsOf } from '../../../core/document/shape';
import type { Assume, AssumeRange, Question } from '../../../core/document/types';
import { CheckedField, NumberField } from '../../fields/Fields';
import answersClasses from './answers.module.css';
import detailsClasses from './limits.module.css';

interface Props {
  readonly question: Question;
  readonly assume: Assume;
  /** Gives what is wrong, or null. */
  readonly set: (assume: Assume) => string | null;
}

/** Answers whose values are too many to list have ranges. */
const RANGED: ReadonlySet<string> = new Set(['number', 'scale', 'date', 'time', 'datetime']);

export function AssumeFields({ question, assume, set }: Props) {
  const { name, answer } = question;
  const ranged = RANGED.has(answer.type);
  const several = picksMany(answer);
  const shareOf = (code: number) => assume.shares?.[String(code)];
  const setShare = (code: number) => (percent: number | undefined) => {
    const { [String(code)]: _, ...others } = assume.shares ?? {};
    const shares = percent === undefined ? others : { ...others, [String(code)]: percent / 100 };
    const sum = Object.values(shares).reduce((total, share) => total + share, 0);
    if (!several && sum > 1.0001) return `Together that is ${round(sum)} %: at most 100 % can be given away.`;
    const { shares: __, ...rest } = assume;
    return set(Object.keys(shares).length === 0 ? rest : { ...rest, shares });
  };
  const setRanges = (ranges: readonly AssumeRange[]) => {
    const { ranges: _, ...rest } = assume;
    return set(ranges.length === 0 ? rest : { ...rest, ranges });
  };
  const options = optionsOf(answer).filter(() => !ranksOptions(answer) && !isWritten(answer));
  return (
    <span className={detailsClasses.ticks}>
      {ranged && <Ranges question={question} ranges={assume.ranges ?? []} set={setRanges} />}
      {options.map(({ code, label }) => (
        <label key={code}>
          {label || code}{' '}
          <NumberField
            field={fieldId(name, 'share', code)}
            label={`Share of ${name} that answers: ${label || code}, in per cent`}
            className={detailsClasses.limit}
            value={shareOf(code) === undefined ? undefined : round(shareOf(code) ?? 0)}
            optional
            take={(percent) => percentProblem(percent) ?? setShare(code)(percent)}
          />{' '}
          %
        </label>
      ))}
      <label>
        left blank{' '}
        <NumberField
          field={fieldId(name, 'blank')}
          label={`Share that leaves ${name} blank, in per cent`}
          className={detailsClasses.limit}
          value={assume.blank === undefined ? undefined : round(assume.blank)}
          optional
          take={(percent) => {
            const { blank: _, ...rest } = assume;
            return (
              percentProblem(percent) ?? set(percent === undefined ? rest : { ...rest, blank: percent / 100 })
            );
          }}
        />{' '}
        %
      </label>
      {assume.where !== undefined && (
        <small>
          Of those where {assume.where.map((of) => of.if).join('; or where ')} other shares are assumed: see
          Forecast.
        </small>
      )}
      <small>
        {several
          ? 'The chance of each pick; where none is given, one in two.'
          : 'What is not given away is shared evenly among the rest.'}
      </small>
    </span>
  );
}

interface RangesProps {
  readonly question: Question;
  readonly ranges: readonly AssumeRange[];
  readonly set: (ranges: readonly AssumeRange[]) => string | null;
}

function Ranges({ question: { name, answer }, ranges, set }: RangesProps) {
  const numbers = isNumeric(answer);
  const replace = (at: number, range: AssumeRange) => set(ranges.map((each, n) => (n === at ? range : each)));
  const end = (at: number, key: 'from' | 'to') => (
    <CheckedField
      field={fieldId(name, 'range', key, at)}
      label={`Assumed range ${at + 1} of ${name}: ${key}`}
      className={detailsClasses.limit}
      value={String(ranges[at]?.[key] ?? '')}
      size={8}
      take={(text) => {
        const range = ranges[at];
        if (range === undefined) return null;
        const value = numbers ? Number(text) : text.trim();
        if (numbers && !Number.isFinite(value)) return `“${text}” is not a number.`;
        return replace(at, { ...range, [key]: value });
      }}
    />
  );
  return (
    <>
      {ranges.map((range, at) => (
        <span key={at}>
          {end(at, 'from')} to {end(at, 'to')}{' '}
          <NumberField
            field={fieldId(name, 'range', 'share', at)}
            label={`Share of assumed range ${at + 1} of ${name}, in per cent`}
            className={detailsClasses.limit}
            value={round(range.share)}
            take={(percent) =>
              percentProblem(percent) ?? replace(at, { ...range, share: (percent ?? 0) / 100 })
            }
          />{' '}
          %{' '}
          <button
            type="button"
            className={answersClasses.takeOut}
            aria-label={`Without assumed range ${at + 1}`}
            onClick={() => set(ranges.filter((_, n) => n !== at))}
          >
            ×
          </button>
        </span>
      ))}
      <button
        type="button"
        className={answersClasses.addAnswer}
        onClick={() => {
          const { min, max } = answer as { min?: number | string; max?: number | string };
          const given = ranges.reduce((sum, { share }) => sum + share, 0);
          const first = traitsOf(answer).value === 'time' ? '00:00' : '2026-01-01';
          set([
            ...ranges,
            {
              from: min ?? first,
              to: max ?? min ?? first,
              share: Math.max(0, Math.round((1 - given) * 100) / 100),
            },
          ]);
        }}
      >
        Add a range
      </button>
    </>
  );
}

function percentProblem(percent: number | undefined): string | null {
  return percent !== undefined && (percent < 0 || percent > 100)
    ? 'A share lies between 0 and 100 per cent.'
    : null;
}

/** A share in per cent, to a tenth. */
function round(share: number): number {
  return Math.round(share * 1000) / 10;
}
