/** The home: studies at hand, and the ways to start another. */
import { FileUp, ListPlus, Plus, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { problemText, readDocumentText } from '../../core/document/read';
import { emptyQuestionnaire } from '../../core/editing/structure';
import type { StudyCard } from '../../server/study-cards';
import type { UnreadableStudy } from '../../store/studies';
import { PasteStudy } from '../paste/PasteStudy';
import { addStudy, addWork, call, NothingSchema } from '../ui/api';
import { countText, plural, whenText } from '../ui/format';
import { useHydrated } from '../ui/hydrated';
import { Mark } from '../ui/Mark';
import classes from './studies.module.css';

interface Props {
  readonly cards: readonly StudyCard[];
  readonly unreadable: readonly UnreadableStudy[];
}

/** What is told of a study that was taken off the list. */
interface Removed {
  readonly id: string;
  readonly title: string;
}

export default function StudiesApp({ cards, unreadable }: Props) {
  const ready = useHydrated();
  const [pasting, setPasting] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [removed, setRemoved] = useState<Removed | null>(null);
  const shown = cards.filter((card) => card.id !== removed?.id);
  const broken = unreadable.filter((study) => study.id !== removed?.id);

  const open = async (document: unknown) => {
    const reply = await addStudy(document);
    if (reply.ok) location.assign(`/studies/${reply.body.id}/script`);
    else setProblem(reply.problem);
  };
  const openDemo = async () => {
    const reply = await call(NothingSchema, 'POST', '/api/demo');
    if (reply.ok) location.reload();
    else setProblem(reply.problem);
  };
  const remove = async (card: Removed) => {
    const reply = await call(NothingSchema, 'DELETE', `/api/studies/${card.id}`);
    if (reply.ok) setRemoved(card);
    else setProblem(reply.problem);
  };
  const restore = async (card: Removed) => {
    const reply = await call(NothingSchema, 'POST', `/api/studies/${card.id}`);
    if (reply.ok) setRemoved(null);
    else setProblem(reply.problem);
  };

  return (
    <>
      <header className={classes.bar}>
        <Mark />
        <strong>Jolly Fork</strong>
      </header>
      <main className={classes.page} inert={!ready}>
        <div className={classes.heading}>
          <h1>Studies</h1>
          <button
            type="button"
            className={classes.main}
            onClick={() => void open(emptyQuestionnaire('Untitled study'))}
          >
            <Plus size={16} /> New study
          </button>
          <button type="button" onClick={() => setPasting(!pasting)} aria-expanded={pasting}>
            <ListPlus size={16} /> Paste a list
          </button>
          <ImportButton open={open} refuse={setProblem} />
        </div>
        {problem !== null && (
          <p className={classes.problem} role="alert">
            {problem}{' '}
            <button type="button" onClick={() => setProblem(null)}>
              Close
            </button>
          </p>
        )}
        {removed !== null && (
          <p className={classes.removed} role="status">
            Removed “{removed.title}”.{' '}
            <button type="button" onClick={() => void restore(removed)}>
              Bring it back
            </button>
          </p>
        )}
        {pasting && <PasteStudy take={(document) => void open(document)} cancel={() => setPasting(false)} />}
        {broken.map(({ id, problem: wrong }) => (
          <p key={id} className={classes.problem} role="group" aria-label="A study that cannot be read">
            A study here cannot be read: {wrong}. The others are not touched by that.{' '}
            <a href={`/api/studies/${id}/file`}>Save it as it is</a>{' '}
            <button type="button" onClick={() => void remove({ id, title: 'A study that cannot be read' })}>
              Remove it
            </button>
          </p>
        ))}
        {shown.length === 0 ? (
          <Empty openDemo={openDemo} />
        ) : (
          <ul className={classes.list}>
            {shown.map((card) => (
              <li key={card.id}>
                <a href={`/studies/${card.id}/script`}>
                  <strong>{card.title || 'Untitled study'}</strong>
                </a>
                <span>
                  {plural(card.items, 'item')} in {plural(card.sections, 'section')}
                </span>
                <span>{plural(card.skips, 'skip')}</span>
                {card.routes === null || card.snags === null ? (
                  <span
                    data-trouble
                    title="Counting its routes failed; the study itself stands and can be opened"
                  >
                    could not be examined
                  </span>
                ) : (
                  <>
                    <span>
                      {card.exact ? '' : 'at least '}
                      {countText(card.routes)} {card.routes === '1' ? 'route' : 'routes'}
                    </span>
                    <span data-trouble={card.snags > 0 || undefined}>
                      {card.snags === 0 ? 'no snags' : plural(card.snags, 'snag')}
                    </span>
                  </>
                )}
                <span>{card.passed} passed</span>
                <time dateTime={new Date(card.changedAt).toISOString()} suppressHydrationWarning>
                  changed {whenText(card.changedAt)}
                </time>
                <button
                  type="button"
                  aria-label={`Remove ${card.title}`}
                  title="Remove; it can be brought back"
                  onClick={() => void remove(card)}
                >
                  <Trash2 size={15} />
                </button>
              </li>
            ))}
          </ul>
        )}
      </main>
    </>
  );
}

function ImportButton({
  open,
  refuse,
}: {
  open: (document: unknown) => Promise<void>;
  refuse: (problem: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const read = async (file: File) => {
    if (/\.zip$/i.test(file.name) || file.type === 'application/zip') {
      const reply = await addWork(file);
      if (reply.ok) location.assign(`/studies/${reply.body.id}/script`);
      else refuse(`“${file.name}” cannot be used. ${reply.problem}`);
      return;
    }
    const result = readDocumentText(await file.text());
    if (result.ok) {
      await open(result.document);
      return;
    }
    const [first, ...others] = result.problems;
    const more = others.length === 0 ? '' : ` There are ${others.length} more like it.`;
    refuse(`“${file.name}” cannot be used. ${first === undefined ? '' : problemText(first)}.${more}`);
  };
  return (
    <>
      <button type="button" onClick={() => input.current?.click()}>
        <FileUp size={16} /> Import a file
      </button>
      <input
        ref={input}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        hidden
        aria-label="Questionnaire file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void read(file);
        }}
      />
    </>
  );
}

function Empty({ openDemo }: { openDemo: () => Promise<void> }) {
  return (
    <div className={classes.empty}>
      <h2>No studies yet</h2>
      <p>
        A study is one questionnaire: its sections and questions, the skips between them, and every route
        through them. Start an empty one, paste the questions you have drafted, import a{' '}
        <code>.fork.json</code> file, or look round in the demo.
      </p>
      <button type="button" onClick={() => void openDemo()}>
        Open the demo studies
      </button>
    </div>
  );
}
