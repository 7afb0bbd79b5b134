/** A list of questions is put into the study that is open: at an item, in a section, or over all of it. */
import { useCallback } from 'react';
import { address, nameAt, parseAddress } from '../../core/document/addresses';
import { sectionLetter } from '../../core/document/variables';
import { fromList, type LineKind } from '../../core/exchange/from-list';
import { placeSelected } from '../state/study-state';
import { Panel } from '../ui/Panel';
import { useStudy, useStudyStore } from '../state/store';
import classes from './paste.module.css';
import { NO_LIST, OVER_ALL } from '../state/pasting';
import { PasteList } from './PasteList';

interface Props {
  /** Once it is in: the item that came first. */
  readonly show: (name: string) => void;
}

export function PasteIntoStudy({ show }: Props) {
  const store = useStudyStore();
  const pasting = useStudy((state) => state.pasting);
  const document = useStudy((state) => state.document);
  const setPasting = useStudy((state) => state.setPasting);
  const at = pasting.at === OVER_ALL ? null : placeSelected(document, pasting.at);
  const section = at?.section ?? null;
  const item = at?.item ?? null;
  const understand = useCallback(
    (source: string, as: ReadonlyMap<number, LineKind>) =>
      fromList(source, '', as, { document, at: section === null ? null : { section, item } }),
    [document, section, item],
  );
  if (!pasting.open) return null;
  const close = () => setPasting({ ...pasting, open: false });
  return (
    <div className={classes.over}>
      <Panel label="Paste a list" width="min(1160px, calc(100vw - 24px))" close={close} first="textarea">
        <PasteList
          understand={understand}
          list={pasting.list}
          change={(list) => setPasting({ ...pasting, list })}
          act="Put it in"
          take={({ change, first }) => {
            if (change === null || first === null || store.getState().commit(change) !== null) return;
            setPasting({ open: false, at: OVER_ALL, list: NO_LIST });
            show(first);
          }}
          cancel={close}
        >
          <label className={classes.where}>
            Put it
            <select
              value={at === null ? OVER_ALL : pasting.at}
              onChange={(event) =>
                setPasting({ ...pasting, at: parseAddress(event.target.value) ?? OVER_ALL })
              }
            >
              <option value={OVER_ALL}>into the sections of its titles</option>
              {item !== null && (
                <option value={pasting.at}>
                  after {pasting.at !== OVER_ALL && nameAt(pasting.at, 'item')}
                </option>
              )}
              {document.sections.map(({ id, title }, n) => (
                <option key={id} value={address('section', id)}>
                  at the end of {sectionLetter(n)} {title}
                </option>
              ))}
            </select>
          </label>
        </PasteList>
      </Panel>
    </div>
  );
}
