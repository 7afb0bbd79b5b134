/** What is done to the options of one question: written, added, removed, moved, by hand or by key. */
import type { KeyboardEvent } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { hasRows } from '../../../core/document/answer-types';
import { optionsOf } from '../../../core/document/shape';
import type { Option, Question } from '../../../core/document/types';
import {
  addOptions,
  editOption,
  moveOption,
  onEnter,
  removeOption,
  setOptionKind,
} from '../../../core/editing/options';
import { nextCode, type ItemPlace } from '../../../core/editing/structure';
import { focusField, thenFocus } from '../../fields/focus';
import { useItemMoves } from '../../fields/part-moves';
import { useStudy } from '../../state/store';

/** Codes of "don't know" beside a number, the usual one first. */
const DONT_KNOW_CODES = [98, 99, 97, 998, 999];

export type OptionList = ReturnType<typeof useOptionList>;

/** `o` is an index into the options; what is refused is said as a sentence, and null is a change made. */
export function useOptionList(question: Question, place: ItemPlace) {
  const commit = useStudy((state) => state.commit);
  const moves = useItemMoves();
  const options = optionsOf(question.answer);
  const listed = 'options' in question.answer;
  const label = (code: number) => fieldId(question.name, 'label', code);

  const setAskIf = (o: number, text: string | undefined) =>
    commit(
      editOption(place, o, 'askIf', 'Show an answer only if …', (draft) => {
        if (text === undefined) delete draft.askIf;
        else draft.askIf = text;
      }),
    );
  const setImage = (o: number, image: Option['image']) =>
    commit(
      editOption(place, o, 'image', 'Change the picture of an answer', (draft) => {
        if (image === undefined) delete draft.image;
        else draft.image = image;
      }),
    );
  const add = (at: number) => {
    // Beside a number, scale or date only "don't know" and the like can stand.
    if (!listed) {
      const taken = new Set(options.map(({ code }) => code));
      const code = DONT_KNOW_CODES.find((free) => !taken.has(free)) ?? nextCode(options);
      const addDontKnow = () => {
        commit(addOptions(place, at, [{ label: 'Don’t know', code }]));
        commit(setOptionKind(place, at, 'dont_know'));
      };
      thenFocus(addDontKnow, label(code), 'all');
    } else thenFocus(() => commit(addOptions(place, at, [{ label: '' }])), label(nextCode(options)));
  };
  const remove = (at: number) => {
    const neighbour = options[at === 0 ? 1 : at - 1];
    if (listed && neighbour === undefined) return;
    thenFocus(
      () => commit(removeOption(place, at)),
      neighbour === undefined ? fieldId(question.name, 'text') : label(neighbour.code),
    );
  };
  const enter = (at: number) => {
    const next = onEnter(options, at);
    if (next.does === 'add') add(next.at);
    else if (next.does === 'go') focusField(label(options[next.at]?.code ?? 0), 'all');
    else {
      commit(removeOption(place, at));
      moves.addAfter(place);
    }
  };
  /** Keys within the words of an option; `aim` opens where it leads. */
  const onKeyDown =
    (at: number, option: Option, aim: () => void) => (event: KeyboardEvent<HTMLTextAreaElement>) => {
      const { key, altKey } = event;
      if (altKey && (key === 'ArrowUp' || key === 'ArrowDown')) {
        const by = key === 'ArrowUp' ? -1 : 1;
        if (options[at + by] !== undefined)
          thenFocus(() => commit(moveOption(place, at, by)), label(option.code));
      } else if (altKey && key === 'ArrowRight') aim();
      else if (key === 'Enter' && (event.ctrlKey || event.metaKey)) moves.addAfter(place);
      else if (key === 'Enter' && event.shiftKey) add(at + 1);
      else if (key === 'Enter') enter(at);
      else if (key === 'Backspace' && option.label === '') remove(at);
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
  return {
    options,
    /** Whether the answer is one of the options; else they stand beside a number or a text. */
    listed,
    /** Whether each can lead somewhere of its own. */
    aimable: listed && !hasRows(question.answer),
    label,
    setAskIf,
    setImage,
    add,
    onKeyDown,
  };
}
