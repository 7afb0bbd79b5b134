/** The route with a number, and a respondent who takes it. */
import { useState } from 'react';
import type { RouteView } from '../../worker/types';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';

/** Null while it is looked up, and where no number is given. */
export function useRoute(number: string | null): RouteView | null {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const [route, setRoute] = useState<RouteView | null>(null);
  useAsked(
    () => (analysed === undefined || number === null ? null : client.api.route(number)),
    [client, analysed, number],
    setRoute,
  );
  return route !== null && route.number === number ? route : null;
}
