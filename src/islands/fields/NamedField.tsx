/** The name of a variable, wherever it is written: refused while it is taken, carried through once it is used. */
import type { Address } from '../../core/document/addresses';
import { nameProblem } from '../../core/document/names';
import { renameVariable } from '../../core/editing/rename';
import { takenNames } from '../../core/editing/structure';
import { useStudyStore } from '../state/store';
import { CheckedField } from './Fields';
import classes from './fields.module.css';

interface Props {
  readonly field: string;
  readonly name: string;
  /** The selection that goes with a name. */
  readonly selection: (name: string) => Address;
}

export function NamedField({ field, name, selection }: Props) {
  const store = useStudyStore();
  const take = (typed: string): string | null => {
    const { document, commit, select } = store.getState();
    const wanted = typed.trim();
    if (wanted === name) return null;
    const problem = nameProblem(wanted);
    if (problem !== null) return `${problem.charAt(0).toUpperCase()}${problem.slice(1)}.`;
    if (wanted.toLowerCase() !== name.toLowerCase() && takenNames(document).has(wanted.toLowerCase()))
      return `“${wanted}” is the name of something else already: choose another.`;
    const refused = commit(renameVariable(name, wanted));
    if (refused === null) select(selection(wanted));
    return refused;
  };
  return (
    <CheckedField
      field={field}
      label="Variable name"
      className={classes.name}
      value={name}
      size={13}
      take={take}
    />
  );
}
