/** Questions with their answers as response domains, and what interviewers are told. */
import {
  hasEnds,
  hasRows,
  isDated,
  isListed,
  isNumeric,
  picksMany,
  ranksOptions,
} from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Question, Questionnaire } from '../../document/types';
import { element, type Element } from '../../exchange/element';
import { rowList, type Codes } from './lifecycle-codes';
import { questionAlone, restOfQuestion } from './native';
import type { Urns } from './urns';
import type { Words } from './words';

export function questionElements(
  urns: Urns,
  words: Words,
  { sections }: Questionnaire,
  codes: Codes,
): { readonly questions: Element[]; readonly instructions: Element[] } {
  const questions: Element[] = [];
  const instructions: Element[] = [];
  for (const item of sections.flatMap(({ items }) => items)) {
    if (item.kind !== 'question') continue;
    questions.push(questionElement(urns, words, item, codes));
    if (item.instruction === undefined) continue;
    instructions.push(
      element(
        'd:Instruction',
        {},
        urns.identity('instruction', item.name, item.instruction),
        words.string('d:InstructionName', item.name),
        words.literal('d:InstructionText', item.instruction),
      ),
    );
  }
  return { questions, instructions };
}

function questionElement(urns: Urns, words: Words, question: Question, codes: Codes): Element {
  const { name, text, label, answer, instruction } = question;
  const isGrid = hasRows(answer);
  const kind = isGrid ? 'd:QuestionGrid' : 'd:QuestionItem';
  return element(
    kind,
    {},
    urns.identity('question', name, questionAlone(question)),
    words.own({ ...restOfQuestion(question), label }),
    words.string(`${kind}Name`, name),
    words.literal('d:QuestionText', text),
    isGrid &&
      element(
        'd:GridDimension',
        { rank: 1, displayCode: 'false', displayLabel: 'true' },
        element('d:CodeDomain', {}, codes.reference(rowList(name))),
      ),
    domain(answer, name, codes),
    instruction !== undefined &&
      urns.reference('d:InterviewerInstructionReference', 'Instruction', 'instruction', name, instruction),
  );
}

export function questionReference(urns: Urns, question: Question): Element {
  const typed = hasRows(question.answer) ? 'QuestionGrid' : 'QuestionItem';
  return urns.reference('r:QuestionReference', typed, 'question', question.name, questionAlone(question));
}

/** What can be answered beside a number or a date is a domain of its own next to it. */
function domain(answer: Answer, name: string, codes: Codes): Element {
  if (isListed(answer) || hasRows(answer)) return codeDomain(answer, codes.reference(name));
  const own = ownDomain(answer);
  if (optionsOf(answer).length === 0) return own;
  return element(
    'd:StructuredMixedResponseDomain',
    {},
    element('d:ResponseDomainInMixed', {}, own),
    element('d:ResponseDomainInMixed', {}, element('d:CodeDomain', {}, codes.reference(name))),
  );
}

function codeDomain(answer: Answer, list: Element | null): Element {
  const several = picksMany(answer) || (hasRows(answer) && answer.pick === 'many');
  const count = optionsOf(answer).length;
  if (ranksOptions(answer)) return element('d:RankingDomain', {}, list, cardinality(answer.top ?? count));
  return element('d:CodeDomain', {}, list, cardinality(several ? count : 1));
}

const cardinality = (most: number) =>
  element('r:ResponseCardinality', { minimumResponses: 1, maximumResponses: most });

const DATES = { date: 'Date', time: 'Time', datetime: 'DateTime' } as const;

function ownDomain(answer: Answer): Element {
  if (isNumeric(answer)) {
    const scale = 'decimals' in answer ? answer.decimals : undefined;
    const isScale = hasEnds(answer);
    return element(
      isScale ? 'd:ScaleDomain' : 'd:NumericDomain',
      isScale || scale === undefined ? {} : { scale },
      element(
        'r:NumberRange',
        {},
        element('r:Low', { isInclusive: 'true' }, String(answer.min)),
        element('r:High', { isInclusive: 'true' }, String(answer.max)),
      ),
      !isScale && element('r:NumericTypeCode', {}, scale ? 'Decimal' : 'Integer'),
    );
  }
  if (isDated(answer)) {
    const { type, min, max } = answer;
    const limits = min !== undefined || max !== undefined;
    return element(
      'd:DateTimeDomain',
      {},
      element('r:DateTypeCode', {}, DATES[type]),
      limits &&
        element(
          'r:Range',
          {},
          min !== undefined && element('r:MinimumValue', { included: 'true' }, min),
          max !== undefined && element('r:MaximumValue', { included: 'true' }, max),
        ),
    );
  }
  const { minLength, maxLength } = answer as Extract<Answer, { type: 'text' }>;
  return element('d:TextDomain', { minLength, maxLength });
}
