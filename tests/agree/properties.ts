/**
 * Every property that a questionnaire can have, read off the schema, and those that a document has; and every form of
 * the condition language, likewise. The rows of the matrix.
 */
import type * as v from 'valibot';
import { parseCondition, parseExpression } from '../../src/core/condition/parse';
import type { Condition, Operand } from '../../src/core/condition/syntax';
import { QuestionnaireSchema } from '../../src/core/document/schema';
import type { Questionnaire } from '../../src/core/document/types';

/** As much of Valibot's schemas as is looked into. */
interface Schema {
  readonly type: string;
  readonly entries?: Readonly<Record<string, Schema>>;
  readonly wrapped?: Schema;
  readonly item?: Schema;
  readonly key?: string;
  readonly options?: readonly unknown[];
  readonly literal?: unknown;
  readonly getter?: (input: unknown) => Schema;
}

/** One input for each way that a schema which looks at its input can go. */
const PROBES: readonly unknown[] = [
  { item: 'x' },
  { section: 'x' },
  { ending: 'x' },
  { nextPass: true },
  { times: 'x' },
  { each: 'x' },
  [],
  { value: '' },
  { cases: [] },
  { url: '' },
  { questionnaire: '' },
];

/** What stands in several places and means the same in each is named once. */
const NAMED_ONCE: Readonly<Record<string, string>> = {
  answer: 'answer',
  options: 'option',
  specials: 'option',
  to: 'target',
  onward: 'onward',
  image: 'image',
  logo: 'image',
  assume: 'assume',
};

const inside = (path: string, key: string) => NAMED_ONCE[key] ?? `${path}.${key}`;

const schema = QuestionnaireSchema as v.GenericSchema as unknown as Schema;

export function allProperties(): Set<string> {
  const found = new Set<string>();
  const visit = (of: Schema, path: string): void => {
    switch (of.type) {
      case 'strict_object':
        for (const [key, entry] of Object.entries(of.entries ?? {})) {
          found.add(`${path}.${key}`);
          visit(entry, inside(path, key));
        }
        break;
      case 'optional':
        if (of.wrapped) visit(of.wrapped, path);
        break;
      case 'array':
        if (of.item) visit(of.item, path);
        break;
      case 'variant':
        for (const option of of.options as readonly Schema[])
          visit(option, `${path}(${String(option.entries?.[of.key ?? '']?.literal)})`);
        break;
      case 'picklist':
        for (const option of of.options ?? []) found.add(`${path} = ${String(option)}`);
        break;
      case 'lazy':
        for (const probe of PROBES) {
          const way = of.getter?.(probe);
          if (way !== undefined) visit(way, path);
        }
        break;
      default:
        break;
    }
  };
  visit(schema, 'document');
  return found;
}

export function propertiesIn(document: Questionnaire): Set<string> {
  const found = new Set<string>();
  const visit = (of: Schema, value: unknown, path: string): void => {
    if (value === undefined) return;
    switch (of.type) {
      case 'strict_object':
        for (const [key, entry] of Object.entries(of.entries ?? {})) {
          const inner = (value as Record<string, unknown>)[key];
          if (inner === undefined) continue;
          found.add(`${path}.${key}`);
          visit(entry, inner, inside(path, key));
        }
        break;
      case 'optional':
        if (of.wrapped) visit(of.wrapped, value, path);
        break;
      case 'array':
        for (const each of value as readonly unknown[]) if (of.item) visit(of.item, each, path);
        break;
      case 'variant': {
        const key = of.key ?? '';
        const kind = (value as Record<string, unknown>)[key];
        const chosen = (of.options as readonly Schema[]).find((o) => o.entries?.[key]?.literal === kind);
        if (chosen !== undefined) visit(chosen, value, `${path}(${String(kind)})`);
        break;
      }
      case 'picklist':
        found.add(`${path} = ${String(value)}`);
        break;
      case 'lazy': {
        const way = of.getter?.(value);
        if (way !== undefined) visit(way, value, path);
        break;
      }
      default:
        break;
    }
  };
  visit(schema, document, 'document');
  return found;
}

export const FORMS = [
  'and',
  'or',
  'not',
  'always',
  'never',
  ...['=', '<>', '<', '<=', '>', '>='].map((operator) => `compare ${operator}`),
  'in',
  'not in',
  'in a range',
  ...['single', 'any', 'all', 'none'].map((quantifier) => `has ${quantifier}`),
  ...['answered', 'unanswered', 'asked', 'not asked'],
  ...['number', 'negative number', 'decimal', 'text', 'date', 'time', 'datetime'].map((kind) => `a ${kind}`),
  'a name compared with a name',
  'count(name)',
  'count(condition)',
  'pass',
  'each',
  ...['+', '-', '*'].map((operator) => `arithmetic ${operator}`),
  'a missing code written out',
  'a given value',
  'a derived variable',
  'a grid as a whole',
  'a row of a grid',
] as const;

export function formsIn(document: Questionnaire): Set<string> {
  const found = new Set<string>();
  const questions = document.sections.flatMap(({ items }) => items.filter((i) => i.kind === 'question'));
  const missing = new Set(
    questions.flatMap(({ answer }) => {
      const options =
        'options' in answer ? answer.options : 'specials' in answer ? (answer.specials ?? []) : [];
      return options.flatMap((option) => (option.missing === undefined ? [] : [option.code]));
    }),
  );
  const isIn = (names: readonly string[], name: string) =>
    names.some((other) => other.toLowerCase() === name.toLowerCase());
  const name = (text: string) => {
    if (
      isIn(
        (document.given ?? []).map((given) => given.name),
        text,
      )
    )
      found.add('a given value');
    if (
      isIn(
        (document.derived ?? []).map((derived) => derived.name),
        text,
      )
    )
      found.add('a derived variable');
    for (const { name: of, answer } of questions) {
      if (answer.type !== 'grid') continue;
      if (isIn([of], text)) found.add('a grid as a whole');
      if (
        isIn(
          answer.rows.map((row) => row.name),
          text,
        )
      )
        found.add('a row of a grid');
    }
  };
  const visit = (node: Condition | Operand): void => {
    switch (node.kind) {
      case 'and':
      case 'or':
        found.add(node.kind);
        node.parts.forEach(visit);
        break;
      case 'not':
        found.add('not');
        visit(node.part);
        break;
      case 'constant':
        found.add(node.value ? 'always' : 'never');
        break;
      case 'compare':
        found.add(`compare ${node.operator}`);
        if (node.left.kind === 'name' && node.right.kind === 'name') found.add('a name compared with a name');
        if (node.right.kind === 'number' && missing.has(node.right.value))
          found.add('a missing code written out');
        [node.left, node.right].forEach(visit);
        break;
      case 'in':
        found.add(node.negated ? 'not in' : 'in');
        name(node.name.name);
        for (const member of node.members) {
          if (member.kind === 'range') found.add('in a range');
          else visit(member);
        }
        break;
      case 'has':
        found.add(`has ${node.quantifier}`);
        name(node.name.name);
        break;
      case 'state':
        found.add(node.state);
        name(node.name.name);
        break;
      case 'count':
        found.add('count(name)');
        name(node.name.name);
        break;
      case 'count-passes':
        found.add('count(condition)');
        visit(node.condition);
        break;
      case 'arithmetic':
        found.add(`arithmetic ${node.operator}`);
        [node.left, node.right].forEach(visit);
        break;
      case 'name':
        name(node.name);
        break;
      case 'pass':
      case 'each':
        found.add(node.kind);
        break;
      case 'number':
        found.add(
          node.value < 0 ? 'a negative number' : Number.isInteger(node.value) ? 'a number' : 'a decimal',
        );
        break;
      default:
        found.add(`a ${node.kind}`);
    }
  };
  JSON.stringify(document, (key, value: unknown) => {
    if (typeof value !== 'string' || (key !== 'if' && key !== 'askIf' && key !== 'value')) return value;
    const parsed = key === 'value' ? parseExpression(value) : parseCondition(value);
    if (parsed.ok) visit(parsed.tree);
    return value;
  });
  return found;
}
