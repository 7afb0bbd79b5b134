/** A list of questions that is being put into the study: what was pasted, and where it goes. */
import { nameAt, type Address } from '../../core/document/addresses';
import type { Readings } from '../paste/re-read';
import { partSelected, type StudyStore } from './store';

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

/** Opens the panel for a list; without a place it goes where the selection is, or over all. */
export function openPaste(store: StudyStore, at?: Pasting['at'], source?: string): void {
  const { pasting, setPasting, selection } = store.getState();
  const chosen = partSelected(selection);
  const fits = nameAt(chosen, 'item') !== null || nameAt(chosen, 'section') !== null;
  const place = at ?? (fits ? chosen : null) ?? OVER_ALL;
  setPasting({ open: true, at: place, list: source === undefined ? pasting.list : { ...NO_LIST, source } });
}
