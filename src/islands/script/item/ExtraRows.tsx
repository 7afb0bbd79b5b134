/** What an item has besides its words and answers, a row each, with the way to take it away. */
import type { ReactNode } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { optionsOf } from '../../../core/document/shape';
import type { Question, RoutedItem } from '../../../core/document/types';
import type { ItemPlace } from '../../../core/editing/structure';
import type { Plan } from '../../../core/routing/plan';
import { NumberField, TextField } from '../../fields/Fields';
import { PictureFields } from '../../fields/PictureFields';
import { RichField } from '../../fields/RichField';
import { ChoiceField } from '../../fields/ChoiceField';
import answersClasses from './answers.module.css';
import { AssumeFields } from './AssumeFields';
import { CheckRow } from './CheckRow';
import { SHORT, TEXTS, type TextKey } from './extras';
import limitsClasses from './limits.module.css';
import type { Extras } from './use-extras';

const MEASURES = ['nominal', 'ordinal', 'interval', 'ratio'] as const;

interface RowProps {
  readonly words: string;
  readonly without: () => void;
  readonly children: ReactNode;
}

function ExtraRow({ words, without, children }: RowProps) {
  return (
    <div className={limitsClasses.extra}>
      <span>{words}</span>
      <div>{children}</div>
      <button
        type="button"
        className={answersClasses.takeOut}
        aria-label={`Without ${words}`}
        onClick={without}
      >
        ×
      </button>
    </div>
  );
}

interface TextsProps {
  readonly item: RoutedItem;
  readonly place: ItemPlace;
  readonly extras: Extras;
}

export function ExtraTexts({ item, place, extras: { field, set } }: TextsProps) {
  return (Object.keys(TEXTS) as TextKey[]).map((key) => {
    const value = (item as Partial<Question>)[key];
    if (value === undefined) return null;
    const [label, placeholder] = TEXTS[key];
    const text = { field: field(key), label, value, placeholder, change: (words: string) => set(key, words) };
    return (
      <ExtraRow key={key} words={SHORT[key]} without={() => set(key, undefined)}>
        {key === 'note' ? <RichField {...text} place={place} /> : <TextField {...text} />}
      </ExtraRow>
    );
  });
}

interface QuestionProps {
  readonly plan: Plan;
  readonly question: Question;
  readonly extras: Extras;
}

/** What only a question can have. */
export function QuestionExtras({ plan, question, extras: { field, set } }: QuestionProps) {
  const { measure, agrees, missingCodes, assume } = question;
  return (
    <>
      {measure !== undefined && (
        <ExtraRow words="measured" without={() => set('measure', undefined)}>
          <ChoiceField
            className={limitsClasses.limit}
            field={field('measure')}
            label="Level of measurement"
            value={measure}
            choices={MEASURES.map((level) => [level, level] as const)}
            choose={(level) => set('measure', level)}
          />
        </ExtraRow>
      )}
      {agrees !== undefined && (
        <ExtraRow words="consent is" without={() => set('agrees', undefined)}>
          <Consent question={question} agrees={agrees} set={(codes) => set('agrees', codes)} />
        </ExtraRow>
      )}
      {missingCodes !== undefined && (
        <ExtraRow words="missing" without={() => set('missingCodes', undefined)}>
          <MissingCodes plan={plan} question={question} set={(codes) => set('missingCodes', codes)} />
        </ExtraRow>
      )}
      {assume !== undefined && (
        <ExtraRow words="assumed" without={() => set('assume', undefined)}>
          <AssumeFields question={question} assume={assume} set={(shares) => set('assume', shares)} />
        </ExtraRow>
      )}
    </>
  );
}

/** How long it takes, and its picture. */
export function ItemExtraRows({ item, extras: { field, set } }: Omit<TextsProps, 'place'>) {
  return (
    <>
      {item.seconds !== undefined && (
        <ExtraRow words="takes" without={() => set('seconds', undefined)}>
          <NumberField
            field={field('seconds')}
            label="Seconds it takes"
            value={item.seconds}
            take={(seconds) => set('seconds', seconds)}
          />{' '}
          seconds
        </ExtraRow>
      )}
      {item.image !== undefined && (
        <ExtraRow words="picture" without={() => set('image', undefined)}>
          <PictureFields image={item.image} field={field('image')} change={(image) => set('image', image)} />
        </ExtraRow>
      )}
    </>
  );
}

interface ChecksProps {
  readonly question: Question;
  readonly place: ItemPlace;
  readonly extras: Extras;
}

export function ChecksOfAnswer({ question, place, extras: { edit } }: ChecksProps) {
  return question.checks?.map((check, n) => (
    <CheckRow
      key={n}
      check={check}
      n={n}
      name={question.name}
      place={place}
      change={(key, change) =>
        edit(`check ${n} ${key}`, (draft) => {
          const found = draft.checks?.[n];
          if (found !== undefined) change(found);
        })
      }
      remove={() =>
        edit('checks', (draft) => {
          draft.checks?.splice(n, 1);
          if (draft.checks?.length === 0) delete draft.checks;
        })
      }
    />
  ));
}

interface ConsentProps {
  readonly question: Question;
  readonly agrees: readonly number[];
  readonly set: (codes: readonly number[]) => void;
}

function Consent({ question, agrees, set }: ConsentProps) {
  return (
    <span className={limitsClasses.ticks}>
      {optionsOf(question.answer).map(({ code, label }) => (
        <label key={code}>
          <input
            type="checkbox"
            checked={agrees.includes(code)}
            onChange={(event) =>
              set(
                event.target.checked
                  ? [...agrees, code].sort((a, b) => a - b)
                  : agrees.filter((c) => c !== code),
              )
            }
          />{' '}
          {label || code}
        </label>
      ))}
    </span>
  );
}

interface CodesProps {
  readonly plan: Plan;
  readonly question: Question;
  readonly set: (codes: Readonly<Record<string, number>>) => string | null;
}

function MissingCodes({ plan, question, set }: CodesProps) {
  const codes = question.missingCodes ?? {};
  return (
    <span className={limitsClasses.ticks}>
      {plan.document.missing.map(({ reason, code, label }) => (
        <label key={reason}>
          {label}{' '}
          <NumberField
            field={fieldId(question.name, 'missing', reason)}
            label={`Code of ${question.name} for: ${label}`}
            className={limitsClasses.limit}
            value={codes[reason] ?? code}
            whole
            optional
            take={(own) => {
              const { [reason]: _, ...rest } = codes;
              return set(own === undefined || own === code ? rest : { ...rest, [reason]: own });
            }}
          />
        </label>
      ))}
    </span>
  );
}
