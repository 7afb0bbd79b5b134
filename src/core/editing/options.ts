/** Changes of an answer list: options added, pasted, moved, taken away, and what kind each is. */
import type { Draft } from 'immer';
import type { Answer, Option } from '../document/types';
import type { Change } from './change';
import { editQuestion, nextCode, type ItemPlace } from './structure';

/** What an option is besides an ordinary answer. */
export const OPTION_KINDS = [
  'ordinary',
  'specify',
  'exclusive',
  'dont_know',
  'refused',
  'not_available',
] as const;
export type OptionKind = (typeof OPTION_KINDS)[number];

export function optionKind(option: Option): OptionKind {
  if (option.missing !== undefined) return option.missing;
  if (option.exclusive) return 'exclusive';
  return option.specify ? 'specify' : 'ordinary';
}

/** Adds ordinary options at `at`, with free codes where none are given. */
export function addOptions(
  place: ItemPlace,
  at: number,
  added: readonly { readonly label: string; readonly code?: number }[],
): Change {
  return editQuestion(
    place,
    `add options ${at}`,
    added.length === 1 ? 'Add an answer' : `Add ${added.length} answers`,
    (question) => {
      const list = optionList(question.answer);
      if (list === null) return;
      added.forEach(({ label, code }, n) => {
        const free = code !== undefined && !list.some((option) => option.code === code);
        list.splice(at + n, 0, { code: free ? code : nextCode(list), label });
      });
    },
  );
}

export function removeOption(place: ItemPlace, at: number): Change {
  return editQuestion(place, `remove option ${at}`, 'Delete an answer', (question) => {
    optionList(question.answer)?.splice(at, 1);
  });
}

export function moveOption(place: ItemPlace, at: number, by: -1 | 1): Change {
  return editQuestion(place, `move option ${at}`, 'Move an answer', (question) => {
    const list = optionList(question.answer);
    const [option] = list?.splice(at, 1) ?? [];
    if (option !== undefined) list?.splice(at + by, 0, option);
  });
}

export function editOption(
  place: ItemPlace,
  at: number,
  field: string,
  label: string,
  edit: (option: Draft<Option>) => void,
): Change {
  return editQuestion(place, `option ${at} ${field}`, label, (question) => {
    const option = optionList(question.answer)?.[at];
    if (option !== undefined) edit(option);
  });
}

export function setOptionKind(place: ItemPlace, at: number, kind: OptionKind): Change {
  return editOption(place, at, 'kind', 'Change the kind of an answer', (option) => {
    delete option.missing;
    delete option.exclusive;
    delete option.specify;
    if (kind !== 'specify') {
      delete option.specifyLabel;
      delete option.specifyOptional;
    }
    if (kind === 'specify' || kind === 'exclusive') option[kind] = true;
    else if (kind !== 'ordinary') option.missing = kind;
  });
}

/** The options of an answer, or its specials, which are made where there are none yet; null where it can have none. */
function optionList(answer: Draft<Answer>): Draft<Option>[] | null {
  if ('options' in answer) return answer.options;
  if (answer.type === 'text') return null;
  answer.specials ??= [];
  return answer.specials;
}

const BULLET = /^\s*(?:[-*•–○□]|\(?\d{1,3}[.)]|\(?[a-z][.)])\s+/i;
const CODED = /^\s*(-?\d{1,6})\s*(?:\t|\s=\s|=|:\s)\s*(.+)$/;
const CODE_LAST = /^\s*(.+?)\t(-?\d{1,6})\s*$/;

/** Lines of a paste as options: bullets go, "1 = Yes" and two columns of a sheet give codes. */
export function optionsFromPaste(text: string): { label: string; code?: number }[] {
  return text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const coded = CODED.exec(line);
      if (coded?.[1] !== undefined && coded[2] !== undefined)
        return { label: coded[2].trim(), code: Number(coded[1]) };
      const last = CODE_LAST.exec(line);
      if (last?.[1] !== undefined && last[2] !== undefined)
        return { label: last[1].trim(), code: Number(last[2]) };
      return { label: line.replace(BULLET, '').trim() };
    });
}
