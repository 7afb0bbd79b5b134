/** The bar on top: mark, study, the stops with their live figures, snags, undo and redo. */
import {
  Download,
  History,
  Keyboard,
  Library,
  ListPlus,
  LogOut,
  Menu as MenuIcon,
  Redo2,
  Search,
  Undo2,
  Users,
} from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { setTitle } from '../../core/editing/structure';
import type { StudyStore } from '../state/study-state';
import { openPaste } from '../state/open-paste';
import { plural, whenText } from '../ui/format';
import { Mark } from '../ui/Mark';
import { Menu } from '../ui/Menu';
import { signOut } from '../ui/sign-out';
import { BankPanel } from './BankPanel';
import { FilePanel } from './FilePanel';
import { FindPanel } from './FindPanel';
import { HistoryPanel } from './HistoryPanel';
import { KeysPanel } from './KeysPanel';
import { ReviewPanel } from './ReviewPanel';
import { SnagPanel } from './SnagPanel';
import { useSnags } from '../state/snags';
import type { Saving } from '../state/save-queue';
import { useStudy, useStudyStore } from '../state/store';
import { StopLinks } from './StopLinks';
import { STOPS, type Stop } from '../state/stops';
import classes from './study.module.css';

type Panel = 'snags' | 'history' | 'find' | 'bank' | 'review' | 'keys' | 'file';

interface Props {
  readonly stop: Stop;
  readonly goTo: (stop: Stop) => void;
  readonly canSignOut: boolean;
}

export function StopStrip({ stop, goTo, canSignOut }: Props) {
  const { open } = useSnags();
  const notes = open.filter(({ severity }) => severity === 'note').length;
  const snags = open.length - notes;
  const last = useStudy((state) => state.past.findLast(({ foreign }) => foreign !== true));
  const future = useStudy((state) => state.future);
  const undo = useStudy((state) => state.undo);
  const redo = useStudy((state) => state.redo);
  const store = useStudyStore();
  const author = useStudy((state) => state.reviewer);
  const [problem, setProblem] = useState<string | null>(null);
  const [panel, setPanel] = useState<Panel | null>(null);
  const toggle = (which: Panel) => setPanel((now) => (now === which ? null : which));
  const close = useCallback(() => setPanel(null), []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && !isWriting(event.target)) {
        event.preventDefault();
        setPanel((now) => (now === 'keys' ? null : 'keys'));
        return;
      }
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      setPanel((now) => (now === 'find' ? null : 'find'));
    };
    addEventListener('keydown', onKey, { capture: true });
    return () => removeEventListener('keydown', onKey, { capture: true });
  }, []);
  return (
    <header className={classes.bar}>
      <a className={classes.mark} href="/" title="All studies">
        <Mark /> <span>Jolly Fork</span>
      </a>
      <Title />
      <StopLinks stops={STOPS} stop={stop} goTo={goTo} />
      <button
        type="button"
        className={classes.pill}
        aria-expanded={panel === 'snags'}
        onClick={() => toggle('snags')}
      >
        <b data-none={snags === 0 || undefined}>{snags}</b> {snags === 1 ? 'snag' : 'snags'}
        {notes > 0 && <small> · {plural(notes, 'note')}</small>}
      </button>
      <button
        type="button"
        className={classes.icon}
        aria-label="Find anything"
        title="Find anything (Ctrl+K)"
        aria-expanded={panel === 'find'}
        onMouseDown={(event) => event.stopPropagation()}
        onClick={() => toggle('find')}
      >
        <Search size={16} />
      </button>
      <button
        type="button"
        className={classes.icon}
        onClick={undo}
        disabled={last === undefined}
        aria-label="Undo"
        title={last === undefined ? 'Nothing to undo' : `Undo: ${last.label} (Ctrl+Z)`}
      >
        <Undo2 size={17} />
      </button>
      <button
        type="button"
        className={classes.icon}
        onClick={redo}
        disabled={future.length === 0}
        aria-label="Redo"
        title={future.length > 0 ? `Redo: ${future.at(-1)?.label} (Ctrl+Shift+Z)` : 'Nothing to redo'}
      >
        <Redo2 size={17} />
      </button>
      <Menu
        label="Menu of the study"
        className={classes.icon}
        entries={[
          {
            words: 'Find anything',
            keys: 'Ctrl+K',
            icon: <Search size={15} />,
            does: () => setPanel('find'),
          },
          {
            words: 'Paste a list of questions',
            icon: <ListPlus size={15} />,
            does: () => {
              goTo('script');
              openPaste(store);
            },
          },
          { words: 'Bank of all studies', icon: <Library size={15} />, does: () => setPanel('bank') },
          { words: 'Links for reviewers', icon: <Users size={15} />, does: () => setPanel('review') },
          { words: 'History', icon: <History size={15} />, does: () => setPanel('history') },
          { words: 'Save as a file', icon: <Download size={15} />, does: () => setPanel('file') },
          {
            words: 'Keys of this view',
            keys: '?',
            icon: <Keyboard size={15} />,
            does: () => setPanel('keys'),
          },
          ...(canSignOut
            ? [
                {
                  words: `Sign out, ${author}`,
                  icon: <LogOut size={15} />,
                  does: () => void allSaved(store).then(signOut).then(setProblem),
                },
              ]
            : []),
        ]}
      >
        <MenuIcon size={17} />
      </Menu>
      {problem !== null && (
        <p className={classes.problem} role="alert">
          {problem}
        </p>
      )}
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

/** In milliseconds. */
const WAIT_FOR_SAVE = 3000;

/** What was written last is saved before the session ends; where that takes long, the browser keeps it. */
function allSaved(store: StudyStore): Promise<void> {
  const isSaved = () => store.getState().saving.state === 'saved';
  return new Promise((resolve) => {
    if (isSaved()) {
      resolve();
      return;
    }
    store.getState().saveNow();
    const done = () => {
      clearTimeout(timer);
      unsubscribe();
      resolve();
    };
    const timer = setTimeout(done, WAIT_FOR_SAVE);
    const unsubscribe = store.subscribe(() => {
      if (isSaved()) done();
    });
  });
}

/** A question mark in a text is a question mark. */
function isWriting(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest('input, textarea, select, [contenteditable="true"]') !== null
  );
}

function Title() {
  const title = useStudy((state) => state.document.title);
  const commit = useStudy((state) => state.commit);
  const saving = useStudy((state) => state.saving);
  const savedAt = useStudy((state) => state.savedAt);
  const keeping = useStudy((state) => state.keeping);
  const retry = useStudy((state) => state.saveNow);
  return (
    <div className={classes.study}>
      <input
        aria-label="Title of the study"
        value={title}
        onChange={(event) => commit(setTitle(event.target.value))}
      />
      <small aria-live="polite">
        {savingText(saving, savedAt, keeping)}
        {saving.state === 'failed' && (
          <button type="button" className={classes.retry} title={saving.problem} onClick={retry}>
            Try again
          </button>
        )}
      </small>
    </div>
  );
}

function savingText(saving: Saving, savedAt: number, keeping: 'kept' | 'full'): string {
  switch (saving.state) {
    case 'saved':
      return `Saved ${whenText(savedAt)}`;
    case 'waiting':
    case 'saving':
      return 'Saving …';
    case 'failed':
      return keeping === 'kept'
        ? 'Not saved; kept in this browser. '
        : 'Not saved, and this browser has no room to keep it: save as a file. ';
    case 'conflict':
      return 'Not saved: two versions';
    default:
      return saving satisfies never;
  }
}
