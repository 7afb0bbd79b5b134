/** The options of the selected question: label, dots, code, and where each leads. */
import { useRef, useState, type KeyboardEvent } from 'react';
import { address, fieldId } from '../../../core/document/addresses';
import { hasRows } from '../../../core/document/answer-types';
import { optionsOf } from '../../../core/document/shape';
import type { Option, Question } from '../../../core/document/types';
import { OPTIONS_MISSING } from '../../../core/document/vocabularies';
import {
  addOptions,
  editOption,
  moveOption,
  onEnter,
  OPTION_KINDS,
  optionKind,
  optionsFromPaste,
  pasteOptions,
  removeOption,
  setOptionKind,
  usualCode,
  writeOption,
  type OptionKind,
} from '../../../core/editing/options';
import { recode, recodeProblem } from '../../../core/editing/recode';
import { aimAnswers } from '../../../core/editing/skips';
import { nextCode, type ItemPlace } from '../../../core/editing/structure';
import { isSuggested } from '../../../core/editing/suggested';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { leadOf } from '../../../core/views/leads';
import { useStudy } from '../../state/store';
import { readPicture } from '../../ui/pictures';
import { ConditionField } from '../../fields/ConditionField';
import { CheckedField, NumberField, TextField } from '../../fields/Fields';
import { focusField, thenFocus } from '../../fields/focus';
import { PictureFields } from '../../fields/PictureFields';
import { LeadText } from './LeadText';
import { ListTools } from './ListTools';
import { useItemMoves } from '../../fields/part-moves';
import { TargetPicker } from '../../fields/TargetPicker';
import answersClasses from './answers.module.css';
import askIfClasses from './ask-if.module.css';
import detailsClasses from './details.module.css';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
  readonly question: Question;
  readonly place: ItemPlace;
}

const KIND_WORDS: Readonly<Record<OptionKind, string>> = {
  ordinary: 'an ordinary answer',
  specify: 'other, please specify',
  exclusive: 'excludes the others',
  dont_know: OPTIONS_MISSING.dont_know.word,
  refused: OPTIONS_MISSING.refused.word,
  not_available: OPTIONS_MISSING.not_available.word,
};

export function OptionRows({ plan, planItem, question, place }: Props) {
  const commit = useStudy((state) => state.commit);
  const moves = useItemMoves();
  const [aiming, setAimingAt] = useState<number | null>(null);
  const [also, setAlso] = useState<readonly number[]>([]);
  const setAiming = (code: number | null) => {
    setAlso([]);
    setAimingAt(code);
  };
  const options = optionsOf(question.answer);
  const listed = 'options' in question.answer;
  const suggested = isSuggested(options);
  // Beside a number or a scale 98 may be an answer.
  const usual = options.map((option) => (listed ? usualCode(options, option) : null));
  const aimable = listed && !hasRows(question.answer);
  const pictures = useRef<Record<number, HTMLInputElement | null>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const document = useStudy((state) => state.document);
  const setAskIf = (o: number, text: string | undefined) =>
    commit(
      editOption(place, o, 'askIf', 'Show an answer only if …', (draft) => {
        if (text === undefined) delete draft.askIf;
        else draft.askIf = text;
      }),
    );
  const setImage = (o: number, image: Option['image']) =>
    commit(
      editOption(place, o, 'image', 'Change the picture of an answer', (draft) => {
        if (image === undefined) delete draft.image;
        else draft.image = image;
      }),
    );
  const choosePicture = async (o: number, file: File) => {
    const read = await readPicture(file);
    setProblem(read.ok ? setImage(o, { src: read.src, alt: '' }) : read.problem);
  };
  const label = (code: number) => fieldId(question.name, 'label', code);

  const add = (at: number, added = [{ label: '' }] as { label: string; code?: number }[]) => {
    // Beside a number, scale or date only "don't know" and the like can stand.
    if (!listed) {
      const code =
        [98, 99, 97, 998, 999].find((free) => !options.some((option) => option.code === free)) ??
        nextCode(options);
      thenFocus(
        () => {
          commit(addOptions(place, at, [{ label: 'Don’t know', code }]));
          commit(setOptionKind(place, at, 'dont_know'));
        },
        label(code),
        'all',
      );
      return;
    }
    const code = added[0]?.code ?? nextCode(options);
    thenFocus(() => commit(addOptions(place, at, added)), label(code));
  };
  const remove = (at: number) => {
    const neighbour = options[at === 0 ? 1 : at - 1];
    if (listed && neighbour === undefined) return;
    thenFocus(
      () => commit(removeOption(place, at)),
      neighbour === undefined ? fieldId(question.name, 'text') : label(neighbour.code),
    );
  };
  const onKeyDown = (at: number, option: Option) => (event: KeyboardEvent<HTMLTextAreaElement>) => {
    const { key, altKey } = event;
    if (altKey && (key === 'ArrowUp' || key === 'ArrowDown')) {
      const by = key === 'ArrowUp' ? -1 : 1;
      if (options[at + by] !== undefined)
        thenFocus(() => commit(moveOption(place, at, by)), label(option.code));
    } else if (altKey && key === 'ArrowRight' && aimable) setAiming(option.code);
    else if (key === 'Enter' && (event.ctrlKey || event.metaKey)) moves.addAfter(place);
    else if (key === 'Enter' && event.shiftKey) add(at + 1);
    else if (key === 'Enter') {
      const next = onEnter(options, at);
      if (next.does === 'add') add(next.at);
      else if (next.does === 'go') focusField(label(options[next.at]?.code ?? 0), 'all');
      else {
        commit(removeOption(place, at));
        moves.addAfter(place);
      }
    } else if (key === 'Backspace' && option.label === '') remove(at);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <div
      className={answersClasses.answers}
      role="group"
      aria-label={suggested ? 'Answers, as a suggestion: write the first to replace them' : 'Answers'}
      data-suggested={suggested || undefined}
    >
      {options.map((option, o) => (
        <div
          key={option.code}
          data-anchor={address('option', question.name, option.code)}
          data-faint={option.missing !== undefined || undefined}
          data-kind="option"
        >
          <span className={answersClasses.label} data-grows>
            <TextField
              field={label(option.code)}
              label={`Answer ${o + 1}`}
              value={option.label}
              placeholder="Answer"
              change={(text) => commit(writeOption(place, o, text))}
              onKeyDown={onKeyDown(o, option)}
              onPaste={(text) => {
                const pasted = optionsFromPaste(text);
                if (pasted.length < 2) return false;
                commit(pasteOptions(place, o, pasted));
                return true;
              }}
            />
          </span>
          <select
            className={answersClasses.kind}
            aria-label={`Kind of answer ${o + 1}`}
            title={KIND_WORDS[optionKind(option)]}
            data-plain={optionKind(option) === 'ordinary' || undefined}
            value={optionKind(option)}
            onChange={(event) => {
              const { value } = event.target;
              if (value === 'askIf')
                thenFocus(() => setAskIf(o, ''), fieldId(question.name, 'optionIf', option.code));
              else if (value === 'image') pictures.current[option.code]?.click();
              else commit(setOptionKind(place, o, value as OptionKind));
            }}
          >
            {OPTION_KINDS.filter(
              (kind) => listed || !['ordinary', 'exclusive', 'specify'].includes(kind),
            ).map((kind) => (
              <option key={kind} value={kind}>
                {KIND_WORDS[kind]}
              </option>
            ))}
            {option.askIf === undefined && <option value="askIf">shown only if …</option>}
            {option.image === undefined && listed && <option value="image">with a picture …</option>}
          </select>
          <input
            ref={(field) => {
              pictures.current[option.code] = field;
            }}
            type="file"
            hidden
            aria-label={`Picture of answer ${o + 1}`}
            accept="image/png,image/jpeg,image/gif,image/webp"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              event.target.value = '';
              if (file !== undefined) void choosePicture(o, file);
            }}
          />
          <span className={answersClasses.dots} />
          <span className={answersClasses.code}>
            <NumberField
              field={fieldId(question.name, 'code', option.code)}
              label={`Code of answer ${o + 1}`}
              className={answersClasses.codeField}
              value={option.code}
              whole
              take={(code) => {
                if (options.some((other, n) => n !== o && other.code === code))
                  return `Another answer has the code ${code}: choose a free one.`;
                // What names the code goes along; where it is taken as a number, that has to be changed by hand.
                const recoding = new Map([[option.code, code as number]]);
                const refused = recodeProblem(document, place, recoding);
                return refused ?? commit(recode(document, place, recoding));
              }}
            />
          </span>
          {aimable ? (
            <span className={answersClasses.aim}>
              <button
                type="button"
                data-field={fieldId(question.name, 'aim', option.code)}
                aria-label={`Where answer ${o + 1} leads`}
                aria-expanded={aiming === option.code}
                title="Make a skip (Alt+→)"
                onClick={() => setAiming(aiming === option.code ? null : option.code)}
              >
                <LeadText lead={leadOf(plan, planItem, option.code)} />
              </button>
              {aiming === option.code && (
                <TargetPicker
                  section={place.section}
                  item={place.item}
                  none="carry on"
                  close={() => setAiming(null)}
                  aside={
                    options.length > 1 ? (
                      <AlsoFrom
                        options={options.filter(({ code }) => code !== option.code)}
                        also={also}
                        set={setAlso}
                      />
                    ) : undefined
                  }
                  choose={(target) => {
                    setAiming(null);
                    // In the order of the list.
                    const codes = options.flatMap(({ code }) =>
                      code === option.code || also.includes(code) ? [code] : [],
                    );
                    commit(aimAnswers(place, question, codes, target));
                    queueMicrotask(() => focusField(label(option.code)));
                  }}
                />
              )}
            </span>
          ) : (
            <span className={answersClasses.lead} />
          )}
          {(option.askIf !== undefined ||
            option.image !== undefined ||
            option.specify ||
            usual[o] != null) && (
            <div className={answersClasses.optionMore}>
              {usual[o] != null && <UsualCode code={option.code} usual={usual[o]} place={place} />}
              {option.specify && (
                <div className={answersClasses.specifyWords}>
                  <span>asks</span>
                  <CheckedField
                    field={fieldId(question.name, 'specify', option.code)}
                    label={`What is asked with answer ${o + 1}`}
                    value={option.specifyLabel ?? ''}
                    placeholder="please specify"
                    size={30}
                    take={(text) =>
                      commit(
                        editOption(place, o, 'specify', 'Change what an answer asks', (draft) => {
                          if (text.trim() === '') delete draft.specifyLabel;
                          else draft.specifyLabel = text.trim();
                        }),
                      )
                    }
                  />
                  {question.required === true && (
                    <label>
                      <input
                        type="checkbox"
                        checked={option.specifyOptional === true}
                        onChange={(event) =>
                          commit(
                            editOption(place, o, 'specifyOptional', 'Change what an answer asks', (draft) => {
                              if (event.target.checked) draft.specifyOptional = true;
                              else delete draft.specifyOptional;
                            }),
                          )
                        }
                      />{' '}
                      may be left empty
                    </label>
                  )}
                </div>
              )}
              {option.askIf !== undefined && (
                <div className={askIfClasses.askIfEditor}>
                  <span>shown if</span>
                  <div>
                    <ConditionField
                      field={fieldId(question.name, 'optionIf', option.code)}
                      label={`Answer ${o + 1} is shown if`}
                      value={option.askIf}
                      place={place}
                      isProblem={({ at }) => at.item === question.name && at.option === option.code}
                      change={(text) => setAskIf(o, text)}
                    />
                  </div>
                  <button type="button" onClick={() => setAskIf(o, undefined)}>
                    To all
                  </button>
                </div>
              )}
              {option.image !== undefined && (
                <span className={detailsClasses.picture}>
                  <PictureFields
                    image={option.image}
                    field={fieldId(question.name, 'optionImage', option.code)}
                    change={(image) => setImage(o, image)}
                  />
                  <button
                    type="button"
                    className={answersClasses.takeOut}
                    aria-label={`Answer ${o + 1} without a picture`}
                    onClick={() => setImage(o, undefined)}
                  >
                    ×
                  </button>
                </span>
              )}
            </div>
          )}
        </div>
      ))}
      <span className={answersClasses.listActs}>
        <button
          type="button"
          className={answersClasses.addAnswer}
          title="Enter in the last answer; Shift+Enter adds one right here"
          onClick={() => add(options.length)}
        >
          {listed ? 'Add an answer' : 'Add don’t know'}
        </button>
        {suggested && <small>a suggestion: write or paste the first answer to replace it</small>}
        {listed && <ListTools question={question} place={place} />}
      </span>
      {problem !== null && (
        <p role="alert" className={detailsClasses.wrong}>
          {problem}
        </p>
      )}
    </div>
  );
}

interface UsualCodeProps {
  readonly code: number;
  readonly usual: number;
  readonly place: ItemPlace;
}

/** Offers the code that such answers have as a rule; what names the old one goes along. */
function UsualCode({ code, usual, place }: UsualCodeProps) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const give = () => {
    const recoding = new Map([[code, usual]]);
    setProblem(recodeProblem(document, place, recoding) ?? commit(recode(document, place, recoding)));
  };
  return (
    <span>
      <button type="button" onClick={give}>
        Give it the usual code {usual}
      </button>
      {problem !== null && <span role="alert"> {problem}</span>}
    </span>
  );
}

interface AlsoProps {
  readonly options: readonly Option[];
  readonly also: readonly number[];
  readonly set: (codes: readonly number[]) => void;
}

/** Other answers that lead to the same place. */
function AlsoFrom({ options, also, set }: AlsoProps) {
  return (
    <fieldset className={answersClasses.also}>
      <legend>Also from</legend>
      {options.map(({ code, label }) => (
        <label key={code}>
          <input
            type="checkbox"
            checked={also.includes(code)}
            onChange={(event) => set(event.target.checked ? [...also, code] : also.filter((c) => c !== code))}
          />
          {label || code}
        </label>
      ))}
    </fieldset>
  );
}
