/** The other studies, as the server has them: what an ending can hand on to. */
import { useEffect } from 'react';
import { OtherStudiesSchema } from '../../wire/other-studies';
import { call } from '../ui/api';
import type { StudyStore } from './study-state';

/** Fetches them once the study is open, and again when somebody comes back to it: others may have changed them. */
export function useOtherStudies(store: StudyStore): void {
  useEffect(() => {
    const { api, reviewing } = store.getState();
    if (reviewing) return;
    let current = true;
    const look = () => {
      if (document.visibilityState !== 'visible') return;
      void call(OtherStudiesSchema, 'GET', `${api}/others`).then((reply) => {
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
