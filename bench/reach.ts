/**
 * The same question to three engines: can anybody be presented this item? For every item, over the same Boolean
 * encoding (the tests of each answer, what is allowed of them, and who comes where).
 */
import Logic from 'logic-solver';
import { init } from 'z3-solver';
import { Coming, Diagrams, EncodedPlan, FALSE, TRUE, type Diagram } from '../src/core/analysis';
import type { Plan } from '../src/core/routing/plan';

/** What is needed of formulas; `named` stands for a formula under a name, and `holds` says what is true of everybody. */
export interface Algebra<Formula> {
  readonly constant: (is: boolean) => Formula;
  readonly variable: (level: number) => Formula;
  readonly not: (a: Formula) => Formula;
  readonly and: (all: readonly Formula[]) => Formula;
  readonly or: (any: readonly Formula[]) => Formula;
  readonly named: (name: string, formula: Formula) => Formula;
  readonly holds: (formula: Formula) => void;
}

export function terrainOf(plan: Plan): EncodedPlan {
  return new EncodedPlan(plan, new Diagrams(), { opaque: true });
}

/** By diagrams: how many items somebody can be presented. */
export function byDiagrams(encoded: EncodedPlan): number {
  const { diagrams } = encoded;
  const coming = new Coming(encoded);
  return itemPlaces(encoded).filter((at) => {
    const mass = coming.presentedAt(at);
    return mass !== FALSE && diagrams.and(mass, coming.possible([mass])) !== FALSE;
  }).length;
}

export function byLogicSolver(encoded: EncodedPlan): number {
  const solver = new Logic.Solver();
  const { presented } = formulas<unknown>(encoded, {
    constant: (is) => (is ? Logic.TRUE : Logic.FALSE),
    variable: (level) => `v${level}`,
    not: (a) => Logic.not(a),
    and: (all) => Logic.and(...all),
    or: (any) => Logic.or(...any),
    named: (name, formula) => {
      solver.require(Logic.equiv(name, formula));
      return name;
    },
    holds: (formula) => solver.require(formula),
  });
  return presented.filter((formula) => solver.solveAssuming(formula) !== null).length;
}

export async function byZ3(encoded: EncodedPlan): Promise<number> {
  const { Context } = await z3();
  const { Bool, Solver, And, Or, Not } = Context('reach');
  const solver = new Solver();
  type Formula = ReturnType<typeof Bool.const>;
  const { presented } = formulas<Formula>(encoded, {
    constant: (is) => Bool.val(is),
    variable: (level) => Bool.const(`v${level}`),
    not: Not,
    and: (all) => And(...all),
    or: (any) => Or(...any),
    named: (name, formula) => {
      const of = Bool.const(name);
      solver.add(of.eq(formula));
      return of;
    },
    holds: (formula) => solver.add(formula),
  });
  let count = 0;
  for (const formula of presented) if ((await solver.check(formula)) === 'sat') count += 1;
  return count;
}

let started: ReturnType<typeof init> | undefined;
const z3 = () => (started ??= init());

function itemPlaces({ course }: EncodedPlan): number[] {
  return course.places.flatMap(({ kind }, at) => (kind === 'item' ? [at] : []));
}

/** Who is presented each item and who arrives at each ending, place by place with what is true of everybody. */
export function formulas<Formula>(encoded: EncodedPlan, algebra: Algebra<Formula>) {
  const { diagrams, course } = encoded;
  const { and, or, not } = algebra;
  const known = new Map<Diagram, Formula>();
  const of = (diagram: Diagram): Formula => {
    if (diagram <= TRUE) return algebra.constant(diagram === TRUE);
    let formula = known.get(diagram);
    if (formula === undefined) {
      const test = algebra.variable(diagrams.topOf(diagram));
      const [low, high] = [of(diagrams.lowOf(diagram)), of(diagrams.highOf(diagram))];
      formula = algebra.named(`d${diagram}`, or([and([test, high]), and([not(test), low])]));
      known.set(diagram, formula);
    }
    return formula;
  };
  const arriving: Formula[][] = course.places.map(() => []);
  arriving[course.gate(0)]?.push(algebra.constant(true));
  const presented: Formula[] = [];
  const arrived: Formula[] = [];
  algebra.holds(of(encoded.given));
  course.places.forEach((place, at) => {
    const comes = algebra.named(`c${at}`, or(arriving[at] ?? []));
    const send = (to: number, formula: Formula) => arriving[to]?.push(formula);
    if (place.kind === 'gate') {
      const enters = of(encoded.gateAt(at));
      send(
        place.aim === 0 ? course.pass(place.section, 1) : course.item(place.section, 1, place.aim),
        and([comes, enters]),
      );
      send(course.gate(place.section + 1), and([comes, not(enters)]));
    } else if (place.kind === 'pass') send(at + 1, comes);
    else if (place.kind === 'item') {
      const { asked, ways, checks } = encoded.itemAt(at);
      const here = algebra.named(`a${at}`, and([comes, of(asked)]));
      presented.push(here);
      const allowed = of(diagrams.and(encoded.domainAt(at), checks));
      algebra.holds(or([and([here, allowed]), and([not(here), of(encoded.unasked(at))])]));
      let rest = here;
      for (const { when, to } of ways) {
        send(to, and([rest, of(when)]));
        rest = and([rest, not(of(when))]);
      }
      send(at + 1, or([rest, and([comes, not(of(asked))])]));
    } else if (place.kind === 'end') {
      let rest = comes;
      for (const { when, to } of encoded.endAt(at)) {
        send(to, and([rest, of(when)]));
        rest = and([rest, not(of(when))]);
      }
    } else arrived.push(comes);
  });
  return { presented, arrived };
}
