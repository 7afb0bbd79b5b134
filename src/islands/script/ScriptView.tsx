/** Script: contents at the left, the sheet, the slip of what is selected at the right. */
import { address, wholeField } from '../../core/document/addresses';
import { PasteIntoStudy } from '../paste/PasteIntoStudy';
import { useStudy } from '../state/store';
import { Contents } from './contents/Contents';
import { thenFocus } from '../fields/focus';
import { Sheet } from './sheet/Sheet';
import { Slip } from '../slips/Slip';
import classes from './script.module.css';
import { useListPaste } from './use-list-paste';

export function ScriptView() {
  const select = useStudy((state) => state.select);
  useListPaste();
  return (
    <div className={classes.columns}>
      <Contents />
      <Sheet />
      <Slip />
      <PasteIntoStudy
        show={(name) => thenFocus(() => select(address('item', name)), wholeField(address('item', name)))}
      />
    </div>
  );
}
