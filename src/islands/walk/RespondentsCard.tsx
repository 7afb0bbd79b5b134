/** Test respondents: this walk to be kept, and those that are, walked again as the questionnaire is now. */
import { useMemo, useState } from 'react';
import type { Plan } from '../../core/routing/plan';
import { keptOf, walkAgain, type TestRespondent } from '../../core/snags';
import { NothingSchema } from '../../wire/common';
import { RespondentSchema } from '../../wire/respondents';
import { useStudy } from '../state/store';
import { call } from '../ui/api';
import type { WalkedRoute } from '../state/route-of-walk';
import { NameField, ShortForm } from '../ui/ShortForm';
import { Problem } from '../ui/Problem';
import classes from './cards.module.css';

interface Props {
  readonly plan: Plan;
  /** The walk at its end; null before it. */
  readonly found: WalkedRoute | null;
}

export function RespondentsCard({ plan, found }: Props) {
  const api = useStudy((state) => state.api);
  const kept = useStudy((state) => state.respondents);
  const setKept = useStudy((state) => state.setRespondents);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const put = async (respondent: TestRespondent): Promise<boolean> => {
    const { name: called, walked, items, marks, row } = respondent;
    const reply = await call(RespondentSchema, 'POST', `${api}/respondents`, {
      name: called,
      walked,
      items,
      marks,
      row,
    });
    setProblem(reply.ok ? null : reply.problem);
    if (reply.ok) setKept([...kept.filter((each) => each.name !== reply.body.name), reply.body]);
    return reply.ok;
  };
  const keep = async () => {
    const fresh = found === null ? null : keptOf(plan, found.walked);
    if (fresh === null) return;
    if (await put({ ...fresh, name: name.trim() })) setName('');
  };
  const remove = async ({ name: gone }: TestRespondent) => {
    const reply = await call(NothingSchema, 'DELETE', `${api}/respondents`, { name: gone });
    if (reply.ok) setKept(kept.filter((each) => each.name !== gone));
    else setProblem(reply.problem);
  };
  if (found === null && kept.length === 0) return null;
  return (
    <>
      <h2>Test respondents</h2>
      <div className={classes.card}>
        {kept.map((respondent) => (
          <Kept
            key={respondent.name}
            plan={plan}
            respondent={respondent}
            put={(next) => void put(next)}
            remove={() => void remove(respondent)}
          />
        ))}
        {found !== null && (
          <ShortForm className={classes.keep} send={keep}>
            <NameField
              label="Name of the test respondent"
              placeholder="Keep this walk as …"
              value={name}
              set={setName}
            />
            <button type="submit" className={classes.link} disabled={name.trim() === ''}>
              {kept.some((each) => each.name === name.trim()) ? 'Replace' : 'Keep'}
            </button>
          </ShortForm>
        )}
        <Problem of={problem} className={classes.problem} />
      </div>
    </>
  );
}

interface KeptProps {
  readonly plan: Plan;
  readonly respondent: TestRespondent;
  readonly put: (respondent: TestRespondent) => void;
  readonly remove: () => void;
}

function Kept({ plan, respondent, put, remove }: KeptProps) {
  const setToWalk = useStudy((state) => state.setToWalk);
  const again = useMemo(() => walkAgain(plan, respondent), [plan, respondent]);
  return (
    <div className={classes.kept}>
      <p>
        <b>{respondent.name}</b>{' '}
        {!again.ok
          ? `↻ ${again.problem}`
          : again.changes.length === 0
            ? '✓ as kept'
            : `↻ ${again.changes.join('; ')}`}
      </p>
      {again.ok && (
        <button
          type="button"
          className={classes.link}
          onClick={() =>
            setToWalk({
              witness: { ...again.now.walked, items: again.now.items, ending: again.ending },
              item: null,
            })
          }
        >
          Walk
        </button>
      )}
      {again.ok && again.changes.length > 0 && (
        <button
          type="button"
          className={classes.link}
          onClick={() => put({ ...again.now, name: respondent.name })}
        >
          Keep as it is now
        </button>
      )}
      <button type="button" className={classes.link} onClick={remove}>
        Delete
      </button>
    </div>
  );
}
