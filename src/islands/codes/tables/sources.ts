/** Where the rows of a table come from, with a name to show. */
import type { RowSource } from '../../../worker/data/types';

export interface NamedSource {
  readonly name: string;
  readonly source: RowSource;
  /** Made up by the assumed answers: nobody has answered so. */
  readonly madeUp: boolean;
}

const COUNT = 600;
const SEED = 1;

export const MADE_UP: NamedSource = madeUp(COUNT, SEED);

export function madeUp(count: number, seed: number): NamedSource {
  return {
    name: `${count.toLocaleString('en-GB')} made-up respondents`,
    source: { of: 'made-up', count, seed },
    madeUp: true,
  };
}
