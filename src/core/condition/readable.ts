/** Names found and checked: whether each can be read where a condition stands, in it or in a count over passes. */
import { isBefore, type Scope, type ConditionRule } from './scope';
import { isRepeated, maxPasses, type Variable } from '../document/variables';
import type { NameNode, TextSpan } from './syntax';

export class ReadableNames {
  /** The repeated section whose passes the enclosing `count(…)` goes over; -1 while not yet known, null outside any. */
  counted: number | null = null;

  constructor(
    private readonly scope: Scope,
    private readonly report: (rule: ConditionRule, span: TextSpan, message: string) => null,
    /** What to say of a name that there is not, besides that. */
    private readonly hint: (name: string) => string,
  ) {}

  openRepeat() {
    const { openPass, document } = this.scope;
    const section = this.counted !== null && this.counted >= 0 ? this.counted : openPass;
    return section === null ? null : (document.sections[section]?.repeat ?? null);
  }

  /** Finds a name and checks that it can be read here; null where a problem was reported. */
  name(node: NameNode): Variable | null {
    const variable = this.scope.variables.get(node.name.toLowerCase());
    if (variable === undefined) {
      return this.report('unknown-name', node.span, `nothing is named “${node.name}”${this.hint(node.name)}`);
    }
    switch (variable.of) {
      case 'given':
        return variable;
      case 'derived':
        return this.derived(variable, node);
      case 'question':
      case 'row':
        return this.placed(variable, node);
      default:
        return variable satisfies never;
    }
  }

  private derived(variable: Extract<Variable, { of: 'derived' }>, node: NameNode): Variable | null {
    if (variable.index >= (this.scope.derivedBefore ?? Infinity)) {
      return this.report(
        'refers-forward',
        node.span,
        `“${variable.name}” is derived later: move it before the derived variable that uses it`,
      );
    }
    for (const input of this.scope.inputsOf(variable.index)) {
      if (input.variable.of !== 'question' && input.variable.of !== 'row') continue;
      const { section, item } = input.variable;
      const at = input.overPasses ? { section: section + 1, item: -1 } : { section, item };
      if (!isBefore(at, this.scope.before)) {
        return this.report(
          'refers-forward',
          node.span,
          `“${variable.name}” is worked out from “${input.variable.name}”, which comes later`,
        );
      }
    }
    return variable;
  }

  private placed(variable: Extract<Variable, { of: 'question' | 'row' }>, node: NameNode): Variable | null {
    const { scope } = this;
    const section = scope.document.sections[variable.section];
    const repeated = section !== undefined && isRepeated(section);
    if (this.counted !== null && repeated && variable.section === scope.openPass) {
      return this.report(
        'bad-condition',
        node.span,
        'passes are counted from outside their section: count them in a later one',
      );
    }
    if (this.counted !== null && repeated) {
      if (this.counted >= 0 && this.counted !== variable.section) {
        return this.report('bad-condition', node.span, 'one count goes over one repeated section');
      }
      this.counted = variable.section;
      return variable.section < scope.before.section ? variable : this.forward(variable, node);
    }
    if (!isBefore(variable, scope.before)) return this.forward(variable, node);
    const only = scope.onlySibling;
    if (only && variable.section === only.section && variable.item !== only.item) {
      return this.report(
        'refers-forward',
        node.span,
        `“${variable.name}” stands in the same shuffled section, so it may come later`,
      );
    }
    if (repeated && variable.section !== scope.openPass) {
      return this.report(
        'repeated-outside',
        node.span,
        `“${variable.name}” is answered up to ${maxPasses(section)} times: outside its section count the passes, like count(${variable.name} answered) > 0`,
      );
    }
    return variable;
  }

  private forward(variable: Variable, node: NameNode): null {
    return this.report(
      'refers-forward',
      node.span,
      `“${variable.name}” comes later than this place, so it has no value here: move it before, or test something earlier`,
    );
  }
}
