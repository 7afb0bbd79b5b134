/** The snags over every view, grouped by severity, each a door to its place. */
import type { Place } from '../../core/routing/problems';
import type { Severity } from '../../core/snags';
import { placeWords } from '../../core/wording/places';
import { plural } from '../ui/format';
import { useGoTo } from './going';
import { Panel } from './Panel';
import { SnagEntry } from './SnagEntry';
import { useSnags } from './snags';
import classes from './snags.module.css';
import { selectionAt, useStudy } from './store';

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
      {problem !== null && <p role="alert">{problem}</p>}
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
                {snags.map((snag, index) => (
                  <li key={`${snag.rule} ${index}`}>
                    <SnagEntry snag={snag} heading={<Door at={snag.at} close={close} />} left={close} />
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
                <SnagEntry snag={snag} aside={why} heading={<Door at={snag.at} close={close} />} />
              </li>
            ))}
          </ul>
        </section>
      )}
    </Panel>
  );
}

function Door({ at, close }: { readonly at: Place; readonly close: () => void }) {
  const document = useStudy((state) => state.document);
  const select = useStudy((state) => state.select);
  const goTo = useGoTo();
  const words = placeWords(document, at);
  const selection = selectionAt(at);
  if (selection === null) return <strong>{words === '' ? 'The whole study' : capital(words)}</strong>;
  return (
    <button
      type="button"
      className={classes.place}
      onClick={() => {
        select(selection);
        goTo('script');
        close();
      }}
    >
      {capital(words)}
    </button>
  );
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
