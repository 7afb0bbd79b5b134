/**
 * An old version of a questionnaire in the names and codes of a new one, so that both can be held against each other: what
 * is called or coded otherwise, and means the same, is no difference of the routing.
 */
import { renumberingBetween } from '../coding/renumbered';
import { answeredNames } from '../document/answer-types';
import type { Item, Question, Questionnaire } from '../document/types';
import { applyChange } from '../editing/change';
import { recode, recodeProblem } from '../editing/recode';
import { renameVariable } from '../editing/rename';
import type { ItemMatching } from './matching';

/** The old version under the names of the new one, those of rows as well; codes are its own. */
export function renamedTo(old: Questionnaire, now: Questionnaire, { renamed }: ItemMatching): Questionnaire {
  const document = renamedBy(old, renamed);
  return renamedBy(document, renumberingBetween(document, now)?.names ?? []);
}

/** A name that is new is no old one, so none is in the way of another. */
function renamedBy(
  document: Questionnaire,
  names: Iterable<readonly [from: string, to: string]>,
): Questionnaire {
  return [...names].reduce(
    (now, [from, to]) => applyChange(now, renameVariable(from, to)).document,
    document,
  );
}

/**
 * With the codes of the new version as well, where one list has the same words under other codes, and with its answers,
 * so that both versions speak of the same values. `renamed`: as `renamedTo` gives it.
 */
export function answeredAs(renamed: Questionnaire, now: Questionnaire): Questionnaire {
  const codes = renumberingBetween(renamed, now)?.codes ?? new Map<string, ReadonlyMap<number, number>>();
  let document = renamed;
  renamed.sections.forEach(({ items }, section) =>
    items.forEach((item, at) => {
      const recoding = item.kind === 'question' ? codes.get(answeredNames(item)[0] ?? '') : undefined;
      const place = { section, item: at };
      if (recoding !== undefined && recodeProblem(document, place, recoding) === null)
        document = applyChange(document, recode(document, place, recoding)).document;
    }),
  );
  const questions = questionsIn(now);
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

/** Questions by name. */
export function questionsIn({ sections }: Questionnaire): ReadonlyMap<string, Question> {
  return new Map(
    sections.flatMap(({ items }) =>
      items.flatMap((item) => (item.kind === 'question' ? [[item.name, item] as const] : [])),
    ),
  );
}
