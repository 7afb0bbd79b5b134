/** The limits of the answer of the selected question, each written where it is printed. */
import { fieldId } from '../../../core/document/addresses';
import type { Answer, Question } from '../../../core/document/types';
import type { ItemPlace } from '../../../core/editing/structure';
import { isSuggested } from '../../../core/editing/suggested';
import { CheckedField, NumberField } from '../../fields/Fields';
import { focusField } from '../../fields/focus';
import { useItemMoves } from '../../fields/part-moves';
import { LIMITS, type LimitField } from './answer-limits';
import { ChoiceField } from '../../fields/ChoiceField';
import limitsClasses from './limits.module.css';
import { useAnswerEdit } from './use-answer-edit';

interface Props {
  readonly question: Question;
  readonly place: ItemPlace;
}

export function Limits({ question, place }: Props) {
  const { answer } = question;
  return (
    <div className={limitsClasses.limits}>
      {LIMITS[answer.type].map((limit, n) => (
        <Limit
          key={'property' in limit ? limit.property : n}
          limit={limit}
          question={question}
          place={place}
        />
      ))}
    </div>
  );
}

function Limit({ limit, question, place }: Props & { readonly limit: LimitField }) {
  const edit = useAnswerEdit<Answer>(question, place);
  const moves = useItemMoves();
  const answer = question.answer as unknown as Readonly<Record<string, unknown>>;
  /** Sets one property of the answer; undefined takes it away. */
  const set = (key: string) => (value: unknown) =>
    edit(key, (draft) => {
      const record = draft as Record<string, unknown>;
      if (value === undefined || value === '') delete record[key];
      else record[key] = value;
    });
  if (limit.as === 'said')
    return limit.suggested && !isSuggested(question.answer) ? null : <span>{limit.words}</span>;
  if (limit.as === 'random-order')
    return (
      <label>
        <input
          type="checkbox"
          data-field={fieldId(question.name, 'shuffleOptions')}
          checked={answer.shuffleOptions === true}
          onChange={(event) => set('shuffleOptions')(event.target.checked ? true : undefined)}
        />{' '}
        random order
      </label>
    );
  const { property, label } = limit;
  const common = { label, className: limitsClasses.limit };
  const field = fieldId(question.name, property);
  const value = answer[property];
  if (limit.as === 'words') {
    if (limit.beside?.every((other) => answer[other] === undefined)) return null;
    return (
      <label>
        {label}{' '}
        <CheckedField
          {...common}
          field={field}
          size={limit.size}
          value={(value as string | undefined) ?? ''}
          take={set(property)}
        />
      </label>
    );
  }
  if (limit.as === 'choice') {
    const [usual] = limit.values;
    return (
      <label>
        {label}{' '}
        <ChoiceField
          {...common}
          field={field}
          value={(value as string | undefined) ?? usual}
          choices={limit.values.map((entry) => [entry, entry] as const)}
          choose={(chosen) => set(property)(chosen === usual ? undefined : chosen)}
        />
      </label>
    );
  }
  const { next } = limit;
  const goOn = () => {
    if (next === 'question') moves.addAfter(place);
    else if (next !== undefined) focusField(fieldId(question.name, next), 'all');
  };
  return (
    <label>
      {label}{' '}
      <NumberField
        {...common}
        field={field}
        value={value as number | undefined}
        whole={limit.whole ?? false}
        optional={!limit.needed}
        next={next === undefined ? undefined : goOn}
        take={set(property)}
      />
    </label>
  );
}
