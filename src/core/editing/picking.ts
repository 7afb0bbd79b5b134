/** Conditions put together by picking: a question, a relation, and the answers or the value it is about. */
import { parseCondition } from '../condition/parse';
import { printCondition } from '../condition/print';
import type { CompareOperator, Condition, HasTest, StateTest } from '../condition/syntax';
import type { Variable, Variables } from '../document/variables';

export type PickedRelation =
  | 'is'
  | 'is not'
  | 'includes any'
  | 'includes all'
  | 'includes none'
  | 'is at least'
  | 'is at most'
  | 'is more than'
  | 'is less than'
  | 'is between'
  | 'is the text'
  | 'was answered'
  | 'was left blank'
  | 'was asked'
  | 'was not asked';

/** How many values a relation takes; `codes`: any number from the list of options. */
export type Takes = 'codes' | 'one' | 'two' | 'none';

const STATES: readonly PickedRelation[] = ['was answered', 'was left blank', 'was asked', 'was not asked'];

/** The relations that make sense for a variable, the likeliest first. */
export function relationsFor(variable: Variable): readonly PickedRelation[] {
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
        ? [
            'is at least',
            'is at most',
            'is more than',
            'is less than',
            'is between',
            'is',
            'is not',
            ...states,
          ]
        : ['is', 'is not', ...states];
    case 'date':
    case 'time':
    case 'datetime':
      return ['is at least', 'is at most', 'is more than', 'is less than', 'is between', ...states];
    default:
      return variable.kind satisfies never;
  }
}

/** What has to be chosen beside a variable and a relation. */
export function takes(variable: Variable, relation: PickedRelation): Takes {
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
    case 'is more than':
    case 'is less than':
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
  relation: PickedRelation,
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
      case 'is more than':
        return `${name} > ${list}`;
      case 'is less than':
        return `${name} < ${list}`;
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

export interface Picked {
  readonly variable: Variable;
  readonly relation: PickedRelation;
  readonly values: readonly string[];
}

/** What would have to be picked for this test; null where it can only be written. */
export function pickedOf(test: Condition, variables: Variables): Picked | null {
  const found = read(test);
  if (found === null) return null;
  const variable = variables.get(found.name.toLowerCase());
  if (variable === undefined || !relationsFor(variable).includes(found.relation)) return null;
  const picked = { variable, relation: found.relation, values: found.values };
  const text = pickedCondition(variable, picked.relation, picked.values);
  return text !== null && isSame(text, test) ? picked : null;
}

/** Whether a text means just this tree, `a in (1)` and `a = 1` being the same. */
function isSame(text: string, tree: Condition): boolean {
  const parsed = parseCondition(text);
  const plain = (node: Condition) =>
    printCondition(node)
      .replace(/ in \(([^,.]*)\)$/, ' = $1')
      .replace(/ has any \(([^,]*)\)$/, ' has $1');
  return parsed.ok && plain(parsed.tree) === plain(tree);
}

const COMPARED: Readonly<Record<CompareOperator, PickedRelation>> = {
  '=': 'is',
  '<>': 'is not',
  '>=': 'is at least',
  '<=': 'is at most',
  '>': 'is more than',
  '<': 'is less than',
};

const PICKS: Readonly<Record<HasTest['quantifier'], PickedRelation>> = {
  single: 'includes any',
  any: 'includes any',
  all: 'includes all',
  none: 'includes none',
};

const WAS: Readonly<Record<StateTest['state'], PickedRelation>> = {
  answered: 'was answered',
  unanswered: 'was left blank',
  asked: 'was asked',
  'not asked': 'was not asked',
};

function read(
  test: Condition,
): { readonly name: string; readonly relation: PickedRelation; readonly values: string[] } | null {
  switch (test.kind) {
    case 'state':
      return { name: test.name.name, relation: WAS[test.state], values: [] };
    case 'has': {
      const relation = PICKS[test.quantifier];
      return { name: test.name.name, relation, values: test.values.map(({ value }) => String(value)) };
    }
    case 'in': {
      const { name } = test.name;
      const [first] = test.members;
      if (test.members.length === 1 && first?.kind === 'range' && !test.negated)
        return { name, relation: 'is between', values: [String(first.from.value), String(first.to.value)] };
      const values = test.members.flatMap((member) => (member.kind === 'range' ? [] : String(member.value)));
      if (values.length < test.members.length) return null;
      return { name, relation: test.negated ? 'is not' : 'is', values };
    }
    case 'compare': {
      const { left, right, operator } = test;
      if (left.kind !== 'name' || !('value' in right)) return null;
      const relation = right.kind === 'text' && operator === '=' ? 'is the text' : COMPARED[operator];
      return { name: left.name, relation, values: [String(right.value)] };
    }
    default:
      return null;
  }
}

/** A test of a question that is complete at once, to be changed from there. */
export function firstTest(variable: Variable): string {
  const [code] = variable.codes ?? [];
  const [relation = 'was answered'] = relationsFor(variable);
  const values = takes(variable, relation) === 'codes' && code !== undefined ? [String(code)] : [];
  return (
    pickedCondition(variable, relation, values) ??
    (variable.of === 'question' &&
    'min' in variable.question.answer &&
    variable.question.answer.min !== undefined
      ? pickedCondition(variable, relation, [String(variable.question.answer.min)])
      : null) ??
    `${variable.name} answered`
  );
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
  if (existing === undefined || added === undefined || existing === added) return existing ?? added;
  return joinConditions(existing, 'and', added);
}
