/** Shown where somebody else wrote in the same places in between: both versions, and the choice between them. */
import { useMemo, useState } from 'react';
import type { Clash } from '../../core/editing/apply-operations';
import { clashView } from '../../core/views/clashes';
import { plural, whenText } from '../ui/format';
import { Problem } from '../ui/Problem';
import { TableHead } from '../ui/TableHead';
import classes from './conflict.module.css';
import { together, type Saving } from '../state/save-queue';
import { useStudy } from '../state/store';

export function Conflict() {
  const saving = useStudy((state) => state.saving);
  return saving.state === 'conflict' ? <Choice saving={saving} /> : null;
}

function Choice({ saving }: { readonly saving: Saving & { state: 'conflict' } }) {
  const mine = useStudy((state) => state.document);
  const base = useStudy((state) => state.base);
  const settle = useStudy((state) => state.settle);
  const takeTheirs = useStudy((state) => state.takeTheirs);
  const { theirs } = saving;
  const clashes = useMemo(() => together({ base, mine, theirs }).clashes, [base, mine, theirs]);
  const [chosen, setChosen] = useState<Readonly<Record<string, 'mine' | 'theirs'>>>({});
  const views = clashes.map((clash) => clashView(mine, clash));
  const open = views.filter(({ key }) => chosen[key] === undefined).length;
  const keepsMine = (clash: Clash) => chosen[clashView(mine, clash).key] === 'mine';
  return (
    <section className={classes.conflict} aria-label="Two versions">
      <p role="alert">
        <strong>Two versions.</strong> Somebody else saved this study at {whenText(saving.changedAt)} and
        wrote in {views.length === 1 ? 'a place' : `${views.length} places`} where you wrote as well.
        Everything else goes together by itself. Choose what is to stand; until then yours is kept here, not
        saved.
      </p>
      <Problem of={saving.problem} />
      <table>
        <TableHead of={['Place', 'Mine', 'Theirs']} />
        <tbody>
          {views.map(({ key, where, ...both }) => (
            <tr key={key}>
              <th scope="row">{where}</th>
              {(['mine', 'theirs'] as const).map((side) => (
                <td key={side}>
                  <label>
                    <input
                      type="radio"
                      name={key}
                      checked={chosen[key] === side}
                      aria-label={`${where}: ${side}`}
                      onChange={() => setChosen({ ...chosen, [key]: side })}
                    />
                    <span>{both[side]}</span>
                  </label>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className={classes.acts}>
        <button type="button" disabled={open > 0} data-main onClick={() => settle(keepsMine)}>
          {open > 0 ? `${plural(open, 'place')} still to choose` : 'Take what is chosen'}
        </button>
        <button type="button" onClick={() => settle(() => true)}>
          Mine everywhere
        </button>
        <button type="button" onClick={() => settle(() => false)}>
          Theirs everywhere
        </button>
        <button type="button" onClick={() => void takeTheirs('copy')}>
          Keep mine as a study of its own, show theirs
        </button>
      </div>
    </section>
  );
}
