/** Renaming a variable, with everything that refers to it: targets, conditions, pipes, derived values. */
import { parseCondition, parseExpression } from '../condition/parse';
import { eachName, type Condition, type Operand, type TextSpan } from '../condition/syntax';
import { eachProperty } from '../document/each-property';
import type { Holds } from '../document/properties';
import { textParts } from '../routing/pipes';
import type { Change, DocumentDraft } from './change';

/** Names are told by their exact spelling; `to` must be free. */
export function renameVariable(from: string, to: string): Change {
  return {
    label: `Rename ${from} to ${to}`,
    apply: (draft) => {
      eachProperty(draft, ({ holder, name, property, value }) => {
        if (property.holds === 'name' && value === from) holder[name] = to;
      });
      eachText(draft, (text, kind) => {
        switch (kind) {
          case 'condition':
            return inCondition(text, from, to);
          case 'expression':
            return inExpression(text, from, to);
          case 'piped':
            return inPipes(text, from, to);
          case 'name':
            return text === from ? to : text;
          default:
            return kind satisfies never;
        }
      });
    },
  };
}

export type TextKind = 'condition' | 'expression' | 'piped' | 'name';

const TEXT_KINDS: Partial<Record<Holds, TextKind>> = {
  condition: 'condition',
  expression: 'expression',
  'piped words': 'piped',
  variable: 'name',
  variables: 'name',
};

/** Rewrites every text that can name a variable. Unchanged texts are not touched. */
export function eachText(draft: DocumentDraft, rewrite: (text: string, kind: TextKind) => string): void {
  eachProperty(draft, ({ holder, name, property, value }) => {
    const kind = TEXT_KINDS[property.holds];
    if (kind === undefined) return;
    if (Array.isArray(value)) holder[name] = value.map((each) => rewrite(String(each), kind));
    else if (typeof value === 'string') {
      const next = rewrite(value, kind);
      if (next !== value) holder[name] = next;
    }
  });
}

/** A condition that does not parse is left as it is. */
export function inCondition(text: string, from: string, to: string): string {
  const parsed = parseCondition(text);
  return parsed.ok ? replaceNames(text, parsed.tree, from, to) : text;
}

function inExpression(text: string, from: string, to: string): string {
  const parsed = parseExpression(text);
  return parsed.ok ? replaceNames(text, parsed.tree, from, to) : text;
}

/** Replaces at the spans of the tree, so that the author's spacing stays. */
function replaceNames(text: string, tree: Condition | Operand, from: string, to: string): string {
  const spans: TextSpan[] = [];
  eachName(tree, ({ name, span }) => {
    if (name.toLowerCase() === from.toLowerCase()) spans.push(span);
  });
  return spans
    .sort((a, b) => b.from - a.from)
    .reduce((result, span) => result.slice(0, span.from) + to + result.slice(span.to), text);
}

function inPipes(text: string, from: string, to: string): string {
  if (!text.includes(`{${from}}`)) return text;
  return textParts(text)
    .map((part) => {
      if (part.kind === 'words') return part.text.replaceAll('{', '{{').replaceAll('}', '}}');
      return `{${part.name === from ? to : part.name}}`;
    })
    .join('');
}
