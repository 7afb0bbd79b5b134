/** Changes of what stands around the sections: given values and random arms, quotas, derived variables. */
import { castDraft, type Draft } from 'immer';
import { freshName } from '../document/names';
import type { Derived, Given, Questionnaire, Quota } from '../document/types';
import type { Change, DocumentDraft } from './change';
import { editEntry, takenNames } from './structure';

/** A list that a questionnaire may have, with what it holds. */
export interface DeclarationLists {
  readonly given: Given;
  readonly quotas: Quota;
  readonly derived: Derived;
}
export type DeclarationList = keyof DeclarationLists;

export function editDeclaration<List extends DeclarationList>(
  list: List,
  at: number,
  field: string,
  label: string,
  edit: (entry: Draft<DeclarationLists[List]>) => void,
): Change {
  return editEntry(
    (draft) => draft[list]?.[at] as Draft<DeclarationLists[List]> | undefined,
    `${list} ${at} ${field}`,
    label,
    edit,
  );
}

/** A list that becomes empty is taken away. */
export function removeDeclaration(document: Questionnaire, list: DeclarationList, at: number): Change {
  const entry = document[list]?.[at];
  const name = entry === undefined ? '' : 'id' in entry ? entry.id : entry.name;
  return {
    label: `Delete ${name}`,
    telling: true,
    apply: (draft) => {
      draft[list]?.splice(at, 1);
      if (draft[list]?.length === 0) delete draft[list];
    },
  };
}

export function moveDeclaration(list: DeclarationList, at: number, by: -1 | 1): Change {
  return {
    label: 'Change the order',
    telling: true,
    apply: (draft) => {
      const entries = draft[list] as unknown[] | undefined;
      const [entry] = entries?.splice(at, 1) ?? [];
      if (entry !== undefined) entries?.splice(at + by, 0, entry);
    },
  };
}

/** A value known before the start; a random arm is drawn then, and has two arms to begin with. */
export function addGiven(document: Questionnaire, random: boolean): Change & { readonly name: string } {
  const name = freshName(random ? 'arm' : 'known', takenNames(document));
  const given: Given = {
    name,
    label: random ? 'Arm of the study' : 'Known beforehand',
    answer: {
      type: 'single',
      options: [
        { code: 1, label: random ? 'Arm A' : 'Yes' },
        { code: 2, label: random ? 'Arm B' : 'No' },
      ],
    },
    ...(random ? { random } : {}),
  };
  return { name, ...adding(`Add ${name}`, 'given', given) };
}

/** Why no quota can be added; null where one can. */
export function quotaProblem(document: Questionnaire): string | null {
  return quotaQuestions(document).length === 0
    ? 'A quota is tried after a question: write one first, in a section that is not repeated, drawn or shuffled.'
    : null;
}

/** Names of the questions after which a quota can be tried. */
export function quotaQuestions({ sections }: Questionnaire): string[] {
  return sections.flatMap(({ repeat, draw, shuffle, items }) =>
    repeat !== undefined || draw !== undefined || shuffle
      ? []
      : items.flatMap((item) => (item.kind === 'question' ? [item.name] : [])),
  );
}

/** Of everybody, after the last question where it can be tried, to an ending for those over the quota. */
export function addQuota(document: Questionnaire): Change & { readonly name: string } {
  const taken = new Set((document.quotas ?? []).map(({ id }) => id.toLowerCase()));
  const name = freshName('quota', taken);
  const ids = new Set(document.endings.map(({ id }) => id.toLowerCase()));
  const ending = document.endings.find(({ kind }) => kind === 'quota_full');
  const id = ending?.id ?? freshName('quota_full', ids);
  const at = quotaQuestions(document)[0] ?? '';
  const quota: Quota = {
    id: name,
    label: 'Enough of these',
    if: 'always',
    target: 100,
    at,
    to: { ending: id },
  };
  const change = adding(`Add quota ${name}`, 'quotas', quota);
  return {
    name,
    ...change,
    apply: (draft) => {
      change.apply(draft);
      if (ending === undefined)
        draft.endings.push({
          id,
          kind: 'quota_full',
          messages: [{ text: 'Thank you. Enough people like you have answered already.' }],
        });
    },
  };
}

export function addDerived(
  document: Questionnaire,
  kind: 'cases' | 'value',
): Change & { readonly name: string } {
  const name = freshName(kind === 'cases' ? 'group' : 'score', takenNames(document));
  const derived: Derived =
    kind === 'cases'
      ? { name, label: 'Worked out from answers', cases: [{ if: 'always', code: 1, label: 'First case' }] }
      : { name, label: 'Worked out from answers', value: '0' };
  return { name, ...adding(`Add ${name}`, 'derived', derived) };
}

function adding<List extends DeclarationList>(
  label: string,
  list: List,
  entry: DeclarationLists[List],
): Change {
  return {
    label,
    apply: (draft: DocumentDraft) => {
      const entries = (draft[list] ?? []) as unknown[];
      draft[list] = [...entries, castDraft(entry)] as never;
    },
  };
}
