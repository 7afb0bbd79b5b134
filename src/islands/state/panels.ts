/** Made-up panels of the open study as they go: told by the server, and what can be done with each. */
import { useState } from 'react';
import type { PanelSettings } from '../../core/panel/panel-settings';
import { LetterSchema, PanelSchema, PanelsSchema, type Letter, type Panel } from '../../wire/panels';
import { call, type Reply } from '../ui/api';
import { useLive } from '../ui/use-live';
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

/**
 * By link. A browser keeps few connections to a server open: there is one for all panels, none where there is no panel, and
 * none while nobody looks.
 */
export function usePanels(isAny: boolean): (token: string) => PanelInHand {
  const api = useStudy((state) => state.api);
  const [panels, setPanels] = useState<Readonly<Record<string, Panel>>>({});
  const isLost = useLive(isAny ? `${api}/trials/live` : null, PanelsSchema, setPanels);
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
