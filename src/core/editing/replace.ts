/** Finding and replacing in the words that are shown, and in the names of variables with all that refers to them. */
import { eachProperty } from '../document/each-property';
import { nameProblem } from '../document/names';
import type { Questionnaire } from '../document/types';
import type { Change } from './change';
import { renameVariable } from './rename';
import { takenNames } from './structure';

export interface Replacing {
  readonly find: string;
  readonly by: string;
  /** In texts, labels and messages. */
  readonly inWords: boolean;
  /** In the names of variables. */
  readonly inNames: boolean;
  readonly matchCase: boolean;
}

export interface Replaceable {
  /** Times it stands in words. */
  readonly words: number;
  /** Names, each with what it would become. */
  readonly names: readonly { readonly from: string; readonly to: string }[];
  /** Names that cannot be changed so, with why. */
  readonly refused: readonly { readonly name: string; readonly why: string }[];
}

/** What a replacement would touch. */
export function replaceable(document: Questionnaire, replacing: Replacing): Replaceable {
  if (replacing.find === '') return { words: 0, names: [], refused: [] };
  let words = 0;
  if (replacing.inWords)
    eachWords(document, (text) => {
      words += timesIn(text, replacing);
      return text;
    });
  const taken = takenNames(document);
  const names: { from: string; to: string }[] = [];
  const refused: { name: string; why: string }[] = [];
  for (const name of replacing.inNames ? variableNames(document) : []) {
    const to = name.replace(pattern(replacing), () => replacing.by);
    if (to === name) continue;
    const problem = nameProblem(to);
    const free = to.toLowerCase() === name.toLowerCase() || !taken.has(to.toLowerCase());
    if (problem !== null) refused.push({ name, why: problem });
    else if (!free) refused.push({ name, why: `“${to}” is taken` });
    else {
      names.push({ from: name, to });
      taken.add(to.toLowerCase());
    }
  }
  return { words, names, refused };
}

/** One step of the history, whatever is replaced. */
export function replaceAll(document: Questionnaire, replacing: Replacing): Change {
  const { names } = replaceable(document, replacing);
  return {
    label: `Replace “${replacing.find}” by “${replacing.by}”`,
    apply: (draft) => {
      if (replacing.inWords && replacing.find !== '')
        eachWords(draft, (text) =>
          inWords(text, (part) => part.replace(pattern(replacing), () => replacing.by)),
        );
      for (const { from, to } of names) renameVariable(from, to).apply(draft);
    },
  };
}

function pattern({ find, matchCase }: Replacing): RegExp {
  return new RegExp(find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), matchCase ? 'g' : 'gi');
}

function timesIn(text: string, replacing: Replacing): number {
  let times = 0;
  inWords(text, (part) => {
    times += [...part.matchAll(pattern(replacing))].length;
    return part;
  });
  return times;
}

/** What is piped in is a name, and none of the words. */
function inWords(text: string, change: (part: string) => string): string {
  return text
    .split(/(\{[A-Za-z]\w*\})/)
    .map((part, n) => (n % 2 === 0 ? change(part) : part))
    .join('');
}

function variableNames(document: Questionnaire): string[] {
  const names: string[] = [];
  eachProperty(document, ({ property, value }) => {
    if (property.holds === 'name') names.push(String(value));
  });
  return names;
}

/** Every text that is words; unchanged ones are not touched. */
function eachWords(document: Questionnaire, change: (text: string) => string): void {
  eachProperty(document, ({ holder, name, property: { holds }, value }) => {
    if (holds !== 'words' && holds !== 'piped words') return;
    const next = change(String(value));
    if (next !== value) holder[name] = next;
  });
}
