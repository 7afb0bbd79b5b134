/** The slip of an ending. */
import { address } from '../../core/document/addresses';
import { removeEnding } from '../../core/editing/structure';
import type { Plan } from '../../core/routing/plan';
import { endingLabel } from '../../core/wording/targets';
import { EndingMark } from '../ui/EndingMark';
import { countText } from '../ui/format';
import { shownSearch } from '../state/routes-shown';
import { RoutesDoor } from './RoutesDoor';
import { useStudy } from '../state/store';
import { CommentCards } from './CommentCards';
import { SnagCards } from './SnagCards';
import classes from './slip.module.css';
import rows from './rows.module.css';
import primitives from '../ui/primitives.module.css';

export function EndingSlip({ plan, at }: { readonly plan: Plan; readonly at: number }) {
  const analysis = useStudy((state) => state.analysis);
  const commit = useStudy((state) => state.commit);
  const ending = plan.endings[at]?.ending;
  if (ending === undefined) return null;
  const routes = analysis?.endings.find(({ id }) => id === ending.id)?.routes;
  const only =
    ending.kind === 'complete' &&
    plan.document.endings.filter(({ kind }) => kind === 'complete').length === 1;
  return (
    <>
      <h2>Ending</h2>
      <div className={primitives.card}>
        <p className={classes.who}>
          <EndingMark kind={ending.kind} /> {endingLabel(plan.document, ending.id)}
        </p>
        <div className={rows.pair}>
          <span>Routes that end here</span>
          <b>
            {routes === undefined ? (
              '…'
            ) : (
              <RoutesDoor search={shownSearch({ ending: ending.id })}>{countText(routes)}</RoutesDoor>
            )}
          </b>
        </div>
        {at === plan.lastEnding && <p className={classes.plain}>Also where the last section leads.</p>}
      </div>
      <SnagCards belongs={({ at: place }) => place.ending === ending.id} />
      <CommentCards places={[[address('ending', ending.id), ending.id]]} />
      <div className={classes.acts}>
        <button
          type="button"
          disabled={only}
          title={only ? 'One ending of kind complete is needed' : undefined}
          onClick={() => commit(removeEnding(plan.document, at))}
        >
          Delete ending
        </button>
      </div>
    </>
  );
}
