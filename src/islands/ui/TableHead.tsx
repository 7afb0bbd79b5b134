/** The first row of a table: what stands in each column. */

import type { ReactNode } from 'react';

interface Props {
  /** By column; null where nothing stands over it. */
  readonly of: readonly ReactNode[];
  readonly className?: string | undefined;
}

export function TableHead({ of, className }: Props) {
  return (
    <thead className={className}>
      <tr>
        {of.map((words, column) =>
          words === null ? (
            <td key={column} />
          ) : (
            <th key={column} scope="col">
              {words}
            </th>
          ),
        )}
      </tr>
    </thead>
  );
}
