/** Script: contents at the left, the sheet, the slip of what is selected at the right. */
import { Contents } from './Contents';
import { Sheet } from './Sheet';
import { Slip } from './Slip';
import classes from './script.module.css';

export function ScriptView() {
  return (
    <div className={classes.columns}>
      <Contents />
      <Sheet />
      <Slip />
    </div>
  );
}
