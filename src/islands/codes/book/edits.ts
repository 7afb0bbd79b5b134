/** Changes of the codebook, as changes of the questionnaire; each gives why it cannot be made, or null. */
import type { Measure } from '../../../core/document/answer-types';
import { editOption } from '../../../core/editing/options';
import { recode, recodeProblem } from '../../../core/editing/recode';
import { editQuestion } from '../../../core/editing/structure';
import type { BookRow } from '../../../core/views/codebook';
import { useStudyStore } from '../../state/store';

export function useBookEdits({ place, item }: BookRow) {
  const store = useStudyStore();
  const nowhere = 'There is no question here.';
  const { commit } = store.getState();
  return {
    setLabel: (label: string) =>
      place === null
        ? nowhere
        : commit(
            editQuestion(place, 'label', `Label ${item ?? ''}`, (question) => {
              if (label === '') delete question.label;
              else question.label = label;
            }),
          ),
    setMeasure: (measure: Measure | null) =>
      place === null
        ? nowhere
        : commit(
            editQuestion(place, 'measure', `Change the level of ${item ?? ''}`, (question) => {
              if (measure === null) delete question.measure;
              else question.measure = measure;
            }),
          ),
    setOptionLabel: (at: number, label: string) => {
      if (label === '') return 'An answer has words.';
      return place === null
        ? nowhere
        : commit(
            editOption(
              place,
              at,
              'label',
              `Change an answer of ${item ?? ''}`,
              (option) => void (option.label = label),
            ),
          );
    },
    /** Carried through conditions, and, once it is saved, through rows that are stored. */
    setOptionCode: (from: number, to: number) => {
      if (place === null) return nowhere;
      const { document } = store.getState();
      const recoding = new Map([[from, to]]);
      return recodeProblem(document, place, recoding) ?? commit(recode(document, place, recoding));
    },
    /** Null: as the plan says. */
    setMissing: (reason: string, code: number | null) =>
      place === null
        ? nowhere
        : commit(
            editQuestion(
              place,
              `missing ${reason}`,
              `Code of ${item ?? ''} for ${reason.replaceAll('_', ' ')}`,
              (question) => {
                const others = Object.entries(question.missingCodes ?? {}).filter(
                  ([each]) => each !== reason,
                );
                const next = Object.fromEntries(code === null ? others : [...others, [reason, code]]);
                if (Object.keys(next).length === 0) delete question.missingCodes;
                else question.missingCodes = next;
              },
            ),
          ),
  };
}
