/**
 * The variables of an existing data set as a questionnaire to start from: a question each, with its codes, limits and words.
 * Codes for no answer that nearly all have are the plan of missing codes; others are answers that say there is none.
 */
import { freshName, nameProblem } from '../../document/names';
import { readDocument } from '../../document/read';
import type { Answer, Item, MissingCode, Option, Questionnaire } from '../../document/types';
import { emptyQuestionnaire } from '../../editing/structure';

export interface DataVariable {
  readonly name: string;
  readonly label: string;
  /** The words of its question; empty where there are none. */
  readonly question: string;
  readonly holds: 'whole' | 'number' | 'date' | 'time' | 'datetime' | 'text';
  readonly measure: string;
  readonly values: readonly { readonly code: string; readonly label: string }[];
  readonly missing: readonly { readonly code: string; readonly label: string }[];
  readonly least: string | null;
  readonly most: string | null;
}

export interface VariableDoubt {
  /** Number of the variable, from 1. */
  readonly line: number;
  readonly what: string;
}

export type VariablesRead =
  | { readonly ok: true; readonly document: Questionnaire; readonly doubts: readonly VariableDoubt[] }
  | { readonly ok: false; readonly problems: readonly string[] };

/** A code of the plan stands with nearly all variables; “don’t know” with many. */
const NEARLY = 0.9;
/** Variables that are taken over at most. */
const MOST_TAKEN = 20_000;
const CODE = /^-?\d{1,15}$/;

export function fromVariables(
  title: string,
  language: string | null,
  variables: readonly DataVariable[],
): VariablesRead {
  if (variables.length === 0) return { ok: false, problems: ['There is no variable in it.'] };
  if (variables.length > MOST_TAKEN)
    return {
      ok: false,
      problems: [`It has more than ${MOST_TAKEN.toLocaleString('en')} variables: divide it.`],
    };
  const doubts: VariableDoubt[] = [];
  const names = new Set<string>();
  const base = emptyQuestionnaire(title);
  const planned = plannedIn(variables);
  const items = variables.map((variable, n): Item => {
    const tell = (what: string) => doubts.push({ line: n + 1, what: `${variable.name}: ${what}` });
    const isFree = nameProblem(variable.name) === null && !names.has(variable.name.toLowerCase());
    const name = isFree ? variable.name : freshName(variable.name || 'item', names);
    names.add(name.toLowerCase());
    if (name !== variable.name)
      tell(`this is no name that can stand here, or stands here twice: it is called ${name}`);
    const { label, question } = variable;
    const text = question || label || variable.name;
    const measure = (['nominal', 'ordinal', 'interval', 'ratio'] as const).find(
      (each) => each === variable.measure,
    );
    return {
      kind: 'question',
      name,
      text,
      ...(label === '' || label === text ? {} : { label }),
      answer: answerOf(variable, planned, tell),
      ...(measure === undefined ? {} : { measure }),
    };
  });
  const document = {
    ...base,
    ...(language === null ? {} : { language }),
    missing: missingFrom(base.missing, planned),
    sections: [{ id: 'questions', title: 'Questions', kind: 'topic', items }],
  };
  const sound = readDocument(document);
  return sound.ok
    ? { ok: true, document: sound.document, doubts }
    : { ok: false, problems: sound.problems.slice(0, 20).map(({ message }) => message) };
}

/** The first table of several is taken; null where there are no others. */
export function tablesLeft(count: number, line: number): VariableDoubt | null {
  if (count === 0) return null;
  return { line, what: `${count} more ${count === 1 ? 'table was' : 'tables were'} not taken over` };
}

/** By code, its label. */
function plannedIn(variables: readonly DataVariable[]): Map<string, string> {
  const counts = new Map<string, number>();
  for (const { missing } of variables)
    for (const { code, label } of missing)
      if (CODE.test(code)) counts.set(`${code} ${label}`, (counts.get(`${code} ${label}`) ?? 0) + 1);
  const most = Math.max(0, ...counts.values());
  return new Map(
    [...counts].flatMap(([key, count]) => {
      const at = key.indexOf(' ');
      return count > 1 && count >= NEARLY * most ? [[key.slice(0, at), key.slice(at + 1)] as const] : [];
    }),
  );
}

/** The plan of this house with the codes that the data have for what is called the same; what else they have are reasons of their own. */
function missingFrom(base: readonly MissingCode[], planned: ReadonlyMap<string, string>): MissingCode[] {
  const byLabel = new Map([...planned].map(([code, label]) => [label.toLowerCase(), Number(code)]));
  const named = base.map((entry) => ({ ...entry, code: byLabel.get(entry.label.toLowerCase()) ?? null }));
  const taken = new Set([...planned.keys()].map(Number));
  const usual = new Set(base.map(({ code }) => code));
  // The others keep the codes they have everywhere.
  const freeCode = (wanted: number) => {
    let code = wanted;
    while (taken.has(code) || (code !== wanted && usual.has(code))) code -= 1;
    taken.add(code);
    return code;
  };
  const ours = named.map((entry, n) => ({
    ...entry,
    code: entry.code ?? freeCode((base[n] as MissingCode).code),
  }));
  const reasons = new Set(base.map(({ reason }) => reason));
  const theirs = [...planned].flatMap(([code, label]): MissingCode[] => {
    if (named.some((entry) => entry.code === Number(code))) return [];
    const reason = freshName(label || 'missing', reasons);
    reasons.add(reason);
    return [{ reason, code: Number(code), label }];
  });
  return [...ours, ...theirs];
}

function answerOf(
  { holds, values, missing, least, most }: DataVariable,
  planned: ReadonlyMap<string, string>,
  tell: (what: string) => void,
): Answer {
  const apart = missing.flatMap(({ code, label }): Option[] =>
    CODE.test(code) && planned.get(code) !== label
      ? [{ code: Number(code), label, missing: 'not_available' }]
      : [],
  );
  const beside = apart.length === 0 ? {} : { specials: apart };
  if (values.length > 0) {
    const coded = values.every(({ code }) => CODE.test(code));
    if (!coded) tell('its values are no whole numbers: they are numbered from 1');
    const options = values.map(({ code, label }, n): Option => ({
      code: coded ? Number(code) : n + 1,
      label: label || code,
    }));
    const taken = new Set(options.map(({ code }) => code));
    return { type: 'single', options: [...options, ...apart.filter(({ code }) => !taken.has(code))] };
  }
  switch (holds) {
    case 'whole':
    case 'number': {
      const [min, max] = [Number(least ?? NaN), Number(most ?? NaN)];
      const isLimited = Number.isFinite(min) && Number.isFinite(max);
      if (!isLimited) tell('it has no limits: 0 to 1,000,000 were taken');
      const limits = isLimited ? { min, max } : { min: 0, max: 1_000_000 };
      return { type: 'number', ...limits, ...(holds === 'number' ? { decimals: 2 } : {}), ...beside };
    }
    case 'date':
    case 'time':
    case 'datetime':
      return {
        type: holds,
        ...(least === null ? {} : { min: least }),
        ...(most === null ? {} : { max: most }),
        ...beside,
      };
    case 'text':
      return { type: 'text' };
    default:
      return holds satisfies never;
  }
}
