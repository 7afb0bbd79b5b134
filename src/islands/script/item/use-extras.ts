/** Sets, takes away and adds what an item has besides its words and answers. */
import type { Draft } from 'immer';
import { useState } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { optionsOf } from '../../../core/document/shape';
import type { Check, Question, RoutedItem } from '../../../core/document/types';
import { editItem, type ItemPlace } from '../../../core/editing/structure';
import { thenFocus } from '../../fields/focus';
import { useStudy } from '../../state/store';
import { TEXTS, type Addable, type TextKey } from './extras';

export type Extras = ReturnType<typeof useExtras>;

/** Each change returns why it was refused, as a sentence, or null; `problem` is the last of them. */
export function useExtras(item: RoutedItem, place: ItemPlace) {
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const { name } = item;
  const question = item.kind === 'question' ? item : null;
  const edit = (key: string, change: (draft: Draft<Question>) => void) => {
    const refused = commit(
      editItem(place, key, `Change ${name}`, (draft) => {
        // A statement has fewer of these properties, and only those are offered.
        if (draft.kind !== 'page_break') change(draft as Draft<Question>);
      }),
    );
    setProblem(refused);
    return refused;
  };
  const set = <Key extends keyof Question>(key: Key, value: Question[Key] | undefined) =>
    edit(key, (draft) => {
      const record = draft as Record<string, unknown>;
      if (value === undefined) delete record[key];
      else record[key] = value;
    });
  const field = (key: string) => fieldId(name, key);
  const addCheck = () => {
    const check: Check = { if: '', kind: 'hard', message: '' };
    thenFocus(
      () => edit('checks', (draft) => void (draft.checks = [...(draft.checks ?? []), check])),
      fieldId(name, 'check', question?.checks?.length ?? 0),
    );
  };
  const add = (key: Addable) => {
    if (key in TEXTS) thenFocus(() => set(key as TextKey, ''), field(key));
    else if (key === 'sensitive') set('sensitive', true);
    else if (key === 'measure') thenFocus(() => set('measure', 'nominal'), field(key));
    else if (key === 'seconds') thenFocus(() => set('seconds', 10), field(key), 'all');
    else if (key === 'agrees') {
      const [first] = question === null ? [] : optionsOf(question.answer);
      set('agrees', [first?.code ?? 1]);
    } else if (key === 'checks') addCheck();
    else if (key === 'missingCodes') set('missingCodes', {});
    else if (key === 'assume') set('assume', {});
  };
  return { question, edit, set, field, add, problem, say: setProblem };
}
