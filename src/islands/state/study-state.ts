/** What is known of one open study, and what can be done to it: the shape of its store. */
import type { StoreApi } from 'zustand';
import { address, type Address } from '../../core/document/addresses';
import type { Questionnaire } from '../../core/document/types';
import type { Clash } from '../../core/editing/apply-operations';
import type { Change } from '../../core/editing/change';
import type { RoutesWanted } from '../../core/release/gate';
import type { Plan } from '../../core/routing/plan';
import type { OtherStudy, Snag, SnagWitness } from '../../core/snags';
import type { Aside } from '../../wire/asides';
import type { Comment } from '../../wire/comments';
import type { KeptRespondent } from '../../wire/respondents';
import type { Verdict } from '../../wire/verdicts';
import type { Version } from '../../wire/versions';
import type { Analysed } from '../../worker/client';
import type { ListQuery } from '../../worker/list-query';
import type { PassedRoutes } from '../../worker/release/types';
import type { Became } from '../../worker/types';
import type { Pasting } from './pasting';
import type { SavingState } from './save-queue';

/** A part of the questionnaire, or the list of all comments. */
export type Selection = Address | 'comments' | null;

export function partSelected(selection: Selection): Address | null {
  return selection === 'comments' ? null : selection;
}

/** By whom a study is opened. */
export interface By {
  /** That of a reviewer's link, or of who is signed in; null of whoever gives a name. */
  readonly name: string | null;
  /** By a reviewer's link: to be read, walked and judged, not changed. */
  readonly reviewing: boolean;
  /** The version that is opened in place of the draft: to be read and walked. */
  readonly version?: Version | null;
  /** The link whose questionnaire is opened, as it asks it: to walk its responses again. */
  readonly link?: LinkOpened | null;
}

export interface LinkOpened {
  readonly token: string;
  readonly name: string;
  /** Number of the version; null of a draft. */
  readonly version: number | null;
  /** Number of the follow-up; 0 for the questionnaire of the link. */
  readonly questionnaire: number;
}

export interface StudyState extends SavingState {
  /** Opened by a reviewer's link, of which `id` is then the token: nothing of the study can be changed. */
  readonly reviewing: boolean;
  /** The version that is shown in place of the draft; null for the draft. */
  readonly version: Version | null;
  /** The link under which respondents are asked what is shown, in place of the draft; null for the draft. */
  readonly link: LinkOpened | null;
  /** Why nothing can be changed here, as a sentence; null where everything can. */
  readonly readOnly: string | null;
  /** In whose name, by the link or by signing in; null for whoever gives a name. */
  readonly reviewer: string | null;
  /** Where the server keeps what belongs to the study, and where its stops are. */
  readonly api: string;
  readonly home: string;
  /** The document as it was when the study was opened here. */
  readonly opened: Questionnaire;
  readonly plan: Plan;
  /** The snags that the document shows by itself, a frame after it; `useSnags` gives them all. */
  readonly snags: readonly Snag[];
  /** The snags that only the routes show, as last looked for, and in which document. */
  readonly routed: { readonly snags: readonly Snag[]; readonly document: Questionnaire } | null;
  readonly asides: readonly Aside[];
  readonly comments: readonly Comment[];
  /** The studies that an ending can hand on to; null until they have come. */
  readonly others: readonly OtherStudy[] | null;
  /** Those kept and frozen, the newest first; null until they have come. */
  readonly versions: readonly Version[] | null;
  /** Which routes are to be passed before the study is frozen. */
  readonly routesWanted: RoutesWanted;
  /** How far the routes were passed, as last asked, and of what; null until it is known. */
  readonly passing: {
    readonly routes: PassedRoutes;
    readonly document: Questionnaire;
    readonly verdicts: readonly Verdict[];
  } | null;
  /** Walks that are kept, to be walked again on every edit. */
  readonly respondents: readonly KeptRespondent[];
  /** The list of routes shown last, in whose order they are walked one after the other. */
  readonly walkList: ListQuery;
  /** Somebody to be walked, who meets a snag; taken by the Walk view. */
  readonly toWalk: ToWalk | null;
  readonly selection: Selection;
  /** Keys of several items selected together, the selected one among them; empty where it is alone. */
  readonly group: ReadonlySet<Address>;
  /** Ids of the sections folded away on the sheet. */
  readonly folded: ReadonlySet<string>;
  /** What the last change left behind that leads nowhere any more; null where there is nothing to tell. */
  readonly notice: Notice | null;
  /** What was just taken back, done again or deleted; null once the work goes on. */
  readonly said: Saying | null;
  /** A list of questions that is being put in; kept while its panel is closed. */
  readonly pasting: Pasting;
  readonly verdicts: readonly Verdict[];
  /** Number of the route on which each verdict stands, by fingerprint; null where an edit re-opened it. */
  readonly standing: Readonly<Record<string, string | null>>;
  /** For those that an edit re-opened: the route that their respondent takes now, where there is one. */
  readonly became: Readonly<Record<string, Became | null>>;
  /** Null until the first analysis has come; may be of an older document than `document`. */
  readonly analysis: Analysed | null;
  readonly analysisProblem: string | null;

  /** Makes a change; returns why it cannot be made, in which case nothing has changed. */
  commit(change: Change): string | null;
  undo(): void;
  redo(): void;
  select(selection: Selection): void;
  /** Selects all items from the one selected to another; null where one of the two is none. */
  selectTo(key: Address): void;
  closeNotice(): void;
  closeSaid(): void;
  fold(section: string, away: boolean): void;
  setAsides(asides: readonly Aside[]): void;
  setComments(comments: readonly Comment[]): void;
  setRespondents(respondents: readonly KeptRespondent[]): void;
  setOthers(others: readonly OtherStudy[]): void;
  setVersions(versions: readonly Version[]): void;
  setRoutesWanted(wanted: RoutesWanted): void;
  setPassing(passing: StudyState['passing']): void;
  setToWalk(toWalk: ToWalk | null): void;
  setWalkList(list: ListQuery): void;
  setPasting(pasting: Pasting): void;
  setVerdicts(verdicts: readonly Verdict[]): void;
  setStanding(standing: StudyState['standing'], became: StudyState['became']): void;
  setAnalysis(analysis: Analysed | null, problem?: string): void;
  /** Where saving met another version: for each place in which both wrote, whether mine is to stand. */
  settle(keepMine: (clash: Clash) => boolean): void;
  /** The same as a whole: the other version is taken over here; `copy` first makes a study of one's own. */
  takeTheirs(mine: 'copy' | 'drop'): Promise<void>;
  /** Takes in what others have saved since. */
  look(): Promise<void>;
  /** Saves what waits to be saved; also to be called once the study is on the page. */
  saveNow(): void;
  /** Keeps and sends what is not saved, as the page goes. */
  leave(): void;
  /** Takes up what another visit left unsaved in this browser. */
  takeUp(unsaved: Pick<SavingState, 'base' | 'document' | 'revision'>): void;
  /** The page that kept what this one began with; null where it began with what the server had. */
  readonly keptBy: string | null;
  /** Keeps in the tab what is not kept yet; to be called when the page goes. */
  keepNow(): void;
}

export interface Notice {
  /** What was done. */
  readonly label: string;
  /** The errors that were not there before. */
  readonly snags: readonly Snag[];
}

export interface Saying {
  readonly text: string;
  /** It can be taken back by the next undo. */
  readonly canTakeBack: boolean;
  /** Where it is to be seen, if it is to be looked at. */
  readonly at: Address | null;
}

export interface ToWalk {
  readonly witness: SnagWitness;
  /** Name of the item at which they meet the snag; null where it is at none. */
  readonly item: string | null;
}

export interface InitialStudy {
  readonly id: string;
  readonly document: Questionnaire;
  readonly revision: number;
  readonly changedAt: number;
}

export type StudyStore = StoreApi<StudyState>;

/** Where an item stands that is selected, or a section (`item` null); null for anything else. */
export function placeSelected(
  { sections }: Questionnaire,
  selection: Selection,
): { readonly section: number; readonly item: number | null } | null {
  for (const [section, { id, items }] of sections.entries()) {
    if (selection === address('section', id)) return { section, item: null };
    const item = items.findIndex(
      (each) => each.kind !== 'page_break' && selection === address('item', each.name),
    );
    if (item >= 0) return { section, item };
  }
  return null;
}
