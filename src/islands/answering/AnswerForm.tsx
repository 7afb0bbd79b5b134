/** The answer of one question as a respondent gives it: every type by mouse and by keyboard alone. */
import { passKey } from '../../core/document/addresses';
import type { MultipleAnswer, Question, RankAnswer, SingleAnswer } from '../../core/document/types';
import { shuffledOptions } from '../../core/routing/shuffle';
import type { WalkStep } from '../../core/routing/walk';
import type { Session } from '../../core/responding/session';
import { Choices } from './Choices';
import type { FieldProps } from './field-props';
import { GridForm } from './GridForm';
import { DateField, NumberInput, RankForm, ScaleForm, TextInput } from './OpenFields';

interface Props {
  readonly session: Pick<Session, 'answers' | 'faults' | 'answer' | 'inputs'>;
  readonly step: WalkStep;
  readonly question: Question;
  /** Fills the pipes of a label. */
  readonly words: (text: string) => string;
  /** Answers are printed with their codes, and picked by them. */
  readonly codes: boolean;
}

export function AnswerForm({ session, step, question, words, codes }: Props) {
  const { answer, name } = question;
  const key = passKey(name, step.pass);
  const field: FieldProps = {
    part: `${step.key} ${name}`,
    label: words(question.text),
    value: session.answers[key] ?? null,
    set: (value) => session.answer(key, value),
    words,
    codes,
  };
  const text = (code: number) => {
    const textName = `${name}_${code}_text`;
    const textKey = passKey(textName, step.pass);
    const fault = session.faults.find((each) => each.step.key === step.key && each.fault.part === textName);
    return {
      part: `${step.key} ${textName}`,
      message: fault?.fault.message ?? null,
      value: String(session.answers[textKey] ?? ''),
      set: (typed: string) => session.answer(textKey, typed === '' ? null : typed),
    };
  };
  switch (answer.type) {
    case 'single':
      return <Choices {...field} {...ordered(answer, step, session)} textOf={text} />;
    case 'multiple':
      return <Choices {...field} {...ordered(answer, step, session)} textOf={text} />;
    case 'grid':
      return <GridForm {...{ session, step, question, words, codes }} answer={answer} />;
    case 'rank':
      return <RankForm {...field} {...ordered(answer, step, session)} />;
    case 'scale':
      return <ScaleForm {...field} answer={answer} shown={step.shown.options} />;
    case 'number':
      return <NumberInput {...field} answer={answer} shown={step.shown.options} />;
    case 'text':
      return <TextInput {...field} answer={answer} />;
    case 'date':
    case 'time':
    case 'datetime':
      return <DateField {...field} answer={answer} shown={step.shown.options} />;
    default:
      return answer satisfies never;
  }
}

/** The answer with its options as they are shown: in random order where they are shuffled. */
function ordered<Listed extends SingleAnswer | MultipleAnswer | RankAnswer>(
  answer: Listed,
  step: WalkStep,
  { inputs }: Pick<Session, 'inputs'>,
): { readonly answer: Listed; readonly shown: readonly boolean[] } {
  const { options: shown } = step.shown;
  if (answer.shuffleOptions !== true) return { answer, shown };
  const order = shuffledOptions(answer.options, inputs.seed, step.key);
  return {
    answer: { ...answer, options: order.flatMap((index) => answer.options[index] ?? []) },
    shown: order.map((index) => shown[index] ?? false),
  };
}
