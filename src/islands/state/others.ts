/** Learns of what other tabs and people save in the open study: other tabs tell at once, the server is asked. */
import { useEffect } from 'react';
import * as v from 'valibot';
import type { StudyStore } from './study-state';

const ASK_EVERY = 4000;
const TellSchema = v.object({ revision: v.number() });

export function useOthers(store: StudyStore): void {
  useEffect(() => {
    if (store.getState().readOnly !== null) return;
    const channel = new BroadcastChannel(`jolly-fork/${store.getState().id}`);
    const look = () => void store.getState().look();
    channel.onmessage = ({ data }) => {
      const told = v.safeParse(TellSchema, data);
      if (told.success && told.output.revision > store.getState().revision) look();
    };
    const unsubscribe = store.subscribe(({ revision }, before) => {
      if (revision !== before.revision) channel.postMessage({ revision });
    });
    const whenSeen = () => {
      if (document.visibilityState === 'visible') look();
    };
    const timer = setInterval(whenSeen, ASK_EVERY);
    document.addEventListener('visibilitychange', whenSeen);
    return () => {
      unsubscribe();
      channel.close();
      clearInterval(timer);
      document.removeEventListener('visibilitychange', whenSeen);
    };
  }, [store]);
}
