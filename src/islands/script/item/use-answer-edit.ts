/** Changes the answer of a question. */
import type { Draft } from 'immer';
import type { Answer, Question } from '../../../core/document/types';
import { editQuestion, type ItemPlace } from '../../../core/editing/structure';
import { useStudy } from '../../state/store';

/** For a caller who knows the type of the answer. `field` says what is changed, so that what belongs together is one step. */
export function useAnswerEdit<Type extends Answer>(question: Question, place: ItemPlace) {
  const commit = useStudy((state) => state.commit);
  return (field: string, edit: (answer: Draft<Type>) => void) =>
    commit(
      editQuestion(place, field, `Change the answer of ${question.name}`, (draft) =>
        edit(draft.answer as Draft<Type>),
      ),
    );
}
