/** The answer of one question as a respondent gives it: every type by mouse and by keyboard alone. */
import type { Question, Value } from '../../core/document/types';
import { itemKey } from '../../core/routing/plan';
import type { WalkStep } from '../../core/routing/walk';
import { Choices } from './Choices';
import { GridForm } from './GridForm';
import { DateField, NumberInput, RankForm, ScaleForm, TextInput } from './OpenFields';
import type { Session } from './session';

interface Props {
  readonly session: Pick<Session, 'answers' | 'faults' | 'answer'>;
  readonly step: WalkStep;
  readonly question: Question;
  /** Fills the pipes of a label. */
  readonly words: (text: string) => string;
}

export interface FieldProps {
  /** Names the radios and finds the field: item key and variable. */
  readonly part: string;
  readonly label: string;
  readonly value: Value | null;
  readonly set: (value: Value | null) => void;
  readonly words: (text: string) => string;
}

export function AnswerForm({ session, step, question, words }: Props) {
  const { answer, name } = question;
  const key = itemKey(name, step.pass);
  const field: FieldProps = {
    part: `${step.key} ${name}`,
    label: words(question.text),
    value: session.answers[key] ?? null,
    set: (value) => session.answer(key, value),
    words,
  };
  const text = (code: number) => {
    const textKey = itemKey(`${name}_${code}_text`, step.pass);
    return {
      value: String(session.answers[textKey] ?? ''),
      set: (typed: string) => session.answer(textKey, typed === '' ? null : typed),
    };
  };
  switch (answer.type) {
    case 'single':
    case 'multiple':
      return <Choices {...field} answer={answer} shown={step.shown.options} textOf={text} />;
    case 'grid':
      return <GridForm session={session} step={step} question={question} answer={answer} words={words} />;
    case 'rank':
      return <RankForm {...field} answer={answer} shown={step.shown.options} />;
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
