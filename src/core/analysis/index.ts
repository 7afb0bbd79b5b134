/**
 * The one door to the analysis: what a questionnaire's routes are, who is asked what, with which shares, and which few
 * routes show everything. Inside, folders build on those before them:
 * diagrams → answers → conditions → counting → reach → shares → lists → cover.
 */
export { analyse } from './analyse';
export type { Ahead, Analysis, ContentMarkOf, PassAsked, RouteLength } from './analysis';

export { Diagrams, FALSE, TRUE, type Diagram } from './diagrams/diagram';
export { DEFAULT_CAPS, TooMuch, withinMemory, type Caps } from './diagrams/limits';

export { candidatesFor, plausibleTexts } from './answers/candidates';
export { alikeTo } from './answers/classes';
export {
  driversOf,
  pipedBy,
  testsOn,
  variablesIn,
  type Driver,
  type Drivers,
  type Limit,
} from './answers/drivers';
export { AnswerSymbol } from './answers/answer-symbol';
export type { Via } from './answers/via';

export type { Viewpoint } from './conditions/answers-read';
export { IDLE } from './conditions/symbol-table';
export { EncodedPlan } from './conditions/encoded-plan';

export type { Route } from './counting/routes';
export { AnalysisCache } from './counting/analysis-cache';

export { Coming } from './reach/coming';
export { flowOf, type Flow } from './reach/flow';
export { sameRouting } from './reach/same-routing';
export { shortestTest } from './reach/tests-in-words';
export { waysFrom, type ForkEvent } from './reach/fork-events';

export type { Assumptions } from './shares/answer-weights';
export { jointly, type Jointly, type ShownOtherwise } from './shares/jointly';
export { whoFlows, whoFlowsOn, type Flowing, type FlowWords } from './shares/flow-words';
export type { Length } from './shares/lengths';
export type { Likeliest, LikelyRoute } from './shares/likeliest';
export { prospectOf, type Group, type Prospect } from './shares/prospect';
export type { Leaning } from './shares/situation-chances';
export { itemSharesOf, sharesOf, type Shares, type WayShare } from './shares/shares';
export { transitionsOf, type Transition } from './shares/transitions';

export { MOST_THROUGH, type RouteFilter, type RoutesLeft } from './lists/filters';
export { less, listed, withFront, without } from './lists/lists';
export type { Selected, Selection } from './lists/selection';
export type { FilteredRoutes } from './lists/via-routes';
export type { RouteVersion } from './lists/route-difference';
export { RouteContents } from './lists/route-contents';

export { coverWithin } from './cover/cover-routes';
export {
  coverRoutes,
  pairRoutes,
  type ChosenRoute,
  type CoverResult,
  type CoverSoFar,
  type PairsResult,
} from './cover/covering';
export { alongPath } from './cover/fork-path';
