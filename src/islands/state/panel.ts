/** A made-up panel of the open study as it goes: told by the server, and what can be done with it. */
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import type { PanelSettings } from '../../core/panel/panel-settings';
import { LetterSchema, PanelSchema, type Letter, type Panel } from '../../wire/panels';
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

export function usePanel(token: string): PanelInHand {
  const api = useStudy((state) => state.api);
  const path = `${api}/trials/${token}`;
  const [panel, setPanel] = useState<Panel | null>(null);
  const [isLost, setIsLost] = useState(false);
  useEffect(() => {
    const source = new EventSource(`${path}/live`);
    source.onmessage = ({ data }) => {
      const told = v.safeParse(PanelSchema, JSON.parse(String(data)));
      setIsLost(!told.success);
      if (told.success) setPanel(told.output);
    };
    // The browser asks again by itself.
    source.onerror = () => setIsLost(true);
    return () => source.close();
  }, [path]);
  const change = async (body: object) => {
    const reply = await call(PanelSchema, 'PATCH', `${path}/panel`, body);
    if (!reply.ok) return reply.problem;
    setPanel(reply.body);
    return null;
  };
  return {
    panel,
    isLost,
    run: (until, speed) => change({ do: 'run', until, speed }),
    rest: () => change({ do: 'rest' }),
    settle: (settings) => change({ do: 'settle', settings }),
    letter: ({ kind, at }, wanted) => {
      const asked = { kind, at: String(at), ...wanted };
      const search = new URLSearchParams(Object.entries(asked).map(([name, of]) => [name, String(of)]));
      return call(LetterSchema, 'GET', `${path}/letter?${search.toString()}`);
    },
  };
}
