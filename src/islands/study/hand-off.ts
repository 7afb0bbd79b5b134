/** The other studies, as the server has them: what an ending can hand on to. */
import { useEffect } from 'react';
import * as v from 'valibot';
import type { Given } from '../../core/document/types';
import type { OtherStudy } from '../../core/snags';
import { call } from '../ui/api';
import type { StudyStore } from './store';

/** What a value is answered with was checked by the server, as a part of the study that takes it. */
const GivenSchema = v.custom<Given>(
  (input) => typeof input === 'object' && input !== null && 'name' in input,
);
export const OthersSchema: v.GenericSchema<unknown, OtherStudy[]> = v.array(
  v.object({ id: v.string(), title: v.string(), given: v.array(GivenSchema) }),
);

/** Fetches them once the study is open, and again when somebody comes back to it: others may have changed them. */
export function useOtherStudies(store: StudyStore): void {
  useEffect(() => {
    const { api, reviewing } = store.getState();
    if (reviewing) return;
    let current = true;
    const look = () => {
      if (document.visibilityState !== 'visible') return;
      void call(OthersSchema, 'GET', `${api}/others`).then((reply) => {
        if (current && reply.ok) store.getState().setOthers(reply.body);
      });
    };
    look();
    document.addEventListener('visibilitychange', look);
    return () => {
      current = false;
      document.removeEventListener('visibilitychange', look);
    };
  }, [store]);
}
