/** Opening the panel in which a list of questions is put into the study. */
import { nameAt } from '../../core/document/addresses';
import { NO_LIST, OVER_ALL, type Pasting } from './pasting';
import { partSelected, type StudyStore } from './study-state';

/** Opens the panel for a list; without a place it goes where the selection is, or over all. */
export function openPaste(store: StudyStore, at?: Pasting['at'], source?: string): void {
  const { pasting, setPasting, selection } = store.getState();
  const chosen = partSelected(selection);
  const fits = nameAt(chosen, 'item') !== null || nameAt(chosen, 'section') !== null;
  const place = at ?? (fits ? chosen : null) ?? OVER_ALL;
  setPasting({ open: true, at: place, list: source === undefined ? pasting.list : { ...NO_LIST, source } });
}
