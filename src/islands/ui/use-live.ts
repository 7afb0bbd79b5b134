/** What a server tells as it goes (server-sent events), for as long as somebody looks at the page. */
import { useEffect, useEffectEvent, useState } from 'react';
import * as v from 'valibot';

/** After so long without a word the server does not answer, in milliseconds. */
const SILENCE = 8000;

/**
 * Hands what comes from an address to `take`; null: nothing is listened to. A browser keeps few connections to a server open, so there is
 * none while nobody looks. Gives whether nothing is told any more.
 */
export function useLive<Schema extends v.GenericSchema>(
  address: string | null,
  schema: Schema,
  take: (told: v.InferOutput<Schema>) => void,
): boolean {
  const [isLost, setIsLost] = useState(false);
  const taken = useEffectEvent((data: unknown) => {
    const told = v.safeParse(schema, JSON.parse(String(data)));
    setIsLost(!told.success);
    if (told.success) take(told.output);
  });
  useEffect(() => {
    let source: EventSource | null = null;
    let silence: ReturnType<typeof setTimeout> | undefined;
    const listen = () => {
      source?.close();
      source = null;
      if (address === null || document.visibilityState !== 'visible') return;
      source = new EventSource(address);
      source.onmessage = ({ data }) => {
        clearTimeout(silence);
        taken(data);
      };
      // The browser asks again by itself, as it does where a stream has gone on for long; not where it was refused.
      source.onerror = () => {
        clearTimeout(silence);
        silence = setTimeout(() => setIsLost(true), source?.readyState === EventSource.CLOSED ? 0 : SILENCE);
      };
    };
    listen();
    document.addEventListener('visibilitychange', listen);
    return () => {
      document.removeEventListener('visibilitychange', listen);
      source?.close();
      clearTimeout(silence);
    };
  }, [address]);
  return isLost;
}
