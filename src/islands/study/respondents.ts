/** The test respondents of the open study, as the server keeps them. */
import { useEffect } from 'react';
import * as v from 'valibot';
import { WalkedSchema } from '../../core/document/walked';
import { call } from '../ui/api';
import type { StudyStore } from './store';

export const RespondentSchema = v.object({
  name: v.string(),
  walked: WalkedSchema,
  items: v.array(v.string()),
  marks: v.array(v.string()),
  row: v.record(v.string(), v.union([v.number(), v.string()])),
  at: v.number(),
});

/** Fetches them once the study is open. */
export function useRespondents(store: StudyStore): void {
  useEffect(() => {
    const { api, reviewing } = store.getState();
    if (reviewing) return;
    let current = true;
    void call(v.array(RespondentSchema), 'GET', `${api}/respondents`).then((reply) => {
      if (current && reply.ok) store.getState().setRespondents(reply.body);
    });
    return () => {
      current = false;
    };
  }, [store]);
}
