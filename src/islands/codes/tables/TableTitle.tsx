/** Above a table: what it is of, over which rows, and the files that it can be taken away as. */
import type { SheetCells } from '../../../core/views/table-sheets';
import type { TableVariable } from '../../../core/tables/variables';
import { TableFiles } from './TableFiles';
import classes from './tables.module.css';

interface Props {
  readonly variable: TableVariable;
  /** Null: by itself. */
  readonly against?: TableVariable | null;
  readonly about: string;
  readonly madeUp: boolean;
  readonly sheet: () => SheetCells;
}

export function TableTitle({ variable, against = null, about, madeUp, sheet }: Props) {
  const name = against === null ? variable.id : `${variable.id}-${against.id}`;
  return (
    <header className={classes.title}>
      <div>
        <h1>
          <code>{variable.id}</code> {variable.label}
        </h1>
        {against !== null && (
          <h2>
            against <code>{against.id}</code> {against.label}
          </h2>
        )}
        <p>
          {madeUp && <strong className={classes.madeUp}>Made up</strong>} {about}
        </p>
      </div>
      <TableFiles name={madeUp ? `${name}-made-up` : name} sheet={sheet} />
    </header>
  );
}
