/** The slip of a given value, a quota or a derived variable. */
import { address } from '../../core/document/addresses';
import { moveDeclaration, removeDeclaration, type DeclarationList } from '../../core/editing/declarations';
import type { Plan } from '../../core/routing/plan';
import { usedLaterBy } from '../../core/views/used-later';
import { useStudy } from '../state/store';
import { CommentCards } from './CommentCards';
import { SnagCards } from './SnagCards';
import classes from './slip.module.css';
import primitives from '../ui/primitives.module.css';

interface Props {
  readonly plan: Plan;
  readonly kind: 'given' | 'quota' | 'derived';
  readonly name: string;
}

const LISTS: Readonly<Record<Props['kind'], DeclarationList>> = {
  given: 'given',
  quota: 'quotas',
  derived: 'derived',
};

const WORDS: Readonly<Record<Props['kind'], readonly [title: string, about: string]>> = {
  given: ['Given value', 'It comes with each respondent, stands first in the data, and is never asked.'],
  quota: ['Quota', 'Whether it is full is not for the respondent to choose: routes are counted for both.'],
  derived: ['Derived variable', 'It is worked out where it is used, from the answers so far.'],
};

export function DeclarationSlip({ plan, kind, name }: Props) {
  const commit = useStudy((state) => state.commit);
  const select = useStudy((state) => state.select);
  const list = LISTS[kind];
  const entries = plan.document[list] ?? [];
  const at = entries.findIndex((entry) => ('id' in entry ? entry.id : entry.name) === name);
  if (at < 0) return null;
  const used = kind === 'quota' ? [] : usedLaterBy(plan, name);
  const [title, about] = WORDS[kind];
  const move = (by: -1 | 1) => commit(moveDeclaration(list, at, by));
  return (
    <>
      <h2>
        <code>{name}</code> · {title.toLowerCase()}
      </h2>
      <div className={primitives.card}>
        <p className={classes.plain}>{about}</p>
      </div>
      {used.length > 0 && (
        <>
          <h2>Used by</h2>
          <div className={`${primitives.card} ${classes.chips}`}>
            {used.map((user) => (
              <button key={user} type="button" onClick={() => select(address('item', user))}>
                {user}
              </button>
            ))}
          </div>
        </>
      )}
      <SnagCards belongs={({ at: place }) => place[kind] === name} />
      <CommentCards places={[[address(kind, name), name]]} />
      <div className={classes.acts}>
        <button type="button" disabled={at === 0} onClick={() => move(-1)}>
          Move up
        </button>
        <button type="button" disabled={at === entries.length - 1} onClick={() => move(1)}>
          Move down
        </button>
        <button
          type="button"
          onClick={() => {
            commit(removeDeclaration(plan.document, list, at));
            select(null);
          }}
        >
          Delete {title.toLowerCase()}
        </button>
      </div>
    </>
  );
}
