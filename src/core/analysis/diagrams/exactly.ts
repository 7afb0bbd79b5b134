/** A condition on how many of some variables are true, as a diagram: which questions a random draw took. */
import { FALSE, TRUE, type Diagram, type Diagrams } from './diagram';

/** Exactly so many of the variables are true. */
export function exactly(diagrams: Diagrams, count: number, levels: readonly number[]): Diagram {
  let rows: Diagram[] = Array.from({ length: count + 1 }, (_, left) => (left === 0 ? TRUE : FALSE));
  for (const level of [...levels].reverse()) {
    const drawn = diagrams.variable(level);
    rows = rows.map((without, left) => diagrams.choose(drawn, rows[left - 1] ?? FALSE, without));
  }
  return rows[count] ?? FALSE;
}
