/** Keying one form: the cursor goes on by the route, each value can be taken back, and a habitual Enter does no harm. */
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import type { Answers, Value } from '../../../core/document/types';
import type { KeyField } from '../../../core/keying/fields';
import type { Keying } from '../../../core/keying/sheet';

/** Stands for what comes after the last field. */
const DONE = ' done';
/** An Enter this soon after a value was taken over, in milliseconds, belongs to it. */
const HABIT = 350;

/** One field as it was before: undefined where it had not been keyed. */
interface KeyedBefore {
  readonly key: string;
  readonly before: Value | null | undefined;
}

/** Inputs of the form have `data-key`, the way on once all is keyed has `data-done`. */
export function useForm(
  form: RefObject<HTMLElement | null>,
  keying: Keying,
  answers: Answers,
  set: (answers: Answers) => void,
) {
  const sheet = useMemo(() => keying.sheet(answers), [keying, answers]);
  const [past, setPast] = useState<readonly KeyedBefore[]>([]);
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
  }, [form, wanted, answers]);

  const write = (key: string, value: Value | null | undefined): Answers => {
    const others = Object.fromEntries(Object.entries(answers).filter(([each]) => each !== key));
    const next: Answers = value === undefined ? others : { ...others, [key]: value };
    set(next);
    return next;
  };
  const remember = (key: string) => setPast([...past, { key, before: answers[key] }]);
  /** Takes over a value and goes on by the route. */
  const take = (field: KeyField, value: Value | null, byItself: boolean) => {
    remember(field.key);
    const now = write(field.key, value);
    const after =
      keying.nextOpen(now, keying.sheet(now), field.key) ?? keying.nextOpen(now, keying.sheet(now), null);
    setWanted(after?.key ?? DONE);
    advanced.current = byItself ? performance.now() : -Infinity;
  };
  /** Takes away what was keyed in a field. */
  const drop = (key: string) => {
    remember(key);
    write(key, undefined);
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
  return { sheet, take, drop, go: setWanted, onKeyDown };
}
