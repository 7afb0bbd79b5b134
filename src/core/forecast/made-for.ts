/** What a forecast is made for: as a study says, and what stands for what it does not say. */
import type { Prices, Questionnaire, WantedBase } from '../document/types';

export interface MadeFor {
  /** People who start. */
  readonly starts: number;
  /** The least base that is to be reported. */
  readonly least: number;
  /** The chance of breaking off, a minute. */
  readonly breakOff: number;
  /** Of those who are invited, the share that starts; null where nobody has said. */
  readonly response: number | null;
  /** How many times wider the variance is than with a simple random sample. */
  readonly designEffect: number;
  readonly prices: Prices;
  readonly wanted: readonly WantedBase[];
}

const UNSAID: MadeFor = {
  starts: 1000,
  least: 100,
  breakOff: 0,
  response: null,
  designEffect: 1,
  prices: {},
  wanted: [],
};

export function madeFor({ settings }: Questionnaire): MadeFor {
  const { sets: _, ...said } = settings?.forecast ?? {};
  return { ...UNSAID, ...said };
}
