/** Answers in words, and texts with earlier answers piped in, as a respondent or reviewer reads them. */
import { passKey } from '../document/addresses';
import { ranksOptions, traitsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Value } from '../document/types';
import type { Variable } from '../document/variables';
import { isBlank } from '../routing/answers';
import { fillPipes } from '../routing/pipes';
import type { Plan } from '../routing/plan';
import type { Walk } from '../routing/walk';

/** The label of a code, the labels of several, or the value as it was given; empty for a blank. */
export function valueWords(answer: Answer, value: Value | null | undefined): string {
  if (value === null || value === undefined || isBlank(value)) return '';
  const label = (code: number) =>
    optionsOf(answer).find((option) => option.code === code)?.label ?? String(code);
  if (typeof value === 'object') {
    return ranksOptions(answer)
      ? value.map((code, place) => `${place + 1} ${label(code)}`).join(', ')
      : value.map(label).join(', ');
  }
  if (typeof value === 'number') return label(value);
  return traitsOf(answer).value === 'datetime' ? value.replace('T', ' ') : value;
}

/** A text as shown at a place of the walk, its pipes filled by `escape`d answers; an answer without value is empty. */
export function shownText(
  plan: Plan,
  walk: Walk,
  text: string,
  section: number,
  pass: number | null,
  escape: (words: string) => string = (words) => words,
): string {
  const environment = walk.environment(section, pass);
  const shown = (name: string): string => {
    const word = name.toLowerCase();
    if (word === 'pass') return pass === null ? '' : String(pass);
    if (word === 'each') return eachWords(plan, section, environment.each);
    const variable = plan.variables.get(word);
    if (variable === undefined) return '';
    return variableWords(variable, environment.read(word).value);
  };
  return fillPipes(text, (name) => escape(shown(name)));
}

function variableWords(variable: Variable, value: Value | null): string {
  switch (variable.of) {
    case 'question':
      return valueWords(variable.question.answer, value);
    case 'row':
      return valueWords(variable.grid, value);
    case 'given':
      return valueWords(variable.given.answer, value);
    case 'derived': {
      const cases = 'cases' in variable.derived ? [...variable.derived.cases, variable.derived.else] : [];
      return cases.find((entry) => entry?.code === value)?.label ?? (value === null ? '' : String(value));
    }
    default:
      return variable satisfies never;
  }
}

/** The label of the option that this pass is for. */
function eachWords(plan: Plan, section: number, code: number | null): string {
  const driver = plan.sections[section]?.repeat?.driver;
  if (code === null || driver === null || driver === undefined) return '';
  return variableWords(driver, code);
}

/** What was answered to an item in a walk, in a few words: all rows of a grid, one after the other. */
export function answeredWords(
  step: { readonly parts: Walk['steps'][number]['parts']; readonly pass: number | null },
  answers: Readonly<Record<string, Value | null>>,
): string {
  return step.parts
    .map(({ name, answer }) => valueWords(answer, answers[passKey(name, step.pass)]))
    .filter((words) => words !== '')
    .join(' · ');
}
