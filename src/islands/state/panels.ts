/** Made-up panels of the open study as they go: told by the server, and what can be done with each. */
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import type { PanelSettings } from '../../core/panel/panel-settings';
import { LetterSchema, PanelSchema, PanelsSchema, type Letter, type Panel } from '../../wire/panels';
import { call, type Reply } from '../ui/api';
import { useStudy } from './store';

export interface PanelInHand {
  /** Null until it has come. */
  readonly panel: Panel | null;
  /** That nothing is told any more. */
  readonly isLost: boolean;
  /** Each gives why not, as a sentence, or null. */
  run(until: number, speed: number | null): Promise<string | null>;
  rest(): Promise<string | null>;
  settle(settings: PanelSettings): Promise<string | null>;
  letter(
    pile: Pick<Letter, 'kind' | 'at'>,
    wanted: { readonly place: number } | { readonly name: string },
  ): Promise<Reply<Letter>>;
}

/** After so long without a word the server does not answer, in milliseconds. */
const SILENCE = 8000;

/**
 * By link. A browser keeps few connections to a server open: there is one for all panels, none where there is no panel, and
 * none while nobody looks.
 */
export function usePanels(isAny: boolean): (token: string) => PanelInHand {
  const api = useStudy((state) => state.api);
  const [panels, setPanels] = useState<Readonly<Record<string, Panel>>>({});
  const [isLost, setIsLost] = useState(false);
  useEffect(() => {
    let source: EventSource | null = null;
    let silence: ReturnType<typeof setTimeout> | undefined;
    const listen = () => {
      source?.close();
      source = null;
      if (!isAny || document.visibilityState !== 'visible') return;
      source = new EventSource(`${api}/trials/live`);
      source.onmessage = ({ data }) => {
        const told = v.safeParse(PanelsSchema, JSON.parse(String(data)));
        clearTimeout(silence);
        setIsLost(!told.success);
        if (told.success) setPanels(told.output);
      };
      // The browser asks again by itself, as it does where a stream has gone on for long.
      source.onerror = () => {
        clearTimeout(silence);
        silence = setTimeout(() => setIsLost(true), SILENCE);
      };
    };
    listen();
    document.addEventListener('visibilitychange', listen);
    return () => {
      document.removeEventListener('visibilitychange', listen);
      source?.close();
      clearTimeout(silence);
    };
  }, [api, isAny]);
  return (token) => {
    const path = `${api}/trials/${token}`;
    const change = async (body: object) => {
      const reply = await call(PanelSchema, 'PATCH', `${path}/panel`, body);
      if (!reply.ok) return reply.problem;
      setPanels((before) => ({ ...before, [token]: reply.body }));
      return null;
    };
    return {
      panel: panels[token] ?? null,
      isLost,
      run: (until, speed) => change({ do: 'run', until, speed }),
      rest: () => change({ do: 'rest' }),
      settle: (settings) => change({ do: 'settle', settings }),
      letter: ({ kind, at }, wanted) => {
        const asked = { kind, at, ...wanted };
        const search = new URLSearchParams(Object.entries(asked).map(([name, of]) => [name, String(of)]));
        return call(LetterSchema, 'GET', `${path}/letter?${search.toString()}`);
      },
    };
  };
}
