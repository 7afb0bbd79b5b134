/** One form: its fields in order, the cursor on the one to be keyed, what is passed over filled in and left out. */
import { useMemo, useRef } from 'react';
import type { Answers } from '../../../core/document/types';
import { sectionLetter } from '../../../core/document/variables';
import type { KeyField } from '../../../core/keying/fields';
import type { FieldState, Keying, KeyedSheet } from '../../../core/keying/sheet';
import { endingLabel } from '../../../core/wording/targets';
import type { KeyedCase } from '../../../wire/cases';
import { EndingMark } from '../../ui/EndingMark';
import { plural } from '../../ui/format';
import { FieldRow } from './FieldRow';
import { Flags } from './Flags';
import { rowsOf } from './form-rows';
import classes from './key.module.css';
import { useForm } from './use-form';

interface Props {
  readonly keying: Keying;
  readonly keyed: KeyedCase;
  readonly set: (answers: Answers) => void;
  /** The number on the next form; null where it cannot be told. */
  readonly nextId: string | null;
  readonly next: () => void;
}

export function FormView({ keying, keyed, set, nextId, next }: Props) {
  const { answers } = keyed;
  const { fields, plan } = keying;
  const form = useRef<HTMLDivElement>(null);
  const { sheet, take, drop, go, onKeyDown } = useForm(form, keying, answers, set);
  const coded = useMemo(() => keying.coded(answers), [keying, answers]);
  const asked = sheet.states.filter(({ is }) => is === 'asked').length;
  const done = fields.filter((field, at) => sheet.states[at]?.is === 'asked' && field.key in answers).length;
  const ending = sheet.ending === null ? null : (plan.endings[sheet.ending]?.ending ?? null);
  const isDone = done === asked;
  return (
    <div className={classes.form} ref={form} onKeyDownCapture={onKeyDown}>
      <div className={classes.sheet}>
        <FormHead keyed={keyed} done={done} isDone={isDone} />
        <FormFields keying={keying} answers={answers} sheet={sheet} take={take} />
        <p className={classes.done} role="status">
          {isDone && ending !== null && (
            <>
              <EndingMark kind={ending.kind} /> The form leads to {endingLabel(plan.document, ending.id)};
              every field on its route is keyed.{' '}
              <button type="button" data-done onClick={next}>
                {nextId === null ? 'Save it, on to the next number' : `Save it, key ${nextId}`}
              </button>
            </>
          )}
        </p>
      </div>
      <Flags
        keying={keying}
        answers={answers}
        sheet={sheet}
        problems={isDone ? coded.problems.filter(({ problem }) => problem !== 'missing-answer') : []}
        blanks={keying.blanks(answers, sheet)}
        drop={drop}
        go={go}
      />
    </div>
  );
}

interface HeadProps {
  readonly keyed: KeyedCase;
  /** Fields of the route that are keyed. */
  readonly done: number;
  readonly isDone: boolean;
}

function FormHead({ keyed, done, isDone }: HeadProps) {
  return (
    <header>
      <h1>
        Case {keyed.caseId}
        {keyed.entry === 2 && ', second time'}
      </h1>
      <p>
        {plural(done, 'field')} keyed{isDone && ', all that this route asks for'}.{' '}
      </p>
      <p className={classes.keys}>
        <kbd>Enter</kbd> goes on, with nothing typed as a blank; a code that can be no longer goes on by
        itself. Several codes stand with a space between. <kbd>↑</kbd> <kbd>↓</kbd> go from field to field,{' '}
        <kbd>Esc</kbd> forgets what is being typed, <kbd>Ctrl+Z</kbd> takes the last field back.
      </p>
    </header>
  );
}

interface FieldsProps {
  readonly keying: Keying;
  readonly answers: Answers;
  readonly sheet: KeyedSheet;
  readonly take: Parameters<typeof FieldRow>[0]['take'];
}

/** What is known beforehand, then section by section. */
function FormFields({ keying, answers, sheet, take }: FieldsProps) {
  const { fields, plan } = keying;
  // What lies after the first field that is open follows from answers that are still to come.
  const open = keying.nextOpen(answers, sheet, null);
  const known = open === null ? fields.length : fields.indexOf(open);
  const row = (at: number) => {
    const field = fields[at] as KeyField;
    return (
      <FieldRow
        key={field.key}
        field={field}
        state={sheet.states[at] as FieldState}
        value={answers[field.key]}
        isKeyed={field.key in answers}
        isLater={field.planItem !== null && at > known}
        take={take}
      />
    );
  };
  const given = fields.flatMap((field, at) => (field.planItem === null ? [at] : []));
  return (
    <>
      {given.length > 0 && (
        <section aria-label="Known beforehand">
          <h2>Known beforehand</h2>
          {given.map(row)}
        </section>
      )}
      {plan.sections.map(({ index, section }) => {
        const own = fields.flatMap((field, at) => (field.planItem?.section === index ? [at] : []));
        return (
          <section key={section.id} aria-label={section.title}>
            <h2>
              {sectionLetter(index)} {section.title}
            </h2>
            {rowsOf(own, fields, sheet.states, answers).map((each) =>
              typeof each === 'number' ? (
                row(each)
              ) : (
                <p key={each.from} className={classes.away}>
                  <i aria-hidden="true">{each.code}</i> {each.words}
                </p>
              ),
            )}
          </section>
        );
      })}
    </>
  );
}
