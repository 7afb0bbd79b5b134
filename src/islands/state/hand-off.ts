/** The other studies, as the server has them: what an ending can hand on to. */
import { OtherStudiesSchema } from '../../wire/other-studies';
import { call } from '../ui/api';
import { useAsked } from '../ui/use-asked';
import type { StudyStore } from './study-state';

/** Fetches them once the study is open, and again when somebody comes back to it: others may have changed them. */
export function useOtherStudies(store: StudyStore): void {
  useAsked(
    () => {
      const { api, readOnly } = store.getState();
      if (readOnly !== null || document.visibilityState !== 'visible') return null;
      return call(OtherStudiesSchema, 'GET', `${api}/others`);
    },
    [store],
    (reply) => {
      if (reply.ok) store.getState().setOthers(reply.body);
    },
    (askAgain) => {
      document.addEventListener('visibilitychange', askAgain);
      return () => document.removeEventListener('visibilitychange', askAgain);
    },
  );
}
