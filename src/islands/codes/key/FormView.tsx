/** One form: its fields in order, the cursor on the one to be keyed, what is passed over filled in and left out. */
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Answers, Value } from '../../../core/document/types';
import { sectionLetter } from '../../../core/document/variables';
import type { KeyField } from '../../../core/keying/fields';
import type { FieldState, Keying } from '../../../core/keying/sheet';
import { endingLabel } from '../../../core/wording/targets';
import type { KeyedCase } from '../../../wire/cases';
import { EndingMark } from '../../ui/EndingMark';
import { plural } from '../../ui/format';
import { FieldRow } from './FieldRow';
import { Flags } from './Flags';
import classes from './key.module.css';

/** Stands for what comes after the last field. */
const DONE = ' done';
/** An Enter this soon after a value was taken over, in milliseconds, belongs to it. */
const HABIT = 350;

interface Props {
  readonly keying: Keying;
  readonly keyed: KeyedCase;
  readonly set: (answers: Answers) => void;
  /** The number on the next form; null where it cannot be told. */
  readonly nextId: string | null;
  readonly next: () => void;
}

/** One field as it was before: undefined where it had not been keyed. */
interface KeyedBefore {
  readonly key: string;
  readonly before: Value | null | undefined;
}

export function FormView({ keying, keyed, set, nextId, next }: Props) {
  const { answers } = keyed;
  const { fields, plan } = keying;
  const sheet = useMemo(() => keying.sheet(answers), [keying, answers]);
  const coded = useMemo(() => keying.coded(answers), [keying, answers]);
  const [past, setPast] = useState<readonly KeyedBefore[]>([]);
  const form = useRef<HTMLDivElement>(null);
  /** When a value last went on by itself. */
  const advanced = useRef(-Infinity);
  /** The field to be keyed next, once it is on the page. */
  const [wanted, setWanted] = useState<string | null>(
    () => keying.nextOpen(answers, sheet, null)?.key ?? null,
  );
  useEffect(() => {
    if (wanted === null) return;
    if (wanted === DONE) {
      form.current?.querySelector<HTMLElement>('[data-done]')?.focus();
      return;
    }
    const input = form.current?.querySelector<HTMLInputElement>(`[data-key="${CSS.escape(wanted)}"]`);
    input?.focus();
    input?.select();
    input?.scrollIntoView({ block: 'nearest' });
  }, [wanted, answers]);

  const write = (key: string, value: Value | null | undefined) => {
    const others = Object.fromEntries(Object.entries(answers).filter(([each]) => each !== key));
    const next: Answers = value === undefined ? others : { ...others, [key]: value };
    set(next);
    return next;
  };
  /** Takes over a value and goes on by the route. */
  const take = (field: KeyField, value: Value | null, byItself: boolean) => {
    setPast([...past, { key: field.key, before: answers[field.key] }]);
    const now = write(field.key, value);
    const after =
      keying.nextOpen(now, keying.sheet(now), field.key) ?? keying.nextOpen(now, keying.sheet(now), null);
    setWanted(after?.key ?? DONE);
    advanced.current = byItself ? performance.now() : -Infinity;
  };
  const undo = () => {
    const step = past.at(-1);
    if (step === undefined) return;
    setPast(past.slice(0, -1));
    write(step.key, step.before);
    setWanted(step.key);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    // A code that was complete has gone on by itself: the Enter that a hand adds to it is not for the next field.
    if (event.key === 'Enter' && performance.now() - advanced.current < HABIT) {
      event.preventDefault();
      event.stopPropagation();
      advanced.current = -Infinity;
      return;
    }
    advanced.current = -Infinity;
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault();
      undo();
      return;
    }
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    const inputs = [...(form.current?.querySelectorAll<HTMLInputElement>('[data-key]') ?? [])];
    const at = inputs.indexOf(event.target as HTMLInputElement);
    const to = inputs[at + (event.key === 'ArrowUp' ? -1 : 1)];
    if (at < 0 || to === undefined) return;
    event.preventDefault();
    setWanted(null);
    to.focus();
    to.select();
  };
  const asked = sheet.states.filter(({ is }) => is === 'asked').length;
  const done = fields.filter((field, at) => sheet.states[at]?.is === 'asked' && field.key in answers).length;
  const ending = sheet.ending === null ? null : (plan.endings[sheet.ending]?.ending ?? null);
  const isDone = done === asked;
  // What lies after the first field that is open follows from answers that are still to come.
  const open = keying.nextOpen(answers, sheet, null);
  const known = open === null ? fields.length : fields.indexOf(open);
  return (
    <div className={classes.form} ref={form} onKeyDownCapture={onKeyDown}>
      <div className={classes.sheet}>
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
            itself. Several codes stand with a space between. <kbd>↑</kbd> <kbd>↓</kbd> go from field to
            field, <kbd>Esc</kbd> forgets what is being typed, <kbd>Ctrl+Z</kbd> takes the last field back.
          </p>
        </header>
        {plan.document.given !== undefined && plan.document.given.length > 0 && (
          <section aria-label="Known beforehand">
            <h2>Known beforehand</h2>
            {fields.map((field, at) =>
              field.planItem === null ? (
                <FieldRow
                  key={field.key}
                  field={field}
                  state={sheet.states[at] as FieldState}
                  value={answers[field.key]}
                  isKeyed={field.key in answers}
                  isLater={false}
                  take={take}
                />
              ) : null,
            )}
          </section>
        )}
        {plan.sections.map(({ index, section }) => {
          const own = fields.flatMap((field, at) => (field.planItem?.section === index ? [at] : []));
          return (
            <section key={section.id} aria-label={section.title}>
              <h2>
                {sectionLetter(index)} {section.title}
              </h2>
              {rowsOf(own, fields, sheet.states, answers).map((row) =>
                typeof row === 'number' ? (
                  <FieldRow
                    key={fields[row]?.key}
                    field={fields[row] as KeyField}
                    state={sheet.states[row] as FieldState}
                    value={answers[fields[row]?.key ?? '']}
                    isKeyed={(fields[row]?.key ?? '') in answers}
                    isLater={row > known}
                    take={take}
                  />
                ) : (
                  <p key={row.from} className={classes.away}>
                    <i aria-hidden="true">{row.code}</i> {row.words}
                  </p>
                ),
              )}
            </section>
          );
        })}
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
        drop={(key) => {
          setPast([...past, { key, before: answers[key] }]);
          write(key, undefined);
        }}
        go={setWanted}
      />
    </div>
  );
}

interface Away {
  readonly from: string;
  readonly code: number | '';
  readonly words: string;
}

/** Fields to be shown; passes that do not run, and texts that are not open, are one line or none. */
function rowsOf(
  own: readonly number[],
  fields: readonly KeyField[],
  states: readonly FieldState[],
  answers: Answers,
): (number | Away)[] {
  const rows: (number | Away)[] = [];
  const passes = new Map<number, number[]>();
  for (const at of own) {
    const field = fields[at];
    if (field === undefined) continue;
    const state = states[at];
    const filled = field.key in answers && answers[field.key] !== null;
    if (state?.is === 'passed-over' && !filled && field.kind !== 'answer') continue;
    if (field.pass === null) rows.push(at);
    else passes.set(field.pass, [...(passes.get(field.pass) ?? []), at]);
  }
  for (const [pass, list] of passes) {
    const some = list.some((at) => states[at]?.is === 'asked' || (fields[at]?.key ?? '') in answers);
    const state = states[list[0] ?? -1];
    if (some) rows.push(...list);
    else
      rows.push({
        from: `pass ${pass}`,
        code: state?.is === 'passed-over' ? state.code : '',
        words: `No pass ${pass}`,
      });
  }
  return rows;
}
