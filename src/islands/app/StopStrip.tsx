/** The bar on top: mark, study, the stops with their live figures, snags, undo and redo. */
import { Redo2, Search, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { useSnags } from '../state/snags';
import { STOPS, type Stop } from '../state/stops';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import { Mark } from '../ui/Mark';
import { BankPanel } from './BankPanel';
import { FilePanel } from './FilePanel';
import { FindPanel } from './FindPanel';
import { HistoryPanel } from './HistoryPanel';
import { KeysPanel } from './KeysPanel';
import { ReviewPanel } from './ReviewPanel';
import { SnagPanel } from './SnagPanel';
import { StopLinks } from './StopLinks';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import classes from './study.module.css';
import { StudyMenu } from './StudyMenu';
import { StudyTitle } from './StudyTitle';
import { usePanel } from './use-panel';

interface Props {
  readonly stop: Stop;
  readonly goTo: (stop: Stop) => void;
  readonly canSignOut: boolean;
}

export function StopStrip({ stop, goTo, canSignOut }: Props) {
  const { panel, setPanel, toggle, close } = usePanel();
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <header className={classes.bar}>
      <a className={classes.mark} href="/" title="All studies">
        <Mark /> <span>Jolly Fork</span>
      </a>
      <StudyTitle />
      <StopLinks stops={STOPS} stop={stop} goTo={goTo} />
      <SnagCount open={panel === 'snags'} toggle={() => toggle('snags')} />
      <IconButton
        className={classes.icon}
        words="Find anything"
        title="Find anything (Ctrl+K)"
        expanded={panel === 'find'}
        onMouseDown={(event) => event.stopPropagation()}
        does={() => toggle('find')}
      >
        <Search size={16} />
      </IconButton>
      <Steps />
      <StudyMenu setPanel={setPanel} goTo={goTo} canSignOut={canSignOut} say={setProblem} />
      <Problem of={problem} className={classes.problem} />
      {panel === 'keys' && <KeysPanel stop={stop} close={close} />}
      {panel === 'snags' && <SnagPanel close={close} />}
      {panel === 'bank' && <BankPanel close={close} />}
      {panel === 'file' && <FilePanel close={close} />}
      {panel === 'review' && <ReviewPanel close={close} />}
      {panel === 'history' && <HistoryPanel close={close} />}
      {panel === 'find' && <FindPanel close={close} saveAs={() => setPanel('file')} />}
    </header>
  );
}

function SnagCount({ open: isOpen, toggle }: { readonly open: boolean; readonly toggle: () => void }) {
  const { open } = useSnags();
  const notes = open.filter(({ severity }) => severity === 'note').length;
  const snags = open.length - notes;
  return (
    <button type="button" className={classes.pill} aria-expanded={isOpen} onClick={toggle}>
      <b data-none={snags === 0 || undefined}>{snags}</b> {snags === 1 ? 'snag' : 'snags'}
      {notes > 0 && <small> · {plural(notes, 'note')}</small>}
    </button>
  );
}

/** Undo and redo, each saying what it would do. */
function Steps() {
  const last = useStudy((state) => state.past.findLast(({ foreign }) => foreign !== true));
  const next = useStudy((state) => state.future.at(-1));
  const undo = useStudy((state) => state.undo);
  const redo = useStudy((state) => state.redo);
  return (
    <>
      <IconButton
        className={classes.icon}
        words="Undo"
        title={last === undefined ? 'Nothing to undo' : `Undo: ${last.label} (Ctrl+Z)`}
        disabled={last === undefined}
        does={undo}
      >
        <Undo2 size={17} />
      </IconButton>
      <IconButton
        className={classes.icon}
        words="Redo"
        title={next === undefined ? 'Nothing to redo' : `Redo: ${next.label} (Ctrl+Shift+Z)`}
        disabled={next === undefined}
        does={redo}
      >
        <Redo2 size={17} />
      </IconButton>
    </>
  );
}
