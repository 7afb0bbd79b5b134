/** What DDI says of a part in its own elements, as a part of a questionnaire; the rest of the part goes along as attributes. */
import equal from 'fast-deep-equal';
import { hasEnds, hasRows, isDated, isListed, isNumeric } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Option, Question } from '../../document/types';

/** The answer as its domain, codes and labels alone tell it. */
export function nativeAnswer(answer: Answer): Answer {
  const options = optionsOf(answer).map(nativeOption);
  const specials = options.length === 0 || isListed(answer) ? {} : { specials: options };
  if (hasRows(answer))
    return {
      type: 'grid',
      rows: answer.rows.map(({ name, label }) => ({ name, label })),
      options,
      ...(answer.pick === 'many' ? { pick: 'many' } : {}),
    };
  if (isNumeric(answer)) {
    const { min, max } = answer;
    if (hasEnds(answer)) return { type: 'scale', min, max, ...specials };
    const { decimals } = answer;
    return { type: 'number', min, max, ...(decimals ? { decimals } : {}), ...specials };
  }
  if (isDated(answer)) {
    const { type, min, max } = answer;
    return {
      type,
      ...(min === undefined ? {} : { min }),
      ...(max === undefined ? {} : { max }),
      ...specials,
    };
  }
  if (isListed(answer)) return { type: answer.type, options };
  const { minLength, maxLength } = answer as Extract<Answer, { type: 'text' }>;
  return {
    type: 'text',
    ...(minLength === undefined ? {} : { minLength }),
    ...(maxLength === undefined ? {} : { maxLength }),
  };
}

/** DDI knows that a code stands for no answer, and not which. */
function nativeOption({ code, label, missing }: Option): Option {
  return missing === undefined ? { code, label } : { code, label, missing: 'not_available' };
}

/** Properties of a question that its DDI elements do not hold, by name. */
export function restOfQuestion(question: Question): Record<string, unknown> {
  const {
    kind: _kind,
    name: _name,
    text: _text,
    label: _label,
    instruction: _instruction,
    answer,
    ...rest
  } = questionAlone(question);
  return { ...rest, ...(equal(answer, nativeAnswer(answer)) ? {} : { answer }) };
}

/** The question without where it stands and leads: the same question, whoever is asked it. */
export function questionAlone(question: Question): Omit<Question, 'askIf' | 'skips'> {
  const { askIf: _askIf, skips: _skips, ...alone } = question;
  return alone;
}
