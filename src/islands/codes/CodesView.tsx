/** Codes: where the questionnaire meets its data. Each part has an address of its own. */
import { useEffect, useState } from 'react';
import { AuditView } from './audit/AuditView';
import classes from './codes.module.css';
import { BookView } from './book/BookView';
import { KeyInView } from './key/KeyInView';
import { useStudy } from '../state/store';
import { TablesView } from './tables/TablesView';

const VIEWS = [
  ['book', 'Book', 'The codebook'],
  ['key', 'Key in', 'Paper forms by keyboard'],
  ['audit', 'Audit', 'Collected rows against the routing'],
  ['tables', 'Tables', 'Frequencies and cross-tables, on the right base'],
] as const;
type CodesTab = (typeof VIEWS)[number][0];

export function CodesView() {
  const isVersion = useStudy((state) => state.version !== null);
  // Forms are keyed by the draft, whose columns they follow.
  const views = isVersion ? VIEWS.filter(([id]) => id !== 'key') : VIEWS;
  const [part, setPart] = useState<CodesTab>(partInAddress);
  useEffect(() => {
    const onPop = () => setPart(partInAddress());
    addEventListener('popstate', onPop);
    return () => removeEventListener('popstate', onPop);
  }, []);
  const open = (next: CodesTab, search = '') => {
    history.pushState(null, '', `?part=${next}${search}`);
    setPart(next);
  };
  return (
    <div className={classes.view}>
      <nav className={classes.parts} aria-label="Parts of Codes">
        {views.map(([id, name, about]) => (
          <button
            key={id}
            type="button"
            title={about}
            aria-current={id === part ? 'page' : undefined}
            onClick={() => open(id)}
          >
            {name}
          </button>
        ))}
      </nav>
      {part === 'book' && <BookView />}
      {part === 'key' && !isVersion && <KeyInView />}
      {part === 'audit' && (
        <AuditView openTables={(rows) => open('tables', `&rows=${encodeURIComponent(rows)}`)} />
      )}
      {part === 'tables' && <TablesView />}
    </div>
  );
}

function partInAddress(): CodesTab {
  const wanted = new URLSearchParams(location.search).get('part');
  return VIEWS.find(([id]) => id === wanted)?.[0] ?? VIEWS[0][0];
}
