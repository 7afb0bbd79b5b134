/** Tables of plain text for a terminal. */

/** Columns as wide as their longest cell, those in `right` flush right; the last is not padded. */
export function table(
  head: readonly string[],
  rows: readonly (readonly string[])[],
  right: readonly number[] = [],
): string {
  const widths = head.map((title, column) =>
    Math.max(title.length, ...rows.map((row) => (row[column] ?? '').length)),
  );
  const line = (cells: readonly string[]) =>
    cells
      .map((cell, column) => {
        const width = widths[column] ?? 0;
        if (right.includes(column)) return cell.padStart(width);
        return column === cells.length - 1 ? cell : cell.padEnd(width);
      })
      .join('  ')
      .trimEnd();
  return [line(head), ...rows.map(line)].join('\n');
}
