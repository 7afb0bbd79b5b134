/** Mutated conditions: read or refused with a place, printed as they were read, and walked by whatever they say. */
import assert from 'node:assert/strict';
import { parseCondition, parseExpression } from '../../src/core/condition/parse';
import { printCondition, printOperand } from '../../src/core/condition/print';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { planOf } from '../../src/core/routing/planner';
import { walk } from '../../src/core/routing/walk';
import { snagsOf } from '../../src/core/snags';
import { conditionSentence } from '../../src/core/wording/sentence';
import { FEATURED } from '../agree/featured';
import { intOf, type Int, type SeededPart } from './part';

/** Questionnaires, each with the conditions and values that stand in it, and their words. */
const homes = FEATURED.map((document) => {
  const texts: string[] = [];
  JSON.stringify(document, (key, value: unknown) => {
    if ((key === 'askIf' || key === 'if' || key === 'value') && typeof value === 'string') texts.push(value);
    return value;
  });
  return { document: document as Questionnaire, texts };
}).filter(({ texts }) => texts.length > 0);
const WORDS = [
  ...new Set(homes.flatMap(({ texts }) => texts.flatMap((text) => text.match(/'[^']*'|[\w.:-]+|\S/g) ?? []))),
];
const SIGNS = [
  '(',
  ')',
  "'",
  '"',
  ',',
  '..',
  '<>',
  '<=',
  '=',
  '-',
  '+',
  '*',
  '{',
  '}',
  '\\',
  '\n',
  '\u0000',
  ' ',
  '’',
  'é',
  '🜁',
  'İ',
  '‮',
  '1e999',
  '99999999999999999999',
  '0000-00-00',
  '24:61',
];

function broken(text: string, int: Int): string {
  const pick = <T>(from: readonly T[]) => from[int(0, from.length - 1)] as T;
  let tokens: string[] = text.match(/\s+|'[^']*'|[\w.:-]+|[^\w\s]/g) ?? [];
  for (let times = int(1, 4); times > 0; times -= 1) {
    const at = int(0, Math.max(0, tokens.length - 1));
    switch (int(0, 7)) {
      case 0:
        tokens.splice(at, 1);
        break;
      case 1:
        tokens.splice(at, 0, ...tokens.slice(at, at + int(1, 4)), ' ');
        break;
      case 2:
        tokens[at] = pick(WORDS);
        break;
      case 3:
        tokens.splice(at, 0, ' ', pick(WORDS), ' ');
        break;
      case 4:
        tokens.splice(at, 0, pick(SIGNS));
        break;
      case 5:
        tokens = ['not (', ...tokens, ') ', pick(['and', 'or']), ' ', ...tokens];
        break;
      case 6:
        tokens = [
          pick(['count(', 'sum(', '(', 'not ', '((((']),
          ...tokens,
          pick([')', '', ') >= 1', ', 1)']),
        ];
        break;
      default:
        tokens = tokens.slice(0, at);
    }
  }
  return tokens.join('');
}

export const conditions: SeededPart = {
  name: 'conditions',
  words: 'mutated conditions and values, read, printed, checked and walked by',
  one(seed) {
    const int = intOf(seed);
    const pick = <T>(from: readonly T[]) => from[int(0, from.length - 1)] as T;
    const { document, texts } = pick(homes);
    const text = broken(pick(texts), int);

    const condition = parseCondition(text);
    if (condition.ok) {
      const printed = printCondition(condition.tree);
      const again = parseCondition(printed);
      assert.ok(again.ok, `“${text}” is printed as “${printed}”, which cannot be read`);
      assert.equal(printCondition(again.tree), printed, text);
    } else {
      const { from, to } = condition.problem.span;
      assert.ok(from >= 0 && from <= to && to <= text.length, `“${text}”: ${from} to ${to}`);
      assert.notEqual(condition.problem.message, '');
    }
    const value = parseExpression(text);
    if (value.ok) {
      const printed = printOperand(value.tree);
      const again = parseExpression(printed);
      assert.ok(again.ok && printOperand(again.tree) === printed, `“${text}” is printed as “${printed}”`);
    }

    // In the place of one that stands in a questionnaire.
    const copy = JSON.parse(JSON.stringify(document), (key, was: unknown) =>
      (key === 'askIf' || key === 'if' || key === 'value') && typeof was === 'string' && int(0, 3) === 0
        ? text
        : was,
    ) as unknown;
    const read = readDocument(copy);
    if (!read.ok) return;
    const plan = planOf(read.document);
    snagsOf(plan);
    if (condition.ok) conditionSentence(condition.tree, plan.variables);
    const walked = walk(plan, { answers: {}, lenient: true });
    assert.ok(walked.ok || walked.problem !== '', text);
  },
};
