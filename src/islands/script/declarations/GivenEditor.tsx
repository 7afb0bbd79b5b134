/** A given value: known of each respondent before the start, or, as a random arm, drawn then. */
import type { Draft } from 'immer';
import { address, fieldId } from '../../../core/document/addresses';
import { isDated, isNumeric } from '../../../core/document/answer-types';
import { optionsOf } from '../../../core/document/shape';
import {
  ANSWER_TYPES,
  type Answer,
  type AnswerType,
  type Given,
  type Option,
} from '../../../core/document/types';
import { editDeclaration } from '../../../core/editing/declarations';
import { onEnter } from '../../../core/editing/options';
import { answerOfType, nextCode, takenNames } from '../../../core/editing/structure';
import { useStudy, useStudyStore } from '../../state/store';
import { CheckedField, NumberField, TextField } from '../../fields/Fields';
import { focusField, thenFocus } from '../../fields/focus';
import { NamedField } from '../../fields/NamedField';
import { DeclarationLabel } from './DeclarationLabel';
import answersClasses from '../item/answers.module.css';
import blockClasses from '../item/block.module.css';
import detailsClasses from '../item/details.module.css';
import limitsClasses from '../item/limits.module.css';

export function GivenPrint({ given }: { readonly given: Given }) {
  return (
    <>
      <div className={blockClasses.name}>
        {given.name}
        <small>{given.random ? 'random arm' : `given, ${given.answer.type}`}</small>
      </div>
      <div>
        <div className={blockClasses.question}>{given.label}</div>
        <div className={answersClasses.answers}>
          {optionsOf(given.answer).map(({ code, label }) => (
            <div key={code}>
              <span className={answersClasses.label}>{label}</span>
              <span className={answersClasses.dots} />
              <span className={answersClasses.code}>{code}</span>
              <span className={answersClasses.lead}>{given.random ? percentOf(given, code) : ''}</span>
            </div>
          ))}
        </div>
      </div>
    </>
  );
}

/** The chance of an arm; even where none is written. */
function percentOf({ answer, assume }: Given, code: number): string {
  const share = assume?.shares?.[String(code)] ?? 1 / Math.max(1, optionsOf(answer).length);
  return `${Math.round(share * 1000) / 10}%`;
}

/** A value that is given can be of any type but a grid, which is several variables. */
const TYPES = ANSWER_TYPES.filter((type) => type !== 'grid');

export function GivenEditor({ given, at }: { readonly given: Given; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const store = useStudyStore();
  const { name, label, answer, random } = given;
  const edit = (field: string, change: (draft: Draft<Given>) => void) =>
    commit(editDeclaration('given', at, field, `Change ${name}`, change));
  const setType = (type: AnswerType) => {
    const fresh = answerOfType(type, answer, name, takenNames(store.getState().document));
    edit('type', (draft) => {
      draft.answer = fresh as Draft<Answer>;
      delete draft.assume;
    });
  };
  return (
    <>
      <div className={blockClasses.name}>
        <NamedField
          field={fieldId('@given', at, 'name')}
          name={name}
          selection={(to) => address('given', to)}
        />
        {random ? (
          <small>random arm</small>
        ) : (
          <select
            className={blockClasses.type}
            aria-label="Type of the value"
            value={answer.type}
            onChange={(event) => setType(event.target.value as AnswerType)}
          >
            {TYPES.map((type) => (
              <option key={type}>{type}</option>
            ))}
          </select>
        )}
      </div>
      <div>
        <DeclarationLabel
          field={fieldId('@given', at, 'label')}
          says="What is known"
          placeholder="What is known beforehand"
          value={label}
          edit={edit}
        />
        <div className={detailsClasses.extras}>
          <label>
            <input
              type="checkbox"
              checked={random === true}
              onChange={(event) => {
                const drawn = event.target.checked;
                const arms = answerOfType('single', answer, name, takenNames(store.getState().document));
                edit('random', (draft) => {
                  if (drawn) {
                    draft.random = true;
                    draft.answer = arms as Draft<Answer>;
                  } else delete draft.random;
                });
              }}
            />{' '}
            drawn at random at the start
          </label>
        </div>
        <GivenLimits answer={answer} at={at} edit={edit} />
        {'options' in answer && <GivenOptions given={given} options={answer.options} at={at} edit={edit} />}
      </div>
    </>
  );
}

type EditGiven = (field: string, change: (draft: Draft<Given>) => void) => string | null;

function GivenLimits({
  answer,
  at,
  edit,
}: {
  readonly answer: Answer;
  readonly at: number;
  readonly edit: EditGiven;
}) {
  const set = (key: 'min' | 'max') => (value: number | string | undefined) =>
    edit(key, (draft) => {
      const record = draft.answer as Record<string, unknown>;
      if (value === undefined || value === '') delete record[key];
      else record[key] = value;
    });
  if (!isNumeric(answer) && !isDated(answer)) return null;
  return (
    <div className={limitsClasses.limits}>
      {(['min', 'max'] as const).map((key) => {
        const words = key === 'min' ? 'from' : 'to';
        const own = { field: fieldId('@given', at, key), label: words, className: limitsClasses.limit };
        return (
          <label key={key}>
            {words}{' '}
            {isNumeric(answer) ? (
              <NumberField {...own} value={answer[key]} take={set(key)} />
            ) : (
              <CheckedField {...own} size={14} value={answer[key] ?? ''} take={set(key)} />
            )}
          </label>
        );
      })}
    </div>
  );
}

interface OptionsProps {
  readonly given: Given;
  readonly options: readonly Option[];
  readonly at: number;
  readonly edit: EditGiven;
}

function GivenOptions({ given, options, at, edit }: OptionsProps) {
  const label = (code: number) => fieldId('@given', at, 'option', code);
  const change = (o: number, field: string, set: (option: Draft<Option>) => void) =>
    edit(`option ${o} ${field}`, (draft) => {
      const found = 'options' in draft.answer ? draft.answer.options[o] : undefined;
      if (found !== undefined) set(found);
    });
  const add = (to: number) => {
    const code = nextCode(options);
    thenFocus(
      () =>
        edit('options', (draft) => {
          if ('options' in draft.answer) draft.answer.options.splice(to, 0, { code, label: '' });
        }),
      label(code),
    );
  };
  const remove = (o: number) => {
    const neighbour = options[o === 0 ? 1 : o - 1];
    if (neighbour === undefined) return;
    thenFocus(
      () =>
        edit('options', (draft) => {
          if ('options' in draft.answer) draft.answer.options.splice(o, 1);
        }),
      label(neighbour.code),
    );
  };
  const word = given.random ? 'arm' : 'value';
  return (
    <div className={answersClasses.answers} role="group" aria-label={given.random ? 'Arms' : 'Values'}>
      {options.map((option, o) => (
        <div key={o} data-kind="option">
          <span className={answersClasses.label} data-grows>
            <TextField
              field={label(option.code)}
              label={`Words of ${word} ${o + 1}`}
              value={option.label}
              placeholder={given.random ? 'Arm' : 'Value'}
              change={(text) => change(o, 'label', (draft) => void (draft.label = text))}
              onKeyDown={(event) => {
                const next = onEnter(options, o);
                if (event.key === 'Enter' && (event.shiftKey || next.does === 'add')) add(o + 1);
                else if (event.key === 'Enter' && next.does === 'go')
                  focusField(label(options[next.at]?.code ?? 0), 'all');
                else if (event.key === 'Enter') remove(o);
                else if (event.key === 'Backspace' && option.label === '') remove(o);
                else return;
                event.preventDefault();
              }}
            />
          </span>
          <span className={answersClasses.dots} />
          <span className={answersClasses.code}>
            <NumberField
              field={fieldId('@given', at, 'code', o)}
              label={`Code of ${word} ${o + 1}`}
              className={answersClasses.codeField}
              value={option.code}
              whole
              take={(code) =>
                options.some((other, n) => n !== o && other.code === code)
                  ? `Another ${word} has the code ${code}: choose a free one.`
                  : change(o, 'code', (draft) => void (draft.code = code as number))
              }
            />
          </span>
          <span className={answersClasses.lead}>
            {given.random && (
              <>
                <NumberField
                  field={fieldId('@given', at, 'share', o)}
                  label={`Chance of arm ${o + 1} in per cent`}
                  className={answersClasses.codeField}
                  value={Number.parseFloat(percentOf(given, option.code))}
                  take={(percent) => setChance(given, options, option, percent, edit)}
                />{' '}
                %
              </>
            )}
          </span>
        </div>
      ))}
      <button type="button" className={answersClasses.addAnswer} onClick={() => add(options.length)}>
        Add {given.random ? 'an arm' : 'a value'}
      </button>
    </div>
  );
}

/** One arm gets a chance; the others share the rest as they did before. */
function setChance(
  given: Given,
  options: readonly Option[],
  option: Option,
  percent: number | undefined,
  edit: EditGiven,
): string | null {
  if (percent === undefined || percent < 0 || percent > 100)
    return 'A chance lies between 0 and 100 per cent.';
  const before = (code: number) => given.assume?.shares?.[String(code)] ?? 1 / options.length;
  const others = options.filter(({ code }) => code !== option.code);
  const sum = others.reduce((total, { code }) => total + before(code), 0);
  const rest = 1 - percent / 100;
  return edit('shares', (draft) => {
    const shares: Record<string, number> = { [String(option.code)]: percent / 100 };
    for (const { code } of others)
      shares[String(code)] = sum === 0 ? rest / others.length : (before(code) / sum) * rest;
    draft.assume = { ...draft.assume, shares };
  });
}
