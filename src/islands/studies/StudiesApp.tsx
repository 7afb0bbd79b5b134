/** The home: studies at hand, and the ways to start another. */
import { ListPlus, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import * as v from 'valibot';
import { emptyQuestionnaire } from '../../core/editing/structure';
import type { Asker } from '../../wire/asker';
import { NothingSchema } from '../../wire/common';
import { StudyCardSchema, type StudyCard } from '../../wire/studies';
import { PasteStudy } from '../paste/PasteStudy';
import { NO_LIST, type PastedList } from '../state/pasting';
import { addStudy, call } from '../ui/api';
import { countText, plural, whenText } from '../ui/format';
import { useHydrated } from '../ui/hydrated';
import { Mark } from '../ui/Mark';
import { signOut } from '../ui/sign-out';
import { useAsked } from '../ui/use-asked';
import { SignedOut } from '../ui/SignedOut';
import { ImportButton } from './ImportButton';
import { ImportSheet } from './ImportSheet';
import classes from './studies.module.css';
import { useImport } from './use-import';

interface Pasting {
  readonly list: PastedList;
  /** What the study is called, unless somebody says otherwise. */
  readonly called: string;
}

const EMPTY: Pasting = { list: NO_LIST, called: 'Untitled study' };

interface Props {
  readonly cards: readonly StudyCard[];
  /** Who is signed in. */
  readonly asker: Asker | null;
}

/** What is told of a study that was taken off the list. */
interface Removed {
  readonly id: string;
  readonly title: string;
}

export default function StudiesApp({ cards: first, asker }: Props) {
  const ready = useHydrated();
  const [pasting, setPasting] = useState<Pasting | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [removed, setRemoved] = useState<Removed | null>(null);
  const cards = useFilledIn(first).filter((card) => card.id !== removed?.id);
  const shown = cards.filter(({ examined }) => examined?.is !== 'unreadable');
  const broken = cards.flatMap(({ id, examined }) =>
    examined?.is === 'unreadable' ? [{ id, problem: examined.problem }] : [],
  );

  const open = async (document: unknown) => {
    const reply = await addStudy(document);
    if (reply.ok) location.assign(`/studies/${reply.body.id}/script`);
    else setProblem(reply.problem);
  };
  const coming = useImport({
    open,
    refuse: setProblem,
    paste: (list, called) => setPasting({ list, called }),
  });
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
        {asker?.name != null && (
          <p className={classes.asker}>
            {asker.name}
            {asker.canSignOut && (
              <button type="button" disabled={!ready} onClick={() => void signOut().then(setProblem)}>
                Sign out
              </button>
            )}
          </p>
        )}
      </header>
      <SignedOut />
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
          <button
            type="button"
            onClick={() => setPasting(pasting === null ? EMPTY : null)}
            aria-expanded={pasting !== null}
          >
            <ListPlus size={16} /> Paste a list
          </button>
          <ImportButton choose={(file) => void coming.read(file)} busy={coming.busy} />
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
        {pasting !== null && (
          <PasteStudy
            key={pasting.list.source}
            first={pasting.list}
            called={pasting.called}
            take={(document) => void open(document)}
            cancel={() => setPasting(null)}
          />
        )}
        {coming.shown !== null && (
          <ImportSheet
            name={coming.shown.file.name}
            read={coming.shown.read}
            say={(head, column) => void coming.say(head, column)}
            take={(document) => void open(document)}
            cancel={coming.cancel}
          />
        )}
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
                <Examined card={card} />
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

/** What was found in it, or that it is being looked at. */
function Examined({ card: { examined, snags } }: { card: StudyCard }) {
  if (examined === null)
    return (
      <span role="status" className={classes.alone}>
        counting its routes …
      </span>
    );
  if (examined.is !== 'questionnaire')
    return (
      <span className={classes.alone} data-trouble title="The study itself stands and can be opened">
        {examined.is === 'failed' && examined.why === 'time'
          ? 'too entangled to be counted here'
          : 'could not be examined'}
      </span>
    );
  const { items, sections, skips, routes, exact } = examined;
  return (
    <>
      <span>
        {plural(items, 'item')} in {plural(sections, 'section')}
      </span>
      <span>{plural(skips, 'skip')}</span>
      <span>
        {exact ? '' : 'at least '}
        {countText(routes)} {routes === '1' ? 'route' : 'routes'}
      </span>
      <span data-trouble={(snags ?? 0) > 0 || undefined}>
        {snags === 0 ? 'no snags' : plural(snags ?? 0, 'snag')}
      </span>
    </>
  );
}

/** In milliseconds. */
const ASK_AGAIN = 800;

/** The list, asked for again until everything on it has been examined. */
function useFilledIn(first: readonly StudyCard[]): readonly StudyCard[] {
  const [cards, setCards] = useState(first);
  const isWhole = cards.every(({ examined }) => examined !== null);
  useAsked(
    () => (isWhole ? null : call(v.array(StudyCardSchema), 'GET', '/api/studies')),
    [isWhole],
    (reply) => {
      if (reply.ok) setCards(reply.body);
    },
    (askAgain) => {
      const timer = setInterval(askAgain, ASK_AGAIN);
      return () => clearInterval(timer);
    },
  );
  return cards;
}

function Empty({ openDemo }: { openDemo: () => Promise<void> }) {
  return (
    <div className={classes.empty}>
      <h2>No studies yet</h2>
      <p>
        A study is one questionnaire: its sections and questions, the skips between them, and every route
        through them. Start an empty one, paste the questions you have drafted, import a file (a questionnaire
        of ours, a list of items, a document, DDI, or what tells of a data set), or look round in the demo.
      </p>
      <button type="button" onClick={() => void openDemo()}>
        Open the demo studies
      </button>
    </div>
  );
}
