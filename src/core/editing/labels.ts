/** Labels for the codebook, drawn from the words of the questions: many at once, each to be looked at. */
import { hasRows } from '../document/answer-types';
import type { Questionnaire } from '../document/types';
import { capital } from '../document/words';
import type { Change } from './change';

/** Longer ones are cut in tables and by programs that read the data. */
const LONGEST = 40;

/** What only turns a matter into a question; the matter follows. */
const LEADS = [
  /^(?:and|now|so|first|finally|lastly|overall|in general|please|could you tell (?:me|us)|(?:can|could) you say)\b,?\s*/i,
  /^(?:thinking (?:about|of|back)|looking back|in your (?:view|opinion))[^,]*,\s*/i,
  /^(?:do|does|did|have|has|had|are|is|was|were|would|will|can|could|should) (?:you|your household|anyone in your household|there(?: be)?) (?:ever |now |currently |usually )?/i,
  /^(?:what|which|who) (?:is|was|are|were) (?:the |your )?/i,
  /^which of (?:these|the following)\b\s*/i,
  /^(?:in|on|at) (?:what|which) (?!\w+ (?:do|does|did|have|has|had|is|are|was|were|will|would|can|could|should)\b)/i,
  /^(?:is|are|was|were|does|do|did|has|have) (?:this|that|the|your) /i,
  /^what (?=\w+ (?:of|is|are|was|were)\b)/i,
] as const;

/** A short label for a question's words; empty where nothing is left of them. */
export function shortLabel(text: string): string {
  const plain = text
    .replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
    .replace(/\{[^}]*\}/g, '…')
    .replace(/[*_`#>]+/g, '')
    .replace(/\([^)]*\)/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  // Where much is said, the question itself is the sentence that asks.
  const sentences = (plain.match(/[^.?!]+[.?!]*/g) ?? []).filter((sentence) =>
    /[\p{L}\p{N}]/u.test(sentence),
  );
  const asking = trimmed(sentences.findLast((sentence) => sentence.includes('?')) ?? sentences[0] ?? '');
  let words = asking;
  for (let before = ''; before !== words;) {
    before = words;
    for (const lead of LEADS) words = trimmed(words.replace(lead, ''));
    // All of it was asking: what stood before this cut stays.
    if (words === '') words = before;
  }
  // A verb that is left alone says nothing.
  if (!words.includes(' ') && asking.split(' ').length > 3) words = asking;
  return capital(trimmed(cut(words)));
}

function trimmed(words: string): string {
  return words.replace(/^[\s,;:.…?!-]+|[\s,;:.…?!-]+$/g, '');
}

/** At the end of a word, and not on one that only leads on to the next. */
function cut(words: string): string {
  if (words.length <= LONGEST) return words;
  const short = words.slice(0, LONGEST + 1).replace(/\s+\S*$/, '');
  return (
    short.replace(
      /(?:\s+(?:a|an|and|at|by|for|from|in|of|on|or|the|to|with|that|which|is|are|was|were|have|has|had|do|does|did|you|your))+$/i,
      '',
    ) || words.slice(0, LONGEST)
  );
}

/** Gives questions their labels, by name; empty ones are left without. */
export function labelAll(labels: ReadonlyMap<string, string>): Change {
  const given = [...labels].filter(([, label]) => label.trim() !== '');
  return {
    label: given.length === 1 ? `Label ${given[0]?.[0]}` : `Label ${given.length} variables`,
    apply: (draft) => {
      const byName = new Map(given);
      for (const { items } of draft.sections)
        for (const item of items) {
          const label = item.kind === 'question' ? byName.get(item.name) : undefined;
          if (item.kind === 'question' && label !== undefined) item.label = label.trim();
        }
    },
  };
}

/** Questions that have no label, with one that their words suggest, in order. */
export function labelsWanted({
  sections,
}: Questionnaire): { readonly name: string; readonly text: string; readonly label: string }[] {
  return sections.flatMap(({ items }) =>
    items.flatMap((item) =>
      // The variables of a grid are its rows.
      item.kind === 'question' && !hasRows(item.answer) && !item.label?.trim()
        ? [{ name: item.name, text: item.text, label: shortLabel(item.text) }]
        : [],
    ),
  );
}
