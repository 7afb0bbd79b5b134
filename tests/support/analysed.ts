/** What the analysis worker says first of a questionnaire without routes worth telling. */
import type { AnalysisSummary } from '../../src/worker/types';

export const SUMMARY: AnalysisSummary = {
  routes: '2',
  exact: true,
  limits: [],
  endings: [],
  items: {},
  shortest: null,
  longest: null,
};
