/** Shares of their own for those of whom something is known already: of renters, say. */
import { useState } from 'react';
import { fieldId } from '../../core/document/addresses';
import type { Assume } from '../../core/document/types';
import { apartProblem, withApart } from '../../core/forecast/apart';
import { ConditionField } from '../fields/ConditionField';
import { useStudy } from '../state/store';
import { Problem } from '../ui/Problem';
import { submitting } from '../ui/submitting';
import primitives from '../ui/primitives.module.css';
import fields from './fields.module.css';
import classes from './assumptions.module.css';

interface Props {
  readonly name: string;
  readonly before: Assume;
  readonly keep: (assumed: Assume) => string | null;
}

export function ApartForm({ name, before, keep }: Props) {
  const document = useStudy((state) => state.document);
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const section = document.sections.findIndex(({ items }) =>
    items.some((item) => 'name' in item && item.name === name),
  );
  const item =
    document.sections[section]?.items.findIndex((each) => 'name' in each && each.name === name) ?? -1;
  if (typed === null)
    return (
      <button type="button" className={fields.act} onClick={() => setTyped('')}>
        other shares for some …
      </button>
    );
  const take = () => {
    const refused = apartProblem(document, name, typed) ?? keep(withApart(before, typed));
    setProblem(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <form className={classes.apartForm} onSubmit={submitting(() => take())}>
      <span>of those where</span>
      <ConditionField
        field={fieldId(name, 'apart')}
        label={`Those who have shares of their own at ${name}: a condition on earlier answers`}
        value={typed}
        place={{ section, item }}
        isProblem={() => false}
        change={setTyped}
        done={take}
      />
      <Problem of={problem} className={classes.problem} />
      <span className={primitives.smallButtons}>
        <button type="submit">Add</button>{' '}
        <button
          type="button"
          onClick={() => {
            setTyped(null);
            setProblem(null);
          }}
        >
          Leave it
        </button>
      </span>
    </form>
  );
}
