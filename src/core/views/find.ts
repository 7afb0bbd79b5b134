/** Finding anything in a questionnaire by words of it: items, answers, codes, conditions, sections, endings, what stands around. */
import { type HolderKind } from '../document/properties';
import { eachProperty } from '../document/each-property';
import { readAddress, type Address } from '../document/addresses';
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

/** What is found where a kind of part has words; of any other it is what is found where it stands. */
const KINDS: Partial<Record<HolderKind, Found['kind']>> = {
  section: 'section',
  question: 'question',
  statement: 'statement',
  answer: 'answer',
  ending: 'ending',
};

function entries(plan: Plan): Found[] {
  const { document } = plan;
  const found: Found[] = [];
  let around: Found['kind'] = 'around';
  const sections = new Map(document.sections.map(({ id }, index) => [id, sectionLetter(index)]));
  eachProperty(document, ({ kind, property: { holds }, value, at, within }) => {
    const { kind: part, name: own } = readAddress(at);
    if (part === 'study') return;
    const isRow = within !== null && 'row' in within;
    const letter = part === 'section' ? (sections.get(own) ?? own) : own;
    const name = isRow ? within.row : within === null ? letter : `${own} ${within.option}`;
    // Parts come before what stands in them.
    if (['given', 'quota', 'derived'].includes(part)) around = 'around';
    else if (kind !== 'answer') around = KINDS[kind] ?? around;
    const as = within !== null && part === 'item' ? 'answer' : kind === 'answer' ? 'answer' : around;
    if (holds === 'condition' || holds === 'expression') {
      if (value !== '')
        found.push({ kind: 'condition', selection: at, name: isRow ? own : letter, words: String(value) });
    } else if (holds === 'words' || holds === 'piped words')
      found.push({ kind: as, selection: at, name, words: String(value) });
    else if (kind === 'ending' && holds === 'id')
      found.push({ kind: 'ending', selection: at, name: own, words: endingLabel(document, own) });
  });
  return found;
}
