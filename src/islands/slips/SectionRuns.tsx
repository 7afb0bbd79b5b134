/** How a section runs: once or repeated, all of it or a draw, in which order, for how long. */
import type { Draft } from 'immer';
import { useState } from 'react';
import { fieldId } from '../../core/document/addresses';
import type { Repeat, Section } from '../../core/document/types';
import { editSection } from '../../core/editing/structure';
import type { Plan } from '../../core/routing/plan';
import { repeatDrivers } from '../../core/views/completions';
import { useStudy } from '../state/store';
import { SlipCheck, SlipNumber, SlipSelect } from './SlipFields';
import { Problem } from '../ui/Problem';
import classes from './study-slip.module.css';
import primitives from '../ui/primitives.module.css';

interface Props {
  readonly plan: Plan;
  readonly section: Section;
  readonly index: number;
}

const MOST_PASSES = 6;

export function SectionRuns({ plan, section, index }: Props) {
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const { repeat, draw, shuffle, timeLimit, items } = section;
  const questions = items.filter(({ kind }) => kind === 'question').length;
  const drivers = repeatDrivers(plan, index);
  const edit = (field: string, label: string, change: (draft: Draft<Section>) => void) => {
    const refused = commit(editSection(index, field, label, change));
    setProblem(refused);
    return refused;
  };
  const by = repeat === undefined ? '' : 'times' in repeat ? `times ${repeat.times}` : `each ${repeat.each}`;
  const known = drivers.some((driver) => `${driver.kind} ${driver.variable.name}` === by);
  return (
    <>
      <h2>How it runs</h2>
      <div className={primitives.card}>
        <SlipSelect
          field={fieldId('@section', section.id, 'repeat')}
          label="Run"
          value={by}
          choices={[
            ['', 'once'],
            ...(by === '' || known
              ? []
              : [[by, `by ${by.split(' ')[1] ?? ''}, which does not fit`] as const]),
            ...drivers.map(
              ({ kind, variable }) =>
                [
                  `${kind} ${variable.name}`,
                  kind === 'times' ? `${variable.name} times` : `each pick of ${variable.name}`,
                ] as const,
            ),
          ]}
          hint={
            repeat === undefined && drivers.length === 0
              ? 'To repeat it, ask for a whole number, or for several picks, in a section before.'
              : undefined
          }
          choose={(value) =>
            edit('repeat', 'Repeat the section', (draft) => {
              const [kind, name = ''] = value.split(' ');
              const max = draft.repeat?.max ?? MOST_PASSES;
              if (value === '') delete draft.repeat;
              else
                draft.repeat = (
                  kind === 'times' ? { times: name, max } : { each: name, max }
                ) as Draft<Repeat>;
            })
          }
        />
        {repeat !== undefined && (
          <SlipNumber
            field={fieldId('@section', section.id, 'max')}
            label="At most"
            value={repeat.max}
            optional={false}
            unit="times"
            hint={
              'each' in repeat ? (
                <>
                  <code>{'{each}'}</code> in a text is the pick of the pass.
                </>
              ) : undefined
            }
            take={(max) =>
              edit('max', 'Change how often it runs', (draft) => {
                if (draft.repeat !== undefined && max !== undefined) draft.repeat.max = max;
              })
            }
          />
        )}
        <SlipNumber
          field={fieldId('@section', section.id, 'draw')}
          label="Draw"
          value={draw}
          unit={`of ${questions} at random`}
          hint={draw === undefined ? 'Left open, every question is asked.' : undefined}
          take={(count) =>
            edit('draw', 'Draw questions at random', (draft) => {
              if (count === undefined) delete draft.draw;
              else draft.draw = count;
            })
          }
        />
        <SlipCheck
          field={fieldId('@section', section.id, 'shuffle')}
          label="Order"
          words="at random for each respondent"
          checked={shuffle === true}
          set={(checked) =>
            edit('shuffle', 'Change the order of the section', (draft) => {
              if (checked) draft.shuffle = true;
              else delete draft.shuffle;
            })
          }
        />
        <SlipNumber
          field={fieldId('@section', section.id, 'timeLimit')}
          label="Time limit"
          value={timeLimit}
          unit="seconds"
          hint={timeLimit === undefined ? 'Left open, respondents take the time they need.' : undefined}
          take={(seconds) =>
            edit('timeLimit', 'Limit the time of the section', (draft) => {
              if (seconds === undefined) delete draft.timeLimit;
              else draft.timeLimit = seconds;
            })
          }
        />
        <Problem of={problem} className={classes.refused} />
      </div>
    </>
  );
}
