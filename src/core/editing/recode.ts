/**
 * New codes for the answers of a question, carried through everything that names them: conditions, consent, assumed shares.
 * Where codes are compared by size, added up or taken as a range, other codes would mean something else: then it is refused.
 */
import { parseCondition, parseExpression } from '../condition/parse';
import { eachName, type Condition, type NameNode, type Operand, type TextSpan } from '../condition/syntax';
import { answeredNames } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Question, Questionnaire } from '../document/types';
import { applyChange, type Change } from './change';
import { eachText } from './rename';
import type { ItemPlace } from './structure';

/** New codes by old ones; codes left out stay. */
export type Recoding = ReadonlyMap<number, number>;

/** Why codes cannot be changed so, as a sentence; null where they can. */
export function recodeProblem(document: Questionnaire, place: ItemPlace, recoding: Recoding): string | null {
  const question = questionAt(document, place);
  if (question === null) return 'There is no question here.';
  const codes = optionsOf(question.answer).map(({ code }) => recoding.get(code) ?? code);
  const twice = codes.find((code, n) => codes.indexOf(code) !== n);
  if (twice !== undefined) return `Two answers would have the code ${twice}.`;
  const names = namesOf(question);
  let problem: string | null = null;
  const see = (text: string, found: boolean) => {
    if (found) problem ??= `The codes are taken as numbers in “${text}”: change that first.`;
  };
  // Nothing is changed here: only looked at.
  applyChange(document, {
    label: '',
    apply: (draft) =>
      eachText(draft, (text, kind) => {
        if (kind === 'condition') {
          const parsed = parseCondition(text);
          if (parsed.ok) see(text, codesIn(parsed.tree, names) === null);
        } else if (kind === 'expression') {
          const parsed = parseExpression(text);
          if (parsed.ok) see(text, mentions(parsed.tree, names));
        }
        return text;
      }),
  });
  return problem;
}

/** The codes must be free to change; see `recodeProblem`. */
export function recode(document: Questionnaire, place: ItemPlace, recoding: Recoding): Change {
  const question = questionAt(document, place);
  const names = question === null ? new Set<string>() : namesOf(question);
  const to = (code: number) => recoding.get(code) ?? code;
  return {
    label: `Change codes of ${question?.name ?? ''}`,
    apply: (draft) => {
      eachText(draft, (text, kind) => (kind === 'condition' ? recoded(text, names, to) : text));
      const found = draft.sections[place.section]?.items[place.item];
      if (found?.kind !== 'question') return;
      const { answer } = found;
      const options = 'options' in answer ? answer.options : 'specials' in answer ? answer.specials : [];
      for (const option of options ?? []) option.code = to(option.code);
      if (found.agrees !== undefined) found.agrees = found.agrees.map(to);
      const inSets = (draft.settings?.forecast?.sets ?? []).flatMap(({ assume }) =>
        assume.filter(({ of }) => of === found.name),
      );
      const all = [...(found.assume === undefined ? [] : [found.assume]), ...inSets];
      for (const assumed of all.flatMap((assume) => [assume, ...(assume.where ?? [])]))
        if (assumed.shares !== undefined)
          assumed.shares = Object.fromEntries(
            Object.entries(assumed.shares).map(([code, share]) => [String(to(Number(code))), share]),
          );
    },
  };
}

function questionAt(document: Questionnaire, { section, item }: ItemPlace): Question | null {
  const found = document.sections[section]?.items[item];
  return found?.kind === 'question' ? found : null;
}

/** The variables that have these codes, in lower case. */
function namesOf({ name, answer }: Question): ReadonlySet<string> {
  const names = answeredNames({ name, answer });
  return new Set(names.map((each) => each.toLowerCase()));
}

interface CodeAt {
  readonly value: number;
  readonly span: TextSpan;
}

/** The codes of some variables that a condition names; null where it takes them as numbers. */
function codesIn(node: Condition, names: ReadonlySet<string>): CodeAt[] | null {
  const own = (name: NameNode) => names.has(name.name.toLowerCase());
  const all = (parts: readonly (CodeAt[] | null)[]) =>
    parts.some((part) => part === null) ? null : parts.flatMap((part) => part ?? []);
  switch (node.kind) {
    case 'and':
    case 'or':
      return all(node.parts.map((part) => codesIn(part, names)));
    case 'not':
      return codesIn(node.part, names);
    case 'in':
      if (!own(node.name)) return [];
      return all(
        node.members.map((member) =>
          member.kind === 'number' ? [member] : member.kind === 'range' ? null : [],
        ),
      );
    case 'has':
      return own(node.name) ? node.values.flatMap((value) => (value.kind === 'number' ? [value] : [])) : [];
    case 'compare': {
      const [left, right] = [node.left, node.right];
      const counted = all(
        [left, right].map((side) => (side.kind === 'count-passes' ? codesIn(side.condition, names) : [])),
      );
      if (counted === null) return null;
      const plain = node.operator === '=' || node.operator === '<>';
      const codes = [[left, right] as const, [right, left] as const].map(([side, other]) => {
        if (side.kind === 'count-passes' || side.kind === 'count') return [];
        if (side.kind === 'name') {
          if (!own(side)) return [];
          return plain && other.kind === 'number' ? [other] : null;
        }
        return mentions(side, names) ? null : [];
      });
      return all([counted, ...codes]);
    }
    case 'state':
    case 'constant':
      return [];
    default:
      return node satisfies never;
  }
}

function mentions(node: Condition | Operand, names: ReadonlySet<string>): boolean {
  let found = false;
  eachName(node, ({ name }) => {
    found ||= names.has(name.toLowerCase());
  });
  return found;
}

/** Replaced where they stand, so that the author's spacing stays. */
function recoded(text: string, names: ReadonlySet<string>, to: (code: number) => number): string {
  const parsed = parseCondition(text);
  const codes = parsed.ok ? codesIn(parsed.tree, names) : null;
  return [...(codes ?? [])]
    .sort((a, b) => b.span.from - a.span.from)
    .reduce(
      (result, { value, span }) => result.slice(0, span.from) + String(to(value)) + result.slice(span.to),
      text,
    );
}
