/** The test respondents of the open study, as the server keeps them. */
import * as v from 'valibot';
import { renumberingBetween } from '../../core/coding/renumbered';
import { RespondentSchema } from '../../wire/respondents';
import { call } from '../ui/api';
import { useAsked } from '../ui/use-asked';
import type { StudyStore } from './study-state';

/** Fetches them once the study is open, and again when an edit has renumbered what they hold. */
export function useRespondents(store: StudyStore): void {
  useAsked(
    () => {
      const { api, readOnly } = store.getState();
      return readOnly !== null ? null : call(v.array(RespondentSchema), 'GET', `${api}/respondents`);
    },
    [store],
    (reply) => {
      if (reply.ok) store.getState().setRespondents(reply.body);
    },
    (askAgain) => {
      let { base } = store.getState();
      return store.subscribe((state) => {
        if (state.base === base) return;
        const before = base;
        base = state.base;
        if (renumberingBetween(before, base) !== null) askAgain();
      });
    },
  );
}
