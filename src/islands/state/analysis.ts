/** Access to the analysis worker from any view. */
import { createContext, useContext } from 'react';
import type { AnalysisClient } from '../../worker/client';

export const AnalysisContext = createContext<AnalysisClient | null>(null);

export function useAnalysisClient(): AnalysisClient {
  const client = useContext(AnalysisContext);
  if (client === null) throw new Error('no analysis is at hand here');
  return client;
}
