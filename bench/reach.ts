/**
 * The same question to three engines: can anybody be presented this item? For every item, over the same Boolean
 * encoding (the tests of each answer, what is allowed of them, and who comes where).
 */
import { Coming, Diagrams, FALSE, TRUE, type Diagram, Terrain } from '../src/core/analysis';
import { init } from 'z3-solver';
import Logic from 'logic-solver';
import type { Plan } from '../src/core/routing/plan';

/** What is needed of formulas; `named` stands for a formula under a name. */
interface Algebra<Formula> {
  readonly constant: (is: boolean) => Formula;
  readonly variable: (level: number) => Formula;
  readonly not: (a: Formula) => Formula;
  readonly and: (all: readonly Formula[]) => Formula;
  readonly or: (any: readonly Formula[]) => Formula;
  readonly named: (name: string, formula: Formula) => Formula;
}

export function terrainOf(plan: Plan): Terrain {
  return new Terrain(plan, new Diagrams(), { opaque: true });
}

/** By diagrams: how many items somebody can be presented. */
export function byDiagrams(terrain: Terrain): number {
  const { diagrams } = terrain;
  const coming = new Coming(terrain);
  return itemPlaces(terrain).filter((at) => {
    const mass = coming.presentedAt(at);
    return mass !== FALSE && diagrams.and(mass, coming.possible([mass])) !== FALSE;
  }).length;
}

export function byLogicSolver(terrain: Terrain): number {
  const solver = new Logic.Solver();
  const { presented, always } = formulas<unknown>(terrain, {
    constant: (is) => (is ? Logic.TRUE : Logic.FALSE),
    variable: (level) => `v${level}`,
    not: (a) => Logic.not(a),
    and: (all) => Logic.and(...all),
    or: (any) => Logic.or(...any),
    named: (name, formula) => {
      solver.require(Logic.equiv(name, formula));
      return name;
    },
  });
  for (const fact of always) solver.require(fact);
  return presented.filter((formula) => solver.solveAssuming(formula) !== null).length;
}

export async function byZ3(terrain: Terrain): Promise<number> {
  const { Context } = await z3();
  const { Bool, Solver, And, Or, Not } = Context('reach');
  const solver = new Solver();
  type Formula = ReturnType<typeof Bool.const>;
  const { presented, always } = formulas<Formula>(terrain, {
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
  });
  for (const fact of always) solver.add(fact);
  let count = 0;
  for (const formula of presented) if ((await solver.check(formula)) === 'sat') count += 1;
  return count;
}

let started: ReturnType<typeof init> | undefined;
const z3 = () => (started ??= init());

function itemPlaces({ layout }: Terrain): number[] {
  return layout.places.flatMap(({ kind }, at) => (kind === 'item' ? [at] : []));
}

/** Who is presented each item, and what is true of everybody. */
function formulas<Formula>(terrain: Terrain, algebra: Algebra<Formula>) {
  const { diagrams, layout } = terrain;
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
  const arriving: Formula[][] = layout.places.map(() => []);
  arriving[layout.gate(0)]?.push(algebra.constant(true));
  const presented: Formula[] = [];
  const always: Formula[] = [of(terrain.given)];
  layout.places.forEach((place, at) => {
    const comes = algebra.named(`c${at}`, or(arriving[at] ?? []));
    const send = (to: number, formula: Formula) => arriving[to]?.push(formula);
    if (place.kind === 'gate') {
      const enters = of(terrain.gateAt(at));
      send(place.aim === 0 ? layout.pass(place.section, 1) : layout.item(place.section, 1, place.aim), and([comes, enters])); // prettier-ignore
      send(layout.gate(place.section + 1), and([comes, not(enters)]));
    } else if (place.kind === 'pass') send(at + 1, comes);
    else if (place.kind === 'item') {
      const { asked, ways, checks } = terrain.itemAt(at);
      const here = algebra.named(`a${at}`, and([comes, of(asked)]));
      presented.push(here);
      const allowed = of(diagrams.and(terrain.domainAt(at), checks));
      always.push(or([and([here, allowed]), and([not(here), of(terrain.unasked(at))])]));
      let rest = here;
      for (const { when, to } of ways) {
        send(to, and([rest, of(when)]));
        rest = and([rest, not(of(when))]);
      }
      send(at + 1, or([rest, and([comes, not(of(asked))])]));
    } else if (place.kind === 'end') {
      let rest = comes;
      for (const { when, to } of terrain.endAt(at)) {
        send(to, and([rest, of(when)]));
        rest = and([rest, not(of(when))]);
      }
    }
  });
  return { presented, always };
}
