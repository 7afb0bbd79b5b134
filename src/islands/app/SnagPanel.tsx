/** The snags over every view, grouped by severity, each a door to its place; many notes of one kind in one. */
import { useState } from 'react';
import type { Severity, Snag } from '../../core/snags';
import { asSentence } from '../../core/wording/sentence';
import { plural } from '../ui/format';
import { LabelList } from './LabelList';
import { Panel } from '../ui/Panel';
import { SnagDoor } from '../slips/SnagDoor';
import { SnagEntry } from '../slips/SnagEntry';
import { useSnags } from '../state/snags';
import { Problem } from '../ui/Problem';
import classes from '../slips/snags.module.css';
import { useStudy } from '../state/store';

const GROUPS: readonly (readonly [Severity, string, string])[] = [
  ['error', 'error', 'to be mended before anybody is interviewed'],
  ['warning', 'warning', 'likely to go wrong for somebody'],
  ['note', 'note', 'worth a look'],
];

export function SnagPanel({ close }: { readonly close: () => void }) {
  const { open, aside, complete } = useSnags();
  const problem = useStudy((state) => state.analysisProblem);
  return (
    <Panel label="Snags" width={460} close={close}>
      <div className={classes.head}>
        <h2>{open.length === 0 ? 'No snags' : 'Snags'}</h2>
        <button type="button" onClick={close}>
          Close
        </button>
      </div>
      <Problem of={problem} />
      <p role="status">
        {problem !== null
          ? 'What the document shows by itself is below.'
          : complete
            ? open.length === 0 &&
              'Every name and condition can be read, and everybody gets where they should.'
            : 'Looking through the routes …'}
      </p>
      {GROUPS.map(([severity, word, meaning]) => {
        const snags = open.filter((snag) => snag.severity === severity);
        return (
          snags.length > 0 && (
            <section key={severity}>
              <h3 className={classes.group}>
                {plural(snags.length, word)}: {meaning}
              </h3>
              <ul className={classes.list}>
                {alike(snags).map((group) => (
                  <li key={`${group[0].rule} ${group[0].message} ${JSON.stringify(group[0].at)}`}>
                    {group.length < TOGETHER ? (
                      <SnagEntry
                        snag={group[0]}
                        heading={<SnagDoor at={group[0].at} left={close} />}
                        left={close}
                      />
                    ) : (
                      <Together group={group} close={close} />
                    )}
                  </li>
                ))}
              </ul>
            </section>
          )
        );
      })}
      {aside.length > 0 && (
        <section>
          <h3 className={classes.group}>Set aside</h3>
          <ul className={classes.list}>
            {aside.map(({ snag, aside: why }, index) => (
              <li key={`${snag.rule} ${index}`}>
                <SnagEntry snag={snag} aside={why} heading={<SnagDoor at={snag.at} left={close} />} />
              </li>
            ))}
          </ul>
        </section>
      )}
    </Panel>
  );
}

/** So many notes of one kind, or more, stand under one heading. */
const TOGETHER = 3;

type SnagGroup = readonly [Snag, ...Snag[]];

/** Notes that say the same of different places, together where the first of them stands; the rest one by one. */
function alike(snags: readonly Snag[]): SnagGroup[] {
  const groups = new Map<string, [Snag, ...Snag[]]>();
  snags.forEach((snag, index) => {
    const key = snag.severity === 'note' ? `${snag.rule} ${snag.message}` : String(index);
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [snag]);
    else group.push(snag);
  });
  return [...groups.values()].flatMap((group): SnagGroup[] =>
    group.length >= TOGETHER ? [group] : group.map((snag) => [snag]),
  );
}

function Together({ group, close }: { readonly group: SnagGroup; readonly close: () => void }) {
  const [shown, setShown] = useState<'places' | 'labels' | null>(null);
  const [first] = group;
  const isLabels = first.rule === 'unlabelled' && first.field === 'label' && first.at.item !== undefined;
  return (
    <div className={classes.snag} data-severity={first.severity}>
      <strong>{plural(group.length, 'place')}</strong>
      <p>{asSentence(first.message)}</p>
      <div className={classes.acts}>
        {isLabels && first.at.option === undefined && first.at.row === undefined && (
          <button
            type="button"
            className={classes.mend}
            aria-expanded={shown === 'labels'}
            onClick={() => setShown(shown === 'labels' ? null : 'labels')}
          >
            Label all from the questions
          </button>
        )}
        <button
          type="button"
          aria-expanded={shown === 'places'}
          onClick={() => setShown(shown === 'places' ? null : 'places')}
        >
          {shown === 'places' ? 'Hide the places' : 'Show each'}
        </button>
      </div>
      {shown === 'labels' && <LabelList done={() => setShown(null)} />}
      {shown === 'places' && (
        <ul className={classes.list}>
          {group.map((snag, index) => (
            <li key={index}>
              <SnagEntry snag={snag} heading={<SnagDoor at={snag.at} left={close} />} left={close} />
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
