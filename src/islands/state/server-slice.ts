/**
 * What the server and the worker know of a study beside its document: lists that are fetched and kept up by hooks, the last
 * analysis, and what one view leaves for another.
 */
import type { Aside } from '../../wire/asides';
import type { Comment } from '../../wire/comments';
import type { Verdict } from '../../wire/verdicts';
import { ALL_ROUTES } from '../../worker/list-query';
import { NO_LIST, OVER_ALL } from './pasting';
import type { GetState, SetState } from './study-slices';
import type { StudyState } from './study-state';

export type ServerSlice = Pick<
  StudyState,
  | 'routed'
  | 'asides'
  | 'comments'
  | 'respondents'
  | 'others'
  | 'versions'
  | 'routesWanted'
  | 'passing'
  | 'toWalk'
  | 'walkList'
  | 'pasting'
  | 'verdicts'
  | 'standing'
  | 'became'
  | 'analysis'
  | 'analysisProblem'
  | 'setAsides'
  | 'setComments'
  | 'setRespondents'
  | 'setOthers'
  | 'setVersions'
  | 'setRoutesWanted'
  | 'setPassing'
  | 'setToWalk'
  | 'setWalkList'
  | 'setPasting'
  | 'setVerdicts'
  | 'setStanding'
  | 'setAnalysis'
>;

/** The lists that come with the page. */
export interface FirstLists {
  readonly verdicts: readonly Verdict[];
  readonly asides: readonly Aside[];
  readonly comments: readonly Comment[];
}

export function serverSlice(set: SetState, get: GetState, first: FirstLists): ServerSlice {
  return {
    ...first,
    routed: null,
    respondents: [],
    others: null,
    versions: null,
    routesWanted: 'cover',
    passing: null,
    toWalk: null,
    walkList: ALL_ROUTES,
    pasting: { open: false, at: OVER_ALL, list: NO_LIST },
    standing: {},
    became: {},
    analysis: null,
    analysisProblem: null,

    setAsides: (asides) => set({ asides }),
    setComments: (comments) => set({ comments }),
    setRespondents: (respondents) => set({ respondents }),
    setOthers: (others) => set({ others }),
    setVersions: (versions) => set({ versions }),
    setRoutesWanted: (routesWanted) => set({ routesWanted }),
    setPassing: (passing) => set({ passing }),
    setToWalk: (toWalk) => set({ toWalk }),
    setWalkList: (walkList) => set({ walkList }),
    setPasting: (pasting) => set({ pasting }),
    setVerdicts: (verdicts) => set({ verdicts }),
    setStanding: (standing, became) => set({ standing, became }),
    setAnalysis(analysis, problem) {
      set({ analysisProblem: problem ?? null });
      if (analysis === null) return;
      // Who is asked what comes after the counts; until then, what was last known stands.
      const known = Object.keys(analysis.asked).length > 0;
      if (analysis.snags !== null) set({ routed: { snags: analysis.snags, document: analysis.document } });
      const { asked = {}, passes = {} } = get().analysis ?? {};
      set({ analysis: known ? analysis : { ...analysis, asked, passes } });
    },
  };
}
