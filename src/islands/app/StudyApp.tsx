/** One open study: the strip of stops on top, the view of the current stop below. */
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Aside } from '../../wire/asides';
import type { Comment } from '../../wire/comments';
import type { Verdict } from '../../wire/verdicts';
import { AnalysisClient, type Analysed } from '../../worker/client';
import { ReleaseClient } from '../../worker/release/client';
import type { By, InitialStudy, StudyStore } from '../state/study-state';
import { CodesView } from '../codes/CodesView';
import { DataContext, newData } from '../state/data';
import { ForecastView } from '../forecast/ForecastView';
import { ForksView } from '../forks/ForksView';
import { ReleaseView } from '../release/ReleaseView';
import { RoutesView } from '../routes/RoutesView';
import { ScriptView } from '../script/ScriptView';
import { WalkView } from '../walk/WalkView';
import { AnalysisContext } from '../state/analysis';
import { useCommentsFollow } from '../state/comments';
import { Conflict } from './Conflict';
import { LeftBehind, NotSaved } from './LeftBehind';
import { LinkStrip } from './LinkStrip';
import { GoToContext, type GoTo } from '../state/going';
import { useStanding } from '../state/ledger';
import { useOthers } from '../state/others';
import { useOtherStudies } from '../state/hand-off';
import { ReleaseContext, usePassing } from '../state/gate';
import { useRespondents } from '../state/respondents';
import { useVersions } from '../state/versions';
import { ReviewStrip } from './ReviewStrip';
import { ReadScript } from './ReadScript';
import { VersionStrip } from './VersionStrip';
import { SignedOut } from '../ui/SignedOut';
import { StopStrip } from './StopStrip';
import { SaidLine } from './SaidLine';
import { createStudyStore, StudyContext } from '../state/store';
import { isStop, type Stop } from '../state/stops';
import classes from './study.module.css';
import { useUndoKeys } from './undo-keys';
import { why } from '../ui/why';

interface Props {
  readonly study: InitialStudy;
  readonly verdicts: readonly Verdict[];
  readonly asides: readonly Aside[];
  readonly comments: readonly Comment[];
  readonly stop: Stop;
  readonly by: By;
  /** Whether whoever opened it can sign out. */
  readonly canSignOut?: boolean;
}

/** What each stop shows; who can change nothing reads the script. */
const VIEWS: Readonly<Record<Stop, (goTo: GoTo, readOnly: boolean) => ReactNode>> = {
  script: (_, readOnly) => (readOnly ? <ReadScript /> : <ScriptView />),
  forks: () => <ForksView />,
  routes: (goTo) => <RoutesView walk={(number) => goTo('walk', `?route=${number}`)} />,
  walk: () => <WalkView />,
  codes: () => <CodesView />,
  forecast: () => <ForecastView />,
  release: () => <ReleaseView />,
};

export default function StudyApp({
  study,
  verdicts,
  asides,
  comments,
  stop: first,
  by,
  canSignOut = false,
}: Props) {
  const { reviewing, version = null, link = null } = by;
  const readOnly = reviewing || version !== null || link !== null;
  const [store] = useState(() => createStudyStore(study, verdicts, asides, comments, by));
  const [client] = useState(() => analysing(store));
  const [data] = useState(newData);
  const release = useMemo(() => new ReleaseClient(), []);
  const [stop, goTo] = useStop(store.getState().home, first);
  useAnalysis(store, client);
  useUndoKeys(store);
  useCommentsFollow(store);
  useOthers(store);
  useRespondents(store);
  useOtherStudies(store);
  useVersions(store);
  usePassing(store, release, stop === 'release');
  useEffect(() => {
    if (!readOnly) store.getState().saveNow();
  }, [store, readOnly]);
  useLeaving(store);
  return (
    <StudyContext.Provider value={store}>
      <AnalysisContext.Provider value={client}>
        <GoToContext.Provider value={goTo}>
          <DataContext.Provider value={data}>
            <ReleaseContext.Provider value={release}>
              <div className={classes.frame}>
                <Standing />
                <Strip by={by} stop={stop} goTo={goTo} canSignOut={canSignOut} />
                {!readOnly && <Conflict />}
                <SignedOut />
                {!readOnly && <NotSaved />}
                {!readOnly && <LeftBehind />}
                <main className={classes.view} key={stop}>
                  {VIEWS[stop](goTo, readOnly)}
                </main>
                <SaidLine />
              </div>
            </ReleaseContext.Provider>
          </DataContext.Provider>
        </GoToContext.Provider>
      </AnalysisContext.Provider>
    </StudyContext.Provider>
  );
}

interface StripProps {
  readonly by: By;
  readonly stop: Stop;
  readonly goTo: GoTo;
  readonly canSignOut: boolean;
}

function Strip({ by: { reviewing, version = null, link = null }, stop, goTo, canSignOut }: StripProps) {
  if (link !== null) return <LinkStrip link={link} />;
  if (version !== null) return <VersionStrip version={version} stop={stop} goTo={goTo} />;
  return reviewing ? (
    <ReviewStrip stop={stop} goTo={goTo} />
  ) : (
    <StopStrip stop={stop} goTo={goTo} canSignOut={canSignOut} />
  );
}

function Standing() {
  useStanding();
  return null;
}

/** Keeps what is not saved as the page goes or is put away; warns where going would lose something. */
function useLeaving(store: StudyStore): void {
  useEffect(() => {
    if (store.getState().readOnly !== null) return;
    const keep = () => store.getState().keepNow();
    const leave = () => store.getState().leave();
    // Only where going would lose something: asked too often, nobody reads it.
    const warn = (event: BeforeUnloadEvent) => {
      const { saving, keeping } = store.getState();
      if (saving.state !== 'saved' && keeping === 'full') event.preventDefault();
    };
    addEventListener('pagehide', leave);
    addEventListener('beforeunload', warn);
    document.addEventListener('visibilitychange', keep);
    return () => {
      keep();
      removeEventListener('pagehide', leave);
      removeEventListener('beforeunload', warn);
      document.removeEventListener('visibilitychange', keep);
    };
  }, [store]);
}

/** The current stop is the last part of the address; moving between stops reloads nothing. */
function useStop(home: string, first: Stop): [Stop, GoTo] {
  const [stop, setStop] = useState(first);
  useEffect(() => {
    const onPop = () => {
      const last = location.pathname.split('/').at(-1) ?? '';
      if (isStop(last)) setStop(last);
    };
    addEventListener('popstate', onPop);
    return () => removeEventListener('popstate', onPop);
  }, []);
  const goTo = (next: Stop, search = '') => {
    history.pushState(null, '', `${home}/${next}${search}`);
    setStop(next);
  };
  return [stop, goTo];
}

/** In milliseconds. A pause in writing is waited for that is as long as the analysis takes, within these bounds. */
const ANALYSE_AFTER = 40;
const ANALYSE_AFTER_AT_MOST = 600;
const ASKED_AFTER = 200;

/** The analysis comes up while the page is drawn: on large questionnaires either takes its time. */
function analysing(store: StudyStore): AnalysisClient {
  const client = new AnalysisClient();
  // Told by whoever follows it.
  client.analyse(store.getState().document).catch(() => undefined);
  return client;
}

/** Has every version of the document analysed; a newer one ends the analysis of an older one. */
function useAnalysis(store: ReturnType<typeof createStudyStore>, client: AnalysisClient): void {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    let document = store.getState().document;
    let takes = 0;
    const pause = () => Math.min(Math.max(takes, ANALYSE_AFTER), ANALYSE_AFTER_AT_MOST);
    const analyse = async () => {
      try {
        const began = performance.now();
        const result = await client.analyse(document);
        if (result === null) return;
        // An edit of words takes no time at all; the next one may be another.
        takes = Math.max(performance.now() - began, takes / 2);
        store.getState().setAnalysis(result);
        // Not while somebody is typing: it takes longer than the counts.
        timer.current = setTimeout(() => void tellAsked(result), Math.max(ASKED_AFTER, pause()));
      } catch (error) {
        store.getState().setAnalysis(null, why(error));
      }
    };
    const tellAsked = async (result: Analysed) => {
      // Each stands without the others: where one fails, what was known before is left as it is, and that is said.
      let so = result;
      let problem: string | undefined;
      for (const more of ['withAsked', 'withSample', 'withSnags'] as const) {
        try {
          const next = await client[more](so);
          if (next?.document !== document) return;
          so = next;
        } catch (error) {
          problem ??= why(error);
        }
        if (so.document !== document) return;
        store.getState().setAnalysis(so, problem);
      }
    };
    void analyse();
    const unsubscribe = store.subscribe((state) => {
      if (state.document === document) return;
      document = state.document;
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void analyse(), pause());
    });
    return () => {
      unsubscribe();
      clearTimeout(timer.current);
      client.stop();
    };
  }, [store, client]);
}
