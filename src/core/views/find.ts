/** Finding anything in a questionnaire by words of it: items, answers, codes, conditions, sections, endings, what stands around. */
import { address, type Address } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Skip } from '../document/types';
import { sectionLetter } from '../document/variables';
import { onwardList, type Plan } from '../routing/plan';
import { endingLabel } from '../wording/targets';

export interface Found {
  readonly kind: 'section' | 'question' | 'statement' | 'answer' | 'condition' | 'ending' | 'around';
  /** What to select. */
  readonly selection: Address;
  /** Variable name, code or letter. */
  readonly name: string;
  readonly words: string;
}

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
  return [...entries(plan)]
    .map((found, order) => ({ found, order, rank: rank(found) }))
    .filter(({ rank: of }) => of >= 0)
    .sort((a, b) => a.rank - b.rank || a.order - b.order)
    .map(({ found }) => found)
    .filter(
      // A question is found once, by its words or by its label.
      (found, n, all) =>
        found.kind !== 'question' ||
        all.findIndex((other) => other.kind === 'question' && other.selection === found.selection) === n,
    );
}

function* entries({ document, sections }: Plan): Generator<Found> {
  for (const { name, label } of document.given ?? [])
    yield { kind: 'around', selection: address('given', name), name, words: label };
  for (const { id, label, if: condition } of document.quotas ?? []) {
    yield { kind: 'around', selection: address('quota', id), name: id, words: label };
    yield { kind: 'condition', selection: address('quota', id), name: id, words: condition };
  }
  for (const { section, index, items } of sections) {
    const selection = address('section', section.id);
    const letter = sectionLetter(index);
    yield { kind: 'section', selection, name: letter, words: section.title };
    yield* conditions(selection, letter, [section.askIf, ...ifs(onwardList(section))]);
    for (const { item } of items) {
      const own = address('item', item.name);
      yield { kind: item.kind, selection: own, name: item.name, words: item.text };
      yield* conditions(own, item.name, [item.askIf, ...ifs(item.skips ?? [])]);
      if (item.kind === 'statement') continue;
      if (item.label !== undefined)
        yield { kind: 'question', selection: own, name: item.name, words: item.label };
      yield* conditions(
        own,
        item.name,
        (item.checks ?? []).map((check) => check.if),
      );
      for (const { code, label, askIf } of optionsOf(item.answer)) {
        yield { kind: 'answer', selection: own, name: `${item.name} ${code}`, words: label };
        yield* conditions(own, item.name, [askIf]);
      }
      if (item.answer.type !== 'grid') continue;
      for (const row of item.answer.rows)
        yield { kind: 'answer', selection: own, name: row.name, words: row.label };
    }
  }
  for (const derived of document.derived ?? []) {
    const selection = address('derived', derived.name);
    yield { kind: 'around', selection, name: derived.name, words: derived.label };
    const texts = 'cases' in derived ? derived.cases.map((entry) => entry.if) : [derived.value];
    yield* conditions(selection, derived.name, texts);
  }
  for (const { id, messages } of document.endings) {
    yield { kind: 'ending', selection: address('ending', id), name: id, words: endingLabel(document, id) };
    for (const { text } of messages)
      yield { kind: 'ending', selection: address('ending', id), name: id, words: text };
  }
}

function ifs(list: readonly Skip[]): (string | undefined)[] {
  return list.map((entry) => entry.if);
}

function* conditions(
  selection: Address,
  name: string,
  texts: readonly (string | undefined)[],
): Generator<Found> {
  for (const text of texts)
    if (text !== undefined && text !== '') yield { kind: 'condition', selection, name, words: text };
}
