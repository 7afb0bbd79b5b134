/** The small faults that can be planted in a source: each one change of a few characters, which types rarely catch. */
import ts from 'typescript';

const { SyntaxKind: Kind } = ts;

/** What stands in the place of an operator. */
const OPERATORS = new Map([
  [Kind.LessThanToken, '<='],
  [Kind.LessThanEqualsToken, '<'],
  [Kind.GreaterThanToken, '>='],
  [Kind.GreaterThanEqualsToken, '>'],
  [Kind.EqualsEqualsEqualsToken, '!=='],
  [Kind.ExclamationEqualsEqualsToken, '==='],
  [Kind.AmpersandAmpersandToken, '||'],
  [Kind.BarBarToken, '&&'],
  [Kind.PlusToken, '-'],
  [Kind.MinusToken, '+'],
  [Kind.AsteriskToken, '/'],
  [Kind.PlusEqualsToken, '-='],
  [Kind.MinusEqualsToken, '+='],
]);

/** Text joined by a plus is no sum. */
const isText = (node) =>
  ts.isStringLiteralLike(node) ||
  ts.isTemplateExpression(node) ||
  (ts.isBinaryExpression(node) && (isText(node.left) || isText(node.right)));

const isFunction = (node) => ts.isFunctionLike(node) && node.body !== undefined;

/**
 * Every fault of a file, in order of place. `from` and `to` bound what is replaced by `by`; `within` is where the innermost
 * function round it begins, null at the top of the file.
 *
 * @param {string} file its name, for the dialect
 * @param {string} text
 * @returns {{ from: number, to: number, by: string, line: number, within: number | null }[]}
 */
export function faultsIn(file, text) {
  const source = parse(file, text);
  const found = [];
  const visit = (node, within) => {
    // Types are gone when it runs.
    if (ts.isTypeNode(node) || ts.isInterfaceDeclaration(node) || ts.isTypeAliasDeclaration(node)) return;
    const add = (at, by) => {
      const [from, to] = [at.getStart(source), at.getEnd()];
      found.push({ from, to, by, line: source.getLineAndCharacterOfPosition(from).line + 1, within });
    };
    if (ts.isBinaryExpression(node)) {
      const by = OPERATORS.get(node.operatorToken.kind);
      const joins = node.operatorToken.kind === Kind.PlusToken && (isText(node.left) || isText(node.right));
      if (by !== undefined && !joins) add(node.operatorToken, by);
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === Kind.ExclamationToken)
      add(node, `(${node.operand.getText(source)})`);
    else if (ts.isNumericLiteral(node) && !ts.isPropertyAssignment(node.parent))
      add(node, String(Number(node.text) + 1));
    else if (node.kind === Kind.TrueKeyword) add(node, 'false');
    else if (node.kind === Kind.FalseKeyword) add(node, 'true');
    else if (ts.isIfStatement(node)) add(node.expression, `!(${node.expression.getText(source)})`);
    else if (ts.isConditionalExpression(node)) add(node.condition, `!(${node.condition.getText(source)})`);
    else if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression))
      add(node, node.expression.expression.kind === Kind.SuperKeyword ? node.getText(source) : ';');
    const inside = isFunction(node) ? node.getStart(source) : within;
    ts.forEachChild(node, (child) => visit(child, inside));
  };
  visit(source, null);
  return found
    .filter(({ from, to, by }) => text.slice(from, to) !== by)
    .sort((a, b) => a.from - b.from || a.to - b.to);
}

/** The text with a fault in it. */
export function planted(text, { from, to, by }) {
  return text.slice(0, from) + by + text.slice(to);
}

/**
 * The text of a file that tells which of its functions are called: each adds `FILE:BEGIN` to the set `globalThis.__met`.
 *
 * @param {string} file
 * @param {string} text
 */
export function watched(file, text) {
  const source = parse(file, text);
  const inserts = [];
  const visit = (node) => {
    if (isFunction(node)) {
      const met = `globalThis.__met?.add(${JSON.stringify(`${file}:${node.getStart(source)}`)})`;
      const { body } = node;
      if (ts.isBlock(body)) inserts.push([body.getStart(source) + 1, `${met};`]);
      else inserts.push([body.getStart(source), `(${met}, `], [body.getEnd(), ')']);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  // From the end, so that the places before stay; at one place, the inner one first.
  let result = text;
  for (const [at, words] of inserts
    .map((insert, n) => [...insert, n])
    .sort((a, b) => b[0] - a[0] || b[2] - a[2]))
    result = result.slice(0, at) + words + result.slice(at);
  return result;
}

function parse(file, text) {
  return ts.createSourceFile(
    file,
    text,
    ts.ScriptTarget.ES2022,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
}
