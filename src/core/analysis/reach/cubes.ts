/**
 * A short sum of products for a function that may be anything between a lower and an upper bound.
 *
 * After Minato, "Fast generation of prime-irredundant covers from binary decision diagrams" (1993).
 */
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';

/** A conjunction: levels with the values they must have. */
export type Cube = ReadonlyMap<number, boolean>;

/** A function, and cubes whose union it is. */
interface Covered {
  readonly function: Diagram;
  readonly cubes: readonly Cube[];
}

/**
 * Cubes whose union holds wherever `lower` does and nowhere that `upper` does not; none of them can be left out. Null
 * where there would be more than `most`.
 */
export function coverCubes(diagrams: Diagrams, lower: Diagram, upper: Diagram, most: number): Cube[] | null {
  const known = new Map<string, Covered>();
  const visit = (low: Diagram, high: Diagram): Covered | null => {
    if (low === FALSE) return { function: FALSE, cubes: [] };
    if (high === TRUE) return { function: TRUE, cubes: [new Map()] };
    const key = `${low} ${high}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const level = Math.min(diagrams.topOf(low), diagrams.topOf(high));
    const half = (a: Diagram, value: boolean) =>
      diagrams.topOf(a) !== level ? a : value ? diagrams.highOf(a) : diagrams.lowOf(a);
    const [low0, low1] = [half(low, false), half(low, true)];
    const [high0, high1] = [half(high, false), half(high, true)];
    const without = (a: Diagram, b: Diagram) => diagrams.and(a, diagrams.not(b));
    const zero = visit(without(low0, high1), high0);
    if (zero === null) return null;
    const one = visit(without(low1, high0), high1);
    if (one === null) return null;
    const rest = diagrams.or(without(low0, zero.function), without(low1, one.function));
    const both = visit(rest, diagrams.and(high0, high1));
    if (both === null || zero.cubes.length + one.cubes.length + both.cubes.length > most) return null;
    const result: Covered = {
      function: diagrams.or(
        diagrams.choose(diagrams.variable(level), one.function, zero.function),
        both.function,
      ),
      cubes: [
        ...zero.cubes.map((cube) => new Map([[level, false], ...cube])),
        ...one.cubes.map((cube) => new Map([[level, true], ...cube])),
        ...both.cubes,
      ],
    };
    known.set(key, result);
    return result;
  };
  const covered = visit(lower, upper);
  return covered && shortened(diagrams, covered.cubes, lower, upper);
}

/** Literals that are not needed go, then cubes that the others make superfluous. */
function shortened(diagrams: Diagrams, cubes: readonly Cube[], lower: Diagram, upper: Diagram): Cube[] {
  if (cubes.length > 40) return [...cubes];
  const fits = (cube: Cube) => diagrams.and(diagrams.cube(cube), diagrams.not(upper)) === FALSE;
  const short = cubes.map((cube) => {
    let kept: Cube = cube;
    for (const level of [...cube.keys()].reverse()) {
      const fewer = new Map([...kept].filter(([other]) => other !== level));
      if (fits(fewer)) kept = fewer;
    }
    return kept;
  });
  let left = short;
  for (const cube of [...short].sort((a, b) => b.size - a.size)) {
    const others = left.filter((other) => other !== cube);
    const union = others.reduce((any, other) => diagrams.or(any, diagrams.cube(other)), FALSE);
    if (diagrams.and(lower, diagrams.not(union)) === FALSE) left = others;
  }
  return left;
}
