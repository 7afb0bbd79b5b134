/** Endings that hand on to a questionnaire: whether there is one, takes what is carried, and gets all it needs. */
import { hasRows, isNumeric } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Given, Questionnaire } from '../document/types';
import { applyChange } from '../editing/change';
import { editEnding } from '../editing/structure';
import { variableAnswer } from '../routing/answers';
import type { Plan } from '../routing/plan';
import type { Mend, Snag } from './types';

/** Another study, as far as handing on to it goes. */
export interface OtherStudy {
  readonly id: string;
  readonly title: string;
  readonly given: readonly Given[];
}

/** More studies than this are not offered one by one. */
const MOST_OFFERED = 4;

/** The study that a name stands for: by its id, or by a file name or title like its own; null where there is none. */
export function namedStudy<Study extends { readonly id: string; readonly title: string }>(
  studies: readonly Study[],
  named: string,
): Study | null {
  const name = named.replace(/\.fork\.json$/, '');
  const wanted = plain(name);
  return (
    studies.find(({ id }) => id === name) ?? studies.find(({ title }) => plain(title) === wanted) ?? null
  );
}

/** By which a study is named at an ending, so that it can be found again by its title. */
export function studyName(studies: readonly OtherStudy[], study: OtherStudy): string {
  const name = plain(study.title).replace(/^-|-$/g, '');
  return namedStudy(studies, name)?.id === study.id ? name : study.id;
}

function plain(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-');
}

/** The values that a follow-up takes and that this questionnaire has under the same name, with the same codes. */
export function carriable(plan: Plan, { given }: OtherStudy): string[] {
  return given.flatMap(({ name, answer, random }) => {
    const variable = plan.variables.get(name.toLowerCase());
    const own = variableAnswer(variable);
    return variable?.name === name && own !== null && !random && misfit(own, answer) === null ? [name] : [];
  });
}

/** Why a follow-up cannot take an answer of one kind for a value of another; null where it can. */
function misfit(own: Answer, taken: Answer): string | null {
  if (own.type !== taken.type) return `it is answered otherwise there (${taken.type}, here ${own.type})`;
  const codes = new Set(optionsOf(taken).map(({ code }) => code));
  const unknown = optionsOf(own).filter(({ code, missing }) => missing === undefined && !codes.has(code));
  if ('options' in own && unknown.length > 0)
    return `it has no code ${unknown.map(({ code }) => code).join(', ')} there`;
  if (isNumeric(own) && isNumeric(taken))
    if (own.min < taken.min || own.max > taken.max)
      return `there it runs from ${taken.min} to ${taken.max}, here from ${own.min} to ${own.max}`;
  return null;
}

/** `studies`: all others that can be handed on to. */
export function handOffSnags(plan: Plan, studies: readonly OtherStudy[]): Snag[] {
  const { document } = plan;
  return document.endings.flatMap(({ id, next }, at): Snag[] => {
    if (next === undefined || !('questionnaire' in next)) return [];
    const snag = (message: string, mends: readonly Mend[] = []): Snag => ({
      rule: 'hand-off',
      severity: 'warning',
      at: { ending: id },
      field: 'next',
      message,
      ...(mends.length > 0 ? { mends } : {}),
    });
    const to = namedStudy(studies, next.questionnaire);
    if (to === null)
      return [
        snag(
          `this hands on to “${next.questionnaire}”, and there is no study of that name here: choose one, or import it`,
          studies.slice(0, MOST_OFFERED).map((study) =>
            mendNext(document, at, `Hand on to “${study.title}”`, (draft) => {
              draft.questionnaire = studyName(studies, study);
            }),
          ),
        ),
      ];
    const carry = next.carry ?? [];
    const refused = carry.flatMap((name): Snag[] => {
      const given = to.given.find((each) => each.name === name);
      const own = variableAnswer(plan.variables.get(name.toLowerCase()));
      const why =
        given === undefined
          ? `“${to.title}” takes no value of that name: add it there`
          : own === null
            ? null
            : misfit(own, given.answer);
      return why === null ? [] : [snag(`this carries ${name} on, and ${why}`, [without(document, at, name)])];
    });
    const missed = to.given
      .filter(({ name, random }) => !random && !carry.includes(name))
      .map(({ name }) =>
        snag(
          `“${to.title}” is to know ${name} before it starts, and this does not carry it on`,
          carriable(plan, to).includes(name)
            ? [
                mendNext(document, at, `Carry ${name} on`, (draft) => {
                  draft.carry = [...(draft.carry ?? []), name];
                }),
              ]
            : [],
        ),
      );
    return [...refused, ...missed];
  });
}

function without(document: Questionnaire, at: number, name: string): Mend {
  return mendNext(document, at, `Do not carry ${name}`, (draft) => {
    draft.carry = (draft.carry ?? []).filter((each) => each !== name);
  });
}

function mendNext(
  document: Questionnaire,
  at: number,
  label: string,
  edit: (next: { questionnaire: string; carry?: string[] }) => void,
): Mend {
  const { step } = applyChange(
    document,
    editEnding(at, 'next', label, (draft) => {
      if (draft.next !== undefined && 'questionnaire' in draft.next) edit(draft.next as never);
    }),
  );
  return { label, patches: step.forward };
}

/** A value as a follow-up would take it that is answered here; null where it is no answer to one question. */
export function givenLike(plan: Plan, name: string): Given | null {
  const variable = plan.variables.get(name.toLowerCase());
  const answer = variableAnswer(variable);
  if (variable === undefined || answer === null || hasRows(answer)) return null;
  const label =
    variable.of === 'question'
      ? (variable.question.label ?? variable.question.text)
      : variable.of === 'row'
        ? variable.row.label
        : name;
  return { name, label, answer: bare(answer) };
}

/** Without what depends on the rest of the questionnaire. */
function bare(answer: Answer): Answer {
  if (!('options' in answer)) return answer;
  return {
    ...answer,
    options: answer.options
      .filter(({ missing }) => missing === undefined)
      .map(({ askIf: _, specify: __, specifyLabel: ___, specifyOptional: ____, ...option }) => option),
  } as Answer;
}
