/**
 * An old version of a questionnaire in the names and codes of a new one, so that both can be held against each other: what
 * is called or coded otherwise, and means the same, is no difference of the routing.
 */
import { rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Item, Question, Questionnaire } from '../document/types';
import { applyChange } from '../editing/change';
import { recode, recodeProblem } from '../editing/recode';
import { renameVariable } from '../editing/rename';
import type { ItemMatching } from './matching';

/** The old version under the names of the new one; codes are its own. */
export function renamedTo(old: Questionnaire, now: Questionnaire, { byOld }: ItemMatching): Questionnaire {
  const names = new Map<string, string>([...byOld].filter(([from, to]) => from !== to));
  const questions = questionsIn(now);
  for (const [from, question] of questionsIn(old)) {
    const to = questions.get(byOld.get(from) ?? '');
    if (to === undefined) continue;
    // The rows of a grid are told by their words, where those tell them.
    const [rows, rowsNow] = [rowsOf(question.answer), rowsOf(to.answer)];
    const [words, wordsNow] = [byWords(rows), byWords(rowsNow)];
    for (const [label, { name }] of words) {
      const same = wordsNow.get(label);
      const isFree = same !== undefined && !rows.some((row) => row.name === same.name);
      if (isFree && !rowsNow.some((row) => row.name === name)) names.set(name, same.name);
    }
  }
  // Names may have been exchanged: all are put out of the way first.
  const steps = [
    ...[...names.keys()].map((from) => renameVariable(from, aside(from))),
    ...[...names].map(([from, to]) => renameVariable(aside(from), to)),
  ];
  return steps.reduce((document, step) => applyChange(document, step).document, old);
}

const aside = (name: string) => `old_version_${name}`;

/**
 * With the codes of the new version as well, where one list has the same words under other codes, and with its answers,
 * so that both versions speak of the same values. `renamed`: as `renamedTo` gives it.
 */
export function answeredAs(renamed: Questionnaire, now: Questionnaire): Questionnaire {
  const questions = questionsIn(now);
  let document = renamed;
  renamed.sections.forEach(({ items }, section) =>
    items.forEach((item, at) => {
      const other = item.kind === 'question' ? questions.get(item.name) : undefined;
      if (item.kind !== 'question' || other === undefined) return;
      const recoding = sameWords(item, other);
      const place = { section, item: at };
      if (recoding.size > 0 && recodeProblem(document, place, recoding) === null)
        document = applyChange(document, recode(document, place, recoding)).document;
    }),
  );
  const given = now.given ?? [];
  return {
    ...document,
    given: [
      ...given,
      ...(document.given ?? []).filter(({ name }) => !given.some((each) => each.name === name)),
    ],
    sections: document.sections.map((section) => ({
      ...section,
      items: section.items.map((item) => withAnswerOf(item, questions)),
    })),
  };
}

function withAnswerOf(item: Item, questions: ReadonlyMap<string, Question>): Item {
  const other = item.kind === 'question' ? questions.get(item.name) : undefined;
  if (item.kind !== 'question' || other === undefined) return item;
  const { required: _required, checks: _checks, ...rest } = item;
  return {
    ...rest,
    answer: other.answer,
    ...(other.required === undefined ? {} : { required: other.required }),
    ...(other.checks === undefined ? {} : { checks: other.checks }),
  };
}

/** By code, the code that the same words have in the other list; only where they differ. */
function sameWords(one: Question, other: Question): Map<number, number> {
  const [words, wordsNow] = [byWords(optionsOf(one.answer)), byWords(optionsOf(other.answer))];
  return new Map(
    [...words].flatMap(([label, { code }]) => {
      const to = wordsNow.get(label)?.code;
      return to === undefined || to === code ? [] : [[code, to] as const];
    }),
  );
}

/** What has words of its own, by these. */
function byWords<Labelled extends { readonly label: string }>(
  list: readonly Labelled[],
): Map<string, Labelled> {
  const found = new Map<string, Labelled | null>();
  for (const each of list) {
    const words = plainWords(each.label);
    found.set(words, found.has(words) ? null : each);
  }
  return new Map([...found].flatMap(([words, each]) => (each === null ? [] : [[words, each] as const])));
}

/** Without what does not change a meaning: capitals, spaces, and signs between and after words. */
export function plainWords(text: string): string {
  return text
    .toLowerCase()
    .replaceAll(/[\p{P}\p{Z}\s*_]+/gu, ' ')
    .trim();
}

/** Questions by name. */
export function questionsIn({ sections }: Questionnaire): ReadonlyMap<string, Question> {
  return new Map(
    sections.flatMap(({ items }) =>
      items.flatMap((item) => (item.kind === 'question' ? [[item.name, item] as const] : [])),
    ),
  );
}
