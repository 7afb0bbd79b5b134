/** As much of the packages that `npm run bench` installs as the benchmarks use, so that types hold without them. */

declare module 'logic-solver' {
  interface Solver {
    require(formula: unknown): void;
    solveAssuming(formula: unknown): object | null;
  }
  const Logic: {
    readonly Solver: new () => Solver;
    readonly TRUE: unknown;
    readonly FALSE: unknown;
    not(a: unknown): unknown;
    and(...all: readonly unknown[]): unknown;
    or(...any: readonly unknown[]): unknown;
    equiv(a: unknown, b: unknown): unknown;
  };
  export default Logic;
}

declare module 'json-logic-js' {
  const jsonLogic: { apply(rule: unknown, data: unknown): unknown };
  export default jsonLogic;
}

declare module 'z3-solver' {
  interface Formula {
    eq(other: Formula): Formula;
  }
  interface Solver {
    add(formula: Formula): void;
    check(assumption: Formula): Promise<'sat' | 'unsat' | 'unknown'>;
  }
  interface Context {
    readonly Bool: { const(name: string): Formula; val(is: boolean): Formula };
    readonly Solver: new () => Solver;
    And(...all: readonly Formula[]): Formula;
    Or(...any: readonly Formula[]): Formula;
    Not(a: Formula): Formula;
  }
  export function init(): Promise<{ Context(name: string): Context }>;
}
