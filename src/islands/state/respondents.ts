/** The test respondents of the open study, as the server keeps them. */
import { useEffect } from 'react';
import * as v from 'valibot';
import { renumberingBetween } from '../../core/coding/renumbered';
import { RespondentSchema } from '../../wire/respondents';
import { call } from '../ui/api';
import type { StudyStore } from './study-state';

/** Fetches them once the study is open, and again when an edit has renumbered what they hold. */
export function useRespondents(store: StudyStore): void {
  useEffect(() => {
    const { api, reviewing } = store.getState();
    if (reviewing) return;
    let current = true;
    const fetchThem = () =>
      void call(v.array(RespondentSchema), 'GET', `${api}/respondents`).then((reply) => {
        if (current && reply.ok) store.getState().setRespondents(reply.body);
      });
    fetchThem();
    let { base } = store.getState();
    const unsubscribe = store.subscribe((state) => {
      if (state.base === base) return;
      const before = base;
      base = state.base;
      if (renumberingBetween(before, base) !== null) fetchThem();
    });
    return () => {
      current = false;
      unsubscribe();
    };
  }, [store]);
}
