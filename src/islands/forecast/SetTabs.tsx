/** The sets of assumptions side by side: what stands at the questions, and others by name. */
import { useRef, useState } from 'react';
import { addSet, EXPECTED, removeSet, renameSet, setNameProblem, setsOf } from '../../core/forecast/sets';
import { useStudy } from '../state/store';
import { NameField, ShortForm } from '../ui/ShortForm';
import { Problem } from '../ui/Problem';
import primitives from '../ui/primitives.module.css';
import classes from './assumptions.module.css';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly forecasting: Forecasting;
  readonly readOnly: boolean;
}

export function SetTabs({ forecasting, readOnly }: Props) {
  const { set, takeSet } = forecasting;
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [naming, setNaming] = useState<'new' | 'other' | null>(null);
  const tabs = useRef<HTMLDivElement>(null);
  const names = [null, ...setsOf(document).map(({ name }) => name)];
  return (
    <div className={classes.sets}>
      <div ref={tabs} className={classes.tabs} role="group" aria-label="Sets of assumptions">
        {names.map((name) => (
          <button key={name ?? ''} type="button" aria-pressed={name === set} onClick={() => takeSet(name)}>
            {name ?? EXPECTED}
          </button>
        ))}
        {!readOnly && (
          <button type="button" aria-label="Another set of assumptions" onClick={() => setNaming('new')}>
            +
          </button>
        )}
      </div>
      {naming !== null && (
        <NameForm
          start={
            naming === 'new' ? (names.length === 1 ? 'low' : names.length === 2 ? 'high' : '') : (set ?? '')
          }
          close={() => {
            setNaming(null);
            // Once the tab of a new set is there.
            requestAnimationFrame(() =>
              tabs.current?.querySelector<HTMLElement>('[aria-pressed="true"]')?.focus(),
            );
          }}
          take={(name) => {
            const problem = setNameProblem(document, name, naming === 'other' ? set : null);
            if (problem !== null) return problem;
            const refused = commit(naming === 'other' && set !== null ? renameSet(set, name) : addSet(name));
            if (refused === null) takeSet(name.trim());
            return refused;
          }}
        />
      )}
      {set !== null && !readOnly && naming === null && (
        <p className={primitives.links}>
          What is moved here holds in “{set}” alone.{' '}
          <button type="button" onClick={() => setNaming('other')}>
            rename
          </button>{' '}
          <button
            type="button"
            onClick={() => {
              takeSet(null);
              commit(removeSet(set));
            }}
          >
            delete
          </button>
        </p>
      )}
    </div>
  );
}

interface NameFormProps {
  readonly start: string;
  /** Why it was refused, as a sentence, or null. */
  readonly take: (name: string) => string | null;
  readonly close: () => void;
}

function NameForm({ start, take, close }: NameFormProps) {
  const [name, setName] = useState(start);
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <ShortForm
      className={classes.naming}
      close={close}
      send={() => {
        const refused = take(name);
        setProblem(refused);
        if (refused === null) close();
      }}
    >
      <NameField label="Name of the set" placeholder="low, high …" value={name} set={setName} isFirst />
      <button type="submit">Keep</button>
      <button type="button" onClick={close}>
        Leave it
      </button>
      <Problem of={problem} className={classes.problem} />
    </ShortForm>
  );
}
