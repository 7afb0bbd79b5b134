/** Leads to where a list of questions, drafted elsewhere, is pasted at the end of a section. */
import { address } from '../../core/document/addresses';
import { openPaste } from '../state/open-paste';
import { useStudyStore } from '../state/store';

interface Props {
  /** Id of the section. */
  readonly section: string;
  readonly title: string;
}

export function PasteListButton({ section, title }: Props) {
  const store = useStudyStore();
  return (
    <button type="button" title={title} onClick={() => openPaste(store, address('section', section))}>
      Paste a list
    </button>
  );
}
