/** What an item can have besides its words and answers: each shown where it is set, the rest one choice away. */
import type { Draft } from 'immer';
import { useState, type ReactNode } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { optionsOf } from '../../../core/document/shape';
import type { Check, Question, RoutedItem } from '../../../core/document/types';
import { editItem, type ItemPlace } from '../../../core/editing/structure';
import type { Plan } from '../../../core/routing/plan';
import { PictureButton } from '../../ui/PictureButton';
import { useStudy } from '../../state/store';
import { AssumeFields } from './AssumeFields';
import { CheckRow } from './CheckRow';
import { NumberField, TextField } from '../../fields/Fields';
import { RichField } from '../../fields/RichField';
import { PictureFields } from '../../fields/PictureFields';
import { thenFocus } from '../../fields/focus';
import answersClasses from './answers.module.css';
import detailsClasses from './details.module.css';
import limitsClasses from './limits.module.css';

/** Properties that are texts, with what they are called and what shows before one is written. */
const TEXTS = {
  note: ['help under the question', 'Help under the question'],
  instruction: [
    'an instruction for the interviewer',
    'What the interviewer does, never shown to respondents',
  ],
  label: ['a short label', 'A short label for the codebook'],
  requiredMessage: ['words for an answer left out', 'Please answer this question.'],
  limitMessage: ['words for an answer beyond the limits', 'Please give a number between … and …'],
  comment: ['a free remark beside it', 'Label of the remark: Anything to add?'],
} as const;
type TextKey = keyof typeof TEXTS;

const MEASURES = ['nominal', 'ordinal', 'interval', 'ratio'] as const;

/** What can be added, by what it is called. */
type Addable =
  TextKey | 'sensitive' | 'agrees' | 'measure' | 'seconds' | 'image' | 'checks' | 'missingCodes' | 'assume';

const ADDED: Readonly<Record<Exclude<Addable, TextKey>, string>> = {
  checks: 'a check of the answer',
  image: 'a picture',
  agrees: 'the answers that give consent',
  sensitive: 'a note that it is sensitive',
  measure: 'the level of measurement',
  missingCodes: 'missing codes of its own',
  seconds: 'the seconds it takes',
  assume: 'assumed answers',
};

interface Props {
  readonly plan: Plan;
  readonly item: RoutedItem;
  readonly place: ItemPlace;
}

export function ItemExtras({ plan, item, place }: Props) {
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const { name } = item;
  const edit = (key: string, change: (draft: Draft<Question>) => void) => {
    const refused = commit(
      editItem(place, key, `Change ${name}`, (draft) => {
        // A statement has fewer of these properties, and only those are offered.
        if (draft.kind !== 'page_break') change(draft as Draft<Question>);
      }),
    );
    setProblem(refused);
    return refused;
  };
  const set = <Key extends keyof Question>(key: Key, value: Question[Key] | undefined) =>
    edit(key, (draft) => {
      const record = draft as Record<string, unknown>;
      if (value === undefined) delete record[key];
      else record[key] = value;
    });
  const field = (key: string) => fieldId(name, key);
  const question = item.kind === 'question' ? item : null;
  const add = (key: Addable) => {
    if (key in TEXTS) thenFocus(() => set(key as TextKey, ''), field(key));
    else if (key === 'sensitive') set('sensitive', true);
    else if (key === 'measure') thenFocus(() => set('measure', 'nominal'), field(key));
    else if (key === 'seconds') thenFocus(() => set('seconds', 10), field(key), 'all');
    else if (key === 'agrees') {
      const [first] = question === null ? [] : optionsOf(question.answer);
      set('agrees', [first?.code ?? 1]);
    } else if (key === 'checks') {
      const check: Check = { if: '', kind: 'hard', message: '' };
      const at = question?.checks?.length ?? 0;
      thenFocus(
        () => edit('checks', (draft) => void (draft.checks = [...(draft.checks ?? []), check])),
        fieldId(name, 'check', at),
      );
    } else if (key === 'missingCodes') set('missingCodes', {});
    else if (key === 'assume') set('assume', {});
  };
  const left = addable(plan, item, place);
  const row = (key: keyof Question, words: string, content: ReactNode) => (
    <div className={limitsClasses.extra} key={key}>
      <span>{words}</span>
      <div>{content}</div>
      <button
        type="button"
        className={answersClasses.takeOut}
        aria-label={`Without ${words}`}
        onClick={() => set(key, undefined)}
      >
        ×
      </button>
    </div>
  );
  return (
    <>
      {(Object.keys(TEXTS) as TextKey[]).map((key) => {
        const value = (item as Partial<Question>)[key];
        if (value === undefined) return null;
        const [words, placeholder] = TEXTS[key];
        return row(
          key,
          SHORT[key],
          key === 'note' ? (
            <RichField
              field={field(key)}
              label={words}
              value={value}
              place={place}
              placeholder={placeholder}
              change={(text) => set(key, text)}
            />
          ) : (
            <TextField
              field={field(key)}
              label={words}
              value={value}
              placeholder={placeholder}
              change={(text) => set(key, text)}
            />
          ),
        );
      })}
      {question?.measure !== undefined &&
        row(
          'measure',
          'measured',
          <select
            className={limitsClasses.limit}
            data-field={field('measure')}
            aria-label="Level of measurement"
            value={question.measure}
            onChange={(event) => set('measure', event.target.value as (typeof MEASURES)[number])}
          >
            {MEASURES.map((measure) => (
              <option key={measure}>{measure}</option>
            ))}
          </select>,
        )}
      {question?.agrees !== undefined &&
        row(
          'agrees',
          'consent is',
          <Consent question={question} agrees={question.agrees} set={(codes) => set('agrees', codes)} />,
        )}
      {question?.missingCodes !== undefined &&
        row(
          'missingCodes',
          'missing',
          <MissingCodes plan={plan} question={question} set={(codes) => set('missingCodes', codes)} />,
        )}
      {question?.assume !== undefined &&
        row(
          'assume',
          'assumed',
          <AssumeFields
            question={question}
            assume={question.assume}
            set={(assume) => set('assume', assume)}
          />,
        )}
      {item.seconds !== undefined &&
        row(
          'seconds',
          'takes',
          <>
            <NumberField
              field={field('seconds')}
              label="Seconds it takes"
              value={item.seconds}
              take={(seconds) => set('seconds', seconds)}
            />{' '}
            seconds
          </>,
        )}
      {item.image !== undefined &&
        row(
          'image',
          'picture',
          <PictureFields image={item.image} field={field('image')} change={(image) => set('image', image)} />,
        )}
      {question?.checks?.map((check, n) => (
        <CheckRow
          key={n}
          check={check}
          n={n}
          name={name}
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
      ))}
      <div className={detailsClasses.extras}>
        {question !== null && (
          <label>
            <input
              type="checkbox"
              data-field={field('required')}
              checked={question.required ?? false}
              onChange={(event) => set('required', event.target.checked ? true : undefined)}
            />{' '}
            required
          </label>
        )}
        {question?.sensitive && (
          <label>
            <input type="checkbox" checked onChange={() => set('sensitive', undefined)} /> sensitive
          </label>
        )}
        <select
          className={detailsClasses.adder}
          data-field={field('add')}
          aria-label={`Add to ${name}`}
          value=""
          onChange={(event) => add(event.target.value as Addable)}
        >
          <option value="" disabled>
            Add …
          </option>
          {left
            .filter((key) => key !== 'image')
            .map((key) => (
              <option key={key} value={key}>
                {key in TEXTS ? TEXTS[key as TextKey][0] : ADDED[key as keyof typeof ADDED]}
              </option>
            ))}
        </select>
        {left.includes('image') && (
          <PictureButton
            words="Add a picture"
            take={(read) => {
              if (read.ok) set('image', { src: read.src, alt: '' });
              else setProblem(read.problem);
            }}
          />
        )}
      </div>
      {problem !== null && (
        <p role="alert" className={detailsClasses.wrong}>
          {problem}
        </p>
      )}
    </>
  );
}

/** What stands before a text on the sheet. */
const SHORT: Readonly<Record<TextKey, string>> = {
  note: 'help',
  instruction: 'interviewer',
  label: 'label',
  requiredMessage: 'if left out',
  limitMessage: 'if beyond',
  comment: 'remark',
};

/** What an item does not have yet and could. */
function addable(plan: Plan, item: RoutedItem, place: ItemPlace): Addable[] {
  const has = item as Partial<Question>;
  const all: Addable[] =
    item.kind === 'statement'
      ? ['instruction', 'image', 'seconds']
      : [
          'note',
          ...(item.required ? (['requiredMessage'] as const) : []),
          ...('min' in item.answer || 'minLength' in item.answer ? (['limitMessage'] as const) : []),
          'checks',
          'image',
          ...(plan.document.sections[place.section]?.kind === 'consent' && 'options' in item.answer
            ? (['agrees'] as const)
            : []),
          'instruction',
          'comment',
          'label',
          'sensitive',
          'measure',
          'missingCodes',
          'assume',
          'seconds',
        ];
  return all.filter((key) => key === 'checks' || has[key] === undefined);
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
