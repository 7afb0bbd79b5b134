/** The answer type of a question: each of the ten as respondents would meet it, and what choosing it would lose. */
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { ANSWER_TRAITS } from '../../../core/document/answer-types';
import { ANSWER_TYPES, type Question } from '../../../core/document/types';
import { lossesOf } from '../../../core/editing/losses';
import {
  answerOfType,
  editQuestion,
  emptyQuestionnaire,
  takenNames,
  type ItemPlace,
} from '../../../core/editing/structure';
import { planOf } from '../../../core/routing/planner';
import { walk } from '../../../core/routing/walk';
import { useStudy } from '../../state/store';
import { AnswerForm } from '../../answering/AnswerForm';
import { focusField } from '../../fields/focus';
import { byLetters, ONE_WORD } from '../../ui/by-letters';
import classes from './type-picker.module.css';

interface Props {
  readonly question: Question;
  readonly place: ItemPlace;
}

export function TypePicker({ question, place }: Props) {
  const [open, setOpen] = useState(false);
  const field = fieldId(question.name, 'type');
  return (
    <span className={classes.picker}>
      <button
        type="button"
        className={classes.current}
        data-field={field}
        aria-label={`Answer type: ${question.answer.type}`}
        aria-haspopup="listbox"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {question.answer.type}
      </button>
      {open && (
        <Types
          question={question}
          place={place}
          close={(again) => {
            setOpen(false);
            if (again) focusField(field);
          }}
        />
      )}
    </span>
  );
}

function Types({ question, place, close }: Props & { readonly close: (again: boolean) => void }) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const box = useRef<HTMLDivElement>(null);
  const letters = useRef({ typed: '', when: -Infinity });
  const now = ANSWER_TYPES.indexOf(question.answer.type);
  const [at, setAt] = useState(now);
  useEffect(() => {
    box.current?.focus();
    box.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  useEffect(() => {
    const outside = (event: MouseEvent) => {
      if (!box.current?.parentElement?.contains(event.target as Node)) close(false);
    };
    addEventListener('mousedown', outside);
    return () => removeEventListener('mousedown', outside);
  }, [close]);
  const samples = useMemo(
    () =>
      ANSWER_TYPES.map((type) => ({
        type,
        answer:
          type === question.answer.type
            ? question.answer
            : answerOfType(type, question.answer, question.name, takenNames(document), question.text),
      })),
    [question, document],
  );
  const take = (n: number) => {
    const sample = samples[n];
    if (sample !== undefined && n !== now)
      commit(
        editQuestion(place, 'type', `Make ${question.name} a ${sample.type}`, (draft) => {
          draft.answer = sample.answer as typeof draft.answer;
        }),
      );
    close(true);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const { key } = event;
    const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 2, ArrowUp: -2 }[key];
    if (step !== undefined) setAt(Math.min(Math.max(0, at + step), ANSWER_TYPES.length - 1));
    else if (key === 'Home') setAt(0);
    else if (key === 'End') setAt(ANSWER_TYPES.length - 1);
    else if (key === 'Enter' || key === ' ') take(at);
    else if (key === 'Escape') close(true);
    else if (key === 'Tab') close(false);
    else if (/^\p{L}$/u.test(key)) {
      const before = event.timeStamp - letters.current.when < ONE_WORD ? letters.current.typed : '';
      letters.current = { typed: before + key.toLowerCase(), when: event.timeStamp };
      setAt(byLetters(ANSWER_TYPES, at, before, key)?.at ?? at);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      ref={box}
      className={classes.types}
      role="listbox"
      aria-label="Answer types"
      tabIndex={0}
      aria-activedescendant={`type-${at}`}
      onKeyDown={onKeyDown}
    >
      {samples.map(({ type, answer }, n) => {
        const losses = n === now ? [] : lossesOf(question.answer, answer);
        return (
          <div
            key={type}
            id={`type-${n}`}
            role="option"
            aria-selected={n === at}
            aria-label={`${type}: ${ANSWER_TRAITS[type].offered}${losses.length > 0 ? `; loses ${losses.join(', ')}` : ''}`}
            data-now={n === now || undefined}
            onClick={() => take(n)}
          >
            <p>
              <b>{type}</b> {ANSWER_TRAITS[type].offered}
            </p>
            {losses.length > 0 && <p className={classes.losses}>loses {losses.join(', ')}</p>}
            <Sample question={{ ...question, answer }} />
          </div>
        );
      })}
    </div>
  );
}

/** The question's answer as a respondent meets it; not to be answered here. */
function Sample({ question }: { readonly question: Question }) {
  const step = useMemo(() => {
    const { name, text, answer } = question;
    const bare: Question = { kind: 'question', name, text, answer: withoutConditions(answer) };
    const empty = emptyQuestionnaire('');
    const section = { id: 'sample', title: '', kind: 'topic' as const, items: [bare] };
    const walked = walk(planOf({ ...empty, sections: [section] }), { answers: {}, lenient: true });
    return walked.ok ? walked.walk.steps[0] : undefined;
  }, [question]);
  if (step?.planItem.item.kind !== 'question') return null;
  return (
    <div className={classes.sample} inert>
      <AnswerForm
        session={{ answers: {}, faults: [], answer: () => undefined, inputs: { seed: 1 } }}
        step={step}
        question={step.planItem.item}
        codes={false}
        words={(words) => words}
      />
    </div>
  );
}

/** A few of the options, all shown: what decides about them is asked elsewhere. */
function withoutConditions(answer: Question['answer']): Question['answer'] {
  const plain = <Entry extends { readonly askIf?: string }>(list: readonly Entry[]) =>
    list.slice(0, 4).map(({ askIf: _, ...entry }) => entry);
  const { options, rows, specials } = answer as {
    options?: readonly { askIf?: string }[];
    rows?: readonly { askIf?: string }[];
    specials?: readonly { askIf?: string }[];
  };
  return {
    ...answer,
    ...(options === undefined ? {} : { options: plain(options) }),
    ...(rows === undefined ? {} : { rows: plain(rows).slice(0, 2) }),
    ...(specials === undefined ? {} : { specials: plain(specials) }),
  } as Question['answer'];
}
