/** A list of questions becomes a study of its own. */
import { useCallback, useState } from 'react';
import type { Questionnaire } from '../../core/document/types';
import { fromList, type LineKind } from '../../core/exchange/from-list';
import classes from './paste.module.css';
import type { PastedList } from '../state/pasting';
import { PasteList } from './PasteList';

interface Props {
  /** What stands in it from the start. */
  readonly first: PastedList;
  readonly called: string;
  readonly take: (document: Questionnaire) => void;
  readonly cancel: () => void;
}

export function PasteStudy({ first, called, take, cancel }: Props) {
  const [title, setTitle] = useState(called);
  const [list, setList] = useState(first);
  const understand = useCallback(
    (source: string, as: ReadonlyMap<number, LineKind>) =>
      fromList(source, title.trim() || 'Untitled study', as),
    [title],
  );
  return (
    <section className={classes.alone} aria-label="Paste a list">
      <PasteList
        understand={understand}
        list={list}
        change={setList}
        act="Make the questionnaire"
        take={({ document }) => take(document)}
        cancel={cancel}
      >
        <label>
          Title <input value={title} onChange={(event) => setTitle(event.target.value)} />
        </label>
      </PasteList>
    </section>
  );
}
