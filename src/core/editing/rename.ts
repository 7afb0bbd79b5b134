/** Renaming a variable, with everything that refers to it: targets, conditions, pipes, derived values. */
import { parseCondition, parseExpression } from '../condition/parse';
import { eachName, type Condition, type Operand, type Span } from '../condition/syntax';
import { textParts } from '../routing/pipes';
import type { Change, DocumentDraft } from './change';

export function renameVariable(from: string, to: string): Change {
  return {
    label: `Rename ${from} to ${to}`,
    apply: (draft) => {
      renameHolders(draft, from, to);
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

function renameHolders(draft: DocumentDraft, from: string, to: string): void {
  for (const given of draft.given ?? []) if (given.name === from) given.name = to;
  for (const derived of draft.derived ?? []) if (derived.name === from) derived.name = to;
  for (const section of draft.sections) {
    for (const item of section.items) {
      if (item.kind === 'page_break') continue;
      if (item.name === from) item.name = to;
      if (item.kind !== 'question' || item.answer.type !== 'grid') continue;
      for (const row of item.answer.rows) if (row.name === from) row.name = to;
    }
  }
}

export type TextKind = 'condition' | 'expression' | 'piped' | 'name';

/** Rewrites every text that can name a variable. Unchanged texts are not touched. */
export function eachText(draft: DocumentDraft, rewrite: (text: string, kind: TextKind) => string): void {
  const visit = (holder: object | undefined, keys: readonly string[], kind: TextKind) => {
    const record = holder as Record<string, unknown> | undefined;
    for (const key of keys) {
      const text = record?.[key];
      if (typeof text !== 'string' || record === undefined) continue;
      const next = rewrite(text, kind);
      if (next !== text) record[key] = next;
    }
  };
  const condition = (holder: object | undefined) => visit(holder, ['if', 'askIf'], 'condition');
  const target = (to: object) => visit(to, ['item'], 'name');
  const skips = (list: readonly { to: object }[] | undefined) =>
    list?.forEach((skip) => {
      condition(skip);
      target(skip.to);
    });

  for (const quota of draft.quotas ?? []) {
    condition(quota);
    visit(quota, ['at'], 'name');
    target(quota.to);
  }
  for (const section of draft.sections) {
    condition(section);
    visit(section, ['title', 'intro'], 'piped');
    visit(section.repeat, ['times', 'each'], 'name');
    if (section.onward !== undefined) {
      if ('length' in section.onward) skips(section.onward);
      else target(section.onward);
    }
    for (const item of section.items) {
      if (item.kind === 'page_break') continue;
      condition(item);
      visit(item, ['text', 'note'], 'piped');
      skips(item.skips);
      if (item.kind === 'statement') continue;
      item.checks?.forEach(condition);
      const { answer } = item;
      const rows = answer.type === 'grid' ? answer.rows : [];
      const options =
        'options' in answer ? answer.options : 'specials' in answer ? (answer.specials ?? []) : [];
      for (const entry of [...rows, ...options]) {
        condition(entry);
        visit(entry, ['label'], 'piped');
      }
    }
  }
  for (const derived of draft.derived ?? []) {
    if ('value' in derived) visit(derived, ['value'], 'expression');
    else derived.cases.forEach(condition);
  }
  for (const ending of draft.endings) {
    for (const message of ending.messages) {
      condition(message);
      visit(message, ['text'], 'piped');
    }
    if (ending.next && 'questionnaire' in ending.next && ending.next.carry) {
      ending.next.carry = ending.next.carry.map((name) => rewrite(name, 'name'));
    }
  }
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
  const spans: Span[] = [];
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
