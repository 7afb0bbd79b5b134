/**
 * What planning a part of a questionnaire needs: texts parsed and checked where they stand, and problems reported. Whatever
 * has one is made harmless: a condition with a problem never holds.
 */
import { type ConditionProblem, type Input, type Position, type Scope } from '../condition/scope';
import { parseCondition, type Parsed } from '../condition/parse';
import { conditionProblems } from '../condition/resolve';
import { type Condition } from '../condition/syntax';
import type { HolderKind } from '../document/properties';
import type { Questionnaire } from '../document/types';
import { variablesOf, type Variables } from '../document/variables';
import { pipedNames, textsOf } from './pipes';
import type { DocumentPlace, PlanProblem, PlanRule } from './problems';

export const NEVER: Condition = { kind: 'constant', value: false, span: { from: 0, to: 0 } };

export class Planning {
  problems: PlanProblem[] = [];
  readonly variables: Variables;
  /** What each derived variable is worked out from, as far as it is planned. */
  readonly inputs: Input[][] = [];

  constructor(readonly document: Questionnaire) {
    this.variables = variablesOf(document);
  }

  report(rule: PlanRule, at: DocumentPlace, field: string, message: string): void {
    this.problems.push({ rule, at, field, message });
  }

  scope(before: Position, openPass: number | null, rest: Partial<Scope> = {}): Scope {
    return {
      document: this.document,
      variables: this.variables,
      before,
      openPass,
      inputsOf: (index) => this.inputs[index] ?? [],
      ...rest,
    };
  }

  /** Parses and checks one condition; one with a problem never holds. */
  condition(text: string, scope: Scope, at: DocumentPlace, field: string): Condition {
    const parsed = parseCondition(text);
    return this.checked(parsed, (tree) => conditionProblems(tree, scope), at, field) ?? NEVER;
  }

  optional(text: string | undefined, scope: Scope, at: DocumentPlace, field: string): Condition | null {
    return text === undefined ? null : this.condition(text, scope, at, field);
  }

  checked<Tree>(
    parsed: Parsed<Tree>,
    check: (tree: Tree) => readonly ConditionProblem[],
    at: DocumentPlace,
    field: string,
  ): Tree | null {
    if (!parsed.ok) {
      this.problems.push({ rule: 'bad-condition', at, field, ...parsed.problem });
      return null;
    }
    const problems = check(parsed.tree);
    for (const problem of problems) this.problems.push({ at, field, ...problem });
    return problems.length === 0 ? parsed.tree : null;
  }

  /** Checks the names piped into the texts of a part. `of`: what comes before the name of a text's field. */
  pipes(kind: HolderKind, part: object, scope: Scope, at: DocumentPlace, of = ''): void {
    for (const { name, text } of textsOf(kind, part)) this.pipesIn(text, scope, at, `${of}${name}`);
  }

  /** As if each name stood in a condition there. */
  private pipesIn(text: string, scope: Scope, at: DocumentPlace, field: string): void {
    for (const name of pipedNames(text)) {
      const variable = this.variables.get(name.toLowerCase());
      if (variable !== undefined && variable.name !== name) {
        this.report(
          'unknown-name',
          at,
          field,
          `{${name}} names nothing: written exactly, it is {${variable.name}}`,
        );
        continue;
      }
      const word = name.toLowerCase();
      const source = word === 'each' || word === 'pass' ? `${word} = ${word}` : `${name} answered`;
      const parsed = parseCondition(source);
      if (!parsed.ok) {
        this.report(
          'unknown-name',
          at,
          field,
          `{${name}} names nothing: for literal braces write {{${name}}}`,
        );
        continue;
      }
      const [problem] = conditionProblems(parsed.tree, scope).filter(({ rule }) => rule !== 'type-mismatch');
      if (problem !== undefined) this.report(problem.rule, at, field, `in {${name}}: ${problem.message}`);
    }
  }
}
