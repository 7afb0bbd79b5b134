/** What a declaration is about, in words: the first line of its editor. */
import type { FieldId } from '../../../core/document/addresses';
import { TextField } from '../../fields/Fields';
import classes from '../item/block.module.css';

interface Props {
  readonly field: FieldId;
  /** For screen readers. */
  readonly says: string;
  readonly placeholder: string;
  readonly value: string;
  /** Changes the property `label` of the declaration. */
  readonly edit: (property: 'label', change: (draft: { label: string }) => void) => unknown;
}

export function DeclarationLabel({ field, says, placeholder, value, edit }: Props) {
  return (
    <div className={classes.question}>
      <TextField
        field={field}
        label={says}
        value={value}
        placeholder={placeholder}
        change={(text) => edit('label', (draft) => void (draft.label = text))}
      />
    </div>
  );
}
