/** What takes the forecast's worker a while is asked for once nothing is dragged and nobody has moved anything for a moment. */
import type { DependencyList } from 'react';
import { useAsked } from '../ui/use-asked';
import type { Forecasting } from './use-forecast';

/** Milliseconds. */
const MOMENT = 300;

/** As `useAsked`, whenever the figures of the forecast are others, or something in `on`; `ask` gives null where there is nothing to ask. */
export function useSettled<Answer>(
  { client, figures, isLeaning }: Forecasting,
  ask: () => Promise<Answer> | null,
  on: DependencyList,
  take: (answer: Answer) => void,
): void {
  useAsked<Answer | null>(
    async (isWanted) => {
      if (isLeaning || figures === null) return null;
      await new Promise((resolve) => setTimeout(resolve, MOMENT));
      return isWanted() ? ask() : null;
    },
    [client, figures, isLeaning, ...on],
    (answer) => answer !== null && take(answer),
  );
}
