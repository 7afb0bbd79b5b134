/** The route with a number, and a respondent who takes it. */
import { useEffect, useState } from 'react';
import type { RouteView } from '../../worker/types';
import { useAnalysisClient } from '../study/analysis';
import { useStudy } from '../study/store';

/** Null while it is looked up, and where no number is given. */
export function useRoute(number: string | null): RouteView | null {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const [route, setRoute] = useState<RouteView | null>(null);
  useEffect(() => {
    if (analysed === undefined || number === null) return;
    let current = true;
    void client.api.route(number).then((found) => {
      if (current) setRoute(found);
    });
    return () => {
      current = false;
    };
  }, [client, analysed, number]);
  return route !== null && route.number === number ? route : null;
}
