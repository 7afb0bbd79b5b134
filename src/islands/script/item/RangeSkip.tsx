/** A skip straight from a range of a number, scale, date or time: from, to, and where it leads. */
import { useState } from 'react';
import { fieldId } from '../../../core/document/addresses';
import type { Question } from '../../../core/document/types';
import { aimRange } from '../../../core/editing/skips';
import type { ItemPlace } from '../../../core/editing/structure';
import { useStudy } from '../../state/store';
import { TargetPicker } from '../../fields/TargetPicker';
import { Problem } from '../../ui/Problem';
import fields from '../../fields/fields.module.css';
import answersClasses from './answers.module.css';
import detailsClasses from './limits.module.css';

interface Props {
  readonly question: Question;
  readonly place: ItemPlace;
}

export function RangeSkip({ question, place }: Props) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <button type="button" className={answersClasses.addAnswer} onClick={() => setOpen(true)}>
        Skip from a range …
      </button>
    );
  return <Range question={question} place={place} close={() => setOpen(false)} />;
}

function Range({ question, place, close }: Props & { readonly close: () => void }) {
  const commit = useStudy((state) => state.commit);
  const [ends, setEnds] = useState<readonly [string, string]>(['', '']);
  const [aiming, setAiming] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const end = (at: 0 | 1, label: string) => (
    <label>
      {label}{' '}
      <input
        type="text"
        autoFocus={at === 0}
        className={`${fields.short} ${detailsClasses.limit}`}
        data-field={fieldId(question.name, 'range', at)}
        aria-label={at === 0 ? 'Skip from' : 'Skip up to'}
        size={10}
        value={ends[at]}
        onChange={(event) =>
          setEnds(at === 0 ? [event.target.value, ends[1]] : [ends[0], event.target.value])
        }
        onKeyDown={(event) => {
          if (event.key === 'Escape') close();
          if (event.key === 'Enter' && ends.some((each) => each.trim() !== '')) setAiming(true);
        }}
      />
    </label>
  );
  return (
    <div className={detailsClasses.limits} role="group" aria-label="Skip from a range">
      {end(0, 'answers from')}
      {end(1, 'to')}
      <span className={answersClasses.aim}>
        <button
          type="button"
          className={answersClasses.addAnswer}
          aria-expanded={aiming}
          disabled={ends.every((each) => each.trim() === '')}
          onClick={() => setAiming(true)}
        >
          → Go to …
        </button>
        {aiming && (
          <TargetPicker
            section={place.section}
            item={place.item}
            none={null}
            close={() => setAiming(false)}
            choose={(target) => {
              setAiming(false);
              const change = target && aimRange(place, question, ends, target);
              if (change === null)
                setProblem('These are no answers to this question: write them as its limits are.');
              else if (commit(change) === null) close();
            }}
          />
        )}
      </span>
      <button type="button" className={answersClasses.addAnswer} onClick={close}>
        Leave it
      </button>
      <Problem of={problem} as="span" className={fields.problem} />
    </div>
  );
}
