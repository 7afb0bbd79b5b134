/** Derived variables planned one after the other: what each is worked out from, and that none stands on too many others. */
import { type Input, type Position } from '../condition/scope';
import { NEVER, type Planning } from './planning';
import { parseCondition, parseExpression } from '../condition/parse';
import { conditionProblems, expressionProblems } from '../condition/resolve';
import { eachName, type Condition, type Operand } from '../condition/syntax';
import type { Derived } from '../document/types';
import { isRepeated } from '../document/variables';
import { type PlanDerived } from './plan';
import type { DocumentPlace } from './problems';

/** More than anybody writes; each level is a call within a call where values are worked out. */
const MOST_DERIVED_DEEP = 50;
/** Values that each name the one before twice spell out to as many names as there are grains on a chessboard. */
const MOST_MENTIONS = 5_000;

export class DerivedPlanner {
  /** For each derived variable how many others it stands on, one on the other. */
  private readonly depths: number[] = [];
  /** The same, of the one in hand. */
  private standsOn = 0;
  /** For each derived variable how many names it has, those of the others that it stands on spelt out. */
  private readonly spelt: number[] = [];
  /** The same, of the one in hand. */
  private mentions = 0;

  constructor(
    private readonly planning: Planning,
    /** Past everything: a derived variable is worked out once the walk is over. */
    private readonly end: Position,
  ) {}

  plan(derived: Derived, index: number): PlanDerived {
    const at = { derived: derived.name };
    const scope = this.planning.scope(this.end, null, { derivedBefore: index });
    const inputs: Input[] = [];
    this.planning.inputs[index] = inputs;
    this.standsOn = 0;
    this.mentions = 0;
    if ('value' in derived) {
      const parsed = parseExpression(derived.value);
      const value = this.planning.checked(parsed, (tree) => expressionProblems(tree, scope), at, 'value');
      // Even with a problem its inputs tell how it is coded where it has no value.
      if (parsed.ok) this.addInputs(inputs, parsed.tree);
      return { derived, cases: null, value: this.isTooDeep(index, at, 'value') ? null : value, inputs };
    }
    let sound = true;
    const cases = derived.cases.map((entry, c) => {
      const parsed = parseCondition(entry.if);
      const tree = this.planning.checked(parsed, (t) => conditionProblems(t, scope), at, `cases[${c}].if`);
      if (tree === null) sound = false;
      if (parsed.ok) this.addInputs(inputs, parsed.tree);
      return { if: tree ?? NEVER, code: entry.code };
    });
    if (this.isTooDeep(index, at, 'cases')) sound = false;
    return { derived, cases: sound ? cases : null, value: null, inputs };
  }

  /** Reports a value that stands on more others, one on the other, than can be followed. */
  private isTooDeep(index: number, at: DocumentPlace, field: string): boolean {
    const isTooDeep = this.standsOn > MOST_DERIVED_DEEP || this.mentions > MOST_MENTIONS;
    this.depths[index] = isTooDeep ? 0 : this.standsOn;
    this.spelt[index] = isTooDeep ? 1 : this.mentions;
    if (isTooDeep)
      this.planning.report(
        'bad-condition',
        at,
        field,
        `this value stands on too many others, one on the other (at most ${MOST_DERIVED_DEEP} levels and, all spelt out, ${MOST_MENTIONS.toLocaleString('en')} names): work it out from the questions themselves`,
      );
    return isTooDeep;
  }

  private addInputs(inputs: Input[], node: Condition | Operand): void {
    eachName(node, ({ name }) => {
      const variable = this.planning.variables.get(name.toLowerCase());
      if (variable === undefined) return;
      this.mentions += variable.of === 'derived' ? (this.spelt[variable.index] ?? 1) : 1;
      if (variable.of === 'derived') {
        // Each only once: a chain of values that each name the one before twice would list them without end.
        for (const input of this.planning.inputs[variable.index] ?? [])
          if (!inputs.includes(input)) inputs.push(input);
        this.standsOn = Math.max(this.standsOn, (this.depths[variable.index] ?? 0) + 1);
        return;
      }
      if (inputs.some((input) => input.variable === variable)) return;
      const placed = variable.of === 'question' || variable.of === 'row';
      const section = placed ? this.planning.document.sections[variable.section] : undefined;
      inputs.push({ variable, overPasses: section !== undefined && isRepeated(section) });
    });
  }
}
