/** Finding anything in a questionnaire by words of it: items, answers, codes, conditions, sections, endings, what stands around. */
import { readAddress, type Address, type AddressKind } from '../document/addresses';
import { eachProperty } from '../document/each-property';
import { sectionLetter } from '../document/variables';
import type { Plan } from '../routing/plan';
import { endingLabel } from '../wording/targets';

export interface Found {
  readonly kind: 'section' | 'question' | 'statement' | 'answer' | 'condition' | 'ending' | 'around';
  /** What to select. */
  readonly selection: Address;
  /** Variable name, code or letter. */
  readonly name: string;
  readonly words: string;
}

const ONCE: ReadonlySet<Found['kind']> = new Set(['section', 'question', 'statement']);

/** Everything that has all words of a query in it, the closest first; nothing for an empty query. */
export function findAll(plan: Plan, query: string): Found[] {
  const wanted = query.toLowerCase().split(/\s+/).filter(Boolean);
  const [first] = wanted;
  if (first === undefined) return [];
  const rank = ({ name, words, kind }: Found): number => {
    const [lowerName, lowerWords] = [name.toLowerCase(), words.toLowerCase()];
    const text = `${lowerName} ${lowerWords}`;
    if (!wanted.every((word) => text.includes(word))) return -1;
    const lesser = kind === 'answer' || kind === 'condition' ? 4 : 0;
    if (lowerName === query.trim().toLowerCase()) return lesser;
    if (lowerName.startsWith(first)) return lesser + 1;
    return lesser + (lowerWords.split(/\W+/).some((word) => word.startsWith(first)) ? 2 : 3);
  };
  return entries(plan)
    .map((found, order) => ({ found, order, rank: rank(found) }))
    .filter(({ rank: of }) => of >= 0)
    .sort((a, b) => a.rank - b.rank || a.order - b.order)
    .map(({ found }) => found)
    .filter(
      // What has several texts is found once, by the one that fits best.
      (found, n, all) =>
        !ONCE.has(found.kind) ||
        all.findIndex((other) => other.kind === found.kind && other.selection === found.selection) === n,
    );
}

function entries({ document, sections }: Plan): Found[] {
  const found: Found[] = [];
  const letters = new Map(document.sections.map(({ id }, index) => [id, sectionLetter(index)]));
  const items = new Map(
    sections.flatMap((section) => section.items.map(({ item }) => [item.name, item.kind])),
  );
  eachProperty(document, ({ kind: holder, property: { holds }, value, at, within }) => {
    const { kind: part, name: own } = readAddress(at);
    if (part === 'study') return;
    const isRow = within !== null && 'row' in within;
    const mark = part === 'section' ? (letters.get(own) ?? own) : own;
    const add = (kind: Found['kind'], name: string, words: string) =>
      found.push({ kind, selection: at, name, words });
    switch (holds) {
      case 'condition':
      case 'expression':
        if (value !== '') add('condition', mark, String(value));
        return;
      case 'words':
      case 'piped words': {
        const inAnswer = within !== null || holder === 'answer';
        const kind =
          part === 'item' ? (inAnswer ? 'answer' : (items.get(own) ?? 'question')) : FOUND_AT[part];
        add(
          kind ?? 'around',
          isRow ? within.row : within === null ? mark : `${own} ${within.option}`,
          String(value),
        );
        return;
      }
      case 'id':
        if (part === 'ending') add('ending', own, endingLabel(document, own));
        return;
      default:
        return;
    }
  });
  return found;
}

/** What is found at the other parts that have words; what is not here stands around the questions. */
const FOUND_AT: Partial<Record<AddressKind, Found['kind']>> = { section: 'section', ending: 'ending' };
