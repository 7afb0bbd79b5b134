/** Keying into the grid of cases: one cell is open, a value is taken over and the cursor goes on by the case's route. */
import { useState, type KeyboardEvent } from 'react';
import type { Answers } from '../../../core/document/types';
import type { KeyField } from '../../../core/keying/fields';
import type { Keying } from '../../../core/keying/sheet';
import { readTyped, typingOf } from '../../../core/keying/typed';
import type { KeyedCase } from '../../../wire/cases';
import type { Cases } from './cases';

/** Indexes of a case and of a field. */
export interface At {
  readonly row: number;
  readonly column: number;
}

interface KeyedUndo {
  readonly at: At;
  readonly answers: Answers;
}

/** `show` brings a row into sight. */
export function useGridKeying(
  keying: Keying,
  cases: readonly KeyedCase[],
  put: Cases['put'],
  show: (row: number) => void,
) {
  const { fields } = keying;
  const [at, setAt] = useState<At>({ row: 0, column: 0 });
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [past, setPast] = useState<readonly KeyedUndo[]>([]);
  const field = fields[at.column] as KeyField | undefined;
  const keyed = cases[at.row];
  const forget = () => {
    setTyped(null);
    setProblem(null);
  };
  const move = (row: number, column: number) => {
    forget();
    const to = Math.min(Math.max(row, 0), cases.length - 1);
    setAt({ row: to, column: Math.min(Math.max(column, 0), fields.length - 1) });
    show(to);
  };
  /** On by the route of the case; at its end, to where the next case is open. */
  const goOn = (answers: Answers, field: KeyField) => {
    const next = keying.nextOpen(answers, keying.sheet(answers), field.key);
    const below = cases[at.row + 1];
    if (next !== null) move(at.row, fields.indexOf(next));
    else if (below !== undefined) {
      const open = keying.nextOpen(below.answers, keying.sheet(below.answers), null);
      move(at.row + 1, open === null ? 0 : fields.indexOf(open));
    } else move(at.row, at.column);
  };
  const take = (text: string) => {
    if (field === undefined || keyed === undefined) return;
    const state = keying.sheet(keyed.answers).states[at.column];
    const read = readTyped(field, text, state?.is === 'asked' ? (state.shown ?? undefined) : undefined);
    if (!read.ok) {
      setProblem(read.problem);
      return;
    }
    const left = state?.is === 'passed-over' && read.value === null;
    const others = Object.fromEntries(Object.entries(keyed.answers).filter(([key]) => key !== field.key));
    const answers: Answers = left ? others : { ...others, [field.key]: read.value };
    setPast([...past, { at, answers: keyed.answers }]);
    put({ ...keyed, answers });
    goOn(answers, field);
  };
  const undo = () => {
    const last = past.at(-1);
    const of = last === undefined ? undefined : cases[last.at.row];
    if (last === undefined || of === undefined) return;
    setPast(past.slice(0, -1));
    put({ ...of, answers: last.answers });
    move(last.at.row, last.at.column);
  };
  const type = (text: string) => {
    const grown = text.length > (typed ?? '').length && field !== undefined;
    const typing = grown ? typingOf(field, text) : 'open';
    if (typing === 'refused') {
      setProblem(`${text.trim()} is not allowed: nothing that is begins so.`);
      return;
    }
    setTyped(text);
    setProblem(null);
    if (typing === 'complete') take(text);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const go: Record<string, readonly [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ...(typed === null ? { ArrowLeft: [0, -1], ArrowRight: [0, 1] } : {}),
    };
    const step = go[event.key];
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') undo();
    else if (step !== undefined) move(at.row + step[0], at.column + step[1]);
    else if (event.key === 'Enter') {
      // What was refused is not a blank.
      if (problem === null || event.currentTarget.value !== '') take(event.currentTarget.value);
    } else {
      if (event.key === 'Escape') forget();
      return;
    }
    event.preventDefault();
  };
  return { at, field, keyed, typed, problem, move, type, onKeyDown };
}
