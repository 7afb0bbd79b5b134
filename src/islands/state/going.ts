/** Going to another stop from anywhere in a study. */
import { createContext, useContext } from 'react';
import type { Stop } from './stops';

export type GoTo = (stop: Stop, search?: string) => void;

export const GoToContext = createContext<GoTo | null>(null);

export function useGoTo(): GoTo {
  const goTo = useContext(GoToContext);
  if (goTo === null) throw new Error('there is nowhere to go from here');
  return goTo;
}
