/** A list of questions that is being put into the study: what was pasted, and where it goes. */
import type { Address } from '../../core/document/addresses';
import type { Readings } from './re-read';

export interface PastedList {
  readonly source: string;
  /** The lines that somebody wants read otherwise. */
  readonly readings: Readings;
}

export interface Pasting {
  readonly open: boolean;
  /** What is selected where it goes, or `all`: into the sections of its titles. */
  readonly at: Address | typeof OVER_ALL;
  readonly list: PastedList;
}

export const NO_LIST: PastedList = { source: '', readings: new Map() };
export const OVER_ALL = 'all';
