/** Where an answer leads, beside its code: faint where it carries on, with the ending's mark where it ends. */
import { isEarly } from '../../../core/document/vocabularies';
import type { Lead } from '../../../core/views/leads';
import { EndingMark } from '../../ui/EndingMark';
import { VariableName } from '../../ui/VariableName';
import classes from './answers.module.css';

export function LeadText({ lead }: { readonly lead: Lead }) {
  const { target, sometimes } = lead;
  if (target === null) return <span className={classes.lead}>carry on</span>;
  const early = isEarly(target.ending);
  return (
    <span className={`${classes.lead} ${early ? classes.out : classes.go}`}>
      {target.ending === null ? '→' : <EndingMark kind={target.ending} />}{' '}
      <VariableName name={target.label} />
      {sometimes && <small title="Other answers, or other rules of this question, decide too"> or on</small>}
    </span>
  );
}
