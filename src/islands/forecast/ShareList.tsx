/** Shares that are typed, of every answer of a question: those not typed yet make room, keeping their proportions. */
import { useState } from 'react';
import type { Answer } from '../../core/document/types';
import { assumedWords } from '../../core/forecast/answer-words';
import { addsUp, withShare, type AnswerShare } from '../../core/forecast/re-share';
import classes from './assumptions.module.css';
import { percentOf } from './figures';
import { NumberField } from './NumberField';

interface Props {
  readonly name: string;
  readonly answer: Answer;
  readonly shares: readonly AnswerShare[];
  readonly readOnly: boolean;
  /** `held`: those that were typed before, and are to stay. */
  readonly keep: (shares: readonly AnswerShare[], held: ReadonlySet<number>) => string | null;
}

export function ShareList({ name, answer, shares, readOnly, keep }: Props) {
  const [typed, setTyped] = useState<ReadonlySet<number>>(new Set());
  const take = (at: number, share: number) => {
    const refused = keep(withShare(shares, at, share, addsUp(answer), typed), typed);
    // Once all have been typed, the next is a new beginning.
    const isLast = shares.every(({ answer: of }, n) => n === at || of === 'blank' || typed.has(n));
    if (refused === null) setTyped(new Set(isLast ? [at] : [...typed, at]));
    return refused;
  };
  return (
    <ul className={classes.list}>
      {shares.map(({ answer: of, share }, at) => {
        const words = assumedWords(answer, of);
        return (
          <li key={JSON.stringify(of)}>
            <span>{words}</span>
            <i aria-hidden="true" />
            {readOnly ? (
              <b>{percentOf(share)}</b>
            ) : (
              <NumberField
                label={`Share of “${words}” at ${name}, in per cent`}
                value={percentOf(share)}
                least={0}
                most={100}
                decimals
                keep={(percent) => take(at, percent / 100)}
              />
            )}
            %
          </li>
        );
      })}
    </ul>
  );
}
