/** Changes of an answer list: options added, pasted, moved, taken away, and what kind each is. */
import { original, type Draft } from 'immer';
import { isWritten } from '../document/answer-types';
import { OPTION_MISSING, type Answer, type Option } from '../document/types';
import { OPTIONS_MISSING } from '../document/vocabularies';
import type { Change } from './change';
import { editQuestion, nextCode, type ItemPlace } from './structure';
import { isSuggested } from './suggested';

/** What an option is besides an ordinary answer. */
export const OPTION_KINDS = ['ordinary', 'specify', 'exclusive', ...OPTION_MISSING] as const;
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
    null,
    added.length === 1 ? 'Add an answer' : `Add ${added.length} answers`,
    (question) => {
      const list = optionList(question.answer);
      if (list === null) return;
      insert(list, at, added);
    },
  );
}

/** Writes the words of an answer; the first that is written in place of a suggestion replaces all of it. */
export function writeOption(place: ItemPlace, at: number, text: string): Change {
  return editQuestion(place, `option ${at} label`, 'Write an answer', (question) => {
    const list = optionList(question.answer);
    const option = list?.[at];
    if (list === null || option === undefined) return;
    // Words that only go on with the suggested ones take them over.
    const replaces = at === 0 && isSuggested(original(list) ?? []) && !text.startsWith(option.label);
    if (replaces) replaceSuggestion(list, [{ label: text }]);
    else option.label = text;
  });
}

/** Pastes answers behind the one at `at`, or in its place where that is blank; a suggestion goes as a whole. */
export function pasteOptions(
  place: ItemPlace,
  at: number,
  pasted: readonly { readonly label: string; readonly code?: number }[],
): Change {
  return editQuestion(place, null, `Paste ${pasted.length} answers`, (question) => {
    const list = optionList(question.answer);
    if (list === null) return;
    if (isSuggested(original(list) ?? [])) {
      replaceSuggestion(list, pasted);
      return;
    }
    const blank = list[at]?.label === '' && list.length > 1;
    if (blank) list.splice(at, 1);
    insert(list, blank ? at : at + 1, pasted);
  });
}

/** Answers of one's own in place of Yes and No; what the study adds to every question stays behind them. */
function replaceSuggestion(
  list: Draft<Option>[],
  own: readonly { readonly label: string; readonly code?: number }[],
): void {
  list.splice(0, list.length, ...list.filter(({ missing }) => missing !== undefined));
  insert(list, 0, own);
}

function insert(
  list: Draft<Option>[],
  at: number,
  added: readonly { readonly label: string; readonly code?: number }[],
): void {
  added.forEach(({ label, code }, n) => {
    const free = code !== undefined && !list.some((option) => option.code === code);
    list.splice(at + n, 0, { code: free ? code : nextCode(list), label });
  });
}

/** What Enter does in a list that is being written. */
export type OnEnter = { readonly does: 'go' | 'add'; readonly at: number } | { readonly does: 'end' };

/**
 * In the entry at `at`: on to the next one; behind the last a new one; and an empty last one ends the list. What
 * stands at the foot for missing answers is no part of the list that is written.
 */
export function onEnter(
  list: readonly { readonly label: string; readonly missing?: unknown }[],
  at: number,
): OnEnter {
  const [here, next] = [list[at], list[at + 1]];
  const goesOn = next !== undefined && (next.missing === undefined || here?.missing !== undefined);
  if (goesOn) return { does: 'go', at: at + 1 };
  return here?.label === '' && list.length > 1 ? { does: 'end' } : { does: 'add', at: at + 1 };
}

export function removeOption(place: ItemPlace, at: number): Change {
  return editQuestion(place, null, 'Delete an answer', (question) => {
    optionList(question.answer)?.splice(at, 1);
  });
}

export function moveOption(place: ItemPlace, at: number, by: -1 | 1): Change {
  return editQuestion(place, null, 'Move an answer', (question) => {
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

/** The usual code for an answer that counts as missing; null where it has one of the kind, or all are taken. */
export function usualCode(options: readonly Option[], { code, missing }: Option): number | null {
  if (missing === undefined || code > 90 || code < 0) return null;
  return (
    OPTIONS_MISSING[missing].codes.find((usual) => !options.some((other) => other.code === usual)) ?? null
  );
}

/** The options of an answer, or its specials, which are made where there are none yet; null where it can have none. */
function optionList(answer: Draft<Answer>): Draft<Option>[] | null {
  if ('options' in answer) return answer.options;
  if (isWritten(answer)) return null;
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
