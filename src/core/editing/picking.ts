/** Conditions put together by picking: a question, a relation, and the answers or the value it is about. */
import { parseCondition } from '../condition/parse';
import { printCondition } from '../condition/print';
import type { Condition } from '../condition/syntax';
import type { Variable } from '../document/variables';

export type Relation =
  | 'is'
  | 'is not'
  | 'includes any'
  | 'includes all'
  | 'includes none'
  | 'is at least'
  | 'is at most'
  | 'is between'
  | 'is the text'
  | 'was answered'
  | 'was left blank'
  | 'was asked'
  | 'was not asked';

/** How many values a relation takes; `codes`: any number from the list of options. */
export type Takes = 'codes' | 'one' | 'two' | 'none';

const STATES: readonly Relation[] = ['was answered', 'was left blank', 'was asked', 'was not asked'];

/** The relations that make sense for a variable, the likeliest first. */
export function relationsFor(variable: Variable): readonly Relation[] {
  const states = variable.of === 'derived' || variable.of === 'given' ? [] : STATES;
  switch (variable.kind) {
    case 'set':
    case 'order':
      return ['includes any', 'includes all', 'includes none', ...states];
    case 'text':
      return ['is the text', ...states];
    case 'whole-grid':
      return states;
    case 'number':
      return variable.codes === null
        ? ['is at least', 'is at most', 'is between', 'is', ...states]
        : ['is', 'is not', ...states];
    case 'date':
    case 'time':
    case 'datetime':
      return ['is at least', 'is at most', 'is between', ...states];
    default:
      return variable.kind satisfies never;
  }
}

export function takes(variable: Variable, relation: Relation): Takes {
  switch (relation) {
    case 'is':
    case 'is not':
      return variable.codes === null ? 'one' : 'codes';
    case 'includes any':
    case 'includes all':
    case 'includes none':
      return 'codes';
    case 'is at least':
    case 'is at most':
    case 'is the text':
      return 'one';
    case 'is between':
      return 'two';
    default:
      return 'none';
  }
}

/** The condition's text; null while `values` (as typed or picked) are not enough or not of the right kind. */
export function pickedCondition(
  variable: Variable,
  relation: Relation,
  values: readonly string[],
): string | null {
  const { name } = variable;
  const wanted = { codes: 1, one: 1, two: 2, none: 0 }[takes(variable, relation)];
  if (values.length < wanted || values.some((value) => value.trim() === '')) return null;
  const list = values.join(', ');
  const text = (() => {
    switch (relation) {
      case 'is':
        return values.length === 1 ? `${name} = ${list}` : `${name} in (${list})`;
      case 'is not':
        return values.length === 1 ? `${name} <> ${list}` : `${name} not in (${list})`;
      case 'includes any':
        return values.length === 1 ? `${name} has ${list}` : `${name} has any (${list})`;
      case 'includes all':
        return `${name} has all (${list})`;
      case 'includes none':
        return `${name} has none (${list})`;
      case 'is at least':
        return `${name} >= ${list}`;
      case 'is at most':
        return `${name} <= ${list}`;
      case 'is between':
        return `${name} in (${values[0]}..${values[1]})`;
      case 'is the text':
        return `${name} = '${list.replaceAll("'", "''")}'`;
      case 'was answered':
        return `${name} answered`;
      case 'was left blank':
        return `${name} unanswered`;
      case 'was asked':
        return `${name} asked`;
      case 'was not asked':
        return `${name} not asked`;
      default:
        return relation satisfies never;
    }
  })();
  return parseCondition(text).ok ? text : null;
}

/** Adds a condition to what is there, in brackets where they are needed. What does not parse is kept in front as it is. */
export function joinConditions(existing: string, word: 'and' | 'or', added: string): string {
  if (existing.trim() === '') return added;
  const [left, right] = [parseCondition(existing), parseCondition(added)];
  if (!left.ok || !right.ok) return `${existing} ${word} ${added}`;
  const parts = [left.tree, right.tree].flatMap((tree): readonly Condition[] =>
    tree.kind === word ? tree.parts : [tree],
  );
  return printCondition({ kind: word, parts, span: { from: 0, to: 0 } });
}

/** That both hold, where there are two; undefined where there is neither. */
export function bothHold(existing: string | undefined, added: string | undefined): string | undefined {
  if (existing === undefined || added === undefined) return existing ?? added;
  return joinConditions(existing, 'and', added);
}
