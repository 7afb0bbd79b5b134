/**
 * The shortest test of one driver that holds for wanted readings and for no other that is possible.
 *
 * Ways to say it are tried, shortest first, and each is checked on the readings themselves.
 */
import { holds, type Reading } from '../condition/evaluate';
import { parseCondition } from '../condition/parse';
import { variableOptions, type Variable } from '../document/variables';
import type { Instance } from './predicates';

/**
 * `wanted` and `may` are parallel to the readings; `literals` are the predicates the wanted readings were made
 * from, which say it in any case where there are some. Empty where everything possible is wanted.
 */
export function shortestTest(
  instance: Instance,
  wanted: readonly boolean[],
  may: readonly boolean[],
  literals: readonly (readonly [level: number, value: boolean])[],
): string {
  const { readings } = instance;
  const inside = readings.filter((_, n) => may[n] && wanted[n]);
  const outside = readings.filter((_, n) => may[n] && !wanted[n]);
  if (outside.length === 0) return '';
  const { variable } = instance.driver;
  const says = (text: string) => {
    const parsed = parseCondition(text);
    if (!parsed.ok) return false;
    const { tree } = parsed;
    const test = (reading: Reading) =>
      holds(tree, { read: () => reading, pass: null, each: null, passesOver: () => [] });
    return inside.every(test) && !outside.some(test);
  };
  const fromLiterals = literals
    .map(([level, value]) => {
      const source = instance.sourceOf(level);
      return value ? bracketed(source) : `not (${source})`;
    })
    .join(' and ');
  const tried = [...waysToSay(instance, inside, outside), ...(literals.length > 0 ? [fromLiterals] : [])];
  const fitting = tried.filter((text) => text !== '' && says(text));
  const shortest = fitting.sort((a, b) => a.length - b.length)[0];
  return shortest ?? (fromLiterals !== '' ? fromLiterals : piecewise(variable, inside, says));
}

function bracketed(source: string): string {
  return / or /.test(source) ? `(${source})` : source;
}

function waysToSay(instance: Instance, inside: readonly Reading[], outside: readonly Reading[]): string[] {
  const { variable } = instance.driver;
  const { readings: all } = instance;
  const { name } = variable;
  const states = [`${name} asked`, `${name} not asked`, `${name} answered`, `${name} unanswered`];
  if (variable.kind === 'set' || variable.kind === 'order' || variable.kind === 'whole-grid') return states;
  const written = writtenTexts(instance);
  const yes = listed(variable, all, inside, written);
  const no = listed(variable, all, outside, written);
  const positive = yes === '' ? [] : [yes];
  const negative =
    no === '' ? [] : [`not ${no}`, no.replace(' = ', ' <> '), no.replace(' in (', ' not in (')];
  const extra = [`${name} unanswered`, `${name} not asked`];
  return [
    ...states,
    ...positive,
    ...negative,
    ...positive.flatMap((text) => extra.map((state) => `${text} or ${state}`)),
    ...positive.map((text) => `${text} or ${extra.join(' or ')}`),
    ...negative.flatMap((text) => [`${text} and ${name} asked`, `${text} and ${name} answered`]),
  ];
}

/** The values of readings as `= 1`, `in (1, 3..5)`, `>= 18` …; empty where there are none. */
function listed(
  variable: Variable,
  all: readonly Reading[],
  some: readonly Reading[],
  written: ReadonlySet<unknown>,
): string {
  const { name } = variable;
  const special = new Set(
    variableOptions(variable)
      .filter(({ missing }) => missing !== undefined)
      .map(({ code }) => code),
  );
  const plain = (of: readonly Reading[]) =>
    [
      ...new Set(
        of.flatMap(({ value, missing }) =>
          missing || value === null || typeof value === 'object' ? [] : [value],
        ),
      ),
    ].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
  const every = plain(all);
  const values = plain(some);
  const codes = some.flatMap(({ value, missing }) => (missing && typeof value === 'number' ? [value] : []));
  const codeList = codes.filter((code) => special.has(code)).map(String);
  // A text that no condition names stands for all such texts.
  if (variable.kind === 'text' && !values.every((value) => written.has(value))) return '';
  if (variable.codes !== null || variable.kind === 'text') {
    const list = [...values.map((value) => literal(variable, value)), ...codeList];
    return list.length === 0
      ? ''
      : list.length === 1
        ? `${name} = ${list[0]}`
        : `${name} in (${list.join(', ')})`;
  }
  // Neighbouring values that are all wanted are a range; between listed values nothing changes.
  const runs: [from: number, to: number][] = [];
  values.forEach((value) => {
    const at = every.indexOf(value);
    const last = runs.at(-1);
    if (last !== undefined && last[1] === at - 1) last[1] = at;
    else runs.push([at, at]);
  });
  const [only] = runs;
  const text = (at: number) => literal(variable, every[at] ?? '');
  if (runs.length === 1 && only !== undefined && codeList.length === 0) {
    const [from, to] = only;
    if (from === to) return `${name} = ${text(from)}`;
    if (from === 0) return `${name} <= ${text(to)}`;
    if (to === every.length - 1) return `${name} >= ${text(from)}`;
  }
  const members = [
    ...runs.map(([from, to]) => (from === to ? text(from) : `${text(from)}..${text(to)}`)),
    ...codeList,
  ];
  return members.length === 0 ? '' : `${name} in (${members.join(', ')})`;
}

/** The texts that conditions compare the driver with. */
function writtenTexts({ driver }: Instance): ReadonlySet<unknown> {
  const found = new Set<unknown>();
  for (const atom of driver.atoms) {
    const sides = atom.kind === 'compare' ? [atom.left, atom.right] : atom.kind === 'in' ? atom.members : [];
    for (const side of sides) if (side.kind === 'text') found.add(side.value);
  }
  return found;
}

function literal(variable: Variable, value: number | string): string {
  return variable.kind === 'text' ? `'${String(value).replaceAll("'", "''")}'` : String(value);
}

/** Value by value, where nothing shorter says it. */
function piecewise(variable: Variable, inside: readonly Reading[], says: (text: string) => boolean): string {
  const { name } = variable;
  const parts = [
    ...(inside.some(({ presented, value }) => presented && value === null) ? [`${name} unanswered`] : []),
    ...(inside.some(({ presented }) => !presented) ? [`${name} not asked`] : []),
  ];
  const values = listed(variable, inside, inside, new Set());
  const text = [values, ...parts].filter((part) => part !== '').join(' or ');
  if (!says(text)) throw new RangeError(`no test says which readings of ${name} are wanted`);
  return text;
}
