/** The keyed cases of a study: as the server keeps them, and as they are changed here, saved a moment later. */
import { useCallback, useEffect, useRef, useState } from 'react';
import * as v from 'valibot';
import { CaseKept, CaseSchema, type KeyedCase } from '../../../wire/cases';
import { NothingSchema } from '../../../wire/common';
import { useStudy, useStudyStore } from '../../state/store';
import { call } from '../../ui/api';
import { useAsked } from '../../ui/use-asked';

const SAVE_AFTER = 400;

/** Without what the server says of it. */
export type CaseAsKeyed = Omit<KeyedCase, 'at' | 'revision'>;

export interface Cases {
  /** Null until they have come. */
  readonly list: readonly KeyedCase[] | null;
  readonly saving: 'saved' | 'waiting' | 'failed';
  readonly savedAt: number;
  readonly problem: string | null;
  put(keyed: CaseAsKeyed): void;
  remove(keyed: KeyedCase): void;
}

export const isSameCase = (a: Pick<KeyedCase, 'caseId' | 'entry'>, b: Pick<KeyedCase, 'caseId' | 'entry'>) =>
  a.caseId === b.caseId && a.entry === b.entry;

export function useCases(): Cases {
  const store = useStudyStore();
  const api = useStudy((state) => state.api);
  const [list, setList] = useState<readonly KeyedCase[] | null>(null);
  const [state, setState] = useState<Pick<Cases, 'saving' | 'savedAt' | 'problem'>>({
    saving: 'saved',
    savedAt: 0,
    problem: null,
  });
  /** What waits to be saved, by case. */
  const waiting = useRef(new Map<string, CaseAsKeyed>());
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const save = useCallback(async () => {
    clearTimeout(timer.current);
    const now = [...waiting.current];
    for (const [key, keyed] of now) {
      const reply = await call(CaseKept, 'PUT', `${api}/cases`, keyed);
      if (!reply.ok) {
        setState((before) => ({ ...before, saving: 'failed', problem: reply.problem }));
        // Tried again: nothing that was keyed is lost while the page is open.
        timer.current = setTimeout(() => void save(), 5000);
        return;
      }
      if (waiting.current.get(key) === keyed) waiting.current.delete(key);
    }
    if (waiting.current.size === 0) setState({ saving: 'saved', savedAt: Date.now(), problem: null });
  }, [api]);

  useAsked(
    () => call(v.array(CaseSchema), 'GET', `${api}/cases`),
    [api],
    (reply) => {
      setList(reply.ok ? reply.body : []);
      if (!reply.ok) setState((before) => ({ ...before, problem: reply.problem }));
    },
  );
  useEffect(() => {
    const leave = () => {
      for (const keyed of waiting.current.values())
        void fetch(`${api}/cases`, {
          method: 'PUT',
          keepalive: true,
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(keyed),
        });
    };
    addEventListener('pagehide', leave);
    return () => {
      removeEventListener('pagehide', leave);
      void save();
    };
  }, [api, save]);

  const put = ({ caseId, entry, keyedBy, answers, settledBy }: CaseAsKeyed) => {
    const keyed = { caseId, entry, keyedBy, answers, settledBy };
    const kept = { ...keyed, at: Date.now(), revision: store.getState().revision };
    setList((before) => {
      const others = before ?? [];
      return others.some((each) => isSameCase(each, kept))
        ? others.map((each) => (isSameCase(each, kept) ? kept : each))
        : [...others, kept];
    });
    waiting.current.set(`${keyed.entry} ${keyed.caseId}`, keyed);
    setState((before) => ({ ...before, saving: 'waiting' }));
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void save(), SAVE_AFTER);
  };
  const remove = (keyed: KeyedCase) => {
    waiting.current.delete(`${keyed.entry} ${keyed.caseId}`);
    setList((before) => before?.filter((each) => !isSameCase(each, keyed)) ?? null);
    const { caseId, entry } = keyed;
    void call(NothingSchema, 'DELETE', `${api}/cases`, { caseId, entry }).then((reply) => {
      if (!reply.ok) setState((before) => ({ ...before, problem: reply.problem }));
    });
  };
  return { list, ...state, put, remove };
}
