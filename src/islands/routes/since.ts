/** The questionnaire as it was before the last edit made here. */
import type { Questionnaire } from '../../core/document/types';
import type { HistoryStep } from '../../core/editing/change';
import { undoLast } from '../../core/editing/history';

/** The document itself where nothing was edited. */
export function beforeLastEdit(document: Questionnaire, past: readonly HistoryStep[]): Questionnaire {
  return undoLast(document, past)?.document ?? document;
}
